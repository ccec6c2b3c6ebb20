import { createHash, randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileTypeFromBuffer } from 'file-type';
import pLimit from 'p-limit';
import type { FoundPicture } from '#api/gather.ts';
import { isDocumentFormat } from '#core/document/formats.ts';
import { draftFromMetadata } from '#core/formats/metadata.ts';
import { endingOfData } from '#core/gather/data-picture.ts';
import type { PagePicture } from '#core/gather/page-pictures.ts';
import { type Statement, statements } from '#core/gather/statement.ts';

import type { Context } from '../context.ts';
import { webAddress } from '../outbound/guard.ts';
import { HttpProblem } from '../problem.ts';
import { isInline, keepInline, readInline } from './inline-files.ts';
import { textOf } from './page-text.ts';

/** What stands at an address: a picture, or a page with the pictures on it. */
export interface AddressRead {
  readonly kind: 'picture' | 'page';
  readonly address: string;
  readonly title: string;
  readonly pictures: readonly FoundPicture[];
  readonly leftOut: number;
}

/** A page with 10 MB of pictures written into it, as letters of base64, and its text. */
const PAGE_LIMITS = { bytes: 17_000_000, millis: 15_000 };
/** Enough of a picture to know its size and what it says of itself. */
const START_LIMITS = { bytes: 160_000, millis: 6000 };
const LOOKED_AT = 24;

/**
 * Reads what stands at an address by its content, never by what it says it is: the address of a page in the place of
 * a picture's is no mistake. Throws OutboundProblem, or an HttpProblem for what is neither.
 */
export async function readAddress(context: Context, text: string, signal: AbortSignal): Promise<AddressRead> {
  const asked = webAddress(text).href;
  const start = await context.outbound.peek(asked, { limits: START_LIMITS, signal });
  if (await isPicture(start.bytes)) {
    const picture = await lookCloser(context, plainPicture(start.address), signal, start.bytes);
    return {
      kind: 'picture',
      address: start.address,
      title: picture.fileName,
      pictures: [picture],
      leftOut: 0,
    };
  }
  if (await isDocument(start.bytes)) {
    const document = plainPicture(start.address);
    return {
      kind: 'picture',
      address: start.address,
      title: document.fileName,
      pictures: [document],
      leftOut: 0,
    };
  }
  if (!isPage(start.bytes))
    throw new HttpProblem(
      415,
      'What stands at this address is neither a picture, a document nor a page. Give the address of a page that shows the picture.',
    );
  const page = await context.outbound.read(asked, { limits: PAGE_LIMITS, accept: 'text/html', signal });
  const html = textOf(page.bytes, page.headers['content-type']);
  const reading = await context.texts.pagePictures({ html, base: page.address }, signal);
  const inTurn = pLimit(6);
  const pictures = await Promise.all(
    reading.pictures.map(async (picture, at) => {
      const found = await foundOnPage(context, picture, page.address);
      return at < LOOKED_AT ? inTurn(() => lookCloser(context, found, signal)) : found;
    }),
  );
  return {
    kind: 'page',
    address: page.address,
    title: reading.title,
    pictures: pictures.sort((a, b) => b.width * b.height - a.width * a.height),
    leftOut: reading.leftOut,
  };
}

/** Whether bytes begin a document that can be held; plain text is none, for pages begin so too. */
async function isDocument(bytes: Buffer): Promise<boolean> {
  return isDocumentFormat((await fileTypeFromBuffer(bytes))?.ext ?? '');
}

/** Whether bytes begin a picture, by what they are and not by what they are called. */
export async function isPicture(bytes: Buffer): Promise<boolean> {
  const type = await fileTypeFromBuffer(bytes);
  if (type?.mime.startsWith('image/')) return true;
  return /^\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]{0,2000}?-->\s*)?<svg[\s>]/i.test(
    bytes.subarray(0, 4096).toString('utf8'),
  );
}

