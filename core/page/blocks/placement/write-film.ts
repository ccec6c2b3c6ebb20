import { sayTime } from '../../../embed/parameters.ts';
import { captionsName } from '../../../film/captions-name.ts';
import type { Cue, TrackKind } from '../../../film/cue.ts';
import { type FilmOut, factsOut, filesShown, filmFiles, plainFile } from '../../../film/made.ts';
import { messagesFor } from '../../../messages/messages.ts';
import { ownNameOf } from '../../../words/language.ts';
import { primaryOf } from '../../../words/language-tag.ts';
import { escapeHtml } from '../../escape.ts';
import { shownWidth } from '../../layout.ts';
import { planPicture } from '../../picture.ts';
import type { FilmText, OfKind, Piece } from '../../piece.ts';
import { playsHere } from '../../player-here.ts';
import { titleHere } from '../../words.ts';
import type { BlockContext } from '../../write-context.ts';
import type { Placement } from './schema.ts';

type Held = Extract<OfKind, { readonly kind: 'film' }>;

/**
 * A film or a recording in the player of the browser (WHATWG HTML, 4.8.8 and 4.8.9): never by itself, its length known before it
 * plays, as high as it will be; its chapters and its transcript under it. Where none of it is known, a link to its file.
 */
export function writeFilm(
  placement: Placement,
  piece: Piece,
  held: Held,
  context: BlockContext & { readonly still: () => string },
): string {
  const { room, rules } = context;
  const { film } = held;
  const addressOf = (name: string) => escapeHtml(context.fileOf?.(name, piece.id) ?? '');
  const shown = shownWidth(rules, placement, room, Math.max(...rules.proofWidths));
  const files = filesShown(filmFiles(piece.stem, piece.extension, held), Math.round(shown), rules.films);
  const plain = plainFile(files);
  const address = plain ? addressOf(plain.fileName) : '';
  const title = titleHere(rules, piece);
  const facts = factsOut(piece.stem, piece.extension, held);
  const words = escapeHtml(`${title} (${messagesFor(rules.language).film(facts)})`);
  const link = plain ? `<a href="${address}">${words}</a>` : words;
  const under = writeTexts(held.texts ?? [], { address, context });
  if (!playsHere(rules, film))
    return `${leadingThere({ address, plain, words }, film.picture !== null ? context.still() : '')}${under}`;
  const tracks = [
    ...held.captions.map((language) => writeTrack(piece, { kind: 'captions', language }, addressOf)),
    ...held.chapters.map((language) => writeTrack(piece, { kind: 'chapters', language }, addressOf)),
  ].join('');
  const sources = files
    .map(({ fileName, type, media }) => {
      const only = media === '' ? '' : ` media="${media}"`;
      return `<source src="${addressOf(fileName)}" type="${escapeHtml(type)}"${only}>`;
    })
    .join('');
  // Of another origin, captions are shown only where both let it (WHATWG HTML, 4.8.11.11).
  const isElsewhere = tracks !== '' && /^https?:/.test(address);
  const shared = `controls preload="metadata"${isElsewhere ? ' crossorigin="anonymous"' : ''} aria-label="${escapeHtml(title)}"`;
  if (film.picture === null)
    return `<audio ${shared} style="width: 100%">${sources}${tracks}${link}</audio>${under}`;
  const { fallback } = planPicture(rules, { placement, room }, piece);
  const { width, height } = fallback.size;
  const poster = escapeHtml(context.addressOf(fallback));
  return `<video ${shared} width="${width}" height="${height}" poster="${poster}" style="display: block; aspect-ratio: ${width} / ${height}; width: 100%; height: auto">${sources}${tracks}${link}</video>${under}`;
}

interface Leading {
  readonly address: string;
  readonly plain: FilmOut | undefined;
  /** What it is, as HTML. */
  readonly words: string;
}

/** Its still, which leads to its file as what is written under it does: one link, named by those words. */
function leadingThere({ address, plain, words }: Leading, still: string): string {
  const inner = `${still === '' ? '' : `<span class="file-page">${still}</span>\n`}<span class="file">${words}</span>`;
  return plain
    ? `<a href="${address}" type="${escapeHtml(plain.type.replace(/;.*$/, ''))}">${inner}</a>`
    : inner;
}

/** Captions or chapters in one language (WHATWG HTML, 4.8.12); the reader's player offers them by its name. */
function writeTrack(
  { stem }: Pick<Piece, 'stem'>,
  { kind, language }: { readonly kind: TrackKind; readonly language: string },
  addressOf: (name: string) => string,
): string {
  const address = addressOf(captionsName(stem, language, kind));
  const name = escapeHtml(ownNameOf(language));
  return `<track kind="${kind}" src="${address}" srclang="${escapeHtml(language)}" label="${name}">`;
}

interface TextContext {
  /** Where the film plays by itself, so that a chapter leads to its moment (Media Fragments URI 1.0, 4.2.1). */
  readonly address: string;
  readonly context: BlockContext;
}

/** What is read instead of being heard, folded under the player: its chapters, and all that is said (WCAG 2.2, 1.2.1 and 1.2.3). */
function writeTexts(texts: readonly FilmText[], { address, context }: TextContext): string {
  const { language } = context.rules;
  const messages = messagesFor(language);
  const chapters = textIn(texts, 'chapters', language);
  const transcript = textIn(texts, 'transcript', language);
  return [
    chapters && address !== ''
      ? folded(messages.chapters, chapters, language, listOf(chapters.cues, address))
      : '',
    transcript ? folded(messages.transcript, transcript, language, paragraphsOf(transcript.cues)) : '',
  ].join('');
}

/** In the language of the page where there is one, else in the first that there is. */
const textIn = (
  texts: readonly FilmText[],
  kind: FilmText['kind'],
  language: string,
): FilmText | undefined => {
  const all = texts.filter((text) => text.kind === kind && text.cues.length > 0);
  return all.find((text) => primaryOf(text.language) === primaryOf(language)) ?? all[0];
};

function folded(name: string, text: FilmText, language: string, inner: string): string {
  const isOther = primaryOf(text.language) !== primaryOf(language);
  const lang = isOther ? ` lang="${escapeHtml(text.language)}"` : '';
  return `\n<details class="described"><summary>${escapeHtml(name)}</summary>\n<div${lang}>${inner}</div>\n</details>`;
}

const listOf = (cues: readonly Cue[], address: string): string =>
  `<ol>${cues
    .map(({ from, text }) => {
      const seconds = Math.round(from / 1000);
      return `<li><a href="${address}#t=${seconds}">${escapeHtml(text)}</a> ${sayTime(Math.max(0, seconds))}</li>`;
    })
    .join('')}</ol>`;

const paragraphsOf = (cues: readonly Cue[]): string =>
  cues.map(({ text }) => `<p>${escapeHtml(text)}</p>`).join('\n');
