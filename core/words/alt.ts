import type { Alt } from '../rights/label.ts';
import { isFileName } from './file-name.ts';

export type AltFault =
  | 'missing'
  | 'decorative-linked'
  | 'decorative-said'
  | 'placeholder'
  | 'file-name'
  | 'link-words'
  | 'markup'
  | 'image-of'
  | 'punctuation'
  | 'key-words'
  | 'long'
  | 'same-as-caption'
  | 'same-as-neighbour';

/** Where the alt text stands. */
export interface AltPlace {
  readonly linked: boolean;
  readonly caption: string;
  /** The alt texts of the pictures before and after it. */
  readonly neighbours?: readonly string[];
}

/** Screen readers break long alternatives up; beyond this a caption or long description serves better. */
const LONG_LETTERS = 150;

/**
 * What is wrong with an alt text, or undefined. Follows the W3C WAI "alt decision tree" and the tips of its Images Tutorial:
 * decorative pictures have empty alt, unless they are the only content of a link; a text says what the picture says, and not
 * that it is one, how its file is called, or that something can be pressed. Good plain sentences pass.
 */
export function altFault(alt: Alt, place: AltPlace): AltFault | undefined {
  if (alt.kind === 'unsaid') return 'missing';
  if (alt.kind === 'decorative') return place.linked ? 'decorative-linked' : undefined;
  const text = alt.text.trim();
  if (!/[\p{L}\p{N}]/u.test(text)) return 'punctuation';
  const own = OF_ITS_OWN.find(([, says]) => says(text));
  if (own) return own[0];
  if (place.caption !== '' && isSameWords(text, place.caption)) return 'same-as-caption';
  if (place.neighbours?.some((other) => isSameWords(text, other))) return 'same-as-neighbour';
  return undefined;
}

/** What a text can do wrong by itself, the clearest first. */
const OF_ITS_OWN: readonly (readonly [AltFault, (text: string) => boolean])[] = [
  ['markup', (text) => MARKUP.test(text)],
  ['file-name', isFileName],
  ['decorative-said', (text) => DECORATIVE.test(plain(text)) || DECORATIVE_BESIDE.test(text)],
  ['placeholder', isPlaceholder],
  ['link-words', (text) => LINK_WORDS.test(plain(text))],
  ['image-of', (text) => IMAGE_OF.test(text)],
  ['long', (text) => text.length > LONG_LETTERS],
  ['key-words', isKeyWords],
];

