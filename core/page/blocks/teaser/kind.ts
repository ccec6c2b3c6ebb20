import { escapeHtml } from '../../escape.ts';
import type { WriteContext } from '../../write-context.ts';
import type { BlockKind } from '../kind.ts';
import { isPlacedBlock } from '../placement/schema.ts';
import { listingStyle, teaserRoom } from './laid-out.ts';
import { readTeaser } from './read.ts';
import type { Teaser } from './schema.ts';

/** Its title, which leads to the page; in source the one that it has of its own, if any. */
function titleOf({ title }: Teaser['attrs'], listing: WriteContext['listing']): string {
  if (!listing) return title && `<h2>${escapeHtml(title)}</h2>`;
  return `<h2><a href="${escapeHtml(listing.href)}">${escapeHtml(title || listing.title)}</a></h2>`;
}

/** A page in a listing (HTML, `article`); nothing in the page itself. */
export const teaser: BlockKind<Teaser> = {
  write: ({ attrs, content }, context) => {
    const { listing, rules, isSource } = context;
    if (!listing && !isSource) return '';
    return [
      '<article class="teaser">',
      context.inside(content, teaserRoom(rules)),
      titleOf(attrs, listing),
      attrs.words && `<p>${escapeHtml(attrs.words)}</p>`,
      '</article>',
    ]
      .filter(Boolean)
      .join('\n');
  },
  words: () => [],
  reads: { 'article.teaser': readTeaser },
  findings: ({ attrs: { id, words } }) =>
    words === ''
      ? [{ code: 'teaser-unsaid', values: {}, place: { kind: 'block', blockId: id }, remedies: [] }]
      : [],
  inside: {
    of: ({ content }) => content,
    with: (block, blocks) => ({ ...block, content: blocks.filter(isPlacedBlock) }),
    room: (_room, _block, { rules }) => teaserRoom(rules),
  },
  style: (rules) => `${listingStyle(rules)}
.placard .teaser { min-width: 0; font-size: 0.92em; }
.placard .teaser h2 { margin: 0 0 0.3em; font-size: 1.15em; }
.teaser > .placed { margin: 0 0 12px; }
.placard .teaser > :last-child { margin-bottom: 0; }`,
};
