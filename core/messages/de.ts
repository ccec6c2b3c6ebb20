import { FILM_FORMATS, sayFilmLength } from '../film/facts.ts';
import { sayBytes } from '../media/weight.ts';
import { inWords } from './in-words.ts';
import { listed } from './listed.ts';
import { quotedWith } from './quoted.ts';
import type { Messages } from './table.ts';

const MADE = {
  photo: 'Foto',
  drawing: 'Zeichnung',
  painting: 'Gemälde',
  print: 'Druck',
  chart: 'Diagramm',
  picture: 'Bild',
  document: 'Dokument',
  film: 'Film',
  sound: 'Aufnahme',
  map: 'Karte',
  form: 'Formular',
  board: 'Pinnwand',
  feed: 'Beiträge',
  page: 'Seite',
} as const;

const VERBS = {
  film: 'ansehen',
  sound: 'anhören',
  map: 'öffnen',
  form: 'ausfüllen',
  board: 'ansehen',
  feed: 'lesen',
  page: 'öffnen',
} as const;

const CHANGED = {
  cropped: 'beschnitten',
  straightened: 'begradigt',
  mirrored: 'gespiegelt',
  toned: 'in den Tonwerten verändert',
  sharpened: 'geschärft',
  lettered: 'beschriftet',
} as const;

/** German, with its own quotation marks (DIN 5008). */
export const DE: Messages = {
  quoted: quotedWith(['„', '“'], ['‚', '‘']),
  made: MADE,
  changed: (changes) =>
    listed(
      changes.map((change) => CHANGED[change]),
      'und',
    ),
  licensedTo: (name) => `lizenziert für ${name}`,
  accessed: (day) => `abgerufen am ${inWords('de', day)}`,
  opensLarger: 'Öffnet sich größer',
  picture: 'Bild',
  opensNewWindow: 'öffnet sich in einem neuen Fenster',
  divider: 'Wie viel von vorher zu sehen ist, in Prozent',
  large: { close: 'Schließen', next: 'Nächstes Bild', back: 'Voriges Bild' },
  descriptionOf: (title) => `Beschreibung: ${title}`,
  untitledPage: 'Seite ohne Titel',
  more: 'Mehr',
  contents: 'Auf dieser Seite',
  table: 'Tabelle',
  document: ({ format, pages, bytes }) =>
    [
      format.toUpperCase(),
      pages === null ? '' : pages === 1 ? '1 Seite' : `${pages} Seiten`,
      sayBytes(bytes).replace('.', ','),
    ]
      .filter(Boolean)
      .join(', '),
  film: (facts) =>
    [FILM_FORMATS[facts.format].says, sayFilmLength(facts), sayBytes(facts.bytes).replace('.', ',')].join(
      ', ',
    ),
  transcript: 'Abschrift',
  chapters: 'Kapitel',
  embedOf: (kind, host) => `${MADE[kind]} von ${host}`,
  invitation: (kind, title, host) =>
    `${MADE[kind]}${title === '' ? '' : ` „${title}“`} bei ${host} ${VERBS[kind]}`,
  linkedAt: (kind, host) => `${MADE[kind]} bei ${host}`,
  credits: {
    link: 'Bildnachweise',
    titleOf: (page) => `Bildnachweise: ${page}`,
    none: 'Auf dieser Seite ist kein Bildnachweis nötig.',
    back: 'Zurück zur Seite',
  },
};
