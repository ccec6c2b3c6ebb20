import { sayKind } from '../embed/model.ts';
import { FILM_FORMATS, sayFilmLength } from '../film/facts.ts';
import { sayBytes } from '../media/weight.ts';
import { inWords } from './in-words.ts';
import { listed } from './listed.ts';
import { quotedWith } from './quoted.ts';
import type { Messages } from './table.ts';

const VERBS = {
  film: 'Watch',
  sound: 'Listen to',
  map: 'Open',
  form: 'Fill in',
  board: 'Look at',
  feed: 'Read',
  page: 'Open',
} as const;

const MADE = {
  photo: 'Photo',
  drawing: 'Drawing',
  painting: 'Painting',
  print: 'Print',
  chart: 'Chart',
  picture: 'Picture',
  document: 'Document',
  film: 'Film',
  sound: 'Recording',
  map: 'Map',
  form: 'Form',
  board: 'Board',
  feed: 'Feed',
  page: 'Page',
} as const;

/** British English. */
export const EN: Messages = {
  quoted: quotedWith(['“', '”'], ['‘', '’']),
  made: MADE,
  changed: (changes) => listed(changes, 'and'),
  licensedTo: (name) => `licensed to ${name}`,
  accessed: (day) => `accessed ${inWords('en-GB', day)}`,
  opensLarger: 'Opens larger',
  picture: 'picture',
  opensNewWindow: 'opens in a new window',
  divider: 'How much of before is shown, in percent',
  large: { close: 'Close', next: 'Next picture', back: 'Picture before' },
  descriptionOf: (title) => `Description of ${title}`,
  untitledPage: 'Untitled page',
  more: 'More',
  contents: 'On this page',
  table: 'Table',
  document: ({ format, pages, bytes }) =>
    [format.toUpperCase(), pages === null ? '' : pages === 1 ? '1 page' : `${pages} pages`, sayBytes(bytes)]
      .filter(Boolean)
      .join(', '),
  film: (facts) => [FILM_FORMATS[facts.format].says, sayFilmLength(facts), sayBytes(facts.bytes)].join(', '),
  transcript: 'Transcript',
  chapters: 'Chapters',
  embedOf: (kind, host) => `${MADE[kind]} from ${host}`,
  invitation: (kind, title, host) =>
    `${VERBS[kind]} ${title === '' ? `the ${sayKind(kind)}` : `“${title}”`} at ${host}`,
  linkedAt: (kind, host) => `${sayKind(kind)} at ${host}`,
  credits: {
    link: 'Picture credits',
    titleOf: (page) => `Picture credits: ${page}`,
    none: 'No credit is owed on this page.',
    back: 'Back to the page',
  },
};
