import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type UnzipFileInfo, unzipSync } from 'fflate';

/** A ZIP that was handed in, and the folder that its parts are laid into under names of our own. */
export interface ZipToRead {
  readonly path: string;
  readonly into: string;
}

interface ZipPart {
  /** What it is called in the ZIP. */
  readonly path: string;
  readonly kind: 'page' | 'picture';
  /** Where it lies now. */
  readonly file: string;
}

export interface UnzippedPages {
  readonly parts: readonly ZipPart[];
  /** What is left out, each with the reason. */
  readonly leftOut: readonly string[];
}

/** What is unpacked of a ZIP, whatever it says of itself. */
const MOST_FILES = 2000;
const MOST_BYTES = 300_000_000;
const MOST_FILE_BYTES = 60_000_000;

const PAGE = /\.(?:x?html?|htm)$/i;
const PICTURE = /\.(?:jpe?g|jfif|png|gif|webp|avif|svg|bmp|tiff?)$/i;

/** The pages and pictures of a ZIP, up to a bound. Names that climb out of it are passed over, and none of them is ever written. */
export function unzipPages({ path, into }: ZipToRead): UnzippedPages {
  const leftOut: string[] = [];
  let [files, bytes] = [0, 0];
  const filter = ({ name, originalSize }: UnzipFileInfo): boolean => {
    if (name.endsWith('/') || !(PAGE.test(name) || PICTURE.test(name))) return false;
    if (!isSafeName(name)) {
      leftOut.push(`“${name.slice(0, 80)}”: its name leads out of the file.`);
      return false;
    }
    files += 1;
    bytes += originalSize;
    if (files <= MOST_FILES && originalSize <= MOST_FILE_BYTES && bytes <= MOST_BYTES) return true;
    leftOut.push(`“${name.slice(0, 80)}”: too large, or one of too many.`);
    return false;
  };
  const entries = Object.entries(unzipSync(readFileSync(path), { filter }));
  const parts = entries.map(([name, content], at): ZipPart => {
    const file = join(into, `${at}`);
    writeFileSync(file, content);
    return { path: name, kind: PAGE.test(name) ? 'page' : 'picture', file };
  });
  return { parts, leftOut: leftOut.slice(0, MOST_TOLD) };
}

const MOST_TOLD = 20;

/** No way up, no drive, no root, and nothing that is no letter. */
const isSafeName = (name: string): boolean =>
  name.length <= 500 &&
  !/^\/|^[a-z]:|\\/i.test(name) &&
  !/\p{Cc}/u.test(name) &&
  !name.split('/').includes('..');
