import { open, readFile } from 'node:fs/promises';
import { fileTypeFromFile } from 'file-type';
import sharp, { type Metadata } from 'sharp';
import { maybeProfileName } from '#core/formats/icc.ts';
import type { Condition } from '#core/media/condition.ts';
import { megapixels, type Size, sizeAsSeen } from '#core/media/dimensions.ts';
import { isOriginalFormat, ORIGINAL_FORMATS, type OriginalFormat } from '#core/media/formats.ts';
import { Refusal } from '../problem.ts';
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

/** Reads what a file that came from outside is; its pixels are looked at by `firstLook`. Throws a Refusal with a plain sentence for what cannot be taken. */
export async function readOriginal(path: string, saidName: string): Promise<OriginalFacts> {
  const { size: bytes } = await statOf(path);
  const name = shortName(saidName);
  if (bytes === 0)
    throw new Refusal(415, `${name} is empty: it has no bytes. Copy it again from where it came.`);
  const format = await formatOf(path, name, bytes);
  const image = sharp(path, { limitInputPixels: false, unlimited: false });
  const metadata = await image.metadata().catch((cause: unknown) => {
    throw broken(name, cause);
  });
  const stored = { width: metadata.width, height: metadata.pageHeight ?? metadata.height };
  const own = sizeAsSeen(stored, metadata.orientation ?? 1);
  const size = format === 'svg' ? drawingSize(own) : own;
  if (megapixels(size) > MEGAPIXEL_LIMIT) {
    throw new Refusal(
      413,
      `${name} is ${spaced(size.width)} × ${spaced(size.height)} px, over the ${MEGAPIXEL_LIMIT} megapixels that are taken. Make it smaller first.`,
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
  const what = type ? `a ${type.ext.toUpperCase()} file` : 'not a picture';
  throw new Refusal(
    415,
    `${name} is ${what}, whatever its name says. Pictures are taken as JPEG, PNG, WebP, AVIF, GIF, TIFF or SVG.`,
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
    throw new Refusal(413, `${name} is a drawing of over 2 MB. Simplify it and try again.`);
  const text = await readFile(path, 'utf8');
  if (/<script|\son[a-z]+\s*=|javascript:|<foreignObject|<iframe|<!ENTITY/i.test(text)) {
    throw new Refusal(
      415,
      `${name} is a drawing with a program in it, so it was not taken. Save it again without scripts.`,
    );
  }
  return 'svg';
}

/** What to say of a file that cannot be read to its end. */
export function broken(name: string, cause: unknown): Refusal {
  return new Refusal(
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
