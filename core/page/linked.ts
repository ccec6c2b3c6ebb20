import type { Block } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import { pageIdIn } from './page-address.ts';
import { walkPage } from './walk.ts';

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
