import type { Block } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import { newPlacement, type Placement } from './blocks/placement/schema.ts';
import { fileIdIn, pageIdIn } from './page-address.ts';
import { blocksIn, placementsOf, walkPage } from './walk.ts';

interface Holder {
  readonly blocks: readonly Block[];
}

/** Where a block leads by itself, without those in it: by its words, as a whole, or when it is pressed. */
export function hrefsOf(block: Block): readonly string[] {
  const inWords = kindOf(block)
    .words(block)
    .flatMap((run) => run ?? [])
    .flatMap(({ marks }) => marks ?? [])
    .flatMap((mark) => (mark.type === 'link' ? mark.attrs.href : []));
  const whole = wholeLink(block);
  return whole === '' ? inWords : [...inWords, whole];
}

function wholeLink(block: Block): string {
  if (block.type === 'card' || block.type === 'banner') return block.attrs.link;
  return block.type === 'placement' && block.attrs.click.kind === 'link' ? block.attrs.click.href : '';
}

/** The IDs of the pages that a page links to. */
export function linkedPageIds(page: Holder): ReadonlySet<string> {
  return new Set(
    [...walkPage(page)].flatMap((block) => hrefsOf(block).flatMap((href) => pageIdIn(href) ?? [])),
  );
}

/** A document that words of a block lead to: a use of it, as one that stands on the page is. */
export interface LinkedFile {
  readonly blockId: string;
  readonly placement: Placement;
}

/** The documents that a page leads to, in reading order. */
export function linkedFiles(page: Holder): readonly LinkedFile[] {
  return page.blocks.flatMap(filesFrom).map(({ blockId, assetId }, at) => ({
    blockId,
    placement: newPlacement(`link:${at + 1}`, assetId),
  }));
}

interface Leading {
  readonly blockId: string;
  readonly assetId: string;
}

/** A block never changes: where it leads is remembered, since a page is asked for that at each pause of typing. */
const leadingFound = new WeakMap<Block, readonly Leading[]>();

/** The documents that a block and those in it lead to. */
function filesFrom(block: Block): readonly Leading[] {
  const known = leadingFound.get(block);
  if (known) return known;
  const own = hrefsOf(block).flatMap((href) => {
    const assetId = fileIdIn(href);
    return assetId === null ? [] : [{ blockId: block.attrs.id, assetId }];
  });
  const found = [...own, ...blocksIn(block).flatMap(filesFrom)];
  leadingFound.set(block, found);
  return found;
}

/** All uses of pieces on a page: those that stand on it, and then those that it leads to. */
export function usesOf(page: Holder): readonly Placement[] {
  return [...placementsOf(page), ...linkedFiles(page).map(({ placement }) => placement)];
}
