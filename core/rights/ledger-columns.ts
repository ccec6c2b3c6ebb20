import * as v from 'valibot';
import type { Piece } from '../page/piece.ts';
import { readKeyWords } from '../words/key-words.ts';
import { type HouseLicence, maybeHouseLicence, termsOf } from './house-licence.ts';
import { type Alt, type Label, type LabelPatch, LabelSchema, WORKS } from './label.ts';
import { isCatalogued, isOfCopies, LICENCE_IDS, type LicenceId, licenceTerms } from './licences.ts';
import { maybeLicenceByAddress, maybeLicenceByWords } from './recognise.ts';
import { readRegions, writeRegions } from './regions.ts';
import { readPrice, sayPrice } from './say-terms.ts';
import { type SeenBy, type Terms, TermsSchema, type UsableBy } from './terms.ts';

/** What a field of a ledger says of a piece: parts of its label and of its terms, or why it cannot be read. */
interface Told {
  readonly label?: LabelPatch;
  readonly terms?: Partial<Terms>;
  readonly fault?: string;
}

/** A column of the ledger as a file: what it is called there, what stands in it, and what is read from it. */
export interface LedgerColumn {
  readonly name: string;
  /** Other headings that mean the same, in small letters. */
  readonly also: readonly string[];
  readonly write: (label: Label) => string;
  /** `ofHouse`: the licences that the house has of its own. */
  readonly read: (text: string, ofHouse: readonly HouseLicence[]) => Told;
}

const LABEL_ENTRIES = LabelSchema.entries;
const [{ entries: TERMS_ENTRIES }] = TermsSchema.pipe;

/** A text that stands in the label as it is. */
function line(
  field: keyof Label & keyof typeof LABEL_ENTRIES,
  name: string,
  ...also: string[]
): LedgerColumn {
  return {
    name,
    also,
    write: (label) => String(label[field]),
    read: (text) => {
      const read = v.safeParse(LABEL_ENTRIES[field], text);
      return read.success ? { label: { [field]: read.output } } : { fault: read.issues[0].message };
    },
  };
}

function term<Field extends keyof Terms & keyof typeof TERMS_ENTRIES>(
  field: Field,
  name: string,
  also: readonly string[],
  write: (value: Terms[Field]) => string,
  read: (text: string) => unknown,
): LedgerColumn {
  return {
    name,
    also,
    write: ({ terms }) => write(terms[field]),
    read: (text) => {
      const parsed = v.safeParse(TERMS_ENTRIES[field], read(text));
      return parsed.success ? { terms: { [field]: parsed.output } } : { fault: parsed.issues[0].message };
    },
  };
}

const namesIn = (text: string): readonly string[] =>
  text
    .split(/[;,]/)
    .map((one) => one.trim())
    .filter(Boolean);
const listOf = (text: string): readonly string[] => namesIn(text.toLowerCase());
const numberOf = (text: string): number | null =>
  text === '' ? null : Number(text.replace(/[\s,.](?=\d{3}\b)/g, ''));
const asIs = (text: string) => text;
const DECORATIVE = '(decorative)';

/** The columns in their order. Identity comes before them: `id` and `file`. */
export const LEDGER_COLUMNS: readonly LedgerColumn[] = [
  line('title', 'title', 'name', 'headline'),
  line('creator', 'maker', 'creator', 'author', 'photographer', 'by-line', 'artist'),
  line('makerAddress', 'maker address', 'creator address'),
  line('source', 'source', 'agency'),
  line('sourceAddress', 'source address', 'source url', 'url'),
  line('sourceId', 'source id', 'id at the source'),
  { name: 'work', also: ['what it is'], write: ({ work }) => work, read: readWork },
  { name: 'licence', also: ['license', 'rights'], write: writeLicence, read: readLicence },
  line('licenceAddress', 'licence address', 'license address', 'license url'),
  line('copyrightNotice', 'copyright notice', 'copyright'),
  line('licensedTo', 'licensed to'),
  term('begins', 'from', ['start', 'begins'], asIs, asIs),
  term('ends', 'until', ['end', 'ends', 'expires', 'expiry'], asIs, asIs),
  {
    name: 'where',
    also: ['territory', 'regions'],
    write: ({ terms }) => writeRegions(terms.territory),
    read: readWhere,
  },
  term('uses', 'for', ['uses'], (uses) => uses.join('; '), listOf),
  term('copies', 'copies', [], (copies) => (copies === null ? '' : String(copies)), numberOf),
  {
    name: 'price',
    also: [],
    write: ({ terms }) => (terms.price ? sayPrice(terms.price) : ''),
    read: readPriced,
  },
  term('agreed', 'agreed', ['terms'], asIs, asIs),
  term('consent', 'consent', ['model release'], asIs, (text) => text.toLowerCase() || 'unsaid'),
  term('shownFrom', 'shown from', [], asIs, asIs),
  term('shownUntil', 'shown until', [], asIs, asIs),
  term('seenBy', 'seen by', [], writeSeenBy, readSeenBy),
  term('usableBy', 'used by', [], writeUsableBy, readUsableBy),
  { name: 'alt text', also: ['alt'], write: ({ alt }) => writeAlt(alt), read: readAlt },
  line('caption', 'caption', 'description'),
  line('extendedDescription', 'long description'),
  line('place', 'place', 'location'),
  line('dateCreated', 'date taken', 'date created', 'date'),
  {
    name: 'key words',
    also: ['keywords', 'tags'],
    write: ({ keywords }) => keywords.join('; '),
    read: (text) => ({ label: { keywords: [...readKeyWords(text)] } }),
  },
];

