import { open, readFile } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import sharp, { type Metadata } from 'sharp';
import { readMarkup } from '#core/embed/markup.ts';
import { maybeProfileName } from '#core/formats/icc.ts';
import type { Condition } from '#core/media/condition.ts';
import { megapixels, type Size, sizeAsSeen } from '#core/media/dimensions.ts';
import { isOriginalFormat, ORIGINAL_FORMATS, type OriginalFormat } from '#core/media/formats.ts';
import { HttpProblem } from '../problem.ts';
import { sha256Of } from '../storage/sha256.ts';
import { drawingSize } from './drawing.ts';

/** What a file turned out to be. `size` as seen, in px. */
export interface OriginalFacts {
  readonly format: OriginalFormat;
  readonly size: Size;
  readonly bytes: number;
  readonly sha256: string;
  readonly alpha: boolean;
  readonly animated: boolean;
  readonly hasProfile: boolean;
  /** What was found on the file before its pixels were looked at. */
  readonly conditions: readonly Condition[];
}

/** The most pixels that are ever decoded, in millions. Larger ones are refused before a pixel is read. */
export const MEGAPIXEL_LIMIT = 150;

const SVG_BYTES_LIMIT = 2_000_000;
/** A minute at 25 pictures a second; each is prepared by itself. */
const MOVING_LIMIT = 1500;
const MOVING_MEGAPIXEL_LIMIT = 600;

/** Reads what a file that came from outside is; its pixels are looked at by `firstLook`. Throws an HttpProblem with a plain sentence for what cannot be taken. */
export async function readOriginal(path: string, saidName: string): Promise<OriginalFacts> {
  const { size: bytes } = await statOf(path);
  const name = shortName(saidName);
  if (bytes === 0)
    throw new HttpProblem(415, `${name} is empty: it has no bytes. Copy it again from where it came.`);
  const format = await formatOf(path, name, bytes);
  const image = sharp(path, { limitInputPixels: false, unlimited: false });
  const metadata = await image.metadata().catch((cause: unknown) => {
    throw broken(name, cause);
  });
  const stored = { width: metadata.width, height: metadata.pageHeight ?? metadata.height };
  const own = sizeAsSeen(stored, metadata.orientation ?? 1);
  const size = format === 'svg' ? drawingSize(own) : own;
  if (megapixels(size) > MEGAPIXEL_LIMIT) {
    throw new HttpProblem(
      413,
      `${name} is ${spaced(size.width)} × ${spaced(size.height)} px, over the ${MEGAPIXEL_LIMIT} megapixels that are taken. Make it smaller first.`,
    );
  }
  const pictures = metadata.pages ?? 1;
  if (pictures > MOVING_LIMIT || megapixels(size) * pictures > MOVING_MEGAPIXEL_LIMIT) {
    throw new HttpProblem(
      413,
      `${name} moves in ${spaced(pictures)} pictures, which together are more than is taken of a moving picture (${MOVING_LIMIT} pictures, ${MOVING_MEGAPIXEL_LIMIT} megapixels). It is better off as a film.`,
    );
  }
  return {
    format,
    size,
    bytes,
    sha256: await sha256Of(path),
    alpha: metadata.hasAlpha,
    animated: (metadata.pages ?? 1) > 1 && (format === 'gif' || format === 'webp'),
    hasProfile: metadata.icc !== undefined,
    conditions: conditionsOf(metadata, format),
  };
}

async function formatOf(path: string, name: string, bytes: number): Promise<OriginalFormat> {
  const type = await fileTypeFromFile(path);
  const format = type && formatByMime(type.mime);
  if (format) return format;
  if (!type || type.mime === 'application/xml') {
    const start = await startOf(path);
    if (/<svg[\s>]/i.test(start)) return checkedSvg(path, name, bytes);
  }
  const what = type ? `a ${type.ext.toUpperCase()} file` : 'not a picture or a document';
  throw new HttpProblem(
    415,
    `${name} is ${what}, whatever its name says. Pictures are taken as JPEG, PNG, WebP, AVIF, GIF, TIFF or SVG, films as MP4, MOV, WebM or MKV, sound as MP3, M4A, WAV, Ogg or FLAC, documents as PDF, office files, plain text or CSV.`,
  );
}

