import type { Found } from '../../proof/finding.ts';
import type { Anchored } from '../anchored.ts';
import type { Inline } from '../inline.ts';
import type { Piece } from '../piece.ts';
import type { ReadElement } from '../reading.ts';
import type { Room } from '../room.ts';
import type { HouseRules } from '../target.ts';
import type { BlockContext } from '../write-context.ts';
import type { Block } from './block.ts';

/** What of House rules decides how wide something is. */
type RoomRules = Pick<HouseRules, 'column' | 'gutter' | 'breakout' | 'stackBelow'>;

/** What decides in which room something stands: measures, and the shapes of pieces that share a row. */
export interface RoomContext {
  readonly rules: RoomRules;
  readonly pieces: ReadonlyMap<string, Piece>;
}

/** What a block is judged by. */
interface FindingContext extends RoomContext {
  readonly rules: HouseRules;
  readonly headings: readonly Anchored[];
}

/** How blocks stand in a block that holds others. */
interface Inside<B extends Block> {
  of(block: B): readonly Block[];
  /** The same block with others in it. */
  with(block: B, blocks: readonly Block[]): B;
  /** The room that it hands down to the block in it at a place, of the room that it stands in itself. */
  room(room: Room, block: B, context: RoomContext, at: number): Room;
}

/**
 * All that is particular to one kind of block. The rest of Placard walks over pages (`walk.ts`) and asks the kinds (`kinds.ts`);
 * it never lists them.
 */
export interface BlockKind<B extends Block> {
  /** It as one element of HTML; the empty text where it does not go out: what says nothing, and pieces that are gone. */
  write(block: B, context: BlockContext): string;
  /** The runs of words that it says itself, without those of blocks in it. */
  words(block: B): readonly (readonly Inline[] | undefined)[];
  /** Faults that it has by itself, in the room that it stands in. */
  findings?(block: B, room: Room, context: FindingContext): readonly Found[];
  /** The blocks in it, for kinds that hold others. */
  readonly inside?: Inside<B>;
  /** The style of its own classes, which goes out with pages that hold one; what text has anyway is in `style-sheet.ts`. */
  readonly style?: (rules: HouseRules) => string;
  /** The elements of HTML that become one, by name or by name and class ("div.columns"), each with how it is read. */
  readonly reads?: Readonly<Record<string, ReadElement>>;
}
