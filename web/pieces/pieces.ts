import { useSyncExternalStore } from 'react';
import * as v from 'valibot';
import { type Asset, type AssetChange, AssetSchema, FocalSchema } from '#api/assets.ts';
import type { OfKind, Piece } from '#core/page/piece.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { ApiProblem, requestJson } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Store, useStore } from '../ui/store.ts';
import { ledger } from '../undo/ledger.ts';

/** Every piece that any screen has seen, as it was last answered: one truth for the sheet, the tray and the label. */
export const pieces = new Store<ReadonlyMap<string, Asset>>(new Map());

export function putPieces(assets: readonly Asset[]): void {
  pieces.update((known) => {
    const next = new Map(known);
    for (const asset of assets) {
      const before = known.get(asset.id);
      if (!before || before.version <= asset.version) next.set(asset.id, asset);
    }
    return next;
  });
}

export function usePiece(id: string | null): Asset | undefined {
  return useSyncExternalStore(pieces.subscribe, () => (id ? pieces.state.get(id) : undefined));
}

const asPieces = new WeakMap<ReadonlyMap<string, Asset>, ReadonlyMap<string, Piece>>();

/** All known pieces as `core` knows them: made once for each state of the store, not at each keystroke. */
export function usePieces(): ReadonlyMap<string, Piece> {
  return asCore(useStore(pieces));
}

/** The same, for what is drawn without a screen being told. */
export function corePieces(): ReadonlyMap<string, Piece> {
  return asCore(pieces.state);
}

function asCore(known: ReadonlyMap<string, Asset>): ReadonlyMap<string, Piece> {
  const made = asPieces.get(known) ?? new Map([...known].map(([id, asset]) => [id, pieceOf(asset)]));
  asPieces.set(known, made);
  return made;
}

/** What `core` has to know of a piece. */
export function pieceOf(asset: Asset): Piece {
  return {
    id: asset.id,
    stem: asset.stem,
    extension: asset.extension,
    size: asset.original,
    trim: asset.trim,
    prep: asset.prep,
    bytes: asset.bytes,
    alpha: asset.alpha,
    animated: asset.animated,
    label: asset.label,
    isLicenceClaimed: asset.drafted.includes('licence'),
    ...ofKind(asset),
  };
}

function ofKind(asset: Asset): OfKind {
  switch (asset.kind) {
    case 'picture':
      return { kind: 'picture' };
    case 'embed':
      return { kind: 'embed', embed: asset.embed };
    case 'document':
      return { kind: 'document', document: asset.document };
    case 'film':
      return {
        kind: 'film',
        film: asset.film,
        captions: asset.captions,
        recipe: asset.recipe,
        made: asset.made,
        outOfStep: asset.outOfStep,
        chapters: asset.chapters,
        transcripts: asset.transcripts,
      };
  }
}

/** Where the computer would put the focal point, in fractions of the original. */
export function askFocal(id: string): Promise<{ x: number; y: number }> {
  return requestJson('get /assets/{id}/focal', FocalSchema, { path: { id } });
}

const ClashSchema = v.looseObject({ current: AssetSchema });

/** Changes a piece on the version that is known, and writes the change into the ledger under `name`. */
export function changePiece(id: string, change: AssetChange, name: string): Promise<void> {
  return ledger.during(async () => {
    const before = await send(id, change);
    if (!before) return;
    const inverse = inverseOf(before, change);
    ledger.add({
      name,
      scope: `piece ${id}`,
      undo: () => sendAgain(id, inverse),
      redo: () => sendAgain(id, change),
    });
  });
}

/** A change to each of several pieces: the same for all, or made for each from what it says now; null leaves it alone. */
export type ChangeOfEach = AssetChange | ((asset: Asset) => AssetChange | null);

/**
 * Changes several pieces, one after the other, as one deed: one undo takes all of it back. Where one cannot be changed,
 * those before it stay changed, and can be taken back. Answers how many were changed.
 */
