import { randomUUID } from 'node:crypto';
import { readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Context } from '../context.ts';
import { ForeignProblem, sayForeignFault } from '../foreign/problem.ts';
import type { UnzippedPages } from '../foreign/zip-pages.ts';
import { keepInline } from '../gather/inline-files.ts';
import { pageText } from '../gather/page-text.ts';
import { isPage, isPicture } from '../gather/read-address.ts';
import { HttpProblem } from '../problem.ts';
import { workFolder } from '../work-folder.ts';
import type { ToRead } from './to-read.ts';

const MOST_PAGES = 50;

/** Where the files of a ZIP lie while its pages are read; no such host can be asked for. */
const IN_ZIP = 'https://in-zip.invalid/';
/** Where a page lies that was handed in by itself, without saying where it stood. */
const NOWHERE = 'https://handed-in.invalid/';

export interface Unpacked {
  readonly pages: readonly ToRead[];
  readonly leftOut: readonly string[];
}

/** The pages of a file that was handed in: a page of HTML, or a ZIP with pages and the pictures that lie beside them. */
export async function unpackPages(
  context: Context,
  bytes: Buffer,
  name: string,
  signal: AbortSignal,
): Promise<Unpacked> {
  if (isZip(bytes)) return unzipPages(context, bytes, name, signal);
  if (!isPage(bytes))
    throw new HttpProblem(
      415,
      `“${name}” is neither a page of HTML nor a ZIP with pages. Nothing was taken.`,
    );
  return { pages: [handedIn(bytes, name, `${NOWHERE}${encodeURIComponent(name)}`)], leftOut: [] };
}

/** The path in its ZIP that an address names; null for any other address. */
export function pathInZip(address: string): string | null {
  return address.startsWith(IN_ZIP) ? decodeURIComponent(new URL(address).pathname.slice(1)) : null;
}

const isZip = (bytes: Buffer): boolean =>
  bytes.subarray(0, 4).equals(Buffer.from('PK\u0003\u0004', 'latin1'));

function handedIn(bytes: Buffer, source: string, base: string): ToRead {
  const { text, encoding, isSaid } = pageText(bytes, undefined);
  return { source, address: null, base, html: text, encoding: isSaid ? '' : encoding };
}

async function unzipPages(
  context: Context,
  bytes: Buffer,
  name: string,
  signal: AbortSignal,
): Promise<Unpacked> {
  const folder = await workFolder(context);
  try {
    const path = join(folder, `zip-${randomUUID()}`);
    await writeFile(path, bytes);
    const { parts, leftOut } = await partsOf(context, { path, into: folder }, name, signal);
    const beside: Record<string, string> = {};
    const pages: ToRead[] = [];
    for (const part of parts) {
      const content = await readFile(part.file);
      if (part.kind === 'picture') {
        if (await isPicture(content)) beside[part.path] = await keepBytes(context, content);
      } else if (isPage(content))
        pages.push(handedIn(content, `${part.path}, in ${name}`, `${IN_ZIP}${encodeURI(part.path)}`));
    }
    if (pages.length === 0)
      throw new HttpProblem(415, `There is no page of HTML in “${name}”. Nothing was taken.`);
    const more = pages.length - MOST_PAGES;
    const tooMany = more > 0 ? [`${more} more pages: at most ${MOST_PAGES} of one file are read.`] : [];
    return {
      pages: pages.slice(0, MOST_PAGES).map((page) => ({ ...page, beside })),
      leftOut: [...leftOut, ...tooMany],
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const keepBytes = (context: Context, bytes: Buffer): Promise<string> =>
  keepInline(context, `data:;base64,${bytes.toString('base64')}`);

async function partsOf(
  context: Context,
  zip: { readonly path: string; readonly into: string },
  name: string,
  signal: AbortSignal,
): Promise<UnzippedPages> {
  try {
    return await context.texts.unzipped(zip, signal);
  } catch (error) {
    if (error instanceof ForeignProblem && error.fault === 'stopped') throw error;
    const why =
      error instanceof ForeignProblem ? sayForeignFault(error.fault) : 'cannot be read, or is damaged';
    throw new HttpProblem(415, `“${name}” ${why}. Nothing was taken.`, {}, { cause: error });
  }
}
