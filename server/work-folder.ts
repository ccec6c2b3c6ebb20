import { mkdir, mkdtemp } from 'node:fs/promises';
import { join } from 'node:path';
import type { Context } from './context.ts';

/** Where jobs lay what they pack. What a killed process leaves there is cleared away after a day. */
export const workFolders = ({ config }: Pick<Context, 'config'>) => join(config.dataFolder, 'work');

/** A fresh folder of one's own, to be removed by whoever asked for it. */
export async function workFolder(context: Pick<Context, 'config'>): Promise<string> {
  const folder = workFolders(context);
  await mkdir(folder, { recursive: true });
  return mkdtemp(join(folder, 'job-'));
}