export function changePieces(ids: readonly string[], change: ChangeOfEach, name: string): Promise<number> {
  return ledger.during(() => changeEach(ids, change, name));
}

async function changeEach(ids: readonly string[], change: ChangeOfEach, name: string): Promise<number> {
  const done: { readonly id: string; readonly there: AssetChange; readonly back: AssetChange }[] = [];
  try {
    for (const id of ids) {
      const seen = pieces.state.get(id);
      const there = seen && (typeof change === 'function' ? change(seen) : change);
      const before = there ? await send(id, there) : null;
      if (there && before) done.push({ id, there, back: inverseOf(before, there) });
    }
  } finally {
    if (done.length > 0)
      ledger.add({
        name,
        scope: 'shelf',
        undo: async () => {
          for (const { id, back } of done) await sendAgain(id, back);
        },
        redo: async () => {
          for (const { id, there } of done) await sendAgain(id, there);
        },
      });
  }
  return done.length;
}

/** The changes to each piece that are under way, of which every one awaits those before it. */
const lastOf = new Map<string, Promise<Asset | null>>();

/**
 * Changes a piece after what this window still saves of it, on what that made of it: whoever saves two things quickly does
 * not clash with themselves. Where that was refused, on what was seen when this was asked, so that what somebody else said
 * meanwhile is still shown and not written over. Answers the piece that was changed, as it stood before.
 */
async function send(id: string, change: AssetChange): Promise<Asset | null> {
  const seen = pieces.state.get(id);
  if (!seen) return null;
  const underWay = lastOf.get(id);
  const sending = (async () => {
    const before = (await underWay) ?? seen;
    return { before, after: await sendOn(before, change) };
  })();
  const after = sending.then((sent) => sent.after).catch(() => null);
  lastOf.set(id, after);
  void after.then(() => {
    if (lastOf.get(id) === after) lastOf.delete(id);
  });
  return (await sending).before;
}

async function sendAgain(id: string, change: AssetChange): Promise<void> {
  await send(id, change);
}

async function sendOn({ id, version }: Asset, change: AssetChange): Promise<Asset> {
  try {
    const asset = await requestJson('patch /assets/{id}', AssetSchema, {
      path: { id },
      body: change,
      version,
    });
    putPieces([asset]);
    for (const key of ['shelf', 'rights', 'desk', 'pages', 'folders', 'preview', 'deliveries'])
      void queryClient.invalidateQueries({ queryKey: [key] });
    return asset;
  } catch (error) {
    const clash =
      error instanceof ApiProblem && error.status === 412 ? v.safeParse(ClashSchema, error.body) : null;
    if (clash?.success) putPieces([clash.output.current]);
    throw error;
  }
}

/** The change that brings back what stood before. */
function inverseOf(before: Asset, change: AssetChange): AssetChange {
  const label = change.label
    ? Object.fromEntries(Object.keys(change.label).map((field) => [field, fieldOf(before, field)]))
    : undefined;
  const said = new Set([...Object.keys(change.label ?? {}), ...(change.confirmed ?? [])]);
  // What was a draft before somebody said or kept it is one again.
  const drafted = before.drafted.filter((field) => said.has(field));
  return {
    ...(label ? { label: label as LabelPatch } : {}),
    ...(drafted.length > 0 ? { drafted } : {}),
    ...(change.stem === undefined ? {} : { stem: before.stem }),
    ...(change.folder === undefined ? {} : { folder: before.folder }),
    ...(change.trim === undefined ? {} : { trim: before.trim }),
    ...(change.prep === undefined ? {} : { prep: before.prep }),
    ...(change.recipe === undefined || before.kind !== 'film' ? {} : { recipe: before.recipe }),
    ...(change.embed && before.kind === 'embed' ? { embed: before.embed.embed } : {}),
  };
}

function fieldOf(asset: Asset, field: string): unknown {
  return Object.entries(asset.label).find(([name]) => name === field)?.[1];
}
