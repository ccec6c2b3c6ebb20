import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { AnyBlockSchema, type Block } from './blocks/block.ts';
import { type InPart, isInPart, type KeptPart } from './blocks/kept-part/schema.ts';
import { kindOf } from './blocks/kinds.ts';
import type { PageDoc } from './model.ts';
import { blocksIn, placementsOf, walkPage, withBlocks } from './walk.ts';

/** The parts that stand on a page, by their IDs. */
export function partsOn(page: { readonly blocks: readonly Block[] }): ReadonlySet<string> {
  return new Set(
    [...walkPage(page)].flatMap((block) =>
      block.type === 'keptPart' && block.attrs.part !== '' ? [block.attrs.part] : [],
    ),
  );
}

/** Letters of an ID that come from the block that holds it, and from what is kept. */
const [OF_HOLDER, OF_KEPT] = [24, 39];

/**
 * What is kept, as it stands in a block of a page: each block under an ID made of that block's and its own. So a part that
 * changes everywhere is, on each page, the same blocks that are changed, and not others in their place. The page that a part
 * was set apart on, or that a block of it comes from, has that block under the very ID that is kept: it stays (`standing`), or
 * whoever has that page open would have the block twice.
 */
export function contentFor(
  kept: readonly Block[],
  blockId: string,
  standing: ReadonlySet<string> = new Set(),
): InPart[] {
  const placed = (id: string) =>
    standing.has(id) ? id : `${blockId.slice(0, OF_HOLDER)}-${id.slice(0, OF_KEPT)}`;
  return kept.map((block) => withIds(block, placed)).filter(isInPart);
}

const idsIn = ({ content }: KeptPart): ReadonlySet<string> =>
  new Set([...walkPage({ blocks: content })].map(({ attrs }) => attrs.id));

/** What stands in a block of a page, as it is kept: the same IDs as before where it came from there. */
export function keptFrom({ attrs: { id }, content }: KeptPart): InPart[] {
  const begins = `${id.slice(0, OF_HOLDER)}-`;
  return content
    .map((block) => withIds(block, (own) => (own.startsWith(begins) ? own.slice(begins.length) : own)))
    .filter(isInPart);
}

/** Whether a part says and shows on a page what is kept of it, whatever the IDs in it. */
export function isAsKept(block: KeptPart, kept: readonly Block[]): boolean {
  const plain = (some: readonly Block[]) => some.map((one) => withIds(one, () => 'any'));
  return isEqual(plain(block.content), plain(kept));
}

/**
 * A page on which a part is as it is kept now (`after`), wherever it was as it was kept before. A place that was changed for
 * itself stays as it is, and is counted in `own`. The very same page where nothing changes.
 */
export function withPartChanged(
  page: PageDoc,
  part: string,
  before: readonly Block[],
  after: readonly Block[],
): { readonly page: PageDoc; readonly changed: number; readonly own: number } {
  let [changed, own] = [0, 0];
  const next = withBlocks(page, (block) => {
    if (block.type !== 'keptPart' || block.attrs.part !== part || isAsKept(block, after)) return block;
    if (!isAsKept(block, before)) {
      own += 1;
      return block;
    }
    changed += 1;
    return { ...block, content: contentFor(after, block.attrs.id, idsIn(block)) };
  });
  if (changed === 0) return { page, changed, own };
  const here = new Set(next.tray);
  const pieces = placementsOf({ blocks: after }).map(({ asset }) => asset);
  const fresh = [...new Set(pieces)].filter((asset) => !here.has(asset));
  return { page: { ...next, tray: [...next.tray, ...fresh] }, changed, own };
}

/** A block, and all in it, under other IDs. */
function withIds(block: Block, idOf: (id: string) => string): Block {
  const { inside } = kindOf(block);
  const own = v.parse(AnyBlockSchema, { ...block, attrs: { ...block.attrs, id: idOf(block.attrs.id) } });
  return inside
    ? inside.with(
        own,
        blocksIn(block).map((one) => withIds(one, idOf)),
      )
    : own;
}
