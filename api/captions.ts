import * as v from 'valibot';
import { CuesSchema, TRACK_KINDS } from '#core/film/cue.ts';

/** The captions, chapters or transcript of a film in one language. */
export const CaptionTrackSchema = v.object({
  kind: v.picklist(TRACK_KINDS),
  language: v.string(),
  version: v.number(),
  cues: CuesSchema,
});
export type CaptionTrack = v.InferOutput<typeof CaptionTrackSchema>;
export const CaptionTracksSchema = v.array(CaptionTrackSchema);

export const SaveCaptionsSchema = v.strictObject({
  cues: v.pipe(
    CuesSchema,
    v.minLength(1, 'There is nothing in it. Nothing was kept.'),
    v.check((cues) => cues.every(({ from, to }) => to > from), 'Each caption ends after it begins.'),
    v.check(
      (cues) => cues.every(({ from }, at) => at === 0 || from >= (cues[at - 1]?.from ?? 0)),
      'Captions come in the order of time.',
    ),
  ),
});
