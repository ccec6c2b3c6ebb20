import { USUAL_EMBED_RULES } from '../embed/target.ts';
import type { HouseRules } from './target.ts';

const SEVERITIES: HouseRules['severities'] = {
  'alt-missing': 'stops',
  'alt-poor': 'mend',
  'language-differs': 'mend',
  'licence-missing': 'stops',
  'credit-missing': 'stops',
  'use-not-allowed': 'stops',
  'piece-missing': 'stops',
  'want-unfilled': 'mend',
  enlarged: 'mend',
  'enlarged-sharp': 'note',
  stretched: 'stops',
  oversized: 'note',
  'embed-gone': 'stops',
  'embed-private': 'stops',
  'embed-untrusted': 'mend',
  'embed-refused': 'note',
  'embed-stripped': 'note',
  'captions-missing': 'mend',
  'dimensions-missing': 'stops',
  'page-heavy': 'mend',
  'text-squeezed': 'mend',
  'heading-order': 'mend',
  'heading-empty': 'mend',
  'quotation-unattributed': 'note',
  'details-unnamed': 'mend',
  'card-alone': 'note',
  'card-unnamed': 'mend',
  'table-headless': 'mend',
  'title-missing': 'stops',
  'link-empty': 'mend',
  'link-vague': 'mend',
  'name-rule': 'mend',
  'same-piece-twice': 'note',
};

/** The rules that a new target begins with, until its site owner says otherwise. Widths in px, weight in bytes. */
export function usualRules(target: Pick<HouseRules, 'name' | 'siteAddress' | 'commercial'>): HouseRules {
  return {
    ...target,
    language: 'en-GB',
    creditOwnWork: false,
    column: 720,
    gutter: 20,
    breakout: 960,
    breakpoints: [480, 800, 1120],
    stackBelow: 480,
    proofWidths: [390, 834, 1280],
    // 72 letters of the shipped text face on a line of the column: 60 to 75 are read best (WCAG 2.2, 1.4.8: at most 80).
    textSize: 21,
    dark: false,
    cutPresets: [
      { id: 'lead', name: 'Lead', ratio: { across: 16, down: 9 }, width: 1600 },
      { id: 'teaser', name: 'Teaser', ratio: { across: 3, down: 2 }, width: 720 },
      { id: 'square', name: 'Square', ratio: { across: 1, down: 1 }, width: 480 },
    ],
    namePattern: [{ part: 'subject' }, { part: 'place' }],
    sections: [],
    weightBudget: 900_000,
    leastLettersBeside: 20,
    likeness: 985,
    wordsOver: 'text',
    embeds: USUAL_EMBED_RULES,
    severities: SEVERITIES,
  };
}
