import type { Prep } from '#core/media/recipe.ts';

/** Keeps a prep under the name of what was done. */
export type Keep = (prep: Prep, name: string) => void;
/** Keeps a part of a prep under the name of what was done. */
export type Change = (part: Partial<Prep>, name: string) => void;

/** A row with sliders: a prep that is only looked at while one is moved, and a part that is kept. */
export interface DraftProps {
  readonly prep: Prep;
  readonly onDraft: (prep: Prep) => void;
  readonly change: Change;
}
