import { createHash, randomUUID } from 'node:crypto';
import { copyFile, mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Context } from '../context.ts';
import { HttpProblem } from '../problem.ts';

const SCHEME = 'in-page:';

/** Whether an address is that of a picture which was written into a page, and is kept here for a day. */
export function isInline(address: string): boolean {
  return address.startsWith(SCHEME);
}

/** Keeps a picture that is written into a page (RFC 2397, base64) as a file, and answers how it is asked for from then on. */
export async function keepInline(context: Context, data: string): Promise<string> {
  const bytes = Buffer.from(data.slice(data.indexOf(',') + 1), 'base64');
  const name = createHash('sha256').update(bytes).digest('hex');
  const path = pathOf(context, SCHEME + name);
  await mkdir(join(path, '..'), { recursive: true });
  const temporary = `${path}.${randomUUID()}.part`;
  await writeFile(temporary, bytes);
  await rename(temporary, path);
  return SCHEME + name;
}

/** The bytes of such a picture. Throws an HttpProblem where it is no longer kept. */
export function readInline(context: Context, address: string): Promise<Buffer> {
  return readFile(pathOf(context, address)).catch(gone);
}

/** Puts such a picture where a file that was fetched would be. Throws an HttpProblem where it is no longer kept. */
export async function saveInline(context: Context, address: string, path: string): Promise<void> {
  await copyFile(pathOf(context, address), path).catch(gone);
}

function gone(error: unknown): never {
  if (error instanceof Error && 'code' in error && error.code === 'ENOENT')
    throw new HttpProblem(
      410,
      'This picture stood in the page itself, and was kept for a day only. Read the page again, and take it from there.',
    );
  throw error;
}

/** Among the previews, which are cleared away after a day. */
function pathOf(context: Context, address: string): string {
  const name = /^in-page:([0-9a-f]{64})$/.exec(address)?.[1];
  if (!name) throw new HttpProblem(422, 'This is no picture of a page that was read here.');
  return join(context.config.dataFolder, 'previews', `in-page-${name}`);
}
