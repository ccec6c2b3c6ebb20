import type { HostEntry } from './host.ts';
import { type Parameter, type ParameterRole, readTime } from './parameters.ts';

/**
 * What a parameter says that many hosts share by name: how a thing is shown (a setting), or what and where in it is
 * shown, which belongs to the thing as its path does.
 */
export interface SharedParameter {
  readonly parameter: Parameter;
  readonly says: 'setting' | 'what' | 'where';
}

/** Names are compared without what parts their words: `start_time`, `startTime` and `start-time` are one. */
const bareName = (name: string) => name.toLowerCase().replace(/[^a-z0-9]/g, '');

const words = (text: string): ReadonlySet<string> => new Set(text.split(/\s+/));

interface Family {
  readonly names: ReadonlySet<string>;
  /** Names of the same kind that many spell in their own way. */
  readonly alike?: RegExp;
  readonly label: string;
  readonly type: 'time' | 'switch' | 'text';
  readonly says: SharedParameter['says'];
  readonly role?: ParameterRole;
  /** Whether several of one address may be in it, so that its label says which. */
  readonly isMany?: true;
  /** What its value looks like where its name alone does not say. */
  readonly value?: RegExp;
}

const NUMBERS = /^-?\d{1,9}(\.\d{1,20})?([,; ]-?\d{1,9}(\.\d{1,20})?){0,9}[a-z]?$/;
/** Two numbers as degrees are written: whatever it is called, a value with them says where. */
const COORDINATES = /-?\d{1,3}\.\d{2,15}[^\d.-]{1,5}(?:[a-z\d]{0,3}[^\d.-])?-?\d{1,3}\.\d{2,15}/i;
/** What is itself an address names who embeds, and no way. */
const NOT_AN_ADDRESS = /^(?!https?:)/;
const LANGUAGE = /^[a-z]{2,3}([-_][A-Za-z0-9]{2,8}){0,3}$/;

/**
 * The families in the order in which they are asked: the first whose name and value both fit. The names are those that
 * players, maps, forms and documents share, gathered from what the made-up hosts and the embed codes of `corpus.ts` use
 * and their usual spellings; none is of one host.
 */
