/**
 * What `sizes` says (WHATWG HTML, 4.8.4.2.2) for a screen that is `times` as sharp as the one that it is looked at on: the browser
 * then chooses the files that it would choose there, and lays them out as before, since width and height are said beside it.
 * Takes what `planPicture` writes: lengths behind conditions in brackets, the last without one.
 */
export function sizesAt(sizes: string, times: number): string {
  if (times === 1) return sizes;
  return partsOf(sizes)
    .map((part) => {
      const at = lengthAt(part);
      return `${part.slice(0, at)}calc(${Number(times.toFixed(4))} * ${part.slice(at)})`;
    })
    .join(', ');
}

/** Parted at the commas that stand in no brackets. */
function partsOf(sizes: string): readonly string[] {
  const parts = [''];
  let depth = 0;
  for (const letter of sizes) {
    if (letter === '(') depth += 1;
    if (letter === ')') depth -= 1;
    if (letter === ',' && depth === 0) parts.push('');
    else parts[parts.length - 1] += letter;
  }
  return parts.map((part) => part.trim());
}

/** Where the length of a part begins: behind its condition. */
function lengthAt(part: string): number {
  let depth = 0;
  for (let at = part.length - 1; at >= 0; at -= 1) {
    if (part[at] === ')') depth += 1;
    if (part[at] === '(') depth -= 1;
    if (part[at] === ' ' && depth === 0) return at + 1;
  }
  return 0;
}
