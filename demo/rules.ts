import type { HouseRules } from '#core/page/target.ts';
import { usualRules } from '#core/page/usual-rules.ts';

const RESERVE = usualRules({
  name: 'Reserve site',
  siteAddress: 'http://reserve.localhost',
  commercial: true,
});
/** What is the same for every target of the house. */
const AT_HOME = { territory: ['GB'], timeZone: 'Europe/London' };

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

/** How the site shows pictures besides plain: old prints, and what is set off from the page. */
const STYLES: HouseRules['pictureStyles'] = [
  {
    className: 'print',
    name: 'Old print',
    line: { width: 6, colour: '#fdfbf5' },
    corners: 0,
    shadow: 'soft',
    tone: 'warm',
  },
  {
    className: 'raised',
    name: 'Raised',
    line: { width: 0, colour: '#7c8a90' },
    corners: 6,
    shadow: 'deep',
    tone: 'as it is',
  },
];

export const RESERVE_SITE: HouseRules = {
  ...RESERVE,
  ...AT_HOME,
  cutPresets: PRESETS,
  sections: SECTIONS,
  pictureStyles: STYLES,
};

export const BULLETIN: HouseRules = {
  ...RESERVE_SITE,
  name: 'Members’ bulletin',
  publishing: 'newsletter',
  siteAddress: '',
  commercial: false,
  column: 600,
  breakout: 600,
  breakpoints: [480, 600],
  proofWidths: [390, 640],
  cutPresets: PRESETS.slice(1, 3),
  pictureStyles: [],
  wordsOver: 'drawn',
  embeds: { frames: false, frameHosts: [], click: false, widgets: false },
  weightBudget: 400_000,
};
