/** Words of links that say nothing of where they lead, in English, as whole texts of a link. */
const VAGUE = new Set([
  'click',
  'click here',
  'continue',
  'continue reading',
  'details',
  'find out more',
  'follow this link',
  'go',
  'here',
  'info',
  'learn more',
  'link',
  'more',
  'more info',
  'more information',
  'page',
  'read',
  'read more',
  'read on',
  'see here',
  'see more',
  'this',
  'this link',
  'this page',
  'view',
  'website',
]);

/** Whether the words of a link say nothing of where it leads (WCAG 2.2, 2.4.4 and 2.4.9). */
export const isVagueLink = (words: string): boolean => VAGUE.has(plain(words));

/** Without case and what ends or decorates it: "Click here!", ">> more", "Read more...". */
const plain = (words: string) =>
  words
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s]/gu, ' ')
    .replace(/\s+/gu, ' ')
    .trim();
