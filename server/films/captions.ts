import { and, asc, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { CaptionTrack } from '#api/captions.ts';
import { mayChangePiece, type Person } from '#api/people.ts';
import { captionsName } from '#core/film/captions-name.ts';
import { type Cue, CuesSchema, TRACK_KINDS, type TrackKind, writeVtt } from '#core/film/cue.ts';
import { cuesInSilence, HeardSchema } from '#core/film/heard.ts';
import { keptSpans, madeOf } from '#core/film/recipe.ts';
import type { FilmText } from '#core/page/piece.ts';
import { LanguageTagSchema } from '#core/words/language-tag.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { captionTracks, films } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { findAsset } from '../shelf/change.ts';
import { filmOf } from '../shelf/own-file.ts';
import type { AssetRow } from '../shelf/present.ts';
import { recipeOf } from './made-store.ts';

type Row = typeof captionTracks.$inferSelect;

/** All captions, chapters and transcripts of a film, by language. */
export async function readTracks({ db }: Pick<Context, 'db'>, assetId: string): Promise<CaptionTrack[]> {
  const rows = await db
    .select()
    .from(captionTracks)
    .where(eq(captionTracks.assetId, assetId))
    .orderBy(asc(captionTracks.kind), asc(captionTracks.language));
  return rows.map(present);
}

export function trackKind(text: string): TrackKind {
  const kind = TRACK_KINDS.find((one) => one === text);
  if (!kind) throw notFound('This track');
  return kind;
}

function present({ kind, language, version, cues }: Row): CaptionTrack {
  const read = v.safeParse(CuesSchema, cues);
  return { kind, language, version, cues: read.success ? read.output : [] };
}

/** The captions of a film in a language as a file; null where it has none. */
export async function vttOf(
  { db }: Pick<Context, 'db'>,
  row: Pick<AssetRow, 'id' | 'film' | 'recipe'>,
  { kind, language, as }: TrackName & { readonly as: 'whole' | 'made' },
): Promise<string | null> {
  const [track] = await db.select().from(captionTracks).where(isTrack(row.id, { kind, language }));
  if (!track) return null;
  const { cues } = present(track);
  return writeVtt(as === 'made' ? cuesOut(row, cues) : cues);
}

/** Captions as they are seen on what is made of a film: what is left out of it is left out of them. */
function cuesOut(row: Pick<AssetRow, 'film' | 'recipe'>, cues: readonly Cue[]): readonly Cue[] {
  const film = filmOf(row);
  return film ? madeOf(keptSpans(recipeOf(row), film.seconds), cues) : cues;
}

/** The chapters and the transcripts of a film, as they lie in what is made of it. */
export async function textsOf(
  context: Pick<Context, 'db'>,
  row: Pick<AssetRow, 'id' | 'kind' | 'film' | 'recipe' | 'chapters' | 'transcripts'>,
): Promise<readonly FilmText[]> {
  if (row.kind !== 'film' || (row.chapters ?? []).length + (row.transcripts ?? []).length === 0) return [];
  const tracks = await readTracks(context, row.id);
  return tracks.flatMap(({ kind, language, cues }) => {
    if (kind === 'captions') return [];
    // What is read needs no place in time.
    return [{ kind, language, cues: kind === 'chapters' ? cuesOut(row, cues) : cues }];
  });
}

/** The files of captions that go along with a film. */
export async function captionFiles(
  context: Pick<Context, 'db'>,
  row: Pick<AssetRow, 'id' | 'stem' | 'film' | 'recipe'>,
): Promise<readonly { readonly name: string; readonly text: string }[]> {
  const tracks = await readTracks(context, row.id);
  return tracks.flatMap(({ kind, language, cues }) =>
    kind === 'transcript'
      ? []
      : [{ name: captionsName(row.stem, language, kind), text: writeVtt(cuesOut(row, cues)) }],
  );
}

interface TrackName {
  readonly kind: TrackKind;
  readonly language: string;
}

const isTrack = (assetId: string, { kind, language }: TrackName) =>
  and(eq(captionTracks.assetId, assetId), eq(captionTracks.kind, kind), eq(captionTracks.language, language));

interface Track extends TrackName {
  readonly version: number;
  readonly cues: readonly Cue[];
}

/** Keeps the captions of a film in a language. On another version than the one that stands they are refused, and nothing is lost. */
export async function saveTrack(
  context: Context,
  assetId: string,
  { kind, language, version, cues }: Track,
  person: Person,
  now: Date,
): Promise<CaptionTrack> {
  const tag = languageOf(language);
  const name = { kind, language: tag };
  await assertFilm(context, assetId, person);
  await context.db.transaction(async (tx) => {
    const [row] = await tx.select().from(captionTracks).where(isTrack(assetId, name)).for('update');
    if ((row?.version ?? 0) !== version)
      throw new HttpProblem(
        412,
        'Somebody has changed these captions meanwhile. Nothing of theirs was written over: look at theirs, and save yours again.',
      );
    const set = { cues: [...cues], version: version + 1, updatedAt: now, updatedBy: person.id };
    await tx
      .insert(captionTracks)
      .values({ assetId, ...name, ...set })
      .onDuplicateKeyUpdate({ set });
    await noteLanguages(tx, assetId);
    const change = { personId: person.id, subject: 'asset', subjectId: assetId } as const;
    const after = { language: tag, lines: cues.length };
    await writeActivity(tx, { ...change, what: `changed its ${kind}`, before: null, after }, now);
  });
  return { ...name, version: version + 1, cues: [...cues] };
}

export async function removeTrack(
  context: Context,
  assetId: string,
  { kind, language }: TrackName,
  person: Person,
  now: Date,
): Promise<void> {
  await assertFilm(context, assetId, person);
  await context.db.transaction(async (tx) => {
    await tx.delete(captionTracks).where(isTrack(assetId, { kind, language: languageOf(language) }));
    await noteLanguages(tx, assetId);
    const change = { personId: person.id, subject: 'asset', subjectId: assetId } as const;
    await writeActivity(
      tx,
      { ...change, what: `removed its ${kind}`, before: { language }, after: null },
      now,
    );
  });
}

/** Which languages there are, and which are out of step, stands with the film, so that a list of pieces need not read every line. */
export async function noteLanguages(db: Queries, assetId: string): Promise<void> {
  const [film] = await db.select({ heard: films.heard }).from(films).where(eq(films.assetId, assetId));
  const heard = v.safeParse(HeardSchema, film?.heard);
  const rows = await db
    .select()
    .from(captionTracks)
    .where(eq(captionTracks.assetId, assetId))
    .orderBy(asc(captionTracks.language));
  await db
    .update(films)
    .set({
      captions: languagesOf(rows, 'captions'),
      chapters: languagesOf(rows, 'chapters'),
      transcripts: languagesOf(rows, 'transcript'),
      outOfStep: languagesOf(
        rows.filter(
          (row) => heard.success && cuesInSilence(present(row).cues, heard.output.silences).length > 0,
        ),
        'captions',
      ),
    })
    .where(eq(films.assetId, assetId));
}

const languagesOf = (rows: readonly Row[], kind: TrackKind): string[] =>
  rows.filter((row) => row.kind === kind).map(({ language }) => language);

function languageOf(text: string): string {
  const read = v.safeParse(LanguageTagSchema, text);
  if (read.success) return read.output.toLowerCase();
  throw new HttpProblem(422, 'Say the language as a tag, such as en or cy. Nothing was kept.');
}

async function assertFilm(context: Context, assetId: string, person: Person): Promise<void> {
  const row = await findAsset(context, assetId);
  if (row.kind !== 'film') throw notFound('This film');
  if (!mayChangePiece(person, row.createdBy))
    throw new HttpProblem(403, 'Somebody else handed it in: an editor says what is said in it.');
}
