import type { Block } from '../blocks/block.ts';
import { kindOf } from '../blocks/kinds.ts';
import type { PageDoc } from '../model.ts';
import { blocksIn } from '../walk.ts';
import { writeForSource } from '../write.ts';
import type { WriteContext } from '../write-context.ts';

/** Blocks with what each says in source; the IDs in it are left away, so that what says the same is told by it. */
interface Said {
  readonly block: Block;
  readonly source: string;
}

function saidBy(page: PageDoc, context: Pick<WriteContext, 'rules' | 'pieces'>): readonly Said[] {
  const sources = writeForSource(page, context);
  return page.blocks.map((block, at) => ({
    block,
    source: (sources[at] ?? '').replace(/ data-block="[^"]*"/g, ''),
  }));
}

/**
 * Blocks that were read, as those of the page where they say the same, in their order; between two of these, what says
 * otherwise has the ID of what stood there. Blocks of the page that source does not show stay behind what they followed.
 * Linear in the blocks, but for places where very many say the same.
 */
export function kept(
  page: PageDoc,
  read: readonly Block[],
  context: Pick<WriteContext, 'rules' | 'pieces'>,
): Block[] {
  const before = saidBy(page, context);
  const after = saidBy({ ...page, blocks: [...read] }, context);
  const pairs = pairsOf(
    before.map(({ source }) => source),
    after.map(({ source }) => source),
  );
  const moved = movedBlocks(before, after, pairs);
  const out: Block[] = [];
  let [old, next] = [0, 0];
  for (const [oldAt, nextAt] of [...pairs, [before.length, after.length] as const]) {
    const gone = before.slice(old, oldAt).filter(({ block }) => !moved.isTaken(block));
    out.push(...between(gone, after.slice(next, nextAt), moved.of));
    const same = before[oldAt];
    if (same) out.push(same.block);
    [old, next] = [oldAt + 1, nextAt + 1];
  }
  return out;
}

/** What stands in the place of blocks that are gone or changed; those that source never showed stay. */
function between(
  gone: readonly Said[],
  changed: readonly Said[],
  movedOf: (block: Block) => Block | undefined,
): Block[] {
  const shown = gone.filter(({ source }) => source !== '').map(({ block }) => block);
  const hidden = gone.filter(({ source }) => source === '').map(({ block }) => block);
  const named = withIdsOf(
    changed.flatMap(({ block }) => (movedOf(block) ? [] : [block])),
    shown,
  );
  const whole = changed.map(({ block }) => movedOf(block) ?? named.shift() ?? block);
  return [...whole, ...hidden];
}

/** The blocks that say what they said, and stand elsewhere: each is the block of the page that said it. */
function movedBlocks(
  before: readonly Said[],
  after: readonly Said[],
  pairs: readonly (readonly [number, number])[],
) {
  const [pairedOld, pairedNew] = [new Set(pairs.map(([old]) => old)), new Set(pairs.map(([, next]) => next))];
  const free = new Map<string, Block[]>();
  for (const [at, { block, source }] of before.entries())
    if (!pairedOld.has(at) && source !== '') free.set(source, [...(free.get(source) ?? []), block]);
  const moved = new Map<Block, Block>();
  for (const [at, { block, source }] of after.entries()) {
    const old = pairedNew.has(at) ? undefined : free.get(source)?.shift();
    if (old) moved.set(block, old);
  }
  const taken = new Set(moved.values());
  return { of: (block: Block) => moved.get(block), isTaken: (block: Block) => taken.has(block) };
}

/** Blocks with the IDs of others of their type, one after the other, and so with what stands in them. */
function withIdsOf(blocks: readonly Block[], others: readonly Block[]): Block[] {
  let from = 0;
  return blocks.map((block) => {
    const at = others.findIndex((other, index) => index >= from && other.type === block.type);
    const other = others[at];
    // A piece is known by its sign, wherever it stands.
    if (!other || block.type === 'placement') return block;
    from = at + 1;
    return withIdOf(block, other);
  });
}

function withIdOf(block: Block, other: Block): Block {
  const named = { ...block, attrs: { ...block.attrs, id: other.attrs.id } } as Block;
  const { inside } = kindOf(named);
  return inside ? inside.with(named, withIdsOf(inside.of(named), blocksIn(other))) : named;
}

/** The places of what is the same in both lists, in order: heads and tails first, then each by the next that says it. */
function pairsOf(
  before: readonly string[],
  after: readonly string[],
): readonly (readonly [number, number])[] {
  const pairs: (readonly [number, number])[] = [];
  let head = 0;
  while (head < before.length && head < after.length && before[head] === after[head]) {
    pairs.push([head, head]);
    head += 1;
  }
  let tail = 0;
  while (
    tail < before.length - head &&
    tail < after.length - head &&
    before[before.length - 1 - tail] === after[after.length - 1 - tail]
  )
    tail += 1;
  const places = new Map<string, number[]>();
  for (let at = head; at < before.length - tail; at += 1) {
    const said = before[at] ?? '';
    if (said === '') continue;
    const known = places.get(said);
    if (known) known.push(at);
    else places.set(said, [at]);
  }
  let last = head - 1;
  for (let at = head; at < after.length - tail; at += 1) {
    const found = (places.get(after[at] ?? '') ?? []).find((place) => place > last);
    if (found === undefined) continue;
    pairs.push([found, at]);
    last = found;
  }
  for (let at = tail; at > 0; at -= 1) pairs.push([before.length - at, after.length - at]);
  return pairs;
}
