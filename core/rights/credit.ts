import type { Made, Messages } from '../messages/table.ts';
import { type CreditPart, creditParts } from './attribution.ts';
import { type CreditFacts, type CreditPartKind, type CreditWords, creditWordsIn } from './credit-words.ts';
import { termsOf } from './house-licence.ts';
import type { Judgement } from './judgement.ts';
import type { Label } from './label.ts';

/** A stretch of a credit: a part of it, or words between parts. One with an address is a link. */
interface CreditRun {
  readonly kind: CreditPartKind | 'words';
  readonly text: string;
  readonly address: string | null;
}

/** A credit from its first word to its point. */
export interface Credit {
  /** None where nothing is owed nor asked, and where nobody could be credited. */
  readonly runs: readonly CreditRun[];
  /** What is owed and known, and does not stand in it. */
  readonly leftOut: readonly CreditPartKind[];
}

/** Who is asked for a credit: what was made, in the language of the page, in a place with room for a line or for less. */
export interface CreditPlace {
  readonly made: Made;
  readonly messages: Messages;
  readonly language: string;
  readonly form: 'full' | 'short';
}

export const NO_CREDIT: Credit = { runs: [], leftOut: [] };

/**
 * The credit of a use: in somebody's own words where the label has some in the page's language, and otherwise put together by
 * the clauses (`attribution.ts`). The short form says maker, notice, licence, changes and what an agency asks to be named by;
 * the work's address, which CC BY 4.0 s3(a)(1)(A)(v) asks for, is then that of its title, its maker or its notice.
 */
export function creditOf(label: Label, judgement: Judgement, place: CreditPlace): Credit {
  const parts = creditParts(label, judgement, place.messages);
  if (parts.length === 0) return NO_CREDIT;
  const words = creditWordsIn(label.creditWords, place.language);
  if (place.form === 'short') return credit(shortened(parts), parts, label, judgement);
  const own = words && inOwnWords(words, label, parts);
  return credit(own ?? inOrder(parts, place), parts, label, judgement);
}

function credit(
  runs: readonly CreditRun[],
  parts: readonly CreditPart[],
  label: Label,
  judgement: Judgement,
): Credit {
  const linked = withWorkAddress(runs, label);
  return { runs: linked, leftOut: leftOutOf(linked, parts, label, judgement) };
}

const words = (text: string): CreditRun => ({ kind: 'words', text, address: null });

/** Parts with commas between them. */
const listed = (parts: readonly CreditPart[]): CreditRun[] =>
  parts.flatMap((part, at): CreditRun[] => (at === 0 ? [part] : [words(', '), part]));

/** "Photo: Ines Okonjo, CC BY 4.0, cropped." What was made is not said where the title does. */
function inOrder(parts: readonly CreditPart[], { made, messages }: CreditPlace): readonly CreditRun[] {
  const lead = parts[0]?.kind === 'title' ? [] : [words(`${messages.made[made]}: `)];
  return ended([...lead, ...listed(parts)]);
}

/** What a card has no room for: where it can be found again is left to the link. */
const LONG: ReadonlySet<CreditPartKind> = new Set(['licensed-to', 'accessed']);

function shortened(parts: readonly CreditPart[]): readonly CreditRun[] {
  const isNamed = parts.some(({ kind }) => kind === 'maker' || kind === 'notice' || kind === 'title');
  const isAgency = parts.some(({ kind }) => kind === 'id');
  return listed(parts.filter(({ kind }) => !LONG.has(kind) && (kind !== 'source' || isAgency || !isNamed)));
}

