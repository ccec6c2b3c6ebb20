import { labelFrom, readLicence } from '../gather/reading.ts';
import type { SaidAbout, SaidBy, Statement } from '../gather/statement.ts';
import { termsOf } from './house-licence.ts';
import type { Label, LabelPatch } from './label.ts';
import { licenceTerms } from './licences.ts';
import { foldName, isSameName } from './same-name.ts';

/** What a credit rests on, and may be said otherwise elsewhere. */
export const DIFFERENCE_ABOUT = ['licence', 'maker', 'notice'] as const;
type DifferenceAbout = (typeof DIFFERENCE_ABOUT)[number];
/** Who says otherwise: the file itself, or the page that it came from, asked again. */
export const DIFFERENCE_BY = ['file', 'source'] as const;

/** One thing that a file or a source says otherwise than the label. `says` is its words, `label` what the label says, `patch` what the label would say. */
export interface Difference {
  readonly by: (typeof DIFFERENCE_BY)[number];
  readonly about: DifferenceAbout;
  readonly says: string;
  readonly label: string;
  readonly patch: LabelPatch;
}

/** What a source said of a piece when it came, and when it was asked again. */
export interface AskedAgain {
  readonly before: readonly Statement[];
  readonly now: readonly Statement[];
}

/**
 * What the file and the source of a piece say otherwise than its label. What a label does not say contradicts nothing; a source
 * is heard only where it says another thing than when the piece came, since what it said then was seen.
 */
export function differencesOf(
  label: Label,
  said: readonly Statement[],
  asked: AskedAgain | null,
): readonly Difference[] {
  const byFile = otherwise(
    label,
    said.filter(({ by }) => by === 'file'),
  ).map((one) => ({ ...one, by: 'file' as const }));
  if (asked === null) return byFile;
  const now = asked.now.filter(({ by }) => OF_PAGES.has(by));
  const before = asked.before.filter(({ by }) => OF_PAGES.has(by));
  const bySource = otherwise(label, now)
    .filter(({ about }) => !isSame(valuesOf(before, about), valuesOf(now, about)))
    .map((one) => ({ ...one, by: 'source' as const }));
  return [...byFile, ...bySource];
}

/** Places that a page says something in, which is what is read again. */
const OF_PAGES: ReadonlySet<SaidBy> = new Set(['json-ld', 'rdfa', 'caption', 'link', 'open-graph', 'page']);

const valuesOf = (said: readonly Statement[], about: SaidAbout): ReadonlySet<string> =>
  new Set(said.filter((one) => one.about === about).map(({ value }) => foldName(value)));

const isSame = (one: ReadonlySet<string>, other: ReadonlySet<string>): boolean =>
  one.size === other.size && [...one].every((value) => other.has(value));

type Otherwise = Omit<Difference, 'by'>;

function otherwise(label: Label, said: readonly Statement[]): readonly Otherwise[] {
  const read = labelFrom(said);
  return [otherLicence(label, said), otherMaker(label, said, read), otherNotice(label, said, read)].filter(
    (one) => one !== null,
  );
}

/** Licences that somebody gave to this house, of which neither file nor page need know. */
const GIVEN_TO_US: ReadonlySet<string> = new Set(['own', 'hire', 'permission', 'agency', 'comp', 'house']);

function otherLicence(label: Label, said: readonly Statement[]): Otherwise | null {
  const reading = readLicence(said);
  if (reading.kind !== 'clear' || reading.licence === label.licence) return null;
  if (label.licence === 'unknown' || GIVEN_TO_US.has(label.licence)) return null;
  const { licence } = reading;
  return {
    about: 'licence',
    says: licenceTerms(licence).short,
    label: termsOf(label).short,
    patch: { licence, houseLicence: null, licenceAddress: '' },
  };
}

function otherMaker({ creator }: Label, said: readonly Statement[], read: LabelPatch): Otherwise | null {
  if (creator === '' || read.creator === undefined) return null;
  const named = said.filter(({ about }) => about === 'maker');
  return named.some(({ value }) => isWithin(creator, value))
    ? null
    : { about: 'maker', says: read.creator, label: creator, patch: { creator: read.creator } };
}

function otherNotice(
  { copyrightNotice }: Label,
  said: readonly Statement[],
  read: LabelPatch,
): Otherwise | null {
  if (copyrightNotice === '' || read.copyrightNotice === undefined) return null;
  const notices = said.filter(({ about }) => about === 'notice');
  return notices.some(({ value }) => isSameName(withoutSign(value), withoutSign(copyrightNotice)))
    ? null
    : {
        about: 'notice',
        says: read.copyrightNotice,
        label: copyrightNotice,
        patch: { copyrightNotice: read.copyrightNotice },
      };
}

/** EXIF holds ASCII alone, and says "(C)" for the sign. */
const withoutSign = (notice: string): string => notice.replace(/©|\(c\)|\bcopyright\b/gi, ' ');

/** "Ines Okonjo" and "Ines Okonjo, Saltmere" name one maker. */
function isWithin(one: string, other: string): boolean {
  const [a, b] = [` ${foldName(one)} `, ` ${foldName(other)} `];
  return a.trim() === '' || a.includes(b) || b.includes(a);
}

const ABOUT_WORDS: Readonly<Record<DifferenceAbout, string>> = {
  licence: 'its licence',
  maker: 'its maker',
  notice: 'its copyright notice',
};

/** What is said otherwise in a sentence: "The file says of its maker: Tomas Reill." */
export const sayOtherwise = ({ by, about, says }: Pick<Difference, 'by' | 'about' | 'says'>): string =>
  by === 'file'
    ? `The file says of ${ABOUT_WORDS[about]}: ${says}.`
    : `The source says by now of ${ABOUT_WORDS[about]}: ${says}.`;

/** With what the label says: "... The label says: Ines Okonjo." */
export const sayDifference = (one: Omit<Difference, 'patch'>): string =>
  `${sayOtherwise(one)} The label says: ${one.label}.`;
