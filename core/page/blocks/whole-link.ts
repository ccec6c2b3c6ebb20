import * as v from 'valibot';
import { type Inline, LinkAddressSchema, plainText } from '../inline.ts';
import type { Heading } from './heading/schema.ts';
import type { Paragraph } from './paragraph/schema.ts';

/** Where a block as a whole leads; empty for one that leads nowhere. */
export const WholeLinkSchema = v.union([v.literal(''), LinkAddressSchema]);

type Said = Heading | Paragraph;

const isSaid = (block: { readonly type: string }): block is Said =>
  block.type === 'heading' || block.type === 'paragraph';

/** Blocks with their heading, or their first words, as a link; the very same where they say nothing. */
export function withWholeLink<B extends { readonly type: string }>(content: B[], href: string): B[] {
  const named = namedAt(content);
  if (named < 0) return content;
  return content.map((block, at) =>
    at === named && isSaid(block) ? { ...block, content: linked(block.content ?? [], href) } : block,
  );
}

/** Where the words stand that name blocks as a whole: their heading, or their first words; -1 for none. */
function namedAt(content: readonly { readonly type: string }[]): number {
  const names = (block: { readonly type: string }) => isSaid(block) && plainText(block.content).trim() !== '';
  const heading = content.findIndex((block) => block.type === 'heading' && names(block));
  return heading < 0 ? content.findIndex(names) : heading;
}

const linked = (content: readonly Inline[], href: string): Inline[] =>
  content.map((inline) => {
    const others = (inline.marks ?? []).filter(({ type }) => type !== 'link');
    return { ...inline, marks: [{ type: 'link', attrs: { href } }, ...others] };
  });

/** Where blocks lead that are a link as a whole: as their heading does, or their first words. */
export function wholeLinkOf(content: readonly { readonly type: string }[]): string {
  const named = content[namedAt(content)];
  const words = named && isSaid(named) ? named.content : [];
  const mark = words?.flatMap(({ marks }) => marks ?? []).find(({ type }) => type === 'link');
  const link = v.safeParse(WholeLinkSchema, mark?.type === 'link' ? mark.attrs.href : '');
  return link.success ? link.output : '';
}

/** Blocks of which the one that names them is no link any more: that of the whole is said of the whole. */
export function withoutWholeLink<B extends { readonly type: string }>(
  content: readonly B[],
  href: string,
): B[] {
  const named = namedAt(content);
  return content.map((block, at) =>
    at === named && isSaid(block) && block.content
      ? { ...block, content: block.content.map((inline) => unlinked(inline, href)) }
      : block,
  );
}

function unlinked(inline: Inline, href: string): Inline {
  const marks = inline.marks?.filter((mark) => mark.type !== 'link' || mark.attrs.href !== href) ?? [];
  const { marks: _marks, ...bare } = inline;
  return marks.length > 0 ? { ...bare, marks } : bare;
}
