import { chosenWidth } from '#core/media/ladder.ts';
import { qualityFor } from '#core/media/quality.ts';
import { pictureUse } from '#core/page/embed-here.ts';
import { shownWidth } from '#core/page/layout.ts';
import { placementsOf } from '#core/page/model.ts';
import { planPicture } from '#core/page/picture.ts';
import { type WriteContext, writeFragment } from '#core/page/write.ts';
import type { Finding } from '#core/proof/finding.ts';
import { proofPage } from '#core/proof/proof.ts';
import { FindingsCache } from './findings-cache.ts';
import type { WholePage } from './store.ts';

const cache = new FindingsCache();

/** Findings of a stored page, over the HTML that would go out. */
export function proofOf(whole: WholePage): readonly Finding[] {
  return cache.of(whole, ({ doc, rules, pieces }) =>
    proofPage({ page: doc, rules, pieces, html: writeFragment(doc, outgoing({ rules, pieces })) }),
  );
}

/** How pages are written when they go out: cuts lie in a folder beside them, under their house names. */
export function outgoing(whole: Pick<WholePage, 'rules' | 'pieces'>): WriteContext {
  return { rules: whole.rules, pieces: whole.pieces, addressOf: (cut) => `media/${cut.fileName}` };
}

/** The files a sharp screen of `viewport` px would load at first, for the page's weight. */
export function firstLoad(whole: WholePage, viewport: number) {
  return placementsOf(whole.doc).flatMap((placement) => {
    const piece = whole.pieces.get(placement.asset);
    const use = piece ? pictureUse(whole.rules, placement, piece) : 'none';
    if (!piece || use === 'none') return [];
    const plan = planPicture(whole.rules, placement, piece);
    const format = use === 'sizes' ? plan.formats[0] : plan.fallback.format;
    const width =
      use === 'sizes'
        ? chosenWidth(plan.ladder, shownWidth(whole.rules, placement, viewport), 2)
        : plan.fallback.size.width;
    const quality = qualityFor(whole.rules, placement.prep ?? piece.prep, format);
    return [{ assetId: piece.id, recipe: plan.recipe, width, format, quality }];
  });
}
