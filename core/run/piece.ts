import type { Piece } from '../page/piece.ts';

/** What a run has to know of a piece. `isOut` when its name stands on a page that went out. */
export type RunPiece = Piece & {
  readonly folder: string;
  readonly format: string;
  readonly originalName: string;
  readonly isOut: boolean;
};
