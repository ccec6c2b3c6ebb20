import type { HouseRules } from '#core/page/target.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';

const SEVERITIES: HouseRules['severities'] = {
  'alt-missing': 'stops',
  'alt-poor': 'mend',
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
  'title-missing': 'stops',
  'link-empty': 'mend',
  'name-rule': 'mend',
  'same-piece-twice': 'note',
};

const PRESETS: HouseRules['cutPresets'] = [
  { id: 'lead', name: 'Lead', ratio: { across: 16, down: 9 }, width: 1600 },
  { id: 'teaser', name: 'Teaser', ratio: { across: 3, down: 2 }, width: 720 },
  { id: 'square', name: 'Square', ratio: { across: 1, down: 1 }, width: 480 },
  { id: 'card', name: 'Card', ratio: { across: 4, down: 5 }, width: 400 },
  { id: 'strip', name: 'Strip', ratio: { across: 3, down: 1 }, width: 1920 },
];

/** The last two have no folder yet: the shelf offers them. */
const SECTIONS = [
  'birds/bittern',
  'birds/heron',
  'boardwalk',
  'eel-pass',
  'events/reed-cutting',
  'tides',
  'visit/hides',
  'visit/getting-here',
];

export const RESERVE_SITE: HouseRules = {
  ...PLAIN_RULES,
  siteAddress: 'http://reserve.localhost',
  cutPresets: PRESETS,
  namePattern: [{ part: 'subject' }, { part: 'place' }],
  sections: SECTIONS,
  weightBudget: 900_000,
  severities: SEVERITIES,
};

export const BULLETIN: HouseRules = {
  ...RESERVE_SITE,
  name: 'Members’ bulletin',
  siteAddress: '',
  commercial: false,
  column: 600,
  breakout: 600,
  breakpoints: [480, 600],
  proofWidths: [390, 640],
  cutPresets: PRESETS.slice(1, 3),
  wordsOver: 'drawn',
  embeds: { frames: false, frameHosts: [], click: false, widgets: false },
  weightBudget: 400_000,
};
