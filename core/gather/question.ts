import * as v from 'valibot';
import { shapeOf } from '../media/dimensions.ts';
import { copyAt, judge } from '../rights/judgement.ts';
import { EMPTY_LABEL, withPatch } from '../rights/label.ts';
import { licenceTerms } from '../rights/licences.ts';
import { labelFrom, readLicence } from './reading.ts';
import type { Statement } from './statement.ts';

/** What is asked of every source at once. `leastWidth` in px; `page` counts from 1. */
const GatherQuestionSchema = v.object({
  words: v.pipe(v.string(), v.trim(), v.maxLength(200)),
  commercial: v.boolean(),
  changes: v.boolean(),
  shape: v.picklist(['any', 'landscape', 'portrait', 'square']),
  leastWidth: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(20_000)),
});
export type GatherQuestion = v.InferOutput<typeof GatherQuestionSchema>;

/** What of a found picture decides whether it answers a question. Sizes in px, 0 where they are not known. */
export interface Findable {
  readonly width: number;
  readonly height: number;
  readonly statements: readonly Statement[];
}

/** Why a found picture cannot be used as it was asked for. */
export type Misfit = 'no-commercial' | 'no-changes' | 'not-usable' | 'too-small' | 'other-shape';

/**
 * Why a picture does not answer the question on this target, or undefined when it does. A picture whose licence is
 * not clear is no misfit: a person decides on it. A comp may be tried.
 */
export function misfitOf(found: Findable, question: GatherQuestion): Misfit | undefined {
  const reading = readLicence(found.statements);
  if (reading.kind === 'clear' && reading.licence !== 'comp') {
    const terms = licenceTerms(reading.licence);
    // What holds in one country alone is no answer to a question that names none.
    if (!terms.publish || terms.onlyIn !== null) return 'not-usable';
    if (question.commercial && !terms.commercial) return 'no-commercial';
    if (question.changes && !terms.allowsDerivatives) return 'no-changes';
  }
  // A comp is small by nature: the original that is bought is not.
  const isComp = reading.kind === 'clear' && reading.licence === 'comp';
  if (!isComp && found.width > 0 && found.width < question.leastWidth) return 'too-small';
  if (found.width > 0 && found.height > 0 && question.shape !== 'any' && shapeOf(found) !== question.shape)
    return 'other-shape';
  return undefined;
}

const MISFIT_WORDS: Readonly<Record<Misfit, readonly [one: string, many: string]>> = {
  'no-commercial': ['forbids commercial use', 'forbid commercial use'],
  'no-changes': ['forbids changes', 'forbid changes'],
  'not-usable': ['may not be used at all', 'may not be used at all'],
  'too-small': ['is too small', 'are too small'],
  'other-shape': ['has another shape', 'have another shape'],
};

/** "61 more may not be used here: 44 forbid commercial use, 12 forbid changes, 5 are too small." */
export function sayMisfits(misfits: readonly Misfit[]): string {
  const counts = new Map<Misfit, number>();
  for (const misfit of misfits) counts.set(misfit, (counts.get(misfit) ?? 0) + 1);
  const parts = [...counts]
    .sort(([, a], [, b]) => b - a)
    .map(([misfit, count]) => `${count} ${MISFIT_WORDS[misfit][count === 1 ? 0 : 1]}`);
  return `${misfits.length} more ${misfits.length === 1 ? 'does' : 'do'} not fit: ${parts.join(', ')}.`;
}

/** What a found picture may be used for here, in a few words under it; due when a person has to decide or pay. */
export function sayUse(
  found: Findable,
  rules: Parameters<typeof copyAt>[0],
): { readonly words: string; readonly isDue: boolean } {
  const reading = readLicence(found.statements);
  if (reading.kind === 'contradicting') return { words: 'licence disagrees, decide', isDue: true };
  if (reading.kind === 'unclear') return { words: 'licence unclear, decide', isDue: true };
  if (reading.kind === 'silent') return { words: 'no licence said', isDue: true };
  if (reading.licence === 'comp') return { words: 'comp, free to try', isDue: false };
  const terms = licenceTerms(reading.licence);
  const label = withPatch(EMPTY_LABEL, { ...labelFrom(found.statements), licence: reading.licence });
  const { verdict } = judge(label, copyAt(rules));
  if (verdict === 'not-allowed') return { words: 'not here', isDue: true };
  const isOwed = terms.owesCredit === 'yes';
  return { words: isOwed ? 'credit owed' : 'nothing owed', isDue: false };
}
