/** What did not come along as it was, by a code of what became of it. */
const LEFT_OUT = {
  table: [
    'A table that is too large became a list of its rows.',
    (n: number) => `${n} tables that are too large became lists of their rows.`,
  ],
  form: ['Fields of a form were left out.', () => 'Fields of a form were left out.'],
  drawing: ['A drawing was left out.', (n: number) => `${n} drawings were left out.`],
  program: ['Programs never come along.', () => 'Programs never come along.'],
} as const satisfies Readonly<Record<string, readonly [string, (count: number) => string]>>;
export type LeftOutCode = keyof typeof LEFT_OUT;

/** One thing that did not come along as it was, with the words that stood before it; empty at the beginning. */
export interface LeftOut {
  readonly code: LeftOutCode;
  readonly after: string;
}

const PLACE_LETTERS = 40;

/** What was left out, each sort once with how many there were, and where the first of them stood. */
export function sayLeftOut(all: readonly LeftOut[]): readonly string[] {
  const codes = [...new Set(all.map(({ code }) => code))];
  return codes.map((code) => {
    const some = all.filter((one) => one.code === code);
    const [one, many] = LEFT_OUT[code];
    const [first] = some;
    const sentence = some.length === 1 ? one : many(some.length);
    const after = first && code !== 'program' ? lastPart(first.after) : '';
    if (after === '') return sentence;
    const where = some.length === 1 ? 'after' : 'the first after';
    return `${sentence.replace(/\.$/u, '')} (${where} “${after}”).`;
  });
}

/** The last words of a place, whole, as far as they are short enough to read. */
function lastPart(text: string): string {
  const words = text
    .trim()
    .replace(/[\s.,:;]+$/u, '')
    .split(/\s+/u);
  const kept: string[] = [];
  for (const word of words.reverse()) {
    if (kept.join(' ').length + word.length > PLACE_LETTERS && kept.length > 0) break;
    kept.unshift(word);
  }
  return kept.join(' ').slice(-PLACE_LETTERS * 2);
}
