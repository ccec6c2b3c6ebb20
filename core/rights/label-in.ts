import { primaryOf } from '../words/language-tag.ts';
import type { Label, Translation } from './label.ts';

/**
 * What is said of a piece in a language: by the very tag, or else by its language without the region (BCP 47 lookup,
 * RFC 4647 3.4). Null where only the piece's own words are there.
 */
export function translationIn({ translations }: Label, language: string): Translation | null {
  const wanted = language.toLowerCase();
  return (
    translations.find((one) => one.language.toLowerCase() === wanted) ??
    translations.find((one) => primaryOf(one.language) === primaryOf(wanted)) ??
    null
  );
}

/** A label as it speaks on a page in a language. What is not said in it is said as on the piece; decorative stays decorative. */
export function labelIn(label: Label, language: string): Label {
  const said = translationIn(label, language);
  if (!said) return label;
  return {
    ...label,
    title: said.title || label.title,
    alt: said.alt !== '' && label.alt.kind !== 'decorative' ? { kind: 'text', text: said.alt } : label.alt,
    caption: said.caption || label.caption,
    extendedDescription: said.extendedDescription || label.extendedDescription,
  };
}
