/** How a picture of the world outside is painted; whoever starts the stand-ins paints it. Sizes in px. */
export interface OutsidePicture {
  readonly id: string;
  readonly scene: {
    readonly subject:
      | 'marsh'
      | 'heron'
      | 'bittern'
      | 'boardwalk'
      | 'hide'
      | 'cutters'
      | 'walkers'
      | 'watcher'
      | 'flock'
      | 'sluice'
      | 'channel'
      | 'reeds';
    readonly light: 'dawn' | 'noon' | 'dusk' | 'mist';
    readonly seed: number;
    readonly sepia?: boolean;
    readonly border?: number;
  };
  readonly width: number;
  readonly height: number;
}

/** A picture of Commonfield. Some are licensed in words that say nothing, and some pages contradict their list. */
export interface CommonPicture extends OutsidePicture {
  readonly title: string;
  readonly maker: string;
  readonly licence: { readonly name: string; readonly address: string };
  /** What its page says instead, where that is not the same. */
  readonly pageLicence?: string;
  readonly taken: string;
  readonly words: string;
}

const CC = 'https://creativecommons.org';
const BY = { name: 'CC BY 4.0', address: `${CC}/licenses/by/4.0/` };
const BY_SA = { name: 'CC BY-SA 4.0', address: `${CC}/licenses/by-sa/4.0/` };
const BY_NC = { name: 'CC BY-NC 4.0', address: `${CC}/licenses/by-nc/4.0/` };
const BY_ND = { name: 'CC BY-ND 4.0', address: `${CC}/licenses/by-nd/4.0/` };
const BY_2 = { name: 'CC BY 2.0', address: `${CC}/licenses/by/2.0/` };
const ZERO = { name: 'CC0 1.0', address: `${CC}/publicdomain/zero/1.0/` };
const SOME_WORDS = { name: 'Free for good causes', address: '' };

const LARGE = { width: 3600, height: 2400 };
const WIDE = { width: 3600, height: 1800 };
const TALL = { width: 2400, height: 3000 };

const common = (
  id: string,
  title: string,
  maker: string,
  licence: CommonPicture['licence'],
  scene: OutsidePicture['scene'],
  size: { width: number; height: number },
  words: string,
  more: Partial<Pick<CommonPicture, 'pageLicence' | 'taken'>> = {},
): CommonPicture => ({ id, title, maker, licence, scene, ...size, words, taken: '2025-01-03', ...more });

export const COMMONFIELD: readonly CommonPicture[] = [
  common(
    'cf-101',
    'Planks at last light, Orrin flats',
    'T. Veraldi',
    BY_SA,
    { subject: 'boardwalk', light: 'dusk', seed: 2101 },
    LARGE,
    'boardwalk, planks, evening, winter',
  ),
  common(
    'cf-102',
    'Winter dusk over a tidal marsh',
    'Dorte Wexley',
    BY,
    { subject: 'marsh', light: 'dusk', seed: 2102 },
    WIDE,
    'marsh, winter, evening, reed',
  ),
  common(
    'cf-103',
    'Boardwalk, low water',
    'Anselm Quaye',
    ZERO,
    { subject: 'boardwalk', light: 'noon', seed: 2103 },
    LARGE,
    'boardwalk, tide, summer',
  ),
  common(
    'cf-104',
    'Channel in hard frost',
    'Osric Penhale',
    SOME_WORDS,
    { subject: 'channel', light: 'mist', seed: 2104 },
    LARGE,
    'channel, frost, winter, boardwalk nearby',
  ),
  common(
    'cf-105',
    'Two on the boardwalk',
    'T. Veraldi',
    BY_NC,
    { subject: 'walkers', light: 'noon', seed: 2105 },
    LARGE,
    'boardwalk, people, walking',
  ),
  common(
    'cf-106',
    'Boardwalk into the mist',
    'Pia Lindqvarn',
    BY_ND,
    { subject: 'boardwalk', light: 'mist', seed: 2106 },
    LARGE,
    'boardwalk, mist, winter',
  ),
  common(
    'cf-107',
    'A small boardwalk',
    'Pia Lindqvarn',
    BY,
    { subject: 'boardwalk', light: 'dawn', seed: 2107 },
    { width: 900, height: 600 },
    'boardwalk, dawn',
  ),
  common(
    'cf-108',
    'Boardwalk rail, evening',
    'Dorte Wexley',
    BY,
    { subject: 'boardwalk', light: 'dusk', seed: 2108 },
    LARGE,
    'boardwalk, rail, evening',
    { pageLicence: `${CC}/licenses/by-nc/4.0/` },
  ),
  common(
    'cf-109',
    'Heron, first frost',
    'Ines Okonjo',
    BY,
    { subject: 'heron', light: 'mist', seed: 2109 },
    LARGE,
    'heron, bird, frost',
  ),
  common(
    'cf-110',
    'Heron at the sluice',
    'Anselm Quaye',
    BY_2,
    { subject: 'heron', light: 'noon', seed: 2110 },
    LARGE,
    'heron, bird, sluice',
  ),
  common(
    'cf-111',
    'Bittern, standing tall',
    'Ines Okonjo',
    BY,
    { subject: 'bittern', light: 'dawn', seed: 2111 },
    TALL,
    'bittern, bird, reed',
  ),
  common(
    'cf-112',
    'The warden with a glass',
    'Osric Penhale',
    BY,
    { subject: 'watcher', light: 'dawn', seed: 2112 },
    TALL,
    'warden, portrait, person, watcher',
  ),
  common(
    'cf-113',
    'Watching at noon',
    'Dorte Wexley',
    BY_SA,
    { subject: 'watcher', light: 'noon', seed: 2113 },
    TALL,
    'warden, portrait, person, watcher',
  ),
  common(
    'cf-114',
    'Reeds before the cut',
    'T. Veraldi',
    ZERO,
    { subject: 'reeds', light: 'dawn', seed: 2114 },
    LARGE,
    'reed, winter, cutting',
  ),
  common(
    'cf-115',
    'Cutters at noon',
    'Anselm Quaye',
    BY_NC,
    { subject: 'cutters', light: 'noon', seed: 2115 },
    LARGE,
    'reed cutting, people, winter',
  ),
  common(
    'cf-116',
    'Geese over the channel',
    'Pia Lindqvarn',
    BY,
    { subject: 'flock', light: 'dusk', seed: 2116 },
    WIDE,
    'geese, birds, flock, evening',
  ),
  common(
    'cf-117',
    'Hide by the water',
    'Dorte Wexley',
    ZERO,
    { subject: 'hide', light: 'noon', seed: 2117 },
    LARGE,
    'hide, water, summer',
  ),
  common(
    'cf-118',
    'Sluice gate, high tide',
    'Osric Penhale',
    BY,
    { subject: 'sluice', light: 'dusk', seed: 2118 },
    LARGE,
    'sluice, tide, water',
  ),
];

