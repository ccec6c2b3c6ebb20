import type { Framing } from '#core/embed/framing.ts';
import type { EmbedFacts } from '#core/embed/model.ts';
import type { HouseLicence } from '#core/rights/house-licence.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import type { DemoFilm } from './film.ts';
import type { Light } from './painter/palette.ts';
import type { Subject } from './painter/scene.ts';

export type DemoPerson = 'mara' | 'piet' | 'sunniva' | 'joss';

/** What is painted: a scene in a light, or one of the graphics. */
type Painting =
  | {
      readonly kind: 'scene';
      readonly subject: Subject;
      readonly light: Light;
      readonly sepia?: boolean;
      readonly border?: number;
    }
  | { readonly kind: 'chart' | 'map' | 'mark' | 'drawing' | 'animation' };

/** What the town's archive gives to everybody in the marsh in the same words: a licence of the house. */
export const TOWN_ARCHIVE: HouseLicence = {
  id: 'town-archive',
  name: 'Saltmere town archive, standing agreement',
  short: 'town archive agreement',
  address: '',
  publish: true,
  decision: false,
  commercial: true,
  educationalOnly: false,
  onlyIn: null,
  allowsDerivatives: true,
  owesCredit: 'yes',
  keepsNotice: true,
  sayChanges: false,
  shareAlike: false,
  titleInCredit: 'no',
};

/** A piece of the demo: how it is painted, how its file comes, and what is said of it. Sizes in px as seen. */
export interface DemoPiece {
  readonly key: string;
  readonly file: string;
  readonly painting: Painting;
  readonly width: number;
  readonly height: number;
  readonly seed: number;
  readonly folder: string;
  readonly by: DemoPerson;
  /** The camera was turned: stored lying on its side, with EXIF orientation. */
  readonly turned?: boolean;
  readonly wideGamut?: boolean;
  readonly gps?: boolean;
  /** In the file itself, as XMP, IPTC and EXIF. */
  readonly inFile?: LabelPatch;
  /** Said by people afterwards. */
  readonly said?: LabelPatch;
  /** What was agreed for it, in days from the day on which the demo is made. */
  readonly agreed?: {
    readonly begunDaysAgo: number;
    readonly endsInDays: number;
    readonly words: string;
    /** Whether it was decided that it comes off its pages then. */
    readonly isTakenOff?: boolean;
  };
  /** What it is the poster of, at a stand-in's path. */
  readonly embed?: {
    readonly host: string;
    readonly path: string;
    readonly facts: Partial<EmbedFacts>;
    readonly framing: Framing;
  };
  /** What is filmed of the painting, instead of the painting itself. */
  readonly film?: DemoFilm;
  /** Its name as people gave it; otherwise the house pattern's. */
  readonly stem?: string;
}

const OURS: LabelPatch = {
  creator: 'Saltmere Marsh Reserve',
  licence: 'own',
  copyrightNotice: '© Saltmere Marsh Reserve',
};
const INES: LabelPatch = {
  creator: 'Ines Okonjo',
  licence: 'cc-by-4.0',
  source: 'Commonfield',
  sourceAddress: 'http://commonfield.localhost/ines-okonjo',
};
const VERALDI: LabelPatch = {
  creator: 'T. Veraldi',
  licence: 'cc-by-sa-4.0',
  source: 'Commonfield',
  sourceAddress: 'http://commonfield.localhost/t-veraldi',
};
const WAYSIDE: LabelPatch = {
  creator: 'Wayside Archive',
  licence: 'no-known-copyright',
  source: 'Wayside Archive',
};

const alt = (text: string) => ({ kind: 'text', text }) as const;

