import { type Asset, AssetSchema, ReplacedSchema } from '#api/assets.ts';
import { requestJson, requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { ledger } from '../undo/ledger.ts';
import { tellPagesChanged } from './pages-changed.ts';
import { putPieces } from './pieces.ts';

/** All that may look otherwise once a piece was put away or brought back. */
function refresh(): void {
  for (const key of ['shelf', 'folders', 'desk', 'pages', 'pins', 'lookalikes', 'asset', 'embed-held'])
    void queryClient.invalidateQueries({ queryKey: [key] });
}

/** Does something that can be taken back, and writes it into the ledger under its name. */
async function deed(name: string, work: () => Promise<void>, back: () => Promise<void>): Promise<void> {
  const withRefresh = (step: () => Promise<void>) => async () => {
    await step();
    refresh();
  };
  await withRefresh(work)();
  ledger.add({ name, scope: 'shelf', undo: withRefresh(back), redo: withRefresh(work) });
}

async function send(path: string, method: 'POST' | 'DELETE', body?: unknown): Promise<void> {
  const asset = await requestJson(AssetSchema, path, { method, ...(body === undefined ? {} : { body }) });
  putPieces([asset]);
}

export function throwAway(assets: readonly Asset[]): Promise<void> {
  const each = async (step: (id: string) => Promise<void>) => {
    for (const { id } of assets) await step(id);
  };
  return deed(
    assets.length === 1 ? 'throwing a piece away' : `throwing ${assets.length} pieces away`,
    () => each((id) => send(`/assets/${id}`, 'DELETE')),
    () => each((id) => send(`/assets/${id}/bring-back`, 'POST', {})),
  );
}

/** Writes down that a piece came onto the shelf, so that it can be taken off again. */
export function noteArrival({ id }: Asset): void {
  const step = (work: () => Promise<void>) => async () => {
    await work();
    refresh();
  };
  ledger.add({
    name: 'putting it on the shelf',
    scope: 'shelf',
    undo: step(() => send(`/assets/${id}`, 'DELETE')),
    redo: step(() => send(`/assets/${id}/bring-back`, 'POST', {})),
  });
}

export function bringBack(assets: readonly Asset[]): Promise<void> {
  const each = async (step: (id: string) => Promise<void>) => {
    for (const { id } of assets) await step(id);
  };
  return deed(
    'bringing it back',
    () => each((id) => send(`/assets/${id}/bring-back`, 'POST', {})),
    () => each((id) => send(`/assets/${id}`, 'DELETE')),
  );
}

/** Folds a piece under another; `into` null lets it stand by itself again. */
export function foldPiece(id: string, into: string | null, from: string | null = null): Promise<void> {
  return deed(
    into ? 'folding a lookalike' : 'unfolding it',
    () => send(`/assets/${id}/fold`, 'POST', { into }),
    () => send(`/assets/${id}/fold`, 'POST', { into: from }),
  );
}

export function keepBoth(id: string, other: string): Promise<void> {
  return deed(
    'keeping both',
    () => requestVoid(`/assets/${id}/keep-apart`, { method: 'POST', body: { other } }),
    () => requestVoid(`/assets/${id}/keep-apart/${other}`, { method: 'DELETE' }),
  );
}

/** Puts `fresh` in the place of `old` on every page; `old` is thrown away and can be brought back. */
export async function replacePiece(old: Asset, fresh: Asset): Promise<void> {
  let at = '';
  await deed(
    'putting it in the other’s place',
    async () => {
      const done = await requestJson(ReplacedSchema, `/assets/${old.id}/replace`, {
        method: 'POST',
        body: { by: fresh.id },
      });
      at = done.at;
      tellPagesChanged();
    },
    async () => {
      await requestJson(ReplacedSchema, `/assets/${old.id}/replace/take-back`, {
        method: 'POST',
        body: { at },
      });
      tellPagesChanged();
    },
  );
}

export function pin(id: string): Promise<void> {
  return deed(
    'pinning it',
    () => requestVoid(`/pins/${id}`, { method: 'PUT', body: {} }),
    () => requestVoid(`/pins/${id}`, { method: 'DELETE' }),
  );
}

export function unpin(id: string): Promise<void> {
  return deed(
    'letting it go',
    () => requestVoid(`/pins/${id}`, { method: 'DELETE' }),
    () => requestVoid(`/pins/${id}`, { method: 'PUT', body: {} }),
  );
}
