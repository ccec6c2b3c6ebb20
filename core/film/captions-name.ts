/** What a film's captions in a language are called beside it: "eel-pass.cy.vtt". */
export const captionsName = (stem: string, language: string): string =>
  `${stem}.${language.toLowerCase()}.vtt`;

/** The language that a name ends with; null for another file. */
export const languageOfCaptions = (name: string): string | null =>
  /\.([a-z]{2,3}(?:-[a-z0-9]{2,8}){0,4})\.vtt$/.exec(name)?.[1] ?? null;
