import * as v from 'valibot';
import { maybeStatement, type Statement, statements } from '../gather/statement.ts';
import { licenceAddressOf } from '../rights/attribution.ts';
import { termsOf } from '../rights/house-licence.ts';
import {
  isLabelField,
  type Label,
  type LabelField,
  type LabelPatch,
  type Translation,
} from '../rights/label.ts';
import { isOfCopies } from '../rights/licences.ts';
import { maybeLicenceByAddress, maybeLicenceByWords, maybePort } from '../rights/recognise.ts';
import { isWebAddress } from '../rights/web-address.ts';
import { LanguageTagSchema } from '../words/language-tag.ts';

/** Metadata of a file as its reader gives it: group and tag ("XMP-dc:Title") to a value of any kind. */
export type RawTags = Readonly<Record<string, unknown>>;

/** What a file says of itself, as a draft of its label. */
export interface MetadataDraft {
  readonly patch: LabelPatch;
  readonly drafted: readonly LabelField[];
  readonly hasPlaceOfTaking: boolean;
  /** The file says that its colours are not sRGB (EXIF 2.32, ColorSpace 0xFFFF). */
  readonly saysOtherColours: boolean;
  /** What it says of its maker and licence, as it was given there. */
  readonly said: readonly Statement[];
}

const PLACE = 'XMP-iptcCore:Location';

/** Tags by label field, most telling first (IPTC Photo Metadata Standard 2023.1, mapping tables). */
const SOURCES = {
  title: ['XMP-dc:Title', 'IPTC:ObjectName', 'XMP-photoshop:Headline', 'IPTC:Headline'],
  creator: ['XMP-dc:Creator', 'IPTC:By-line', 'EXIF:Artist', 'IFD0:Artist'],
  caption: ['XMP-dc:Description', 'IPTC:Caption-Abstract'],
  copyrightNotice: ['XMP-dc:Rights', 'IPTC:CopyrightNotice', 'IFD0:Copyright', 'EXIF:Copyright'],
  source: ['XMP-photoshop:Source', 'IPTC:Source', 'XMP-photoshop:Credit', 'IPTC:Credit'],
  extendedDescription: ['XMP-iptcCore:ExtDescrAccessibility'],
  place: [PLACE, 'IPTC:Sub-location', 'XMP-photoshop:City', 'IPTC:City'],
} as const;

const ALT = 'XMP-iptcCore:AltTextAccessibility';
const WORDS = ['XMP-dc:Subject', 'IPTC:Keywords'] as const;
const TAKEN = [
  'XMP-photoshop:DateCreated',
  'ExifIFD:DateTimeOriginal',
  'EXIF:DateTimeOriginal',
  'IPTC:DateCreated',
] as const;
const LICENSOR = 'XMP-plus:LicensorURL';
const LICENCE_ADDRESSES = ['XMP-xmpRights:WebStatement', 'XMP-cc:License'] as const;
const LICENCE_WORDS = 'XMP-xmpRights:UsageTerms';
const PLACES_OF_TAKING = ['GPS:GPSLatitude', 'XMP-exif:GPSLatitude'] as const;
const COLOURS = 'ExifIFD:ColorSpace';

/** Tags that say the same in several languages (XMP language alternatives), by the field of a translation. */
const IN_LANGUAGES = {
  title: 'XMP-dc:Title',
  alt: ALT,
  caption: 'XMP-dc:Description',
  extendedDescription: 'XMP-iptcCore:ExtDescrAccessibility',
} as const;

/** Every tag that a label is drafted from. Everything else in a file is of no concern, and may be huge. */
export const LABEL_TAGS: readonly string[] = [
  ...Object.values(SOURCES).flat(),
  ALT,
  ...Object.values(IN_LANGUAGES).map((tag) => `${tag}-*`),
  ...WORDS,
  ...TAKEN,
  LICENSOR,
  ...LICENCE_ADDRESSES,
  LICENCE_WORDS,
  ...PLACES_OF_TAKING,
  COLOURS,
];

const LINE_LIMIT = 300;
const TEXT_LIMIT = 5000;
const LONG_FIELDS: readonly string[] = ['caption', 'extendedDescription'];