/** "group: " and the IDs of its people, since two may have one name. */
const GROUP = /^group\s*:\s*(.*)$/is;

function writeSeenBy(seenBy: SeenBy): string {
  if (seenBy.who === 'readers') return '';
  return seenBy.who === 'house' ? 'house' : `group: ${seenBy.people.join('; ')}`;
}

function readSeenBy(text: string): unknown {
  const [, people] = GROUP.exec(text) ?? [];
  return people === undefined
    ? { who: text.toLowerCase() || 'readers' }
    : { who: 'group', people: namesIn(people) };
}

const PAGE = /^page\s*:\s*(\S+)$/i;

function writeUsableBy(usableBy: UsableBy): string {
  if (usableBy.who === 'everybody') return '';
  return usableBy.who === 'page' ? `page: ${usableBy.page}` : 'rights keeper';
}

function readUsableBy(text: string): unknown {
  const [, page] = PAGE.exec(text) ?? [];
  if (page !== undefined) return { who: 'page', page };
  return { who: text.toLowerCase().replace(/\s+/g, '-') || 'everybody' };
}

function writeAlt(alt: Alt): string {
  if (alt.kind === 'text') return alt.text;
  return alt.kind === 'decorative' ? DECORATIVE : '';
}

function readAlt(text: string): Told {
  if (text === '') return { label: { alt: { kind: 'unsaid' } } };
  if (text.toLowerCase() === DECORATIVE) return { label: { alt: { kind: 'decorative' } } };
  const read = v.safeParse(LABEL_ENTRIES.alt, { kind: 'text', text });
  return read.success ? { label: { alt: read.output } } : { fault: 'An alt text has at most 1,000 letters.' };
}

function readWork(text: string): Told {
  const work = ['' as const, ...WORKS].find((one) => one === text.toLowerCase());
  return work === undefined ? { fault: `“${text}”: it is one of ${WORKS.join(', ')}.` } : { label: { work } };
}

/** By its short name where that says which it is, and by its own word otherwise. */
function writeLicence(label: Label): string {
  const { licence } = label;
  const { short } = termsOf(label);
  if (licence === 'house') return short;
  return licence === 'unknown' ? '' : maybeLicence(short) === licence ? short : licence;
}

function readLicence(text: string, ofHouse: readonly HouseLicence[]): Told {
  if (text === '') return { label: { licence: 'unknown', houseLicence: null } };
  const own = maybeHouseLicence(text, ofHouse);
  if (own) return { label: { licence: 'house', houseLicence: own } };
  const licence = maybeLicence(text);
  return licence
    ? { label: { licence, houseLicence: null } }
    : { fault: `“${text}”: no licence is called so.` };
}

const byName = new Map<string, LicenceId>(
  LICENCE_IDS.filter((id) => isOfCopies(id) && isCatalogued(id)).flatMap((id) =>
    [id, licenceTerms(id).short, licenceTerms(id).name].map((name) => [name.toLowerCase(), id] as const),
  ),
);
const maybeLicence = (text: string): LicenceId | undefined =>
  byName.get(text.toLowerCase()) ?? maybeLicenceByAddress(text) ?? maybeLicenceByWords(text);

function readWhere(text: string): Told {
  const { regions, unknown } = readRegions(text);
  return unknown.length > 0
    ? { fault: `${unknown.join(', ')}: no country is called so.` }
    : { terms: { territory: [...regions] } };
}

function readPriced(text: string): Told {
  const price = readPrice(text);
  return price === undefined
    ? { fault: `“${text}”: a price is written as 48.00 GBP.` }
    : { terms: { price } };
}

/** A piece as a row of the ledger: `id` and file name first. */
export interface LedgerSubject extends Pick<Piece, 'id' | 'stem' | 'extension'> {
  readonly label: Label;
}
