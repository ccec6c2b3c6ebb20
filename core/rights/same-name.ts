/** A name without what people spell differently: case, accents, points, dashes, "The" and the form of a company. */
export function foldName(name: string): string {
  return name
    .normalize('NFKD')
    .replace(/\p{Diacritic}/gu, '')
    .toLowerCase()
    .replace(/[^\p{Letter}\p{Number}]+/gu, ' ')
    .trim()
    .replace(/^the /, '')
    .replace(/ (?:ltd|limited|inc|gmbh|llc|plc)$/, '');
}

/** Whether two texts name the same person or house, in whatever spelling; never for an empty one. */
export function isSameName(one: string, other: string): boolean {
  const folded = foldName(one);
  return folded !== '' && folded === foldName(other);
}
