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
  const names = (block: B) => isSaid(block) && plainText(block.content).trim() !== '';
  const heading = content.findIndex((block) => block.type === 'heading' && names(block));
  const named = heading < 0 ? content.findIndex(names) : heading;
  if (named < 0) return content;
  return content.map((block, at) =>
    at === named && isSaid(block) ? { ...block, content: linked(block.content ?? [], href) } : block,
  );
}

const linked = (content: readonly Inline[], href: string): Inline[] =>
  content.map((inline) => {
    const others = (inline.marks ?? []).filter(({ type }) => type !== 'link');
    return { ...inline, marks: [{ type: 'link', attrs: { href } }, ...others] };
  });

/** Where blocks lead that are a link as a whole: as their heading does, or their first words. */
export function wholeLinkOf(content: readonly { readonly type: string }[]): string {
  const texts = content.filter(isSaid);
  const named = texts.find(({ type }) => type === 'heading') ?? texts[0];
  const mark = named?.content?.flatMap(({ marks }) => marks ?? []).find(({ type }) => type === 'link');
  const link = v.safeParse(WholeLinkSchema, mark?.type === 'link' ? mark.attrs.href : '');
  return link.success ? link.output : '';
}

/** A block without a link that is that of the whole. */
export function withoutWholeLink<B extends { readonly type: string }>(block: B, href: string): B {
  if (!isSaid(block) || !block.content) return block;
  return { ...block, content: block.content.map((inline) => unlinked(inline, href)) };
}

function unlinked(inline: Inline, href: string): Inline {
  const marks = inline.marks?.filter((mark) => mark.type !== 'link' || mark.attrs.href !== href) ?? [];
  const { marks: _marks, ...bare } = inline;
  return marks.length > 0 ? { ...bare, marks } : bare;
}