/** Reads a label draft from a file's metadata. Values of the wrong kind are passed over, never trusted. */
export function draftFromMetadata(tags: RawTags): MetadataDraft {
  const patch: LabelPatch = {};
  for (const field of [
    'title',
    'creator',
    'caption',
    'copyrightNotice',
    'source',
    'extendedDescription',
    'place',
  ] as const) {
    const isLong = LONG_FIELDS.includes(field);
    const said = firstText(tags, SOURCES[field], isLong ? 'lines' : 'one line');
    if (said) patch[field] = said.slice(0, isLong ? TEXT_LIMIT : LINE_LIMIT);
  }
  const alt = firstText(tags, [ALT]);
  if (alt) patch.alt = { kind: 'text', text: alt.slice(0, 1000) };
  const translations = translationsOf(tags);
  if (translations.length > 0) patch.translations = translations;
  const words = listOf(WORDS.map((name) => tags[name]).find((value) => value !== undefined))
    .map((word) => word.slice(0, LINE_LIMIT))
    .slice(0, 60);
  if (words.length > 0) patch.keywords = words;
  const taken = dateOf(firstText(tags, TAKEN));
  if (taken) patch.dateCreated = taken;
  const where = firstText(tags, [LICENSOR]);
  if (where && isWebAddress(where)) patch.sourceAddress = where;
  const licence = licenceOf(tags);
  if (licence) Object.assign(patch, licence);
  return {
    patch,
    drafted: Object.keys(patch).filter(isLabelField),
    hasPlaceOfTaking: PLACES_OF_TAKING.some((name) => tags[name] !== undefined),
    saysOtherColours: tags[COLOURS] === UNCALIBRATED,
    said: saidByFile(tags),
  };
}

/** As many as a label holds. */
const MOST_LANGUAGES = 40;

/** What is said in other languages beside that which a file says by default. */
function translationsOf(tags: RawTags): Translation[] {
  const found = new Map<string, Translation>();
  for (const [field, tag] of Object.entries(IN_LANGUAGES)) {
    for (const name of Object.keys(tags).filter((one) => one.startsWith(`${tag}-`))) {
      const language = name.slice(tag.length + 1);
      const text = firstText(tags, [name], LONG_FIELDS.includes(field) ? 'lines' : 'one line');
      if (!text || !v.is(LanguageTagSchema, language)) continue;
      if (found.size >= MOST_LANGUAGES && !found.has(language)) continue;
      const said = found.get(language) ?? {
        language,
        title: '',
        alt: '',
        caption: '',
        extendedDescription: '',
      };
      found.set(language, { ...said, [field]: text.slice(0, LIMITS[field] ?? TEXT_LIMIT) });
    }
  }
  return [...found.values()];
}

const LIMITS: Readonly<Record<string, number>> = { title: LINE_LIMIT, alt: 1000 };

const UNCALIBRATED = 0xffff;

/** The file's own words on what a licence rests on. */
function saidByFile(tags: RawTags): readonly Statement[] {
  const say = (about: Statement['about'], names: readonly string[]) =>
    names.map((name) => maybeStatement('file', about, listOf(tags[name]).join(', ')));
  const given = [
    ...say('licence', [...LICENCE_ADDRESSES, LICENCE_WORDS]),
    ...say('maker', SOURCES.creator),
    ...say('title', SOURCES.title),
    ...say('notice', SOURCES.copyrightNotice),
    ...say('source', SOURCES.source),
  ];
  return statements(...given);
}

function licenceOf(tags: RawTags): Pick<LabelPatch, 'licence' | 'licenceAddress'> | undefined {
  const address = firstText(tags, LICENCE_ADDRESSES);
  const byAddress = address ? maybeLicenceByAddress(address) : undefined;
  if (address && byAddress) {
    // The text of a port is another one than the catalogue's.
    const isPort = maybePort(address) !== null && isWebAddress(address);
    return { licence: byAddress, ...(isPort ? { licenceAddress: address } : {}) };
  }
  const terms = firstText(tags, [LICENCE_WORDS]);
  const byWords = terms ? maybeLicenceByWords(terms) : undefined;
  return byWords ? { licence: byWords } : undefined;
}

/** Whether line breaks are kept: a long description is told in paragraphs, lists and tables by its lines. */
type Breaks = 'one line' | 'lines';

function firstText(tags: RawTags, names: readonly string[], breaks: Breaks = 'one line'): string | undefined {
  for (const name of names) {
    const text = listOf(tags[name], breaks).join(', ');
    if (text !== '') return text;
  }
  return undefined;
}

/** No label holds more: values of one tag, and characters of one value. */
const MOST_VALUES = 200;
const MOST_CHARACTERS = 2 * TEXT_LIMIT;

