import type { TrackKind } from './cue.ts';

/** What a film's captions or chapters in a language are called beside it: "eel-pass.cy.vtt", "eel-pass.cy.chapters.vtt". */
export const captionsName = (stem: string, language: string, kind: TrackKind = 'captions'): string =>
  `${stem}.${language.toLowerCase()}${kind === 'captions' ? '' : `.${kind}`}.vtt`;

const NAME = /\.([a-z]{2,3}(?:-[a-z0-9]{2,8}){0,4})(\.chapters)?\.vtt$/;

/** What a name ends with: its language, and what it is; null for another file. */
export function trackOfName(name: string): { readonly language: string; readonly kind: TrackKind } | null {
  const [, language, chapters] = NAME.exec(name) ?? [];
  return language === undefined ? null : { language, kind: chapters ? 'chapters' : 'captions' };
}
