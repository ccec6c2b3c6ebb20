import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Person } from '#api/people.ts';
import { may } from '#api/people.ts';
import type { Context } from '../context.ts';
import { FROM_OWN_MACHINE } from '../gather/incoming.ts';
import { takeIn } from '../gather/take-in.ts';
import { HttpProblem } from '../problem.ts';
import { changeAsset, findAsset } from '../shelf/change.ts';
import type { AssetRow } from '../shelf/present.ts';
import { seen } from '../shelf/seen.ts';
import { originalKey } from '../storage/storage.ts';
import { workFolder } from '../work-folder.ts';
import { runLong } from './long-program.ts';
import { saidOfBoth } from './said-of-both.ts';

const MEMORY = 4_000_000_000;
const SECONDS = 600;
/** Above it no difference is seen in the flat colours that animations are drawn in. */
const CRF = '18';

/**
 * A film of an animated picture, as a piece of its own with the picture's words and rights. The same animation gives the same film,
 * so that it is held once.
 */
export async function filmOfAnimation(
  context: Context,
  assetId: string,
  person: Person,
  signal: AbortSignal,
): Promise<AssetRow> {
  const row = seen(await findAsset(context, assetId), person);
  if (!row.animated || row.format !== 'gif')
    throw new HttpProblem(422, 'This picture does not move, so no film is made of it.');
  if (!may(person.role, 'gather') && !may(person.role, 'edit-pages'))
    throw new HttpProblem(403, 'An editor makes films of pictures.');
  const folder = await workFolder(context);
  try {
    const path = join(folder, `${randomUUID()}.mp4`);
    await context.storage.withFile(originalKey(row.sha256), (from) =>
      runLong({
        program: 'ffmpeg',
        args: [
          ...[
            '-nostdin',
            '-v',
            'error',
            '-protocol_whitelist',
            'file',
            '-f',
            'gif',
            '-ignore_loop',
            '1',
            '-i',
            from,
          ],
          ...['-vf', 'scale=trunc(iw/2)*2:trunc(ih/2)*2:flags=lanczos,format=yuv420p', '-an'],
          ...['-c:v', 'libx264', '-preset', 'medium', '-crf', CRF, '-threads', '4', '-fflags', '+bitexact'],
          ...['-flags:v', '+bitexact', '-movflags', '+faststart', '-y', path],
        ],
        bytes: MEMORY,
        seconds: SECONDS,
        signal,
      }),
    );
    const now = new Date();
    const incoming = {
      path,
      name: `${row.stem}.mp4`,
      personId: person.id,
      folder: row.folder,
      pageId: null,
      origin: FROM_OWN_MACHINE,
    };
    const { row: film, isNew } = await takeIn(context, incoming, now);
    if (!isNew) return film;
    return await changeAsset(context, film.id, film.version, { label: saidOfBoth(row.label) }, person, now);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
