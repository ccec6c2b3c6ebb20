import { createStore, delMany, entries, set } from 'idb-keyval';
import * as v from 'valibot';

/** What is recorded: with pictures of the camera, of the screen, or sound alone. */
const SOURCES = ['camera', 'sound', 'screen'] as const;
export type Source = (typeof SOURCES)[number];

const PartSchema = v.object({
  take: v.string(),
  at: v.number(),
  source: v.picklist(SOURCES),
  type: v.string(),
  begun: v.number(),
  /** How long it is with this part, in milliseconds. */
  until: v.number(),
  bytes: v.instance(Blob),
});
type Part = v.InferOutput<typeof PartSchema>;

/** A recording, part by part as it came. */
export interface Take {
  readonly id: string;
  readonly source: Source;
  readonly type: string;
  readonly begun: number;
  readonly millis: number;
  readonly parts: readonly Blob[];
}

const store = createStore('placard-recordings', 'parts');
const keyOf = (take: string, at: number) => `${take} ${String(at).padStart(6, '0')}`;

/** Keeps a part in the browser, so that a closed tab loses no more than the next one. One that has no room only loses that. */
export async function keepPart(part: Part): Promise<void> {
  await set(keyOf(part.take, part.at), part, store).catch(() => undefined);
}

/** All recordings that were not kept as a piece and not thrown away, the newest first. */
export async function keptTakes(): Promise<readonly Take[]> {
  const all = await entries<string, unknown>(store).catch(() => []);
  const takes = new Map<string, Part[]>();
  for (const [, value] of all) {
    const read = v.safeParse(PartSchema, value);
    if (read.success) takes.set(read.output.take, [...(takes.get(read.output.take) ?? []), read.output]);
  }
  return [...takes.values()].flatMap(takeOf).sort((one, other) => other.begun - one.begun);
}

function takeOf(parts: readonly Part[]): Take[] {
  const inOrder = [...parts].sort((one, other) => one.at - other.at);
  const [first, last] = [inOrder[0], inOrder.at(-1)];
  // Without its beginning nothing of it can be read.
  if (!first || !last || first.at !== 0) return [];
  const { take: id, source, type, begun } = first;
  return [{ id, source, type, begun, millis: last.until, parts: inOrder.map(({ bytes }) => bytes) }];
}

export async function forgetTake(id: string): Promise<void> {
  const all = await entries<string, unknown>(store).catch(() => []);
  const keys = all.map(([key]) => key).filter((key) => key.startsWith(`${id} `));
  await delMany(keys, store).catch(() => undefined);
}
