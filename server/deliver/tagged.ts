import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { SharedWork } from '../at-once.ts';
import type { Context } from '../context.ts';

/** Where cuts lie as they go out, with what their labels say in them. Only kept so that it need not be written again. */
const taggedFolder = ({ config }: Pick<Context, 'config'>) => join(config.dataFolder, 'tagged');

type Tags = Readonly<Record<string, string | readonly string[]>>;

const shared = new SharedWork<string>();

/**
 * The path of a stored file with tags written into it (XMP, IPTC, EXIF): written once for all pages, targets and bundles that it goes
 * out with. `make` makes the stored file where it is not there.
 */
export function taggedFile(
  context: Pick<Context, 'config' | 'storage' | 'metadata'>,
  key: string,
  tags: Tags,
  make: () => Promise<unknown>,
): Promise<string> {
  const hash = createHash('sha256')
    .update(`${key}\n${JSON.stringify(tags)}`)
    .digest('hex');
  const path = join(taggedFolder(context), `${hash}${extname(key)}`);
  return shared.do(path, undefined, async () => {
    const now = new Date();
    const isThere = await utimes(path, now, now).then(
      () => true,
      () => false,
    );
    if (isThere) return path;
    await make();
    await mkdir(taggedFolder(context), { recursive: true });
    const part = join(taggedFolder(context), `part-${randomUUID()}${extname(key)}`);
    try {
      await writeFile(part, await context.storage.read(key));
      if (Object.keys(tags).length > 0) await context.metadata.write(part, tags);
      await rename(part, path);
    } finally {
      await rm(part, { force: true });
    }
    return path;
  });
}

/** Removes what went out last before a moment. Answers how many. */
export async function clearTagged(context: Pick<Context, 'config'>, before: Date): Promise<number> {
  const folder = taggedFolder(context);
  let cleared = 0;
  for (const name of await readdir(folder).catch(() => [])) {
    const found = await stat(join(folder, name)).catch(() => null);
    if (!found || found.mtime >= before) continue;
    await rm(join(folder, name), { force: true });
    cleared += 1;
  }
  return cleared;
}
