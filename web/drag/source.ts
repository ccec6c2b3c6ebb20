import type { Dragged } from './dragged.ts';

/** Something that can be dragged, or carried by keys. */
export interface Source {
  readonly dragged: Dragged;
  /** What it is called while it is moved: "Heron at dawn", "3 pieces". */
  readonly words: string;
  readonly isMovable: boolean;
}