/** A plate of the archive: only pages tell of it. */
export interface Plate extends OutsidePicture {
  readonly number: number;
  readonly title: string;
  readonly caption: string;
  readonly rights: string;
  /** A licence link on the page that says something else, where there is one. */
  readonly alsoSays?: string;
}

const NKC = 'https://rightsstatements.org/vocab/NKC/1.0/';
const plate = (
  number: number,
  title: string,
  caption: string,
  scene: OutsidePicture['scene'],
  more: Partial<Pick<Plate, 'rights' | 'alsoSays'>> = {},
): Plate => ({
  id: `plate-${number}`,
  number,
  title,
  caption,
  scene: { ...scene, sepia: true },
  width: 3000,
  height: 2200,
  rights: NKC,
  ...more,
});

export const WAYSIDE: readonly Plate[] = [
  plate(131, 'The old boardwalk, 1931', 'Larch planks on alder piles, the year after they were laid.', {
    subject: 'boardwalk',
    light: 'mist',
    seed: 3131,
    border: 0.03,
  }),
  plate(132, 'Reed cutters at the north edge, 1929', 'Six men with sickles; the barge waits behind them.', {
    subject: 'cutters',
    light: 'mist',
    seed: 3132,
    border: 0.035,
  }),
  plate(133, 'The channel before the sluice, 1928', 'Seen from where Hide No. 2 stands today.', {
    subject: 'channel',
    light: 'mist',
    seed: 3133,
  }),
  plate(
    134,
    'A walk out, about 1934',
    'Two visitors on the boardwalk.',
    { subject: 'walkers', light: 'mist', seed: 3134 },
    { rights: 'https://rightsstatements.org/vocab/InC/1.0/' },
  ),
  plate(
    135,
    'Hide in winter, 1933',
    'The first hide, of reed and sacking.',
    { subject: 'hide', light: 'mist', seed: 3135 },
    { alsoSays: 'https://creativecommons.org/licenses/by-nc/4.0/' },
  ),
];

/** A picture of the agency: seen as a comp, bought as an original. `price` in the smallest unit of its currency. */
export interface AgencyPicture extends OutsidePicture {
  readonly title: string;
  readonly maker: string;
  readonly price: number;
  readonly terms: string;
  readonly words: string;
  /** The comp shows a square of the middle; the original is the whole. */
  readonly isCompSquare?: boolean;
}

