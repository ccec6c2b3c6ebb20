import * as v from 'valibot';
import { HeardSchema } from '#core/film/heard.ts';
import { JobSchema } from './jobs.ts';

/** Captions that lie inside a film, as WebVTT. */
export const CaptionsInsideSchema = v.object({ text: v.string() });

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
