import { DE } from './de.ts';
import { EN } from './en.ts';
import type { Messages } from './table.ts';

/** Another language is a file beside these and a line here, by its primary subtag (BCP 47). */
const TABLES: Readonly<Record<string, Messages>> = { en: EN, de: DE };

/** The words for a page in a language (BCP 47); English where there are none in it. */
export function messagesFor(language: string): Messages {
  return TABLES[language.toLowerCase().split('-')[0] ?? ''] ?? EN;
}
