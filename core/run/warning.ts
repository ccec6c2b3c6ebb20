import * as v from 'valibot';
import { ASSET_KINDS } from '../page/piece.ts';

/** What a person should know of one row before a run is begun. Sizes in px. */
export const RunWarningSchema = v.variant('code', [
  v.strictObject({ code: v.literal('name-taken'), wished: v.string(), given: v.string() }),
  v.strictObject({ code: v.literal('name-fault'), says: v.string(), stem: v.string() }),
  v.strictObject({ code: v.literal('was-out'), stem: v.string() }),
  v.strictObject({ code: v.literal('too-small'), wanted: v.array(v.number()) }),
  v.strictObject({ code: v.literal('no-changes'), licence: v.string() }),
  v.strictObject({ code: v.literal('no-picture'), kind: v.picklist(ASSET_KINDS) }),
  v.strictObject({ code: v.literal('png-for-jpeg') }),
  v.strictObject({ code: v.literal('stills') }),
  /** `why` is empty in runs from before it was said. */
  v.strictObject({ code: v.literal('not-cleared'), why: v.optional(v.string(), '') }),
]);
export type RunWarning = v.InferOutput<typeof RunWarningSchema>;

/** Whether a name was written that cannot be one: a run waits for it to be mended. */
export const isNameFault = ({ code }: RunWarning) => code === 'name-fault';

/** Which part of a row a warning is about. */
export function warningPlace({ code }: RunWarning): 'name' | 'sizes' {
  return code === 'name-taken' || code === 'name-fault' || code === 'was-out' ? 'name' : 'sizes';
}

/** Whether somebody should look at it; the others are only worth knowing. */
export function needsLook({ code }: RunWarning): boolean {
  return code !== 'was-out' && code !== 'png-for-jpeg' && code !== 'stills' && code !== 'no-picture';
}

export function sayRunWarning(warning: RunWarning): string {
  switch (warning.code) {
    case 'name-taken':
      return `${warning.wished} is in use. Add a word to tell it apart`;
    case 'name-fault':
      return `${warning.says} It stays ${warning.stem}.`;
    case 'was-out':
      return `Readers have it as ${warning.stem}; that name goes on to the new one.`;
    case 'too-small':
      return `Too small for ${warning.wanted.join(' and ')}, left at its own pixels.`;
    case 'no-changes':
      return `${warning.licence} forbids changes: left whole and as it is.`;
    case 'no-picture':
      return `It is ${warning.kind === 'embed' ? 'an embed' : `a ${warning.kind}`}: named and filed, and nothing is cut of it.`;
    case 'png-for-jpeg':
      return 'Transparent, so PNG in place of JPEG.';
    case 'stills':
      return 'Moves as WebP; the other formats are stills.';
    case 'not-cleared':
      return warning.why || 'Not cleared: its licence is not said, or lets nobody publish it.';
  }
}
