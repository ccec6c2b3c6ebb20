import * as v from 'valibot';

/** What was typed into a form and not saved yet, kept by the browser until this tab is closed. */
const DraftSchema = v.object({
  /** What stood there before: a draft upon something else is of no use. */
  before: v.string(),
  values: v.record(v.string(), v.unknown()),
});

const keyOf = (name: string) => `placard-form ${name}`;

/** The draft of a form that began with these values, or null. */
export function keptDraft(name: string, before: object): Readonly<Record<string, unknown>> | null {
  if (!('sessionStorage' in globalThis)) return null;
  const text = sessionStorage.getItem(keyOf(name));
  if (text === null) return null;
  try {
    const read = v.safeParse(DraftSchema, JSON.parse(text));
    return read.success && read.output.before === JSON.stringify(before) ? read.output.values : null;
  } catch {
    return null;
  }
}

export function keepDraft(name: string, before: object, values: object): void {
  try {
    sessionStorage.setItem(keyOf(name), JSON.stringify({ before: JSON.stringify(before), values }));
  } catch {
    // The store of the browser is full: what is typed still stands in the form.
  }
}

export function forgetDraft(name: string): void {
  sessionStorage.removeItem(keyOf(name));
}
