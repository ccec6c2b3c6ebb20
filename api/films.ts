import * as v from 'valibot';
import { HeardSchema } from '#core/film/heard.ts';
import { JobSchema } from './jobs.ts';

/** Captions that lie inside a film, as WebVTT. */
export const CaptionsInsideSchema = v.object({ text: v.string() });

/** Who sees a film at its host: everybody, those who have its address, nobody else. */
export const VISIBILITIES = ['public', 'by-link', 'private'] as const;

const FilmHostSchema = v.object({ id: v.string(), name: v.string(), isReady: v.boolean() });
/** A host that takes films, and whether the house is known there. */
export type FilmHost = v.InferOutput<typeof FilmHostSchema>;
export const FilmHostsSchema = v.array(FilmHostSchema);

export const MoveFilmSchema = v.strictObject({
  host: v.pipe(v.string(), v.maxLength(40)),
  visibility: v.picklist(VISIBILITIES),
});
export const HostTokenSchema = v.strictObject({ token: v.pipe(v.string(), v.trim(), v.maxLength(2000)) });

/** The work on a film: what was heard in it, and how far its making is. */
export const FilmWorkSchema = v.object({
  /** Null while nobody has listened to it, and for a film without sound. */
  heard: v.nullable(HeardSchema),
  /** How loud it is over its length, a letter for each moment (`core/film/wave.ts`). */
  wave: v.string(),
  /** Null for one that nobody has ordered to be made. */
  job: v.nullable(v.omit(JobSchema, ['file', 'bytes'])),
});
export type FilmWork = v.InferOutput<typeof FilmWorkSchema>;