const withLines = (text: string): string =>
  text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    // A tab parts the fields of a table.
    .map((line) => line.replace(/[^\P{Cc}\t]+/gu, ' '))
    .join('\n')
    .trim();

/** Text values of a tag; numbers and dates count as text, anything else does not. Control characters go. */
function listOf(value: unknown, breaks: Breaks = 'one line'): readonly string[] {
  const values: readonly unknown[] = Array.isArray(value) ? value.slice(0, MOST_VALUES) : [value];
  return values
    .map((one) => (typeof one === 'string' || typeof one === 'number' ? String(one) : ''))
    .map((text) => text.slice(0, MOST_CHARACTERS))
    .map((text) => (breaks === 'lines' ? withLines(text) : text.replace(/\p{Cc}+/gu, ' ').trim()))
    .filter(Boolean);
}

function dateOf(text: string | undefined): string | undefined {
  const [, year, month, day] = /^(\d{4})[:-](\d{2})[:-](\d{2})/.exec(text ?? '') ?? [];
  const iso = `${year}-${month}-${day}`;
  return year && !Number.isNaN(Date.parse(iso)) ? iso : undefined;
}

/**
 * The tags to write into a cut, so that it carries its label: XMP, IPTC-IIM and EXIF side by side, for readers
 * that know only one, and in other languages what is said in those (XMP language alternatives). Place of taking, serial numbers and thumbnails are never among them.
 */
export function metadataOfLabel(
  label: Label,
  credit: string,
): Readonly<Record<string, string | readonly string[]>> {
  const terms = termsOf(label);
  const tags: Record<string, string | readonly string[]> = {};
  const say = (value: string | readonly string[], ...names: string[]) => {
    if (value.length > 0) for (const name of names) tags[name] = value;
  };
  say(label.title, 'XMP-dc:Title', 'IPTC:ObjectName');
  say(label.alt.kind === 'text' ? label.alt.text : '', 'XMP-iptcCore:AltTextAccessibility');
  say(label.extendedDescription, 'XMP-iptcCore:ExtDescrAccessibility');
  say(label.caption, 'XMP-dc:Description', 'IPTC:Caption-Abstract');
  for (const { language, title, alt, caption, extendedDescription } of label.translations) {
    say(title, `XMP-dc:Title-${language}`);
    say(alt, `XMP-iptcCore:AltTextAccessibility-${language}`);
    say(extendedDescription, `XMP-iptcCore:ExtDescrAccessibility-${language}`);
    say(caption, `XMP-dc:Description-${language}`);
  }
  say(label.creator, 'XMP-dc:Creator', 'IPTC:By-line', 'IFD0:Artist');
  say(label.copyrightNotice, 'XMP-dc:Rights', 'IPTC:CopyrightNotice', 'IFD0:Copyright');
  const isSaid = label.licence !== 'unknown' && isOfCopies(label.licence);
  say(isSaid ? terms.name : '', 'XMP-xmpRights:UsageTerms');
  say(licenceAddressOf(label) ?? '', 'XMP-xmpRights:WebStatement');
  say(label.sourceAddress, 'XMP-plus:LicensorURL');
  say(credit, 'XMP-photoshop:Credit', 'IPTC:Credit');
  say(label.source, 'XMP-photoshop:Source', 'IPTC:Source');
  say(label.dateCreated, 'XMP-photoshop:DateCreated');
  say(label.keywords, 'XMP-dc:Subject', 'IPTC:Keywords');
  return tags;
}

/** The same for a file of its own beside the original (XMP Specification Part 3, sidecar): XMP alone. */
export const sidecarOfLabel: typeof metadataOfLabel = (label, credit) =>
  Object.fromEntries([
    ...Object.entries(metadataOfLabel(label, credit)).filter(([tag]) => tag.startsWith('XMP-')),
    // What goes out to readers does not say where it was taken; what stays with the original does.
    ...(label.place === '' ? [] : [[PLACE, label.place] as const]),
  ]);

/** What a file says, with what a sidecar beside it says in its place where both do: that was written later. */
export function withSidecar(file: MetadataDraft, sidecar: MetadataDraft): MetadataDraft {
  const patch = { ...file.patch, ...sidecar.patch };
  const told = new Set(sidecar.said.map(({ about }) => about));
  return {
    ...file,
    patch,
    drafted: Object.keys(patch).filter(isLabelField),
    said: [...sidecar.said, ...file.said.filter(({ about }) => !told.has(about))],
  };
}
