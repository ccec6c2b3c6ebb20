import { createStore, del, entries, get, set } from 'idb-keyval';
import * as v from 'valibot';

/** Where an arrival goes when it is in: onto a page's tray, into one of its wants, or only onto the shelf. */
const DestinationSchema = v.object({ pageId: v.nullable(v.string()), wantId: v.nullable(v.string()) });
export type Destination = v.InferOutput<typeof DestinationSchema>;

export const ONTO_THE_SHELF: Destination = { pageId: null, wantId: null };

const KeptSchema = v.object({
  id: v.string(),
  file: v.instance(File),
  folder: v.string(),
  to: DestinationSchema,
  /** What lay beside it and says what its label says. */
  sidecar: v.optional(v.instance(File)),
});
/** A file that is on its way in, kept by the browser so that a reload or another tab can go on with it. */
export type KeptFile = v.InferOutput<typeof KeptSchema>;

const store = createStore('placard-arrivals', 'files');

let lastKept: Promise<void> = Promise.resolve();

/**
 * Keeps a file until it is in, unless it is in before its turn comes: one file after the other, since a browser that
 * copies hundreds at once stands still. One that cannot keep it (no room, private window) only loses the going on.
 */
export function keepFile(kept: KeptFile, isStillComing: () => boolean): Promise<void> {
  lastKept = lastKept.then(async () => {
    if (isStillComing()) await set(kept.id, kept, store).catch(() => undefined);
  });
  return lastKept;
}

export async function forgetFile(id: string): Promise<void> {
  await del(id, store).catch(() => undefined);
}

export async function isKept(id: string): Promise<boolean> {
  return (await get(id, store).catch(() => undefined)) !== undefined;
}

/** All files that were not in yet when they were last looked after, in any tab. */
export async function keptFiles(): Promise<readonly KeptFile[]> {
  const all = await entries<string, unknown>(store).catch(() => []);
  return all.flatMap(([, value]) => {
    const read = v.safeParse(KeptSchema, value);
    return read.success ? [read.output] : [];
  });
}