/** Pieces that the demo's pages use: named, labelled, each with its own story. */
const STORY: readonly DemoPiece[] = [
  {
    key: 'heron',
    file: 'heron-hide-3.jpg',
    painting: { kind: 'scene', subject: 'heron', light: 'dawn' },
    width: 6000,
    height: 4000,
    seed: 11,
    folder: 'birds/heron',
    by: 'mara',
    inFile: {
      title: 'Heron below Hide No. 3',
      creator: 'Ines Okonjo',
      licence: 'cc-by-4.0',
      dateCreated: '2026-03-12',
      place: 'Saltmere',
      keywords: ['heron', 'dawn', 'reed'],
    },
    said: {
      ...INES,
      alt: alt('A grey heron stands motionless in shallow water among reeds at dawn.'),
      caption: 'Waiting out the tide below Hide No. 3.',
      focal: { x: 0.44, y: 0.6 },
    },
    stem: 'heron-hide-3-saltmere-dawn',
  },
  {
    key: 'bittern',
    file: 'bittern-mist.jpg',
    painting: { kind: 'scene', subject: 'bittern', light: 'mist' },
    width: 4000,
    height: 4000,
    seed: 23,
    folder: 'birds/bittern',
    by: 'mara',
    said: {
      ...INES,
      title: 'Bittern in the north reed',
      dateCreated: '2026-04-02',
      place: 'North reed',
      alt: alt('A bittern points its bill at the sky between reed stems, almost hidden.'),
      focal: { x: 0.53, y: 0.62 },
    },
    stem: 'bittern-mist-north-reed',
  },
  {
    key: 'dusk-comp',
    file: 'BP-88-4440-comp.jpg',
    painting: { kind: 'scene', subject: 'marsh', light: 'dusk' },
    width: 1600,
    height: 1067,
    seed: 31,
    folder: 'birds/bittern',
    by: 'mara',
    said: {
      title: 'Dusk over Saltmere',
      creator: 'R. Achterberg',
      source: 'Brackwater Pictures',
      sourceId: '88-4440',
      licence: 'comp',
      alt: alt('The marsh under a purple evening sky.'),
    },
    stem: 'dusk-over-saltmere',
  },
  {
    key: 'boardwalk',
    file: 'boardwalk-noon-june.jpg',
    painting: { kind: 'scene', subject: 'boardwalk', light: 'noon' },
    width: 6000,
    height: 4000,
    seed: 41,
    folder: 'boardwalk',
    by: 'mara',
    said: {
      ...OURS,
      title: 'Boardwalk at noon, June',
      dateCreated: '2026-06-14',
      place: 'Saltmere',
      alt: alt('New planks run straight out into the marsh under a summer sky.'),
      focal: { x: 0.5, y: 0.66 },
    },
    stem: 'boardwalk-noon-june',
  },
  {
    key: 'boardwalk-old',
    file: 'boardwalk_old_2024.JPG',
    painting: { kind: 'scene', subject: 'boardwalk', light: 'mist' },
    width: 4800,
    height: 3200,
    seed: 43,
    folder: 'boardwalk',
    by: 'mara',
    said: {
      ...OURS,
      title: 'Boardwalk before the works',
      dateCreated: '2024-11-05',
      place: 'Saltmere',
      alt: alt('The old boardwalk in mist, its planks sagging to the left.'),
    },
    stem: 'boardwalk-before-works',
  },
  {
    key: 'boardwalk-dusk',
    file: 'boardwalk-last-light.jpg',
    painting: { kind: 'scene', subject: 'walkers', light: 'dusk' },
    width: 6000,
    height: 4000,
    seed: 47,
    folder: 'boardwalk',
    by: 'piet',
    said: {
      ...VERALDI,
      title: 'Planks at last light',
      dateCreated: '2025-01-03',
      alt: alt('Two people walk out along the planks as the sun goes down.'),
      caption: 'The first walk after the works.',
    },
    stem: 'boardwalk-last-light',
  },
  {
    key: 'reed-bed',
    file: 'reed-bed-first-light.jpg',
    painting: { kind: 'scene', subject: 'reeds', light: 'dawn' },
    width: 2400,
    height: 3000,
    seed: 53,
    folder: 'events/reed-cutting',
    by: 'joss',
    said: { ...OURS, title: 'Reed bed at first light', dateCreated: '2026-02-14' },
    stem: 'reed-bed-first-light',
  },
  {
    key: 'cutters',
    file: 'P1190422.JPG',
    painting: { kind: 'scene', subject: 'cutters', light: 'noon' },
    width: 6000,
    height: 4000,
    seed: 59,
    folder: 'events/reed-cutting',
    by: 'joss',
    gps: true,
    said: { title: 'Cutters with bundles', dateCreated: '2026-02-14', place: 'North reed' },
  },
  {
    key: 'cutters-break',
    file: 'P1190431.JPG',
    painting: { kind: 'scene', subject: 'cutters', light: 'mist' },
    width: 4000,
    height: 5000,
    seed: 61,
    folder: 'events/reed-cutting',
    by: 'joss',
    turned: true,
    inFile: { creator: 'Joss Imrie', dateCreated: '2026-02-14' },
    said: { licence: 'own' },
  },
  {
    key: 'sluice',
    file: 'eel-sluice.jpg',
    painting: { kind: 'scene', subject: 'sluice', light: 'noon' },
    width: 5000,
    height: 3333,
    seed: 67,
    folder: 'eel-pass',
    by: 'mara',
    said: {
      ...OURS,
      title: 'The sluice with the eel pass',
      dateCreated: '2026-05-20',
      place: 'Main channel',
      alt: alt('A concrete sluice with a brush-lined ramp rising beside its gate.'),
    },
    stem: 'sluice-eel-pass',
  },
  {
    key: 'eel-film',
    file: 'eel-pass-film.jpg',
    painting: { kind: 'scene', subject: 'sluice', light: 'dawn' },
    width: 1920,
    height: 1080,
    seed: 471,
    folder: 'eel-pass',
    by: 'mara',
    said: { ...OURS, title: 'How the eel pass works', source: 'Lanternreel' },
    embed: {
      host: 'lanternreel',
      path: '/watch/eel-pass-71?cc=1',
      facts: {
        title: 'How the eel pass works',
        author: 'Saltmere Marsh Reserve',
        seconds: 40,
        captions: ['en', 'cy'],
        visibility: 'public',
      },
      framing: { kind: 'may', why: 'nothing-said' },
    },
  },
  {
    key: 'water-live',
    file: 'water-at-the-sluice.jpg',
    painting: { kind: 'scene', subject: 'channel', light: 'dusk' },
    width: 1600,
    height: 1200,
    seed: 408,
    folder: 'tides',
    by: 'mara',
    said: { title: 'Water at the sluice, live', creator: 'Fathomchart', licence: 'permission' },
    agreed: {
      begunDaysAgo: 349,
      endsInDays: 16,
      words: 'For one year, by letter of the tide office. They are glad of a link.',
    },
    embed: {
      host: 'fathomchart',
      path: '/chart/sluice-live',
      facts: { title: 'Water at the sluice, live', visibility: 'public' },
      framing: { kind: 'refused', by: 'Content-Security-Policy', value: "frame-ancestors 'none'" },
    },
  },
  {
    key: 'join-form',
    file: 'join-a-reed-cutting-day.jpg',
    painting: { kind: 'scene', subject: 'cutters', light: 'dusk' },
    width: 1600,
    height: 1200,
    seed: 523,
    folder: 'events/reed-cutting',
    by: 'mara',
    said: { ...OURS, title: 'Join a reed-cutting day', source: 'Corkline' },
    embed: {
      host: 'corkline',
      path: '/f/join-in',
      facts: { title: 'Join a reed-cutting day', visibility: 'public' },
      framing: { kind: 'may', why: 'nothing-said' },
    },
  },
  {
    key: 'eel-chart',
    file: 'eels-by-month.png',
    painting: { kind: 'chart' },
    width: 2000,
    height: 1280,
    seed: 1,
    folder: 'eel-pass',
    by: 'mara',
    said: {
      ...OURS,
      title: 'Eels counted by month',
      alt: alt(
        'Bar chart: eels counted at the pass rise from 12 in January to 420 in June and fall to 9 in December.',
      ),
    },
    stem: 'eels-by-month-chart',
  },
  {
    key: 'channel',
    file: 'main-channel-slack-water.jpg',
    painting: { kind: 'scene', subject: 'channel', light: 'noon' },
    width: 5184,
    height: 2765,
    seed: 71,
    folder: 'tides',
    by: 'mara',
    wideGamut: true,
    said: {
      ...OURS,
      title: 'Main channel at slack water',
      alt: alt('The main channel lies flat and bright between two stands of reed.'),
      dateCreated: '2026-07-01',
    },
    stem: 'main-channel-slack-water',
  },
  {
    key: 'tide-map',
    file: 'marsh-map.png',
    painting: { kind: 'map' },
    width: 3000,
    height: 2100,
    seed: 1,
    folder: 'tides',
    by: 'sunniva',
    said: {
      ...OURS,
      title: 'Map of hides and boardwalk',
      alt: alt('Map of the marsh: the boardwalk crosses the main channel and passes four numbered hides.'),
    },
    stem: 'marsh-map-hides',
  },
  {
    key: 'plate-channel',
    file: 'plate 112 (scan).tif.jpg',
    painting: { kind: 'scene', subject: 'channel', light: 'mist', sepia: true },
    width: 3600,
    height: 2600,
    seed: 73,
    folder: 'archive',
    by: 'piet',
    said: {
      ...WAYSIDE,
      title: 'The channel, 1931',
      sourceId: 'plate 112',
      alt: alt('Sepia photograph of a wide channel between reeds; birds in the distance.'),
      caption: 'The main channel before the sluice was built.',
    },
    stem: 'channel-archive-1931',
  },
  {
    key: 'plate-cutters',
    file: 'plate 118.jpg',
    painting: { kind: 'scene', subject: 'cutters', light: 'mist', sepia: true, border: 0.03 },
    width: 3400,
    height: 2400,
    seed: 79,
    folder: 'archive',
    by: 'piet',
    said: {
      title: 'Reed cutters, 1931',
      source: 'Saltmere town archive',
      sourceId: 'plate 118',
      licence: 'house',
      houseLicence: TOWN_ARCHIVE,
    },
    stem: 'reed-cutters-archive-1931',
  },
  {
    key: 'tiny',
    file: 'small_warden.jpg',
    painting: { kind: 'scene', subject: 'watcher', light: 'noon' },
    width: 320,
    height: 400,
    seed: 83,
    folder: 'people',
    by: 'joss',
    said: { title: 'The warden at the hide' },
  },
  {
    key: 'huge',
    file: 'panorama-north-reed.jpg',
    painting: { kind: 'scene', subject: 'flock', light: 'dusk' },
    width: 12000,
    height: 4000,
    seed: 89,
    folder: 'tides',
    by: 'mara',
    said: {
      ...OURS,
      title: 'Panorama of the north reed',
      alt: alt('A long flock crosses the evening sky over the reeds.'),
    },
    stem: 'panorama-north-reed',
  },
  {
    key: 'mark',
    file: 'reserve-mark.png',
    painting: { kind: 'mark' },
    width: 1200,
    height: 1200,
    seed: 1,
    folder: 'marks',
    by: 'sunniva',
    said: { ...OURS, title: 'The reserve’s mark', alt: { kind: 'decorative' } },
    stem: 'reserve-mark',
  },
  {
    key: 'drawing',
    file: 'reed-drawing.svg',
    painting: { kind: 'drawing' },
    width: 600,
    height: 600,
    seed: 1,
    folder: 'marks',
    by: 'sunniva',
    said: { ...OURS, title: 'Reed drawing', alt: { kind: 'decorative' } },
    stem: 'reed-drawing',
  },
  {
    key: 'animation',
    file: 'tide-coming-in.gif',
    painting: { kind: 'animation' },
    width: 640,
    height: 400,
    seed: 97,
    folder: 'tides',
    by: 'joss',
    said: { title: 'Tide coming in' },
  },
];

