import type { Block } from './blocks/block.ts';
import type { RoomContext } from './blocks/kind.ts';
import { kindOf } from './blocks/kinds.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { type Inline, plainText } from './inline.ts';
import { columnRoom, type Room } from './room.ts';
import { type Standing, standsIn } from './standing.ts';

/** Whatever holds blocks as a page does. */
interface Holder {
  readonly blocks: readonly Block[];
}

/** The blocks that stand in a block; none in most. */
export function blocksIn(block: Block): readonly Block[] {
  return kindOf(block).inside?.of(block) ?? [];
}

/** All blocks of a page in reading order, what holds others before what it holds. */
export function* walkPage({ blocks }: Holder): Generator<Block, void> {
  for (const block of blocks) {
    yield block;
    yield* walkPage({ blocks: blocksIn(block) });
  }
}

/** All placements of a page, at any depth, in reading order. */
export function placementsOf({ blocks }: Holder): readonly Placement[] {
  return blocks.flatMap(placementsIn);
}

/** A block never changes: what was found in it is remembered, since a page is asked for its placements at each pause of typing. */
const placementsFound = new WeakMap<Block, readonly Placement[]>();

function placementsIn(block: Block): readonly Placement[] {
  const known = placementsFound.get(block);
  if (known) return known;
  const found = block.type === 'placement' ? [block.attrs] : blocksIn(block).flatMap(placementsIn);
  placementsFound.set(block, found);
  return found;
}

export function placementById(page: Holder, id: string): Placement | undefined {
  return placementsOf(page).find((placement) => placement.id === id);
}

/** As `walkPage`, each block with the room that it stands in. */
export function* walkRooms(
  { blocks }: Holder,
  context: RoomContext,
  roomAt: (at: number) => Room = () => columnRoom(context.rules),
): Generator<{ readonly block: Block; readonly room: Room }, void> {
  for (const [at, block] of blocks.entries()) {
    const room = roomAt(at);
    yield { block, room };
    const { inside } = kindOf(block);
    if (inside)
      yield* walkRooms({ blocks: inside.of(block) }, context, (place) =>
        inside.room(room, block, context, place),
      );
  }
}

/** A block with all that it stands in, from the outermost; empty where there is none of that ID. */
export function wayTo({ blocks }: Holder, id: string): readonly Block[] {
  for (const block of blocks) {
    if (block.attrs.id === id) return [block];
    const way = wayTo({ blocks: blocksIn(block) }, id);
    if (way.length > 0) return [block, ...way];
  }
  return [];
}

/**
 * The page with each block as `change` makes it, at any depth, after what stands in it; null takes it out. The very same
 * page when nothing is changed.
 */
export function withBlocks<P extends { readonly blocks: Block[] }>(
  page: P,
  change: (block: Block) => Block | null,
): P {
  const blocks = changed(page.blocks, change);
  return blocks === page.blocks ? page : { ...page, blocks: [...blocks] };
}

function changed(blocks: readonly Block[], change: (block: Block) => Block | null): readonly Block[] {
  const after = blocks.flatMap((block) => change(withInside(block, change)) ?? []);
  return after.length === blocks.length && after.every((block, at) => block === blocks[at]) ? blocks : after;
}

function withInside(block: Block, change: (block: Block) => Block | null): Block {
  const { inside } = kindOf(block);
  if (!inside) return block;
  const before = inside.of(block);
  const after = changed(before, change);
  return after === before ? block : inside.with(block, after);
}

/** The page with one placement changed; the very same page when there is none of that ID. */
export function withPlacement<P extends { readonly blocks: Block[] }>(
  page: P,
  placementId: string,
  change: Partial<Placement>,
): P {
  return withBlocks(page, (block) =>
    block.type === 'placement' && block.attrs.id === placementId
      ? { ...block, attrs: { ...block.attrs, ...change } }
      : block,
  );
}

/** The page without a block and what stands in it. */
export function withoutBlock<P extends { readonly blocks: Block[] }>(page: P, blockId: string): P {
  return withBlocks(page, (block) => (block.attrs.id === blockId ? null : block));
}

/** All placements of a page, each with its room on a target, in reading order. */
export function standingsOf(page: Holder, context: RoomContext): readonly Standing[] {
  return [...walkRooms(page, context)].flatMap(({ block, room }) =>
    block.type === 'placement' ? [{ placement: standsIn(block.attrs, room), room }] : [],
  );
}

/** How a placement stands on a page; in the column where it is not there yet. */
export function standingOn(page: Holder, context: RoomContext, placement: Placement): Standing {
  return (
    standingsOf(page, context).find(({ placement: { id } }) => id === placement.id) ?? {
      placement,
      room: columnRoom(context.rules),
    }
  );
}

/** How many words a page says, without those that its pieces say. */
export function countWords(page: Holder): number {
  return runsOf(page).reduce((sum, run) => sum + plainText(run).split(/\s+/u).filter(Boolean).length, 0);
}

/** All runs of words of a page, in reading order. */
export function runsOf(page: Holder): readonly (readonly Inline[])[] {
  return [...walkPage(page)].flatMap((block) =>
    kindOf(block)
      .words(block)
      .map((run) => run ?? []),
  );
}