/** Ends with one point, whatever its last word ends with ("Pictures Ltd."). */
function ended(runs: readonly CreditRun[]): readonly CreditRun[] {
  return /[.!?…]["'”’»“]?$/u.test(runs.at(-1)?.text ?? '') ? runs : [...runs, words('.')];
}

/** What own words may name: the parts, and the maker where the notice names them already. */
export function creditFacts(label: Label, parts: readonly CreditPart[]): CreditFacts {
  const facts = new Map<CreditPartKind, string>(parts.map(({ kind, text }) => [kind, text]));
  if (label.creator !== '' && !facts.has('maker')) facts.set('maker', label.creator);
  // Changes belong to a use, not to the piece: they are added to own words where they are owed.
  facts.delete('changes');
  return facts;
}

/** Own words, with what is owed of changes at their end; null where they name what is no longer known. */
function inOwnWords(
  own: CreditWords,
  label: Label,
  parts: readonly CreditPart[],
): readonly CreditRun[] | null {
  const facts = creditFacts(label, parts);
  const runs: CreditRun[] = [];
  for (const run of own.runs) {
    if (run.kind === 'words') runs.push(words(run.text));
    else {
      const text = facts.get(run.part);
      if (!text) return null;
      const address = parts.find(({ kind }) => kind === run.part)?.address;
      runs.push({
        kind: run.part,
        text,
        address: address ?? (run.part === 'maker' ? label.makerAddress || null : null),
      });
    }
  }
  const changes = parts.find(({ kind }) => kind === 'changes');
  if (!changes) return runs;
  const last = runs.at(-1);
  const open =
    last?.kind === 'words' ? [...runs.slice(0, -1), words(last.text.replace(/[.\s]+$/u, ''))] : runs;
  return ended([...open.filter(({ text }) => text !== ''), words(', '), changes]);
}

/** The address of the work stands on whatever names it best, where no part of its own has it. */
function withWorkAddress(runs: readonly CreditRun[], { sourceAddress }: Label): readonly CreditRun[] {
  if (sourceAddress === '' || runs.some(({ address }) => address === sourceAddress)) return runs;
  const bearer = (['title', 'maker', 'notice'] as const).find((kind) =>
    runs.some((run) => run.kind === kind),
  );
  return runs.map((run) => (run.kind === bearer ? { ...run, address: sourceAddress } : run));
}

/**
 * What is owed and known and left out. CC BY 4.0 s3(a)(1)(A): maker, notice, licence, address of the work; 1.0 to 3.0 s4: the
 * title too; an agency asks for its name, its ID and to whom it licensed. Elsewhere a credit owes its maker and the notice.
 */
function leftOutOf(
  runs: readonly CreditRun[],
  parts: readonly CreditPart[],
  label: Label,
  judgement: Judgement,
): readonly CreditPartKind[] {
  if (!judgement.duties.includes('credit')) return [];
  const owed: readonly CreditPartKind[] = OWED[owedBy(label)];
  const isAddressed = runs.some(({ address }) => address === label.sourceAddress);
  return parts
    .map(({ kind }) => kind)
    .filter((kind) => {
      if (!owed.includes(kind) || runs.some((run) => run.kind === kind)) return false;
      return kind !== 'source' || !isAddressed || label.licence === 'agency';
    });
}

const OWED = {
  clauses: ['title', 'maker', 'notice', 'source', 'licence', 'changes'],
  agency: ['maker', 'notice', 'source', 'id', 'changes'],
  else: ['maker', 'notice', 'changes'],
} as const;

function owedBy(label: Label): keyof typeof OWED {
  if (label.licence === 'agency') return 'agency';
  return label.licence === 'house' || termsOf(label).address !== null ? 'clauses' : 'else';
}

/** A credit as plain text. Empty when there is none. */
export const creditText = ({ runs }: Credit): string => runs.map(({ text }) => text).join('');

/** What Markdown would take for a sign of its own (CommonMark 0.31, 2.4). */
const MARKDOWN_SIGNS = /[\\`*_{}[\]<>()#+!|]/g;
const markdownText = (text: string): string => text.replace(MARKDOWN_SIGNS, '\\$&');

/** A credit as Markdown, its parts linked where there is an address. Empty when there is none. */
export const creditMarkdown = ({ runs }: Credit): string =>
  runs
    .map(({ text, address }) =>
      address
        ? `[${markdownText(text)}](<${address.replace(/[<>\s]/g, encodeURIComponent)}>)`
        : markdownText(text),
    )
    .join('');
