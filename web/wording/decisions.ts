import type { Alt, Label } from '#core/rights/label.ts';

/** What a picture does on its page, which says what its alt text has to be (W3C WAI, alt decision tree). */
export const DECISIONS = ['tells', 'decorates', 'too-much', 'words'] as const;
export type Decision = (typeof DECISIONS)[number];

export const DECISION_WORDS: Readonly<Record<Decision, readonly [does: string, then: string]>> = {
  tells: ['It tells something.', 'Then say what.'],
  decorates: ['It decorates.', 'Then it is passed over.'],
  'too-much': ['It shows too much for a sentence.', 'A short name, and the long of it below.'],
  words: ['It is made of words.', 'Then those words.'],
};

/** What is asked for when a picture is pressed and leads somewhere. */
export const LEADS_WORDS = ['It leads somewhere.', 'Then say where.'] as const;

/** The words of one picture as they are written in a round. */
export interface Draft {
  readonly decision: Decision;
  readonly text: string;
  readonly long: string;
}

/** What stands in a label, as a draft to write on. What a picture of words is cannot be told from one that tells something. */
export function draftOf({ alt, extendedDescription }: Pick<Label, 'alt' | 'extendedDescription'>): Draft {
  const decision =
    alt.kind === 'decorative' ? 'decorates' : extendedDescription !== '' ? 'too-much' : 'tells';
  return { decision, text: alt.kind === 'text' ? alt.text : '', long: extendedDescription };
}

/** The alt text that a draft comes to. */
export function altOf({ decision, text }: Draft): Alt {
  if (decision === 'decorates') return { kind: 'decorative' };
  return text.trim() === '' ? { kind: 'unsaid' } : { kind: 'text', text: text.trim() };
}
