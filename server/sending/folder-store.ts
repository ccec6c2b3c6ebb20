import { randomUUID } from 'node:crypto';
import { mkdir, open, readFile, realpath, rename, rm } from 'node:fs/promises';
import { dirname, join, sep } from 'node:path';
import type { FileStore } from './file-site.ts';
import { SendProblem } from './way.ts';

/** Files in a folder of this machine, below the one that whoever runs Placard gave for sites. */
export async function folderStore(sitesFolder: string | null, folder: string): Promise<FileStore> {
  if (sitesFolder === null)
    throw new SendProblem(
      'This machine has no folder for sites. Whoever runs it names one (PLACARD_SITES). Nothing was sent.',
    );
  const root = join(sitesFolder, folder);
  await mkdir(root, { recursive: true });
  // A link in it may lead out of it.
  const [within, real] = await Promise.all([realpath(sitesFolder), realpath(root)]);
  if (real !== within && !real.startsWith(within + sep))
    throw new SendProblem(
      'This folder leads out of the one that this machine has for sites. Nothing was sent.',
    );
  return {
    async put(path, bytes) {
      const target = join(real, path);
      await mkdir(dirname(target), { recursive: true });
      const part = `${target}.${randomUUID()}.part`;
      try {
        const file = await open(part, 'w');
        try {
          await file.writeFile(bytes);
          await file.sync();
        } finally {
          await file.close();
        }
        await rename(part, target);
      } catch (error) {
        await rm(part, { force: true });
        throw inWords(error, path);
      }
    },
    read: (path) =>
      readFile(join(real, path)).catch((error: unknown) => {
        if (codeOf(error) === 'ENOENT') return null;
        throw inWords(error, path);
      }),
    remove: (path) => rm(join(real, path), { force: true }),
  };
}

const codeOf = (error: unknown): unknown =>
  error instanceof Error && 'code' in error ? error.code : undefined;

function inWords(error: unknown, path: string): unknown {
  switch (codeOf(error)) {
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return new SendProblem(`“${path}” may not be written there. What is sent already is not sent again.`);
    case 'ENOSPC':
    case 'EDQUOT':
      return new SendProblem(
        `There is no room left for “${path}” on this machine. Make room, then send it again; what is sent already is not sent again.`,
      );
    default:
      return error;
  }
}
