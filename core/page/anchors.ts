import { webSafe } from '../naming/names.ts';
import type { Anchored } from './anchored.ts';
import type { Block } from './blocks/block.ts';
import { folded, plainText } from './inline.ts';
import { hrefsOf } from './linked.ts';
import { walkPage } from './walk.ts';

interface Holder {
  readonly blocks: readonly Block[];
}

/**
 * The headings of a page that say something, in reading order, each with an anchor of its own (HTML, the `id` attribute): the
 * one that was given to it, else its words read web-safe, with a number where another has it. `language` (BCP 47) is that of
 * the page.
 */
export function anchorsOf(page: Holder, language = ''): readonly Anchored[] {
  const headings = [...walkPage(page)].flatMap((block) => {
    const words = block.type === 'heading' ? plainText(folded(block.content)).trim() : '';
    return block.type === 'heading' && words !== '' ? [{ ...block.attrs, words }] : [];
  });
  // What somebody chose stands, whatever the others are called.
  const taken = new Set(headings.flatMap(({ anchor }) => anchor ?? []));
  const given = new Set<string>();
  const numbers = new Map<string, number>();
  return headings.map(({ id, level, anchor: own, words }): Anchored => {
    const isOwn = own !== undefined && !given.has(own);
    const anchor = isOwn ? own : free(webSafe(words, language) || 'part', taken, numbers);
    taken.add(anchor);
    given.add(anchor);
    return { id, anchor, level, words };
  });
}

/** The next one that is free; `numbers` says where the last search ended, or a thousand of one name would take a million steps. */
function free(wished: string, taken: ReadonlySet<string>, numbers: Map<string, number>): string {
  if (!taken.has(wished)) return wished;
  let number = numbers.get(wished) ?? 2;
  while (taken.has(`${wished}-${number}`)) number += 1;
  numbers.set(wished, number + 1);
  return `${wished}-${number}`;
}

/** The anchors on the page that its own links lead to. */
export function linkedAnchors(page: Holder): ReadonlySet<string> {
  const hrefs = [...walkPage(page)].flatMap(hrefsOf);
  return new Set(hrefs.flatMap((href) => (href.startsWith('#') ? href.slice(1) : [])));
}

/** The anchors that go out, by the IDs of their blocks: those that were given, and all where a list or a link needs them. */
export function anchorsOut(page: Holder, all: readonly Anchored[]): ReadonlyMap<string, string> {
  const blocks = [...walkPage(page)];
  const isListed = blocks.some(({ type }) => type === 'contents');
  const own = new Set(
    blocks.flatMap((block) => (block.type === 'heading' && block.attrs.anchor ? block.attrs.id : [])),
  );
  const linked = linkedAnchors(page);
  return new Map(
    all.flatMap(({ id, anchor }) =>
      isListed || own.has(id) || linked.has(anchor) ? [[id, anchor] as const] : [],
    ),
  );
}