function formatByMime(mime: string): OriginalFormat | undefined {
  return Object.keys(ORIGINAL_FORMATS)
    .filter(isOriginalFormat)
    .find((format) => ORIGINAL_FORMATS[format].mime === mime);
}

/** A drawing may hold programs and outside references; those are not taken, since nothing needs them. */
async function checkedSvg(path: string, name: string, bytes: number): Promise<'svg'> {
  if (bytes > SVG_BYTES_LIMIT)
    throw new HttpProblem(413, `${name} is a drawing of over 2 MB. Simplify it and try again.`);
  const text = await readFile(path, 'utf8');
  if (/<script|\son[a-z]{1,30}\s{0,9}=|javascript:|<foreignObject|<iframe|<!ENTITY/i.test(text)) {
    throw new HttpProblem(
      415,
      `${name} is a drawing with a program in it, so it was not taken. Save it again without scripts.`,
    );
  }
  if (pointsElsewhere(text)) {
    throw new HttpProblem(
      415,
      `${name} is a drawing that shows other files or addresses, so it was not taken. Save it again with everything in it.`,
    );
  }
  return 'svg';
}

const ENCODING = /^\s*<\?xml[^>]{0,200}encoding\s*=\s*["']([^"']{0,40})/i;
/** In any other, the letters that are looked for here could be written otherwise. */
const PLAIN_ENCODING = /^(utf-8|us-ascii|iso-8859-1|windows-1252)$/i;
const OWN = /^\s*(#|data:image\/(png|jpe?g|gif|webp)[;,])/i;

/**
 * Whether a drawing shows what is not in it: another file, which may be somebody else's upload beside it, or an address.
 * Its own parts (#...) and pictures that it carries (data:) are its own.
 */
function pointsElsewhere(text: string): boolean {
  const encoding = ENCODING.exec(text)?.[1];
  if (encoding !== undefined && !PLAIN_ENCODING.test(encoding)) return true;
  if (/<\?xml-stylesheet|@import|<!DOCTYPE[^>]{0,2000}\[/i.test(text)) return true;
  for (const [, part = ''] of text.matchAll(/url\(\s{0,9}["']?([^)]{0,60})/gi))
    if (!OWN.test(part)) return true;
  for (const tag of readMarkup(text, 'xml')) {
    if (tag.kind !== 'start') continue;
    for (const { name, value } of tag.attributes)
      if (/(^|:)(href|src|base)$/.test(name) && tag.name !== 'a' && value.trim() !== '' && !OWN.test(value))
        return true;
  }
  return false;
}

/** What to say of a file that cannot be read to its end. */
export function broken(name: string, cause: unknown): HttpProblem {
  return new HttpProblem(
    415,
    `${name} breaks off or is damaged, so it cannot be read to its end. Copy it again from where it came.`,
    {},
    { cause },
  );
}

function conditionsOf(metadata: Metadata, format: OriginalFormat): readonly Condition[] {
  const found: Condition[] = format === 'svg' ? [{ code: 'drawing' }] : [];
  if (metadata.space === 'cmyk') found.push({ code: 'print-colours' });
  const profile = metadata.space !== 'cmyk' && metadata.icc ? maybeProfileName(metadata.icc) : undefined;
  if (profile && !/srgb|gr[ae]y/i.test(profile)) found.push({ code: 'wide-colours', profile });
  if ((metadata.orientation ?? 1) > 1) found.push({ code: 'turned' });
  const pictures = metadata.pages ?? 1;
  if (pictures > 1 && (format === 'gif' || format === 'webp')) found.push({ code: 'moves', pictures });
  if (metadata.depth === 'ushort') found.push({ code: 'deep-colours' });
  return found;
}

async function statOf(path: string) {
  const file = await open(path, 'r');
  try {
    return await file.stat();
  } finally {
    await file.close();
  }
}

async function startOf(path: string): Promise<string> {
  const file = await open(path, 'r');
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(4096), 0, 4096, 0);
    return buffer.subarray(0, bytesRead).toString('utf8');
  } finally {
    await file.close();
  }
}

function spaced(count: number): string {
  return count.toLocaleString('en-GB');
}

/** A file name from outside, safe to stand in a sentence. */
export function shortName(name: string): string {
  const last = name.split(/[/\\]/).at(-1) ?? name;
  const clean = last.replace(/\p{C}+/gu, '').trim();
  return clean.length > 60 ? `${clean.slice(0, 57)}...` : clean || 'This file';
}
