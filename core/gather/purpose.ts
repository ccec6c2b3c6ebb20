/** Words of a want's purpose that say what the piece is for, not what it shows. */
const NOT_SHOWN =
  /^(a|an|the|of|on|in|at|for|and|or|to|with|by|from|its|it|itself|one|two|three|some|any|lead|leads|teaser|page|pages|article|portrait|portraits|landscape|picture|pictures|photo|photos|photograph|image|images|shot|view|another|piece|before|after|new|old|video|film|card|cards|header|hero|top|bottom|left|right)$/i;

/** What to look for, from what a want says it is for: "Portrait of the warden" looks for "warden". May be empty. */
export function wordsOfPurpose(purpose: string): string {
  return purpose
    .split(/[^\p{L}\p{N}'’-]+/u)
    .filter((word) => word !== '' && !NOT_SHOWN.test(word))
    .slice(0, 4)
    .join(' ')
    .toLowerCase();
}
