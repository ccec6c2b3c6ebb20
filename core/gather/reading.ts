import type { LabelPatch } from '../rights/label.ts';
import { type LicenceId, licenceTerms } from '../rights/licences.ts';
import { maybeLicenceByAddress, maybeLicenceByWords } from '../rights/recognise.ts';
import { isWebAddress } from '../rights/web-address.ts';
import { SAID_BY, type SaidAbout, type SaidBy, type Statement, saySaidBy } from './statement.ts';

/** One licence that somebody names, and who. `licence` is null where the words name none that is known. */
interface LicenceVoice {
  readonly by: SaidBy;
  readonly value: string;
  readonly licence: LicenceId | null;
}

/**
 * What the places together say of the licence. "clear" when all that name one name the same; "contradicting" when
 * they name several; "unclear" when something is said that names none; "silent" when nothing is said.
 */
export type LicenceReading =
  | { readonly kind: 'clear'; readonly licence: LicenceId; readonly voices: readonly LicenceVoice[] }
  | { readonly kind: 'contradicting'; readonly voices: readonly LicenceVoice[] }
  | { readonly kind: 'unclear'; readonly voices: readonly LicenceVoice[] }
  | { readonly kind: 'silent' };

/** Reads the licence from statements. Never guesses: a person decides where places disagree or are not understood. */
export function readLicence(said: readonly Statement[]): LicenceReading {
  const voicesAbout = (which: SaidAbout) =>
    said
      .filter(({ about }) => about === which)
      .map(({ by, value }): LicenceVoice => ({ by, value, licence: licenceNamed(value) }));
  const voices = voicesAbout('licence');
  // What a page says of itself may be said of its text, and clears no picture on it.
  const ofPage = voicesAbout('page-licence');
  if (voices.length === 0)
    return ofPage.length > 0 ? { kind: 'unclear', voices: ofPage } : { kind: 'silent' };
  const named = [...new Set(voices.flatMap(({ licence }) => licence ?? []))];
  const [only, ...others] = named;
  if (others.length > 0) return { kind: 'contradicting', voices };
  return only === undefined ? { kind: 'unclear', voices } : { kind: 'clear', licence: only, voices };
}

function licenceNamed(value: string): LicenceId | null {
  if (/^(comp|not bought)$/i.test(value)) return 'comp';
  if (/^all rights reserved\.?$/i.test(value)) return 'copyright';
  return maybeLicenceByAddress(value) ?? maybeLicenceByWords(value) ?? null;
}

/** A licence reading as sentences: what disagrees or is not understood, and that a person has to decide. */
export function sayLicenceReading(reading: LicenceReading): string | null {
  switch (reading.kind) {
    case 'clear':
      return null;
    case 'silent':
      return 'Nothing is said of its licence.';
    case 'unclear':
      return `What is said of its licence is not clear: ${sayVoices(reading.voices)}`;
    case 'contradicting':
      return `What is said of its licence disagrees: ${sayVoices(reading.voices)}`;
  }
}

function sayVoices(voices: readonly LicenceVoice[]): string {
  return voices
    .map(({ by, value, licence }) => {
      const says = licence ? licenceTerms(licence).short : `“${value.slice(0, 80)}”`;
      return `${saySaidBy(by)} says ${says}.`;
    })
    .join(' ');
}

/** The first thing said about something, by the place nearest to the maker. */
export function firstSaid(said: readonly Statement[], about: SaidAbout): string {
  const found = said.filter((one) => one.about === about);
  return found.sort((a, b) => SAID_BY.indexOf(a.by) - SAID_BY.indexOf(b.by))[0]?.value ?? '';
}

const LINE_LIMIT = 300;
const line = (text: string) => text.slice(0, LINE_LIMIT);

const ALT_LIMIT = 1000;
/** A name of a file, or a word for any picture, describes nothing. */
const SAYS_NOTHING =
  /^(?:\S+\.(?:jpe?g|png|gif|webp|avif|tiff?)|image|picture|photo|photograph|img|figure|untitled|null|undefined)$/i;

/** What the page itself says for those who cannot see a picture; what it gives to its previews comes after. */
function altSaid(said: readonly Statement[]): string {
  const by = (place: SaidBy) => said.find((one) => one.about === 'alt' && one.by === place)?.value ?? '';
  const alt = (by('page') || firstSaid(said, 'alt')).slice(0, ALT_LIMIT).trim();
  return SAYS_NOTHING.test(alt) ? '' : alt;
}

/**
 * The label that statements draft: what is not said is left out, and the licence stays unknown unless it is clear.
 */
export function labelFrom(said: readonly Statement[]): LabelPatch {
  const patch: LabelPatch = {};
  const text = (about: SaidAbout) => line(firstSaid(said, about));
  const title = text('title');
  if (title) patch.title = title;
  const maker = text('maker');
  if (maker) patch.creator = maker;
  const makerAddress = firstSaid(said, 'maker-address');
  if (isWebAddress(makerAddress)) patch.makerAddress = makerAddress;
  const source = text('source');
  if (source) patch.source = source;
  const sourceId = text('source-id');
  if (sourceId) patch.sourceId = sourceId;
  const notice = text('notice');
  if (notice) patch.copyrightNotice = notice;
  const place = text('place');
  if (place) patch.place = place;
  const caption = firstSaid(said, 'caption');
  if (caption) patch.caption = caption;
  const alt = altSaid(said);
  if (alt) patch.alt = { kind: 'text', text: alt };
  const taken = /^\d{4}-\d{2}-\d{2}/.exec(firstSaid(said, 'taken'))?.[0];
  if (taken && !Number.isNaN(Date.parse(taken))) patch.dateCreated = taken;
  const words = firstSaid(said, 'words')
    .split(',')
    .map((word) => word.trim())
    .filter(Boolean)
    .slice(0, 60);
  if (words.length > 0) patch.keywords = words.map(line);
  const reading = readLicence(said);
  if (reading.kind === 'clear') patch.licence = reading.licence;
  return patch;
}