/** Tags, entities, links of Markdown, attributes: all of it is read out as it stands. */
const MARKUP =
  /<\/?[a-z][^<>]{0,200}>|&(?:[a-z]{2,8}|#\d{1,6});|\[[^\][]{1,200}\]\([^()]{1,200}\)|\*\*[^*]{1,200}\*\*|^!\[|\balt\s*=\s*["']/i;

/** Only words and digits, with one blank between them. */
const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

const DECORATIVE =
  /^(?:(?:purely |just |a )?decorative(?: (?:only|image|picture|photo|graphic|icon|element|line|border|background))?|decoration|spacer(?: (?:image|gif))?|blank(?: image)?|empty|divider|bullet|ornament|no alt(?: text)?(?: needed)?)$/;
/** Said beside words: either it is passed over, or it says something. */
const DECORATIVE_BESIDE =
  /^decorative\s*(?:[:–—-]|(?:image|picture|photo|graphic)\s+(?:of|showing)\b)|[([]decorative[)\]]\s*$/i;

/** Words for what every picture is, or for that nothing was said yet; alone, or with a number. */
const PLACEHOLDERS: ReadonlySet<string> = new Set(
  `image img picture pic photo photograph foto bild graphic grafik figure fig illustration abbildung untitled unnamed alt alttext
  placeholder platzhalter thumbnail thumb logo icon banner header hero background screenshot chart graph diagram infographic table
  map video null undefined none nil na tbd todo test testing xxx caption description title text default sample example lorem`.split(
    /\s+/,
  ),
);
const PLACEHOLDER_PHRASES =
  /^(?:(?:insert|add|enter|type|write|your) (?:an? |the |your )?(?:alt|alternative|image|picture)? ?(?:text|description|name)(?: (?:here|goes here))?|(?:alt|alternative|image|picture|photo) (?:alt |alternative )?(?:text|description|title|name|caption|here|goes here|placeholder)|no (?:description|title|text|caption|name)(?: available| provided)?|image (?:not )?(?:available|found|missing)|(?:placeholder|sample|example|dummy|default|stock) (?:image|picture|photo|pic|graphic)|coming soon|lorem ipsum.*|new (?:image|picture|photo)|(?:my|the|an?|this) (?:image|picture|photo|photograph|pic|graphic|icon|logo)|n a|to do|to be (?:done|added|written)|(?:main|hero|header|featured|feature|cover|profile|lead) (?:image|picture|photo|pic|banner))$/;

function isPlaceholder(text: string): boolean {
  const words = plain(text);
  if (PLACEHOLDER_PHRASES.test(words)) return true;
  const alone = words
    .replace(/^(?:no|nr|number) /, '')
    .replace(/ ?\d{1,4}(?: (?:of|von|x) \d{1,4})?(?: (?:copy|final|v\d{1,2}))?$/, '')
    .replace(/ copy$/, '');
  return PLACEHOLDERS.has(alone);
}

/** What is pressed, instead of what it leads to. */
const LINK_WORDS =
  /^(?:(?:please )?(?:click|tap|press|touch)(?: (?:here|me|this|to (?:enlarge|open|view|zoom|see more|read more|play)|for (?:more|larger image|a larger (?:image|picture|version)|details)|on (?:this|the) (?:image|picture|link)))?|here|read more|more(?: info(?:rmation)?)?|learn more|find out more|see more|view(?: more| larger)?|link(?: to (?:page|this|image|more))?|go(?: to(?: (?:page|link|site))?)?|open|enlarge|zoom|details|hier(?: klicken)?|mehr(?: erfahren| lesen)?|weiterlesen|continue(?: reading)?)$/;

const MADE =
  '(?:image|picture|photo|photograph|graphic|pic|img|snapshot|bild|foto|grafik|abbildung|photographie)';
const SHOWS =
  '(?:of|showing|shows|show|depicting|depicts|displaying|displays|that shows|which shows|with|von|vom|einer?|eines|zeigt|mit|de|du|des|montrant|avec)';
/** "Image of", in all its forms: what a screen reader says already. That something is a map or a painting may be worth saying. */
const IMAGE_OF = new RegExp(
  `^(?:(?:this|here) is )?(?:an?|the|this|these|in this|one|ein(?:e)?|das|dieses|une?|la|cette)?\\s*(?:(?:small|large|big|nice|beautiful|colou?r|close-up|cropped|stock|simple)\\s+)?${MADE}s?\\s*(?:${SHOWS}\\b|[:–—-]\\s)`,
  'i',
);

/** Words that hold a sentence together; among key words there are none. */
const HOLDING =
  /\b(?:a|an|the|and|or|with|without|in|on|at|of|by|under|over|from|to|is|are|near|beside|behind|between|through|across|against|into|for|as|und|oder|mit|in|auf|an|der|die|das|et|ou|avec|dans|sur|le|la|les)\b/i;
const LEAST_KEY_WORDS = 4;
const MOST_WORDS_EACH = 3;
/** So many words without one that holds them together are no sentence. */
const LEAST_STRUNG = 9;

/** A list for search engines: short parts, or a string of words, that no word holds together, or the same word again and again. */
function isKeyWords(text: string): boolean {
  if ((text.match(/#\p{L}/gu)?.length ?? 0) >= 2) return true;
  const parts = text.split(/[,;|/]/).map((part) => part.trim());
  const isList =
    parts.length >= LEAST_KEY_WORDS &&
    parts.every((part) => part !== '' && part.split(/\s+/).length <= MOST_WORDS_EACH && !/\d/.test(part)) &&
    // Names of people and places are listed so, and are no key words.
    parts.slice(1).some((part) => /^\p{Ll}/u.test(part));
  if (isList && !HOLDING.test(text.replace(/[.!?]$/, ''))) return true;
  const words = plain(text).split(' ');
  if (words.length >= LEAST_STRUNG && !HOLDING.test(text) && !/[.!?,;:\d]/.test(text)) return true;
  return isRepeating(words);
}

/** The same long word three times in a short text. */
function isRepeating(words: readonly string[]): boolean {
  const counts = new Map<string, number>();
  for (const word of words) if (word.length > 3) counts.set(word, (counts.get(word) ?? 0) + 1);
  return words.length >= 5 && Math.max(0, ...counts.values()) >= Math.max(3, words.length / 5);
}

function isSameWords(one: string, other: string): boolean {
  const words = plain(one);
  return words !== '' && words === plain(other);
}

const SENTENCES: Readonly<Record<AltFault, string>> = {
  missing: 'No alt text yet.',
  'decorative-linked':
    'It is marked decorative, but it is a link: its alt text has to say where the link goes.',
  'decorative-said':
    'The alt text says that it decorates. Mark it decorative instead, and it is passed over.',
  placeholder: 'The alt text stands for one that nobody has written yet.',
  'file-name': 'The alt text is a file name or an address, not words.',
  'link-words': 'The alt text says that it can be pressed, and not where that leads.',
  markup: 'The alt text holds code, which is read out letter by letter.',
  'image-of': 'The alt text begins with “image of”, which screen readers already say.',
  punctuation: 'The alt text holds no words.',
  'key-words': 'The alt text is a list of key words. Say what is to be seen, in a sentence.',
  long: `The alt text has over ${LONG_LETTERS} letters. Say the rest in a caption or a description.`,
  'same-as-caption': 'The alt text repeats the caption, so it is heard twice.',
  'same-as-neighbour': 'The picture beside it has the same alt text. Say what sets them apart.',
};

export function sayAltFault(fault: AltFault): string {
  return SENTENCES[fault];
}

/** The text without "image of" in front, with a capital again. */
export function withoutImageOf(text: string): string {
  const rest = text.trim().replace(IMAGE_OF, '').trimStart();
  return rest.charAt(0).toUpperCase() + rest.slice(1);
}

/** The text without code in it. */
export function withoutMarkup(text: string): string {
  return text
    .replace(/<\/?[a-z][^<>]{0,200}>/gi, ' ')
    .replace(/!?\[([^\][]{1,200})\]\([^()]{1,200}\)/g, '$1')
    .replace(/\*\*([^*]{1,200})\*\*/g, '$1')
    .replace(/&amp;/gi, '&')
    .replace(/&(?:[a-z]{2,8}|#\d{1,6});/gi, ' ')
    .replace(/\s+/g, ' ')
    .trim();
}
