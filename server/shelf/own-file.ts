import * as v from 'valibot';
import { DOCUMENT_FORMATS } from '#core/document/formats.ts';
import { FILM_FORMATS, type FilmFacts, FilmFactsSchema } from '#core/film/facts.ts';
import type { held } from '../db/schema.ts';

type AssetRow = typeof held.$inferSelect;

type OwnRow = Pick<
  AssetRow,
  'documentSha256' | 'documentFormat' | 'documentBytes' | 'filmSha256' | 'film' | 'stem' | 'extension'
>;

/** The file that a piece has besides the picture that shows it. */
export interface OwnFile {
  readonly sha256: string;
  readonly mime: string;
  readonly name: string;
}

/** The own file of a document or a film; null for what has none. */
export function ownFileOf(row: OwnRow): OwnFile | null {
  const { documentSha256, documentFormat, filmSha256, stem, extension } = row;
  const name = `${stem}.${extension}`;
  if (documentSha256 !== null && documentFormat !== null)
    return { sha256: documentSha256, mime: DOCUMENT_FORMATS[documentFormat].mime, name };
  const film = filmOf(row);
  return filmSha256 !== null && film
    ? { sha256: filmSha256, mime: FILM_FORMATS[film.format].mime, name }
    : null;
}

/** The files of a piece, by their hashes: what shows it, and its own. */
export const filesOfPiece = ({
  sha256,
  documentSha256,
  filmSha256,
}: Pick<AssetRow, 'sha256' | 'documentSha256' | 'filmSha256'>): readonly string[] =>
  [sha256, documentSha256, filmSha256].filter((one) => one !== null);

/** What is known of a film; null for what is none, or was stored by a later version. */
export function filmOf({ film }: Pick<AssetRow, 'film'>): FilmFacts | null {
  const read = v.safeParse(FilmFactsSchema, film);
  return read.success ? read.output : null;
}