const LIGHTS: readonly Light[] = ['dawn', 'noon', 'dusk', 'mist'];
const FILLERS: readonly [Subject, string, string, string][] = [
  ['marsh', 'tides', 'Marsh', 'Open water and reeds under a wide sky.'],
  ['heron', 'birds/heron', 'Heron', 'A grey heron stands in shallow water.'],
  ['hide', 'hides', 'Hide', 'A wooden bird hide on stilts among reeds.'],
  ['watcher', 'people', 'Watcher', 'Somebody looks out over the marsh through binoculars.'],
  ['flock', 'birds', 'Flock', 'A flock of birds turns over the marsh.'],
  ['reeds', 'events/reed-cutting', 'Reed bed', 'Reeds stand close, their heads dark against the sky.'],
  ['channel', 'tides', 'Channel', 'A channel of open water between two stands of reed.'],
  ['walkers', 'boardwalk', 'Walkers', 'Two people walk along the boardwalk.'],
  ['bittern', 'birds/bittern', 'Bittern', 'A bittern stands upright between reed stems.'],
  ['boardwalk', 'boardwalk', 'Boardwalk', 'The boardwalk runs out into the marsh.'],
];
const SHAPES: readonly [number, number][] = [
  [4800, 3200],
  [3000, 4000],
  [4608, 2592],
  [3600, 3600],
];
const LIGHT_WORDS: Readonly<Record<Light, string>> = {
  dawn: 'at dawn',
  noon: 'at noon',
  dusk: 'at dusk',
  mist: 'in mist',
};

