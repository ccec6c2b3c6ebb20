import * as v from 'valibot';
import { fromStored, STORED, toStored } from '../stored.ts';
import { type HouseRules, HouseRulesSchema, StoredRulesSchema } from './target.ts';

/** What the file says of itself, so that it is known for what it is. */
const FORMAT = 'placard-target';
/** A description is some kilobytes. */
const MOST_LETTERS = 1_000_000;

/** A target as open JSON: all of its House rules, and nothing that opens it. `onPage` is no part of a target. */
export function writeTargetFile({ onPage: _, ...rules }: HouseRules): string {
  return `${JSON.stringify({ format: FORMAT, rules: toStored(STORED.rules, rules) }, null, 2)}\n`;
}

export type TargetFile =
  | { readonly kind: 'read'; readonly rules: HouseRules }
  | { readonly kind: 'refused'; readonly sentence: string };

const FileSchema = v.object({ format: v.literal(FORMAT), rules: v.unknown() });

/**
 * Reads a description of a target, also one that an earlier Placard wrote. What it does not say is as it is usually; what no target
 * has is passed over. Never throws: what is wrong is a sentence.
 */
export function readTargetFile(text: string): TargetFile {
  const refused = (sentence: string): TargetFile => ({ kind: 'refused', sentence });
  if (text.length > MOST_LETTERS)
    return refused('This file is larger than any description of a target. Nothing was changed.');
  const file = v.safeParse(FileSchema, maybeJson(text));
  if (!file.success)
    return refused('This is no description of a target as Placard writes it. Nothing was changed.');
  const read = v.safeParse(StoredRulesSchema, fromStored(STORED.rules, file.output.rules));
  if (!read.success) return refused(sayIssue(read.issues[0]));
  const rules = v.safeParse(HouseRulesSchema, read.output);
  return rules.success ? { kind: 'read', rules: rules.output } : refused(sayIssue(rules.issues[0]));
}

const sayIssue = (issue: v.BaseIssue<unknown>): string =>
  `What it says of “${v.getDotPath(issue) ?? 'the target'}” cannot be used: ${issue.message} Nothing was changed.`;

function maybeJson(text: string): unknown {
  try {
    return JSON.parse(text.replace(/^\uFEFF/, '')) as unknown;
  } catch {
    return null;
  }
}

type Part = Exclude<keyof HouseRules, 'onPage'>;

/** The parts of a description as House rules call them. */
const PART_WORDS: Readonly<Record<Part, string>> = {
  name: 'its name',
  siteAddress: 'the address of its site',
  language: 'its language',
  commercial: 'whether it is commercial',
  creditOwnWork: 'credit for own work',
  creditsAt: 'where credits stand',
  educational: 'whether it teaches',
  territory: 'where it is read',
  publishing: 'its way of publishing',
  timeZone: 'its time zone',
  trustedSources: 'sources whose word is enough',
  column: 'its column',
  gutter: 'the space beside its column',
  breakout: 'how wide a breakout is',
  breakpoints: 'its breakpoints',
  stackBelow: 'below which width pictures stack',
  proofWidths: 'the widths of its proof',
  textSize: 'the size of its text',
  cutPresets: 'its cuts',
  namePattern: 'its naming pattern',
  sections: 'its sections',
  weightBudget: 'its weight budget',
  leastLettersBeside: 'the least letters beside a picture',
  likeness: 'how alike its cuts look',
  pictureStyles: 'its picture styles',
  wordsOver: 'words over pictures',
  sending: 'how pages are sent',
  films: 'films and captions',
  embeds: 'what it lets through of embeds',
  dark: 'its dark theme',
  severities: 'what its findings count',
};

/** The parts in which two descriptions differ, in words, in the order of House rules. */
export function partsThatDiffer(before: HouseRules, after: HouseRules): readonly string[] {
  const parts = Object.entries(PART_WORDS) as readonly (readonly [Part, string])[];
  const [was, is] = [inOrder(before), inOrder(after)];
  return parts.filter(([part]) => !isSame(was[part], is[part])).map(([, words]) => words);
}

/** The same rules with what they say in the order of their schema, and with all that is usual. */
function inOrder(rules: HouseRules): HouseRules {
  const read = v.safeParse(StoredRulesSchema, rules);
  return read.success ? read.output : rules;
}

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
