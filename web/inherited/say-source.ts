/** Where an inherited page comes from, without what every address begins with. */
export const saySource = (source: string): string =>
  /^https?:\/\//.test(source) ? `the page at ${source.replace(/^https?:\/\//, '')}` : source;