const FAMILIES: readonly Family[] = [
  {
    names: words('start starts t time starttime startat startsat begin seek from offset position'),
    label: 'Start at',
    type: 'time',
    says: 'setting',
    role: 'start',
  },
  {
    names: words('end ends endtime endat stop stopat until'),
    label: 'End at',
    type: 'time',
    says: 'setting',
    role: 'end',
  },
  {
    names: words(
      'cc captions caption subtitles subtitle subs closedcaptions showcaptions captionson defaultcaptions',
    ),
    alike: /^cc[a-z]{1,20}$/,
    label: 'Captions on from the start',
    type: 'switch',
    says: 'setting',
    role: 'captions',
  },
  {
    names: words(
      'cc captions caption subtitles subtitle subs cclang captionlang captionslang captionlanguage captionslanguage sublang subslang subtitlelang subtitleslang subtitlelanguage texttrack',
    ),
    alike: /^cc[a-z]{1,20}$/,
    label: 'Language of captions',
    type: 'text',
    says: 'setting',
    value: LANGUAGE,
  },
  {
    names: words(
      'rel related relatedvideos showrelated more suggested suggestions recommendations endscreen',
    ),
    label: 'More of its things at the end',
    type: 'switch',
    says: 'setting',
    role: 'related',
  },
  {
    names: words('autoplay autostart autoplaying playonload'),
    label: 'Starts by itself',
    type: 'switch',
    says: 'setting',
    role: 'autoplay',
  },
  {
    names: words('loop repeat'),
    label: 'Begins again at its end',
    type: 'switch',
    says: 'setting',
    role: 'loop',
  },
  { names: words('mute muted'), label: 'Without sound', type: 'switch', says: 'setting', role: 'muted' },
  {
    names: words('controls showcontrols controlbar toolbar tools zoomcontrol scrollwheel navcontrol'),
    label: 'Its own controls',
    type: 'switch',
    says: 'setting',
    role: 'controls',
  },
  {
    names: words('fs fullscreen allowfullscreen fullscreenbutton showfullscreen'),
    label: 'May fill the screen',
    type: 'switch',
    says: 'setting',
    role: 'fullscreen',
  },
  {
    names: words('lang language hl locale uselang uilang interfacelanguage'),
    label: 'Language of its controls',
    type: 'text',
    says: 'setting',
    role: 'language',
    value: LANGUAGE,
  },
  {
    names: words('theme colorscheme colourscheme dark darkmode skin appearance'),
    label: 'Theme',
    type: 'text',
    says: 'setting',
    role: 'theme',
  },
  {
    names: words('color colour accent accentcolor accentcolour background bgcolor bg'),
    label: 'Colour',
    type: 'text',
    says: 'setting',
    isMany: true,
  },
  {
    names: words('playsinline inline'),
    label: 'Plays where it stands',
    type: 'switch',
    says: 'setting',
    isMany: true,
  },
  {
    names: words('keyboard'),
    label: 'Keys of its own',
    type: 'switch',
    says: 'setting',
    isMany: true,
  },
  {
    names: words('dnt donottrack'),
    label: 'Asks not to be followed',
    type: 'switch',
    says: 'setting',
    isMany: true,
  },
  {
    names: words(
      'title byline portrait info showinfo showtitle showuser showartwork showcomments showlegend legend header showheader branding logo menu sidebar visual chrome transparent speed annotations',
    ),
    label: 'What it shows of itself',
    type: 'switch',
    says: 'setting',
    isMany: true,
  },
  {
    names: words('quality hd resolution volume speed playbackrate'),
    label: 'Quality',
    type: 'text',
    says: 'setting',
    isMany: true,
  },
  {
    names: words('width height w h maxwidth maxheight'),
    label: 'Size within it',
    type: 'text',
    says: 'setting',
    isMany: true,
    value: /^\d{1,5}(px|%)?$/,
  },
  {
    names: words('z zoom zoomlevel level scale'),
    label: 'Zoom',
    type: 'text',
    says: 'where',
    value: /^\d{1,9}(\.\d{1,9})?z?$/,
  },
  {
    names: words(
      'll latlng latlon lonlat center centre c lat lon lng long latitude longitude x y coord coords coordinates loc location place address bbox bounds extent viewport near map',
    ),
    label: 'Place on the map',
    type: 'text',
    says: 'where',
    isMany: true,
  },
  {
    names: words('marker markers pin pins poi'),
    label: 'Mark on the map',
    type: 'text',
    says: 'where',
    isMany: true,
  },
  {
    names: words('origin destination route via waypoints travelmode'),
    label: 'Way on the map',
    type: 'text',
    says: 'where',
    isMany: true,
    value: NOT_AN_ADDRESS,
  },
  {
    names: words('layer layers maptype basemap tiles t'),
    label: 'Kind of map',
    type: 'text',
    says: 'where',
    isMany: true,
  },
  {
    names: words('heading bearing pitch tilt fov rotation azimuth elevation'),
    label: 'Direction of the view',
    type: 'text',
    says: 'where',
    isMany: true,
    value: NUMBERS,
  },
  {
    names: words(
      'v vid video videoid film filmid clip clipid id key media mediaid episode show track album list listid playlist playlistid index doc document docid file src url uri href page pages slide slides sheet gid range tab view viewid chart board form formid pid post item article q query search name slug type format output embed embedded widget player hash channel user collection gallery set series event calendar dataset table version variant mode day date year month week part chapter lesson section s',
    ),
    label: 'What of it is shown',
    type: 'text',
    says: 'what',
    isMany: true,
  },
  {
    names: new Set(),
    alike: /./,
    label: 'Place on the map',
    type: 'text',
    says: 'where',
    isMany: true,
    value: COORDINATES,
  },
];

const SWITCHES: readonly (readonly [on: string, off: string])[] = [
  ['1', '0'],
  ['true', 'false'],
  ['yes', 'no'],
  ['on', 'off'],
];

/**
 * What a parameter of an unknown host says, by its name and value: written back as it was read, so that its host
 * understands it. A name that begins with `#` stands in the fragment. Undefined for what many hosts do not share.
 */
export function sharedParameter(name: string, value: string): SharedParameter | undefined {
  const bare = bareName(name);
  for (const family of FAMILIES) {
    const isNamed = family.names.has(bare) || (family.alike?.test(bare) ?? false);
    if (!isNamed || (family.value && !family.value.test(value))) continue;
    const parameter = asParameter(family, name, value);
    if (parameter) return { parameter, says: family.says };
  }
  return undefined;
}

function asParameter(
  { type, label, role, isMany }: Family,
  name: string,
  value: string,
): Parameter | undefined {
  const named = {
    name,
    label: isMany ? `${label} (${name.replace('#', '')})` : label,
    ...(role ? { role } : {}),
    standard: null,
  };
  switch (type) {
    case 'time':
      return readTime(value) === undefined ? undefined : { type, ...named };
    case 'switch': {
      const said = value.toLowerCase();
      if (said === '') return { type, ...named, on: '', off: null };
      const pair = SWITCHES.find((one) => one.includes(said));
      return pair ? { type, ...named, on: pair[0], off: pair[1] } : undefined;
    }
    case 'text':
      return { type, ...named };
  }
}

/** The parameter of an entry that does what a shared one does, under another name. */
export function likeIn(entry: HostEntry, { parameter }: SharedParameter): Parameter | undefined {
  const { role } = parameter;
  return role && entry.parameters.find((one) => one.role === role);
}
