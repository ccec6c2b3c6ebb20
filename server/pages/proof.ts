import { chosenWidth } from '#core/media/ladder.ts';
import { qualityFor } from '#core/media/quality.ts';
import { pictureUse } from '#core/page/embed-here.ts';
import { shownWidth } from '#core/page/layout.ts';
import { articleOf } from '#core/page/lead.ts';
import { planPicture } from '#core/page/picture.ts';
import { standingsOf } from '#core/page/walk.ts';
import type { WriteContext } from '#core/page/write-context.ts';
import type { Finding } from '#core/proof/finding.ts';
import { proofInput } from '#core/proof/input.ts';
import { proofPage } from '#core/proof/proof.ts';
import { FindingsCache } from './findings-cache.ts';
import type { WholePage } from './store.ts';

const cache = new FindingsCache();

/** Findings of a stored page at a moment, over the HTML that would go out. */
export function proofOf(whole: WholePage, now = new Date()): readonly Finding[] {
  return cache.of(whole, now, ({ doc, rules, pieces, pages }) =>
    proofPage(proofInput(doc, rules, pieces, now, pages)),
  );
}

/** Where the own files of documents lie beside a page. */
export const inFiles = (fileName: string) => `files/${fileName}`;

/** How pages are written when they go out: cuts lie in a folder beside them, under their house names. */
export function outgoing(whole: Pick<WholePage, 'rules' | 'pieces' | 'pages'>): WriteContext {
  return {
    rules: whole.rules,
    pieces: whole.pieces,
    pages: whole.pages,
    addressOf: (cut) => `media/${cut.fileName}`,
    fileOf: inFiles,
  };
}

/** The files a sharp screen of `viewport` px would load at first, for the page's weight. */
export function firstLoad(whole: WholePage, viewport: number) {
  return standingsOf(articleOf(whole.doc), whole).flatMap((standing) => {
    const { placement, room } = standing;
    const piece = whole.pieces.get(placement.asset);
    const use = piece ? pictureUse(whole.rules, placement, piece) : 'none';
    if (!piece || use === 'none') return [];
    const plan = planPicture(whole.rules, standing, piece);
    const format = use === 'sizes' ? plan.formats[0] : plan.fallback.format;
    const width =
      use === 'sizes'
        ? chosenWidth(plan.ladder, shownWidth(whole.rules, placement, room, viewport), 2)
        : plan.fallback.size.width;
    const quality = qualityFor(whole.rules, placement.prep ?? piece.prep, format);
    return [{ assetId: piece.id, recipe: plan.recipe, width, format, quality }];
  });
}
