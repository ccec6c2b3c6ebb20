import type { Alt } from '../rights/label.ts';

export type AltFault =
  | 'missing'
  | 'decorative-linked'
  | 'file-name'
  | 'image-of'
  | 'punctuation'
  | 'long'
  | 'same-as-caption';

/** Where the alt text stands. */
export interface AltPlace {
  readonly linked: boolean;
  readonly caption: string;
}

/** Screen readers break long alternatives up; beyond this a caption or long description serves better. */
const LONG_LETTERS = 150;

/**
 * What is wrong with an alt text, or undefined. Follows the W3C WAI "alt decision tree": decorative pictures have
 * empty alt, unless they are the only content of a link.
 */
export function altFault(alt: Alt, place: AltPlace): AltFault | undefined {
  if (alt.kind === 'unsaid') return 'missing';
  if (alt.kind === 'decorative') return place.linked ? 'decorative-linked' : undefined;
  const text = alt.text.trim();
  if (!/[\p{L}\p{N}]/u.test(text)) return 'punctuation';
  if (
    /^\S+\.(jpe?g|png|webp|avif|gif|tiff?|svg)$/i.test(text) ||
    /^https?:\/\//i.test(text) ||
    /^[A-Z]{2,5}[_-]?\d{3,}$/i.test(text)
  ) {
    return 'file-name';
  }
  if (/^(an?\s+|the\s+)?(image|picture|photo|photograph|graphic)\s+(of|showing)\b/i.test(text))
    return 'image-of';
  if (text.length > LONG_LETTERS) return 'long';
  if (place.caption !== '' && sameWords(text, place.caption)) return 'same-as-caption';
  return undefined;
}

function sameWords(one: string, other: string): boolean {
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim();
  return plain(one) === plain(other);
}

const SENTENCES: Readonly<Record<AltFault, string>> = {
  missing: 'No alt text yet.',
  'decorative-linked':
    'It is marked decorative, but it is a link: its alt text has to say where the link goes.',
  'file-name': 'The alt text is a file name or an address, not words.',
  'image-of': 'The alt text begins with “image of”, which screen readers already say.',
  punctuation: 'The alt text holds no words.',
  long: `The alt text has over ${LONG_LETTERS} letters. Say the rest in a caption or a description.`,
  'same-as-caption': 'The alt text repeats the caption, so it is heard twice.',
};

export function sayAltFault(fault: AltFault): string {
  return SENTENCES[fault];
}

/** The text without "image of" in front, with a capital again. */
export function withoutImageOf(text: string): string {
  const rest = text.replace(
    /^(an?\s+|the\s+)?(image|picture|photo|photograph|graphic)\s+(of|showing)\s+/i,
    '',
  );
  return rest.charAt(0).toUpperCase() + rest.slice(1);
}
