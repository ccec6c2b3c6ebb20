import { mkdir, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { Figure, FigureWish } from '#api/figures.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { filesOfPage } from '#core/page/files-of-page.ts';
import { emptyPage } from '#core/page/model.ts';
import { creditHere } from '#core/page/words.ts';
import { cutsOfPage, writeFragment } from '#core/page/write.ts';
import { creditMarkdown, creditText, NO_CREDIT } from '#core/rights/credit.ts';
import type { Context } from '../context.ts';
import { targets } from '../db/schema.ts';
import { textsOf } from '../films/captions.ts';
import { filesOfRow, writeGoing } from '../films/files-out.ts';
import { writeSidecar } from '../gather/sidecar.ts';
import { assertMayGoOut } from '../pages/gate.ts';
import { outgoing } from '../pages/proof.ts';
import type { WholePage } from '../pages/store.ts';
import { notFound } from '../problem.ts';
import { readRules } from '../rules/store.ts';
import { findAsset } from '../shelf/change.ts';
import { hostsFor, pieceOf } from '../shelf/present.ts';
import { workFolder } from '../work-folder.ts';
import { zipFolder } from '../zip.ts';
import { writeCut } from './bundle.ts';
import { draftKey, draftsOf } from './one-file.ts';

const ALONE = 'alone';

/** A piece in one arrangement as a page of its own that nobody keeps, so that it goes out through the same gate and by the same hand as any page. */
export async function pieceAlone(context: Context, assetId: string, wish: FigureWish): Promise<WholePage> {
  const row = await findAsset(context, assetId);
  const [target] = await context.db.select().from(targets).where(eq(targets.id, wish.target));
  if (!target) throw notFound('This target');
  const known = pieceOf(row, await hostsFor(context, [row]));
  const piece = known.kind === 'film' ? { ...known, texts: await textsOf(context, row) } : known;
  const rules = readRules(target.rules);
  const title = row.label.title || row.stem;
  const attrs = { ...newPlacement(ALONE, row.id), position: wish.position };
  return {
    row: {
      id: `piece ${row.id} ${wish.position}`,
      targetId: target.id,
      title,
      doc: emptyPage(title),
      due: null,
      version: row.version,
      createdAt: row.createdAt,
      updatedAt: row.createdAt,
      updatedBy: row.createdBy,
    },
    doc: { ...emptyPage(title), blocks: [{ type: 'placement', attrs }] },
    // What stands alone has no foot.
    rules: { ...rules, creditsAt: 'picture' },
    targetId: target.id,
    targetVersion: target.version,
    assets: [row],
    pieces: new Map([[row.id, piece]]),
    pages: new Map(),
  };
}

/** The figure as code and as rich text, with its credit in each form, and what stops it from going out. */
export async function figureOf(
  context: Context,
  whole: WholePage,
  { files = 'media/' }: FigureWish,
  signal: AbortSignal,
): Promise<Figure> {
  assertMayGoOut(whole, 'house');
  const going = { ...outgoing(whole), withoutTitle: true, isInline: true };
  const drafts = await draftsOf(context, whole, signal);
  const [piece] = whole.pieces.values();
  const [block] = whole.doc.blocks;
  const placement = block?.type === 'placement' ? block.attrs : newPlacement(ALONE, '');
  const credit = piece ? creditHere(whole.rules, placement, piece) : NO_CREDIT;
  return {
    html: writeFragment(whole.doc, {
      ...going,
      addressOf: (cut) => `${files}${cut.fileName}`,
      fileOf: (fileName) => `${files}${fileName}`,
    }),
    // Whatever takes rich text keeps the picture only where it is in it.
    rich: writeFragment(whole.doc, {
      ...going,
      oneFileEach: true,
      addressOf: (cut) => drafts.get(draftKey(cut)) ?? '',
    }),
    credit: creditText(credit),
    markdown: creditMarkdown(credit),
  };
}

/** The files that the code asks for, as a ZIP, each with the label in it. */
export async function figureZip(context: Context, whole: WholePage, path: string): Promise<void> {
  assertMayGoOut(whole, 'house');
  const folder = await workFolder(context);
  try {
    await mkdir(join(folder, 'media'), { recursive: true });
    for (const cut of cutsOfPage(whole.doc, outgoing(whole))) {
      const file = join(folder, 'media', cut.fileName);
      await mkdir(dirname(file), { recursive: true });
      await writeCut(context, whole, cut, file);
    }
    const asked = filesOfPage(whole.doc, { ...outgoing(whole), isInline: true });
    for (const row of whole.assets)
      for (const { name, from } of await filesOfRow(context, row))
        if (asked.has(name)) await writeGoing(context, from, join(folder, 'media', name));
    await zipFolder(folder, path);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What is said of a piece, with its credit, as a sidecar for its original. */
export async function labelAlone(context: Context, whole: WholePage, into: string): Promise<void> {
  const [row] = whole.assets;
  const piece = row && whole.pieces.get(row.id);
  if (!row || !piece) throw notFound('This piece');
  const credit = creditText(creditHere(whole.rules, newPlacement(ALONE, row.id), piece));
  await writeSidecar(context, row.label, credit, into);
}
