import { callLanguage } from '../words/language.ts';
import { type Fault, type FaultCode, outcomeOf } from './fault.ts';

interface Said {
  /** What is wrong. */
  readonly sentence: string;
  /** What becomes of it, or what has to be decided. */
  readonly became: string;
}

type Values<C extends FaultCode> = Extract<Fault, { readonly code: C }>['values'];

const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`);
const many = (count: number, one: string, more: string) => (count === 1 ? one : `${count} ${more}`);
const isOne = (count: number, one: string, more: string) => (count === 1 ? one : more);
const MOST_LETTERS = 60;
const short = (said: string): string => {
  const text = said.replace(/^https?:\/\//, '');
  return text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS - 1)}…` : text;
};

const BY_CODE: { readonly [C in FaultCode]: (values: Values<C>) => Said } = {
  'letter-heading': ({ count }) => ({
    sentence: `Heading made of letters, size and colour, ${times(count)}.`,
    became: isOne(count, 'Became a heading.', 'Became headings, by their size.'),
  }),
  'layout-table': ({ count }) => ({
    sentence: many(count, 'A table only for layout.', 'tables only for layout.'),
    became: `${isOne(count, 'Its', 'Their')} cells became text and figures, in reading order.`,
  }),
  spacing: ({ count }) => ({
    sentence: `Empty paragraphs and broken lines as spacing, ${times(count)}.`,
    became: 'The style sheet spaces the page.',
  }),
  obsolete: ({ count, names }) => ({
    sentence: `Obsolete HTML, ${times(count)}: ${names.join(', ')}.`,
    became: 'Written anew without it.',
  }),
  'inline-style': ({ count }) => ({
    sentence: many(count, 'One element with a style of its own.', 'elements with styles of their own.'),
    became: 'The style sheet of the target is used.',
  }),
  'language-missing': ({ language }) => ({
    sentence: 'The page does not say its language.',
    became: `It reads as ${callLanguage(language)}, and says so.`,
  }),
  'title-missing': () => ({
    sentence: 'The page has no title.',
    became: 'Give it one on the sheet.',
  }),
  encoding: ({ encoding }) => ({
    sentence: 'The page says nothing of its encoding, or another than it has.',
    became: `Read as ${encoding}.`,
  }),
  'mixed-content': ({ count }) => ({
    sentence: many(count, 'One file is asked for without https.', 'files are asked for without https.'),
    became: `${isOne(count, 'It comes', 'They come')} from here, or by https, from now on.`,
  }),
  'code-as-text': ({ count }) => ({
    sentence: many(
      count,
      'Embed code stands in the text, to be read.',
      'pieces of embed code stand in the text, to be read.',
    ),
    became: isOne(count, 'Became the embed that it meant.', 'Became the embeds that they meant.'),
  }),
  'dead-player': ({ count, leads }) => ({
    sentence: many(count, 'A player that no browser has any more.', 'players that no browser has any more.'),
    became:
      leads === count
        ? isOne(
            count,
            'What it played is there, and is embedded.',
            'What they played is there, and is embedded.',
          )
        : leads === 0
          ? isOne(count, 'What it played is not found. Left out.', 'What they played is not found. Left out.')
          : `What ${leads} of them played is embedded; the rest is not found, and left out.`,
  }),
  'embed-refused': ({ count, why }) => ({
    sentence: many(count, 'Something framed cannot be embedded.', 'framed things cannot be embedded.'),
    became: why,
  }),
  frames: ({ count }) => ({
    sentence: `The page is made of ${count === 1 ? 'a frame' : `${count} frames`}, each a page of its own.`,
    became: 'Each is read and brought in by itself.',
  }),
  'script-written': ({ count }) => ({
    sentence: many(count, 'A program writes a part of the page.', 'programs write parts of the page.'),
    became: 'What they write is only there once they run, and is not read.',
  }),
  'alt-missing': ({ count }) => ({
    sentence: many(count, 'A picture without alt text.', 'pictures without alt text.'),
    became: isOne(
      count,
      'Nobody who cannot see it is told what it shows.',
      'Nobody who cannot see them is told what they show.',
    ),
  }),
  'alt-file-name': ({ count, example }) => ({
    sentence: many(count, 'The name of a file as alt text.', 'names of files as alt text.'),
    became: `“${short(example)}” says nothing of what is seen, and is left out.`,
  }),
  'linked-decorative': ({ count }) => ({
    sentence: many(
      count,
      'A picture is the link, and its alt text is empty.',
      'pictures are links, and their alt texts are empty.',
    ),
    became: 'Say where it leads.',
  }),
  'link-vague': ({ count, words, named }) => ({
    sentence:
      count === 1 ? `“${short(words)}” as a link.` : `“${short(words)}” and such as a link, ${times(count)}.`,
    became:
      named === count
        ? 'Named after what it leads to.'
        : named === 0
          ? 'What it leads to gives no title. Word it on the sheet.'
          : `${named} named after what they lead to; word the rest on the sheet.`,
  }),
  'link-dead': ({ count, address }) => ({
    sentence: many(count, 'A link does not answer any more.', 'links do not answer any more.'),
    became: count === 1 ? `It led to ${short(address)}.` : `The first led to ${short(address)}.`,
  }),
  'link-moved': ({ count }) => ({
    sentence: many(count, 'What a link leads to has moved.', 'links lead to what has moved.'),
    became: isOne(count, 'It leads to the new address.', 'They lead to the new addresses.'),
  }),
  stretched: ({ count, percent }) => ({
    sentence: many(count, `A picture stretched by ${percent}%.`, `pictures stretched, one by ${percent}%.`),
    became: isOne(count, 'Its own shape is back.', 'Their own shapes are back.'),
  }),
  enlarged: ({ count, times: factor }) => ({
    sentence: many(
      count,
      `A picture shown ${factor} times as wide as it is.`,
      `pictures shown wider than they are, one ${factor} times.`,
    ),
    became: isOne(count, 'Stands as wide as it is.', 'Stand as wide as they are.'),
  }),
  oversized: ({ count, times: factor }) => ({
    sentence: many(
      count,
      `A picture ${factor} times as wide as it is shown.`,
      `pictures far larger than they are shown, one ${factor} times as wide.`,
    ),
    became: isOne(count, 'Cut to what is shown.', 'Cut to what is shown.'),
  }),
  'file-name': ({ count, example }) => ({
    sentence: many(
      count,
      `A file is called “${short(example)}”.`,
      `files have no good names, as “${short(example)}”.`,
    ),
    became: isOne(count, 'Named by the house pattern.', 'Named by the house pattern.'),
  }),
  'licence-unknown': ({ count, example }) => ({
    sentence: many(
      count,
      `Nobody says whose “${short(example)}” is.`,
      `pictures of which nobody says whose they are.`,
    ),
    became: isOne(
      count,
      'It does not go out before somebody says so.',
      'They do not go out before somebody says so.',
    ),
  }),
  'picture-gone': ({ count, example }) => ({
    sentence: many(
      count,
      `The file “${short(example)}” does not answer.`,
      `picture files do not answer, as “${short(example)}”.`,
    ),
    became: isOne(count, 'It is left out.', 'They are left out.'),
  }),
  held: ({ count }) => ({
    sentence: many(count, 'A picture is on the shelf already.', 'pictures are on the shelf already.'),
    became: isOne(count, 'That piece is used, with its label.', 'Those pieces are used, with their labels.'),
  }),
  'captions-missing': ({ count }) => ({
    sentence: many(count, 'A film without captions.', 'films without captions.'),
    became: 'Its host has to have them.',
  }),
  form: ({ count }) => ({
    sentence: many(count, 'A form of the site.', 'forms of the site.'),
    became: isOne(
      count,
      'Left out: embed it from where it is answered.',
      'Left out: embed them from where they are answered.',
    ),
  }),
};

/** A fault of an inherited page in words: what is wrong, and what becomes of it. */
export function sayFault<C extends FaultCode>(fault: { readonly code: C; readonly values: Values<C> }): Said {
  return BY_CODE[fault.code](fault.values);
}

/** How many there are, how many of them are mended, and how many ask somebody. */
export function sayFaults(faults: readonly Fault[], isIn = false): string {
  const by = isIn ? '' : ' by this';
  const asked = faults.filter((fault) => outcomeOf(fault) === 'asks').length;
  const mended = faults.length - asked;
  if (faults.length === 0) return 'No faults';
  const all = faults.length === 1 ? '1 sort of fault' : `${faults.length} sorts of faults`;
  if (asked === 0) return `${all}: all mended${by}`;
  return mended === 0
    ? `${all}: ${faults.length === 1 ? 'it asks' : 'all ask'} you`
    : `${all}: ${mended} mended${by}, ${asked} ${asked === 1 ? 'asks' : 'ask'} you`;
}
