import type { LostStyle } from './lost-style.ts';

/** What did not come along as it was, by a code of what became of it. */
const LEFT_OUT = {
  table: [
    'A table that is too large became a list of its rows.',
    (n: number) => `${n} tables that are too large became lists of their rows.`,
  ],
  form: ['Fields of a form were left out.', () => 'Fields of a form were left out.'],
  drawing: ['A drawing was left out.', (n: number) => `${n} drawings were left out.`],
  program: ['Programs never come along.', () => 'Programs never come along.'],
  struck: [
    'Words that were struck out were left out.',
    (n: number) => `Words that were struck out were left out in ${n} places.`,
  ],
  remark: [
    'A remark in the margin was left out.',
    (n: number) => `${n} remarks in the margin were left out.`,
  ],
  style: [
    'Foreign style was left out in one place.',
    (n: number) => `Foreign style was left out in ${n} places.`,
  ],
} as const satisfies Readonly<Record<string, readonly [string, (count: number) => string]>>;
export type LeftOutCode = keyof typeof LEFT_OUT;

/** One thing that did not come along as it was, with the words that stood before it; empty at the beginning. */
export interface LeftOut {
  readonly code: LeftOutCode;
  readonly after: string;
  /** The words that were left out, or that lost their style; empty for what has none. */
  readonly words: string;
  /** What of their style the words lost. */
  readonly styles?: readonly LostStyle[];
}

const PLACE_LETTERS = 40;
/** What stands in many places, or nowhere that is seen. */
const PLACELESS: ReadonlySet<LeftOutCode> = new Set(['program', 'style']);

/** What was left out, each sort once with how many there were, and where the first of them stood. */
export function sayLeftOut(all: readonly LeftOut[]): readonly string[] {
  const codes = [...new Set(all.map(({ code }) => code))];
  return codes.map((code) => {
    const some = all.filter((one) => one.code === code);
    const [one, many] = LEFT_OUT[code];
    const [first] = some;
    const sentence = some.length === 1 ? one : many(some.length);
    const after = first && !PLACELESS.has(code) ? lastPart(first.after) : '';
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

const STYLES: Readonly<Record<Exclude<LostStyle['kind'], 'font' | 'colour' | 'background'>, string>> = {
  larger: 'larger',
  smaller: 'smaller',
  underlined: 'underlined',
  centred: 'centred',
  right: 'set to the right',
};

/** One thing by which words were set apart, in words; its value is said where it has one. */
function sayLostStyle(style: LostStyle): string {
  switch (style.kind) {
    case 'font':
      return `in ${style.value}`;
    case 'colour':
      return `coloured ${style.value}`;
    case 'background':
      return `marked ${style.value}`;
    default:
      return STYLES[style.kind];
  }
}

/** What became of one thing that did not come along as it was, as it stands behind its words or its place. */
export function sayWhatWasLost({ code, styles = [] }: LeftOut): string {
  switch (code) {
    case 'style':
      return styles.map(sayLostStyle).join(', ');
    case 'struck':
      return 'struck out, left out';
    case 'remark':
      return 'a remark in the margin, left out';
    default:
      return LEFT_OUT[code][0].replace(/\.$/u, '').toLowerCase();
  }
}
