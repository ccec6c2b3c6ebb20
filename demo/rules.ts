import type { HouseRules } from '#core/page/target.ts';
import { usualRules } from '#core/page/usual-rules.ts';

const RESERVE = usualRules({
  name: 'Reserve site',
  siteAddress: 'http://reserve.localhost',
  commercial: true,
});

const PRESETS: HouseRules['cutPresets'] = [
  ...RESERVE.cutPresets,
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

export const RESERVE_SITE: HouseRules = { ...RESERVE, cutPresets: PRESETS, sections: SECTIONS };

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
