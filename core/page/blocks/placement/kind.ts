import { standsIn } from '../../standing.ts';
import type { BlockKind } from '../kind.ts';
import { readFigure } from '../quotation/read.ts';
import { readPlaced } from './read.ts';
import type { PlacedBlock } from './schema.ts';
import { writePlacement } from './write.ts';

/** One use of a piece (HTML, `figure`). What its style needs to know of the page is in `style.ts`. */
export const placement: BlockKind<PlacedBlock> = {
  write: ({ attrs }, context) => writePlacement(standsIn(attrs, context.room), context),
  words: () => [],
  reads: { 'figure.placed': readPlaced(readFigure) },
};