/** What was agreed for some of them. */
const AGREED: Readonly<Record<number, Pick<DemoPiece, 'agreed' | 'said'>>> = {
  36: {
    said: {
      creator: 'Tomas Reill',
      licence: 'permission',
      source: '',
      sourceAddress: '',
      copyrightNotice: '',
    },
    agreed: {
      begunDaysAgo: 325,
      endsInDays: 40,
      words: 'For one year, with his name under it. He asked for one more year on 20 November.',
    },
  },
  29: {
    said: {
      creator: 'M. Castellane',
      licence: 'agency',
      source: 'Brackwater Pictures',
      sourceId: '88-4433',
      licensedTo: 'Saltmere Marsh Reserve',
      copyrightNotice: '',
    },
    agreed: {
      begunDaysAgo: 210,
      endsInDays: 155,
      words: 'One site. Its page comes down before that.',
      isTakenOff: true,
    },
  },
};

/** The rest of the shelf: every subject in every light, owned in different ways, some of it not worded yet. */
const REST: readonly DemoPiece[] = FILLERS.flatMap(([subject, folder, name, words], row) =>
  LIGHTS.map((light, column): DemoPiece => {
    const [width, height] = SHAPES[(row + column) % SHAPES.length] ?? [4800, 3200];
    const number = row * LIGHTS.length + column;
    const owner = number % 5 === 1 ? INES : number % 7 === 3 ? VERALDI : number % 11 === 5 ? {} : OURS;
    const isWorded = number % 6 !== 2;
    return {
      key: `rest-${number}`,
      file:
        number % 6 === 2
          ? `IMG_2026${String(300 + number)}_0612.JPG`
          : `${name.toLowerCase().replace(' ', '-')}-${light}.jpg`,
      painting: { kind: 'scene', subject, light },
      width,
      height,
      seed: 200 + number,
      folder,
      by: number % 9 === 4 ? 'joss' : 'mara',
      turned: number % 8 === 6,
      ...AGREED[number],
      said: {
        ...owner,
        ...(isWorded ? { title: `${name} ${LIGHT_WORDS[light]}`, alt: alt(words), place: 'Saltmere' } : {}),
        ...AGREED[number]?.said,
      },
    };
  }),
);

