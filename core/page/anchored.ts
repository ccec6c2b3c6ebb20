import type { HeadingLevel } from './blocks/heading/schema.ts';

/** A heading of a page as a place on it that a link can lead to. */
export interface Anchored {
  /** The ID of its block. */
  readonly id: string;
  /** What follows the # in the address. */
  readonly anchor: string;
  readonly level: HeadingLevel;
  readonly words: string;
}
