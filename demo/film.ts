import { rename } from 'node:fs/promises';
import { eq } from 'drizzle-orm';
import type { Cue, TrackKind } from '#core/film/cue.ts';
import { WHOLE_FILM } from '#core/film/recipe.ts';
import type { Context } from '../server/context.ts';
import { captionTracks, films } from '../server/db/schema.ts';
import { noteLanguages } from '../server/films/captions.ts';
import { orderMaking } from '../server/films/order.ts';
import { runProgram } from '../server/foreign/program.ts';

/** What is filmed of a painting: a slow look across it, with somebody speaking now and then. */
export interface DemoFilm {
  readonly seconds: number;
  /** In milliseconds of what is left out at its beginning. */
  readonly from: number;
  readonly tracks: readonly {
    readonly kind: TrackKind;
    readonly language: string;
    readonly cues: readonly Cue[];
  }[];
}

const LIMITS = { millis: 120_000, bytes: 4_000_000_000, answerBytes: 100_000 };
const LEAST_WIDTH = 320;

/** The file of a film beside the painting that it is made of, made once. */
export async function filmPiece(
  { width, film }: { readonly width: number; readonly film: DemoFilm },
  painting: string,
  share: number,
): Promise<string> {
  const path = painting.replace(/\.\w+$/, '.mp4');
  const wide = Math.max(LEAST_WIDTH, Math.round((width * share) / 32) * 32);
  const high = (wide * 9) / 16;
  const pan = `scale=${Math.round(wide * 1.2)}:-2,crop=${wide}:${high}:x='(in_w-${wide})*t/${film.seconds}':y='(in_h-${high})/2'`;
  const said = film.tracks
    .filter(({ kind, language }) => kind === 'captions' && language === 'en')
    .flatMap(({ cues }) => cues.map(({ from, to }) => `between(t,${from / 1000},${to / 1000})`));
  const voice = `(${said.join('+')})*0.16*(0.55+0.45*sin(2*PI*3.3*t))*(sin(2*PI*140*t)+0.6*sin(2*PI*420*t)+0.35*random(0))`;
  const temporary = path.replace(/\.mp4$/, '.part.mp4');
  await runProgram(
    'ffmpeg',
    [
      ...['-nostdin', '-v', 'error', '-loop', '1', '-framerate', '25', '-i', painting],
      ...['-f', 'lavfi', '-i', `aevalsrc='${voice}':s=48000`],
      ...['-f', 'lavfi', '-i', 'anoisesrc=color=brown:amplitude=0.012:sample_rate=48000'],
      ...['-filter_complex', `[0:v]${pan},format=yuv420p[v];[1:a][2:a]amix=inputs=2:normalize=0[a]`],
      ...['-map', '[v]', '-map', '[a]', '-t', String(film.seconds)],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '17', '-c:a', 'aac', '-b:a', '96k'],
      ...['-movflags', '+faststart', '-y', temporary],
    ],
    LIMITS,
  );
  await rename(temporary, path);
  return path;
}

/** What people have said of a film since it came in. */
export async function sayFilm(
  { db }: Pick<Context, 'db'>,
  { by, film }: { readonly by: string; readonly film: DemoFilm },
  { id, title }: { readonly id: string; readonly title: string },
  now: Date,
): Promise<void> {
  const recipe = { ...WHOLE_FILM, from: film.from };
  await db.transaction(async (tx) => {
    for (const { kind, language, cues } of film.tracks)
      await tx
        .insert(captionTracks)
        .ignore()
        .values({
          assetId: id,
          kind,
          language,
          cues: [...cues],
          version: 1,
          updatedAt: now,
          updatedBy: by,
        });
    await noteLanguages(tx, id);
    await tx.update(films).set({ recipe }).where(eq(films.assetId, id));
    await orderMaking(tx, { assetId: id, title, recipe, personId: by }, now);
  });
}
