import * as v from 'valibot';
import { Store } from './store.ts';

/** What single letters do, each with the letter that it has to begin with (WCAG 2.2, 2.1.4: they can be changed and switched off). */
const USUAL_LETTERS = {
  'beside-left': 'l',
  'beside-right': 'r',
  centred: 'c',
  column: 'w',
  breakout: 'o',
  bleed: 'e',
  paragraph: 'n',
  carry: 'm',
  help: '?',
} as const;
export type LetterDeed = keyof typeof USUAL_LETTERS;
type Letters = Readonly<Record<LetterDeed, string>>;

interface SingleKeys {
  readonly areOn: boolean;
  readonly letters: Letters;
}

const USUAL: SingleKeys = { areOn: true, letters: USUAL_LETTERS };
const KEY = 'placard-single-keys';

const letter = v.pipe(v.string(), v.length(1));

const KeptSchema = v.pipe(
  v.string(),
  v.parseJson(),
  v.object({ areOn: v.boolean(), letters: v.record(v.string(), letter) }),
);

function kept(): SingleKeys {
  const read = v.safeParse(KeptSchema, localStorage.getItem(KEY));
  if (!read.success) return USUAL;
  return { areOn: read.output.areOn, letters: { ...USUAL_LETTERS, ...read.output.letters } };
}

export const singleKeys = new Store<SingleKeys>(kept());

function keep(next: SingleKeys): void {
  localStorage.setItem(KEY, JSON.stringify(next));
  singleKeys.set(next);
}

export function switchSingleKeys(areOn: boolean): void {
  keep({ ...singleKeys.state, areOn });
}

/** Gives a deed another letter; answers a sentence where that is another's, and nothing is changed. */
export function chooseLetter(deed: LetterDeed, typed: string): string | null {
  const next = typed.trim().toLowerCase().slice(-1);
  if (next === '' || next === singleKeys.state.letters[deed]) return null;
  if ('+-='.includes(next)) return `${next} makes a piece wider or narrower.`;
  const taken = Object.entries(singleKeys.state.letters).some(
    ([other, its]) => other !== deed && its === next,
  );
  if (taken) return `${next.toUpperCase()} does something else already. Give that another letter first.`;
  keep({ ...singleKeys.state, letters: { ...singleKeys.state.letters, [deed]: next } });
  return null;
}

export const usualLetters = (): void => keep({ ...singleKeys.state, letters: USUAL_LETTERS });

/** The deed that a key stands for, if single keys are on and it is one of them. */
export function deedOf(key: string): LetterDeed | undefined {
  const { areOn, letters } = singleKeys.state;
  if (!areOn) return undefined;
  const [deed] = Object.entries(letters).find(([, its]) => its === key.toLowerCase()) ?? [];
  return isDeed(deed) ? deed : undefined;
}

const isDeed = (name: string | undefined): name is LetterDeed =>
  name !== undefined && Object.hasOwn(USUAL_LETTERS, name);