/** Two near-duplicates: the same scene, one a little later. */
const DOUBLES: readonly DemoPiece[] = ['a', 'b'].map((which, at) => ({
  key: `double-${which}`,
  file: `heron-north-${which}.jpg`,
  painting: { kind: 'scene', subject: 'heron', light: 'mist' } as const,
  width: 4000 - at * 400,
  height: 3000 - at * 300,
  seed: 301,
  folder: 'birds/heron',
  by: 'mara' as const,
  said: { ...OURS, title: 'Heron in the north reed', alt: alt('A heron stands in mist, its neck drawn in.') },
}));

const cue = (from: number, to: number, text: string) => ({ from, to, text });

/** A film of the house's own, with what is said in it in two languages. */
const FILMED: readonly DemoPiece[] = [
  {
    key: 'ramp-film',
    file: 'building-the-eel-ramp.jpg',
    painting: { kind: 'scene', subject: 'sluice', light: 'noon' },
    width: 1280,
    height: 720,
    seed: 472,
    folder: 'eel-pass',
    by: 'mara',
    said: { ...OURS, title: 'Building the eel ramp', dateCreated: '2026-05-21', place: 'Main channel' },
    film: {
      seconds: 24,
      from: 1000,
      tracks: [
        {
          kind: 'captions',
          language: 'en',
          cues: [
            cue(1200, 3000, 'Eels cannot jump.'),
            cue(3400, 6700, 'What they can do is climb,\nif there is something wet and rough.'),
            cue(
              6900,
              8100,
              'So we built them a ramp of brushes, in two thousand and four, out of what was in the shed.',
            ),
            cue(11_500, 13_000, '[water over stones]'),
            cue(13_200, 16_800, 'By May the box is full every morning.'),
            cue(18_000, 21_000, 'We count them, and let them go upstream.'),
          ],
        },
        {
          kind: 'captions',
          language: 'cy',
          cues: [
            cue(1200, 3000, 'Ni all llysywod neidio.'),
            cue(3400, 6700, 'Ond gallant ddringo,\nos oes rhywbeth gwlyb a garw.'),
            cue(11_500, 13_000, '[dŵr dros gerrig]'),
          ],
        },
        {
          kind: 'chapters',
          language: 'en',
          cues: [cue(1000, 11_000, 'Why a pass'), cue(11_000, 24_000, 'The ramp and the box')],
        },
      ],
    },
  },
];

export const DEMO_PIECES: readonly DemoPiece[] = [...FILMED, ...REST, ...DOUBLES, ...STORY];
