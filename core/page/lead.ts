import type { Block } from './blocks/block.ts';
import type { Placement } from './blocks/placement/schema.ts';
import type { Teaser } from './blocks/teaser/schema.ts';
import type { PageDoc } from './model.ts';
import type { HouseRules } from './target.ts';
import { placementById, placementsOf } from './walk.ts';

type Blocks = Pick<PageDoc, 'blocks'>;

/** What readers get of a page: all but its teaser. */
export function articleOf<P extends Blocks>(page: P): P {
  const blocks = page.blocks.filter(({ type }) => type !== 'teaser');
  return blocks.length === page.blocks.length ? page : { ...page, blocks };
}

/** The use of a piece that leads the article, where one was chosen and stands on the page. */
export function leadOf(page: Pick<PageDoc, 'blocks' | 'lead'>): Placement | null {
  return page.lead === undefined ? null : (placementById(articleOf(page), page.lead) ?? null);
}

/** How the page is shown in a listing, where somebody has said so. */
export function teaserOf({ blocks }: Blocks): Teaser | null {
  return blocks.find((block): block is Teaser & Block => block.type === 'teaser') ?? null;
}

/** What a browser should load first: the lead, or else the first piece of the article. */
export function firstSeen(page: Pick<PageDoc, 'blocks' | 'lead'>): Placement | undefined {
  return leadOf(page) ?? placementsOf(articleOf(page))[0];
}

/** A cut for listings among those that the target's designs use. */
export function teaserRatio({ cutPresets }: Pick<HouseRules, 'cutPresets'>): Placement['ratio'] {
  return cutPresets.find(({ id }) => id === 'teaser')?.ratio ?? null;
}

/** A teaser of a use of a piece: the same piece with its words, cut to a shape. */
export function teaserLike(placement: Placement, ratio: Placement['ratio']): Teaser {
  return {
    type: 'teaser',
    attrs: { id: `teaser-${placement.id}`.slice(0, ID_LIMIT), title: '', words: '' },
    content: [
      {
        type: 'placement',
        attrs: {
          ...placement,
          id: `in-teaser-${placement.id}`.slice(0, ID_LIMIT),
          position: 'column',
          width: null,
          margins: null,
          stackBelow: null,
          click: { kind: 'nothing' },
          ratio: ratio ?? placement.ratio,
        },
      },
    ],
  };
}

/** As long as an ID may be. */
const ID_LIMIT = 64;

/** The page with a teaser of one of its placements, in place of one that it has; the very same page where that is gone. */
export function withTeaserLike<P extends { readonly blocks: Block[] }>(
  page: P,
  placementId: string,
  ratio: Placement['ratio'],
): P {
  const article = articleOf(page);
  const placement = placementById(article, placementId);
  return placement ? { ...article, blocks: [teaserLike(placement, ratio), ...article.blocks] } : page;
}