export const CURRENCY = 'EUR';
const agency = (
  id: string,
  title: string,
  maker: string,
  price: number,
  terms: string,
  scene: OutsidePicture['scene'],
  size: { width: number; height: number },
  words: string,
  more: Pick<AgencyPicture, 'isCompSquare'> = {},
): AgencyPicture => ({ id, title, maker, price, terms, scene, ...size, words, ...more });

/** What is sold of each picture: how much dearer, for how long, for what, and where (ISO 3166-1; 150 is Europe in UN M49). */
export const AGENCY_OFFERS = [
  { id: 'web-1', times: 1, years: 1, uses: ['web'], territory: ['GB'], copies: null },
  {
    id: 'web-2',
    times: 1.75,
    years: 2,
    uses: ['web', 'newsletter', 'social'],
    territory: ['150'],
    copies: null,
  },
  { id: 'print', times: 2.5, years: 2, uses: ['web', 'print'], territory: ['150'], copies: 50_000 },
  { id: 'all', times: 6, years: null, uses: [], territory: [], copies: null },
] as const;

export const BRACKWATER: readonly AgencyPicture[] = [
  agency(
    '88-4440',
    'Dusk over Saltmere',
    'R. Achterberg',
    4800,
    'one year, one site',
    { subject: 'marsh', light: 'dusk', seed: 31 },
    LARGE,
    'marsh, evening, dusk',
  ),
  agency(
    '88-4412',
    'Saltmarsh walkway, January',
    'R. Achterberg',
    4800,
    'two years, one site',
    { subject: 'boardwalk', light: 'dusk', seed: 4412 },
    WIDE,
    'boardwalk, walkway, winter, evening',
  ),
  agency(
    '88-4413',
    'Heron by the planks',
    'R. Achterberg',
    3100,
    'one year, one site',
    { subject: 'heron', light: 'dawn', seed: 4413 },
    LARGE,
    'heron, boardwalk, bird, dawn',
  ),
  agency(
    '88-4420',
    'Reed roof of evening',
    'M. Castellane',
    5600,
    'two years, one site',
    { subject: 'reeds', light: 'dusk', seed: 4420 },
    LARGE,
    'reed, evening',
    { isCompSquare: true },
  ),
  agency(
    '88-4431',
    'A bittern shows itself',
    'M. Castellane',
    7200,
    'two years, one site, 50,000 copies',
    { subject: 'bittern', light: 'noon', seed: 4431 },
    TALL,
    'bittern, bird, reed',
  ),
  agency(
    '88-4437',
    'The man with the telescope',
    'R. Achterberg',
    3900,
    'one year, one site',
    { subject: 'watcher', light: 'dusk', seed: 4437 },
    TALL,
    'warden, portrait, person, watcher',
  ),
  agency(
    '88-4433',
    'Walkers at noon',
    'M. Castellane',
    3600,
    'one year, one site',
    { subject: 'walkers', light: 'noon', seed: 4433 },
    TALL,
    'walkers, noon',
  ),
];

/** A file on the drive. `revision` changes when its bytes do. */
export interface DriveFile extends OutsidePicture {
  readonly name: string;
  readonly revision: number;
}

export interface DriveAlbum {
  readonly id: string;
  readonly name: string;
  readonly files: readonly DriveFile[];
}

const file = (
  id: string,
  name: string,
  scene: OutsidePicture['scene'],
  size: { width: number; height: number } = LARGE,
): DriveFile => ({ id, name, scene, ...size, revision: 1 });

export const LOFTDRIVE: readonly DriveAlbum[] = [
  {
    id: 'reed-days',
    name: 'Reed-cutting days, November',
    files: [
      file('ld-1', 'P1200411.JPG', { subject: 'cutters', light: 'dawn', seed: 5001 }),
      file('ld-2', 'P1200415.JPG', { subject: 'cutters', light: 'noon', seed: 5002 }),
      file('ld-3', 'P1200419.JPG', { subject: 'reeds', light: 'noon', seed: 5003 }),
      file('ld-4', 'Bundles by the barge.jpg', { subject: 'cutters', light: 'dusk', seed: 5004 }),
    ],
  },
  {
    id: 'boardwalk-works',
    name: 'Boardwalk works',
    files: [
      file('ld-5', 'boardwalk piles.jpg', { subject: 'boardwalk', light: 'noon', seed: 5005 }),
      file('ld-6', 'boardwalk rail (2).jpg', { subject: 'boardwalk', light: 'dawn', seed: 5006 }),
      file('ld-7', 'opening day.jpg', { subject: 'walkers', light: 'noon', seed: 5007 }),
    ],
  },
];

/** Every picture of the world outside, each once. */
export const OUTSIDE_PICTURES: readonly OutsidePicture[] = [
  ...COMMONFIELD,
  ...WAYSIDE,
  ...BRACKWATER,
  ...LOFTDRIVE.flatMap(({ files }) => files),
];
