import { type Asset, AssetSchema, ReplacedSchema } from '#api/assets.ts';
import type { Step } from '#api/progress.ts';
import { requestJson, requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { saveOpenPages } from '../api/under-way.ts';
import { ledger } from '../undo/ledger.ts';
import { tellPagesChanged } from './pages-changed.ts';
import { putPieces } from './pieces.ts';

/** All that may look otherwise once a piece was put away or brought back. */
function refresh(): void {
  for (const key of [
    'shelf',
    'rights',
    'folders',
    'desk',
    'pages',
    'pins',
    'lookalikes',
    'asset',
    'embed-held',
  ])
    void queryClient.invalidateQueries({ queryKey: [key] });
}

const withRefresh = (step: () => Promise<void>) => async () => {
  await step();
  refresh();
};

/** Does something that can be taken back, and writes it into the ledger under its name. */
async function deed(name: string, work: () => Promise<void>, back: () => Promise<void>): Promise<void> {
  await ledger.during(async () => {
    await withRefresh(work)();
    ledger.add({ name, scope: 'shelf', undo: withRefresh(back), redo: withRefresh(work) });
  });
}

/** Does it to one piece, and shows how it stands then. */
async function put(answer: Promise<Asset>): Promise<void> {
  putPieces([await answer]);
}

const takeOff = (id: string) => put(requestJson('delete /assets/{id}', AssetSchema, { path: { id } }));
const putBack = (id: string) =>
  put(requestJson('post /assets/{id}/bring-back', AssetSchema, { path: { id } }));
const fold = (id: string, into: string | null) =>
  put(requestJson('post /assets/{id}/fold', AssetSchema, { path: { id }, body: { into } }));

export function throwAway(assets: readonly Asset[]): Promise<void> {
  const each = async (step: (id: string) => Promise<void>) => {
    for (const { id } of assets) await step(id);
  };
  return deed(
    assets.length === 1 ? 'throwing a piece away' : `throwing ${assets.length} pieces away`,
    () => each(takeOff),
    () => each(putBack),
  );
}

/** Writes down that a piece came onto the shelf, so that it can be taken off again. */
export function noteArrival({ id }: Asset): void {
  ledger.add({
    name: 'putting it on the shelf',
    scope: 'shelf',
    undo: withRefresh(() => takeOff(id)),
    redo: withRefresh(() => putBack(id)),
  });
}

export function bringBack(assets: readonly Asset[]): Promise<void> {
  const each = async (step: (id: string) => Promise<void>) => {
    for (const { id } of assets) await step(id);
  };
  return deed(
    'bringing it back',
    () => each(putBack),
    () => each(takeOff),
  );
}

/** Folds a piece under another; `into` null lets it stand by itself again. */
export function foldPiece(id: string, into: string | null, from: string | null = null): Promise<void> {
  return deed(
    into ? 'folding a lookalike' : 'unfolding it',
    () => fold(id, into),
    () => fold(id, from),
  );
}

export function keepBoth(id: string, other: string): Promise<void> {
  return deed(
    'keeping both',
    () => requestVoid('post /assets/{id}/keep-apart', { path: { id }, body: { other } }),
    () => requestVoid('delete /assets/{id}/keep-apart/{other}', { path: { id, other } }),
  );
}

/** One piece in the place of another on every page, there and back; `since` names a replacement that stands already. */
function replacement(oldId: string, freshId: string, since = '') {
  let at = since;
  return {
    there: async (onStep?: (step: Step) => void) => {
      await saveOpenPages();
      const path = { id: oldId };
      const done = await requestJson('post /assets/{id}/replace', ReplacedSchema, {
        path,
        body: { by: freshId },
        onStep,
      });
      at = done.at;
      tellPagesChanged();
    },
    back: async () => {
      await saveOpenPages();
      const path = { id: oldId };
      await requestJson('post /assets/{id}/replace/take-back', ReplacedSchema, { path, body: { at } });
      tellPagesChanged();
    },
  };
}

/** Puts `fresh` in the place of `old` on every page; `old` is thrown away and can be brought back. */
export function replacePiece(old: Asset, fresh: Asset, onStep?: (step: Step) => void): Promise<void> {
  const { there, back } = replacement(old.id, fresh.id);
  return deed('putting it in the other’s place', () => there(onStep), back);
}

/** Writes down that one piece took the place of another at a moment, so that it can be taken back. */
export function noteReplaced(name: string, oldId: string, freshId: string, at: string): void {
  const { there, back } = replacement(oldId, freshId, at);
  refresh();
  tellPagesChanged();
  ledger.add({ name, scope: 'shelf', undo: withRefresh(back), redo: withRefresh(there) });
}

export function pin(id: string): Promise<void> {
  return deed(
    'pinning it',
    () => requestVoid('put /pins/{id}', { path: { id } }),
    () => requestVoid('delete /pins/{id}', { path: { id } }),
  );
}

export function unpin(id: string): Promise<void> {
  return deed(
    'letting it go',
    () => requestVoid('delete /pins/{id}', { path: { id } }),
    () => requestVoid('put /pins/{id}', { path: { id } }),
  );
}
