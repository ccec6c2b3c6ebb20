import { and, asc, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { CaptionTrack } from '#api/captions.ts';
import { mayChangePiece, type Person } from '#api/people.ts';
import { captionsName } from '#core/film/captions-name.ts';
import { type Cue, CuesSchema, writeVtt } from '#core/film/cue.ts';
import { LanguageTagSchema } from '#core/words/language-tag.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { captionTracks, films } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { findAsset } from '../shelf/change.ts';

type Row = typeof captionTracks.$inferSelect;

/** All captions of a film, by language. */
export async function readTracks({ db }: Pick<Context, 'db'>, assetId: string): Promise<CaptionTrack[]> {
  const rows = await db
    .select()
    .from(captionTracks)
    .where(eq(captionTracks.assetId, assetId))
    .orderBy(asc(captionTracks.language));
  return rows.map(present);
}

function present({ language, version, cues }: Row): CaptionTrack {
  const read = v.safeParse(CuesSchema, cues);
  return { language, version, cues: read.success ? read.output : [] };
}

/** The captions of a film in a language as a file; null where it has none. */
export async function vttOf(
  { db }: Pick<Context, 'db'>,
  assetId: string,
  language: string,
): Promise<string | null> {
  const [row] = await db.select().from(captionTracks).where(isTrack(assetId, language));
  return row ? writeVtt(present(row).cues) : null;
}

/** The files of captions that go along with a film. */
export async function captionFiles(
  context: Pick<Context, 'db'>,
  { id, stem }: { readonly id: string; readonly stem: string },
): Promise<readonly { readonly name: string; readonly text: string }[]> {
  const tracks = await readTracks(context, id);
  return tracks.map(({ language, cues }) => ({ name: captionsName(stem, language), text: writeVtt(cues) }));
}

const isTrack = (assetId: string, language: string) =>
  and(eq(captionTracks.assetId, assetId), eq(captionTracks.language, language));

interface Track {
  readonly language: string;
  readonly version: number;
  readonly cues: readonly Cue[];
}

/** Keeps the captions of a film in a language. On another version than the one that stands they are refused, and nothing is lost. */
export async function saveTrack(
  context: Context,
  assetId: string,
  { language, version, cues }: Track,
  person: Person,
  now: Date,
): Promise<CaptionTrack> {
  const tag = languageOf(language);
  await assertFilm(context, assetId, person);
  await context.db.transaction(async (tx) => {
    const [row] = await tx.select().from(captionTracks).where(isTrack(assetId, tag)).for('update');
    if ((row?.version ?? 0) !== version)
      throw new HttpProblem(
        412,
        'Somebody has changed these captions meanwhile. Nothing of theirs was written over: look at theirs, and save yours again.',
      );
    const set = { cues: [...cues], version: version + 1, updatedAt: now, updatedBy: person.id };
    await tx
      .insert(captionTracks)
      .values({ assetId, language: tag, ...set })
      .onDuplicateKeyUpdate({ set });
    await noteLanguages(tx, assetId);
    const change = { personId: person.id, subject: 'asset', subjectId: assetId } as const;
    const after = { language: tag, lines: cues.length };
    await writeActivity(tx, { ...change, what: 'changed its captions', before: null, after }, now);
  });
  return { language: tag, version: version + 1, cues: [...cues] };
}

export async function removeTrack(
  context: Context,
  assetId: string,
  language: string,
  person: Person,
  now: Date,
): Promise<void> {
  await assertFilm(context, assetId, person);
  await context.db.transaction(async (tx) => {
    await tx.delete(captionTracks).where(isTrack(assetId, languageOf(language)));
    await noteLanguages(tx, assetId);
    const change = { personId: person.id, subject: 'asset', subjectId: assetId } as const;
    await writeActivity(
      tx,
      { ...change, what: 'removed its captions', before: { language }, after: null },
      now,
    );
  });
}

/** Which languages there are stands with the film, so that a list of pieces need not read every line. */
async function noteLanguages(db: Queries, assetId: string): Promise<void> {
  const rows = await db
    .select({ language: captionTracks.language })
    .from(captionTracks)
    .where(eq(captionTracks.assetId, assetId))
    .orderBy(asc(captionTracks.language));
  await db
    .update(films)
    .set({ captions: rows.map(({ language }) => language) })
    .where(eq(films.assetId, assetId));
}

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
