import { copyFile, writeFile } from 'node:fs/promises';
import { FILM_FORMATS } from '#core/film/facts.ts';
import { filmFiles, madeName } from '#core/film/made.ts';
import type { Context } from '../context.ts';
import { filmOf, ownFileOf } from '../shelf/own-file.ts';
import type { AssetRow } from '../shelf/present.ts';
import { originalKey } from '../storage/storage.ts';
import { captionFiles } from './captions.ts';
import { allMade, madeKey, madeNow, recipeName, recipeOf } from './made-store.ts';

/** A file of a piece besides its cuts, as it goes out. */
export interface FileGoing {
  readonly name: string;
  readonly mime: string;
  /** Where its bytes lie, or what it says. */
  readonly from: { readonly key: string } | { readonly text: string };
}

/** Lays a file down as it goes out. */
export async function writeGoing(
  { storage }: Pick<Context, 'storage'>,
  from: FileGoing['from'],
  to: string,
): Promise<void> {
  if ('text' in from) await writeFile(to, from.text);
  else await storage.withFile(from.key, (path) => copyFile(path, to));
}

/** All files of a piece that may go out besides its cuts: a document; what was made of a film, with its captions. */
export async function filesOfRow(context: Pick<Context, 'db'>, row: AssetRow): Promise<readonly FileGoing[]> {
  const own = ownFileOf(row);
  if (!own) return [];
  if (row.kind !== 'film')
    return [{ name: own.name, mime: own.mime, from: { key: originalKey(own.sha256) } }];
  const captions = await captionFiles(context, row);
  return [
    ...playedFiles(row),
    ...captions.map(({ name, text }) => ({ name, mime: 'text/vtt', from: { text } })),
  ];
}

/** The files in which a film plays where it goes out. */
export function playedFiles(row: AssetRow): readonly FileGoing[] {
  const film = filmOf(row);
  const { filmSha256: sha256 } = row;
  if (!film || sha256 === null) return [];
  const recipe = recipeOf(row);
  const stored = new Map(
    allMade(row)
      .filter((one) => one.recipe === recipeName(recipe))
      .map((one) => [madeName(row.stem, one.format, one.width), madeKey(sha256, one)]),
  );
  return filmFiles(row.stem, row.extension, { film, recipe, made: madeNow(row) }).map(
    ({ fileName, format, width, type }) => ({
      name: fileName,
      mime: width === 0 ? type.replace(/;.*$/, '') : FILM_FORMATS[format].mime,
      from: { key: stored.get(fileName) ?? originalKey(sha256) },
    }),
  );
}
