import * as v from 'valibot';
import { type Gathering, GatheringSchema } from '#api/gather.ts';
import { JobSchema } from '#api/jobs.ts';
import { requestJson, requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { putPieces } from '../pieces/pieces.ts';
import { Store } from '../ui/store.ts';
import { ledger } from '../undo/ledger.ts';
import { onTray, takeOffTray } from './arrivals.ts';

/** Gatherings under way on the server, and those that ended in this sitting. */
export const gatherings = new Store<readonly Gathering[]>([]);

const LOOK_MILLIS = 350;
const LOST_MILLIS = 3000;
const following = new Set<string>();

export interface Wish {
  readonly seals: readonly string[];
  readonly pageId: string | null;
  readonly wantId: string | null;
  readonly folder: string;
  readonly licence: string | null;
}

/** Orders found pictures to be taken, and follows them until they are in. */
export async function gather(wish: Wish): Promise<Gathering> {
  const ordered = await requestJson('post /gatherings', GatheringSchema, { body: wish });
  put(ordered);
  void follow(ordered.jobId);
  return ordered;
}

/** A gathering once it is over, however it ended. */
export function gathered(jobId: string): Promise<Gathering> {
  return new Promise((resolve) => {
    const look = () => {
      const found = gatherings.state.find((one) => one.jobId === jobId);
      if (!found || isOpen(found)) return;
      stop();
      resolve(found);
    };
    const stop = gatherings.subscribe(look);
    look();
  });
}

export async function stopGathering(jobId: string): Promise<void> {
  put(await requestJson('post /gatherings/{id}/stop', GatheringSchema, { path: { id: jobId } }));
}

/** Lets a gathering go on that was stopped or failed; what is in stays in. */
export async function goOnWithGathering(jobId: string): Promise<void> {
  await requestJson('post /jobs/{id}/go-on', JobSchema, { path: { id: jobId } });
  put(await requestJson('get /gatherings/{id}', GatheringSchema, { path: { id: jobId } }));
  void follow(jobId);
}

/** Whether there is something left of it to go on with. */
export function isHalted({ state, takings }: Gathering): boolean {
  return (state === 'stopped' || state === 'failed') && takings.some((taking) => taking.state === 'stopped');
}

export function clearGatherings(): void {
  gatherings.update((all) => all.filter(isOpen));
}

export function isOpen({ state }: Gathering): boolean {
  return state === 'waiting' || state === 'running';
}

/** Finds what still runs on the server, as after a reload. */
export async function findGatherings(): Promise<void> {
  const recent = await requestJson('get /gatherings', v.array(GatheringSchema)).catch(() => []);
  for (const one of recent.filter(isOpen)) {
    put(one);
    void follow(one.jobId);
  }
}

function put(gathering: Gathering): void {
  putPieces(gathering.takings.flatMap(({ asset }) => asset ?? []));
  gatherings.update((all) =>
    all.some(({ jobId }) => jobId === gathering.jobId)
      ? all.map((one) => (one.jobId === gathering.jobId ? gathering : one))
      : [...all, gathering],
  );
}

async function follow(jobId: string): Promise<void> {
  if (following.has(jobId)) return;
  following.add(jobId);
  for (;;) {
    const looked = await requestJson('get /gatherings/{id}', GatheringSchema, { path: { id: jobId } }).catch(
      () => null,
    );
    if (looked) {
      put(looked);
      if (!isOpen(looked)) break;
    }
    await new Promise((resolve) => setTimeout(resolve, looked ? LOOK_MILLIS : LOST_MILLIS));
  }
  following.delete(jobId);
  ended(jobId);
}

/** All screens that show what was gathered ask again, and the gathering can be taken back. */
function ended(jobId: string): void {
  const gathering = gatherings.state.find((one) => one.jobId === jobId);
  if (!gathering) return;
  for (const key of ['shelf', 'folders', 'desk', 'pages', 'gather-page', 'source'])
    void queryClient.invalidateQueries({ queryKey: [key] });
  if (gathering.pageId) onTray.dispatchEvent(new CustomEvent('change', { detail: gathering.pageId }));
  const came = gathering.takings.filter(({ state }) => state === 'in');
  if (came.length === 0) return;
  const { pageId } = gathering;
  const ids = came.flatMap(({ asset }) => asset?.id ?? []);
  const fresh = came.filter(({ isNew }) => isNew).flatMap(({ asset }) => asset?.id ?? []);
  ledger.add({
    name: ids.length === 1 ? 'gathering a picture' : `gathering ${ids.length} pictures`,
    scope: 'gather',
    undo: async () => {
      if (pageId) await takeOffTray(pageId, ids);
      for (const id of fresh) await requestVoid('delete /assets/{id}', { path: { id } });
      void queryClient.invalidateQueries({ queryKey: ['shelf'] });
    },
    redo: async () => {
      for (const id of fresh) await requestVoid('post /assets/{id}/bring-back', { path: { id } });
      if (pageId)
        await requestVoid('post /pages/{id}/tray', {
          path: { id: pageId },
          body: { add: ids, remove: [], wantId: null },
        });
      void queryClient.invalidateQueries({ queryKey: ['shelf'] });
    },
  });
}
