import { anchorsOf } from '../page/anchors.ts';
import { kindOf } from '../page/blocks/kinds.ts';
import { withHeadRow } from '../page/blocks/table/schema.ts';
import { withTeaserLike } from '../page/lead.ts';
import type { PageDoc } from '../page/model.ts';
import { severityOf } from '../page/target.ts';
import { walkRooms, withBlocks, withoutBlock, withPlacement } from '../page/walk.ts';
import { checkEmbeds } from './checks/embeds.ts';
import { checkFilms } from './checks/films.ts';
import { checkLanguage } from './checks/language.ts';
import { checkLead } from './checks/lead.ts';
import { checkLinks } from './checks/links.ts';
import { checkMarkup } from './checks/markup.ts';
import { checkOver } from './checks/over.ts';
import { checkRights } from './checks/rights.ts';
import { checkPieces, checkWants } from './checks/shelf.ts';
import { checkSize } from './checks/size.ts';
import { checkSqueeze } from './checks/squeeze.ts';
import { checkStyles } from './checks/style.ts';
import { checkHeadings } from './checks/text.ts';
import { checkWeight } from './checks/weight.ts';
import { checkWords } from './checks/words.ts';
import { SEVERITIES } from './codes.ts';
import type { Finding, Found, Remedy } from './finding.ts';
import type { ProofInput } from './input.ts';

/** Faults that blocks have by themselves, as their kinds say. */
function checkBlocks(input: ProofInput): readonly Found[] {
  const context = { ...input, headings: anchorsOf(input.page, input.rules.language) };
  return [...walkRooms(input.page, input)].flatMap(
    ({ block, room }) => kindOf(block).findings?.(block, room, context) ?? [],
  );
}

const CHECKS = [
  checkHeadings,
  checkLead,
  checkBlocks,
  checkRights,
  checkWords,
  checkLanguage,
  checkSize,
  checkOver,
  checkEmbeds,
  checkFilms,
  checkMarkup,
  checkLinks,
  checkSqueeze,
  checkStyles,
  checkPieces,
  checkWants,
  checkWeight,
];

/** All findings of a page, worst first and otherwise in the order of the checks; those switched off are left out. */
export function proofPage(input: ProofInput): readonly Finding[] {
  const found = CHECKS.flatMap((check) => check(input)).flatMap((one): Finding[] => {
    const severity = severityOf(input.rules, one.code);
    return severity === 'off' ? [] : [{ ...one, severity, viewports: one.viewports ?? [] }];
  });
  return SEVERITIES.flatMap((severity) => found.filter((finding) => finding.severity === severity));
}

/**
 * The page after a remedy. The very same page for remedies that are not a change to the page (going to a licence,
 * writing words, renaming a piece), which the screens carry out.
 */
export function applyRemedy(page: PageDoc, remedy: Remedy): PageDoc {
  switch (remedy.kind) {
    case 'placement':
      return withPlacement(page, remedy.placementId, remedy.change);
    case 'remove':
      return withoutBlock(page, remedy.placementId);
    case 'remove-block':
      return withoutBlock(page, remedy.blockId);
    case 'heading-level':
      return withBlocks(page, (block) =>
        block.type === 'heading' && block.attrs.id === remedy.blockId
          ? { ...block, attrs: { ...block.attrs, level: remedy.level } }
          : block,
      );
    case 'head-row':
      return withBlocks(page, (block) =>
        block.type === 'table' && block.attrs.id === remedy.blockId ? withHeadRow(block) : block,
      );
    case 'make-lead':
      return { ...page, lead: remedy.placementId };
    case 'make-teaser':
      return withTeaserLike(page, remedy.placementId, remedy.ratio);
    case 'banner-plate':
      return withBlocks(page, (block) =>
        block.type === 'banner' && block.attrs.id === remedy.blockId
          ? { ...block, attrs: { ...block.attrs, plate: remedy.plate } }
          : block,
      );
    case 'drop-want':
      return { ...page, wants: page.wants.filter((want) => want.id !== remedy.wantId) };
    case 'write-alt':
    case 'rename':
    case 'set-licence':
    case 'credit-by-licence':
    case 'find-piece':
      return page;
  }
}