/** Whether bytes begin a page, by what they are. */
export function isPage(bytes: Buffer): boolean {
  const start = bytes.subarray(0, 8192).toString('utf8');
  return /<(!doctype\s+html|html|head|body|title|meta|main|div|p|a|h1|img|figure)[\s>]/i.test(start);
}

const keyOf = (address: string) => createHash('sha256').update(address).digest('hex');

/** A picture at an address of which nothing more is known. */
export function plainPicture(address: string): FoundPicture {
  return {
    source: 'web',
    key: keyOf(address),
    stamp: '',
    fileName: fileNameOf(address),
    address,
    preview: address,
    pageAddress: '',
    width: 0,
    height: 0,
    statements: [],
  };
}

async function foundOnPage(
  context: Context,
  picture: PagePicture,
  pageAddress: string,
): Promise<FoundPicture> {
  const isInPage = picture.address.startsWith('data:');
  const address = isInPage ? await keepInline(context, picture.address) : picture.address;
  return {
    ...plainPicture(address),
    fileName: isInPage ? `picture-in-page.${endingOfData(picture.address)}` : fileNameOf(address),
    preview: isInPage ? address : picture.preview,
    pageAddress,
    width: picture.width,
    height: picture.height,
    statements: picture.statements.slice(0, 150),
  };
}

function fileNameOf(address: string): string {
  const last = new URL(address).pathname.split('/').at(-1) ?? '';
  try {
    return (decodeURIComponent(last) || 'picture').slice(0, 300);
  } catch {
    return (last || 'picture').slice(0, 300);
  }
}

/** The picture with its true size and what its file says, where its beginning can be had. */
async function lookCloser(
  context: Context,
  picture: FoundPicture,
  signal: AbortSignal,
  known?: Buffer,
): Promise<FoundPicture> {
  try {
    const start = known ?? (await startOf(context, picture, signal));
    const size = await context.pictures.size(start, signal);
    return {
      ...picture,
      width: size.width,
      height: size.height,
      statements: [...statements(...picture.statements, ...(await saidByStart(context, start)))].slice(
        0,
        200,
      ),
    };
  } catch {
    // What a link opens may be called like a picture and be a page about it: then what the page shows is the picture.
    const { preview, address } = picture;
    if (known === undefined && picture.source === 'web' && preview !== address && !isInline(preview))
      return lookCloser(context, { ...picture, ...plainPicture(preview), ...saidOn(picture) }, signal);
    // What a page says of a picture holds even where the picture itself cannot be looked at yet.
    return picture;
  }
}

/** What a page says of a picture, whichever of its files is taken; the size was that of the other file. */
function saidOn({ pageAddress, statements: said }: FoundPicture) {
  return { pageAddress, statements: said, width: 0, height: 0 };
}

async function startOf(context: Context, picture: FoundPicture, signal: AbortSignal): Promise<Buffer> {
  if (isInline(picture.address)) return readInline(context, picture.address);
  const { bytes } = await context.outbound.peek(picture.address, {
    limits: START_LIMITS,
    ...(picture.pageAddress ? { referrer: picture.pageAddress } : {}),
    signal,
  });
  return bytes;
}

/** What the file says of itself in its beginning, where cameras and agencies write it. */
async function saidByStart(context: Context, start: Buffer): Promise<readonly Statement[]> {
  const folder = join(context.config.dataFolder, 'uploads');
  await mkdir(folder, { recursive: true });
  const path = join(folder, `start-${randomUUID()}`);
  try {
    await writeFile(path, start);
    return draftFromMetadata(await context.metadata.read(path)).said;
  } catch {
    return [];
  } finally {
    await rm(path, { force: true });
  }
}

/** What the file of a found picture says of itself, and its true size. */
export function lookAtFile(
  context: Context,
  picture: FoundPicture,
  signal: AbortSignal,
): Promise<FoundPicture> {
  return lookCloser(context, picture, signal);
}
