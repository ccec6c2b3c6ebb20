import { eq, inArray } from 'drizzle-orm';
import type { Hosts } from '#core/embed/host.ts';
import { labelFrom } from '#core/gather/reading.ts';
import { allFaults, fileNameOf } from '#core/inherited/facts.ts';
import type { Inherited } from '#core/inherited/reading.ts';
import { toPage } from '#core/inherited/to-page.ts';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import type { Cut } from '#core/page/picture.ts';
import type { Piece } from '#core/page/piece.ts';
import { documentStyle, styleSheet } from '#core/page/style-sheet.ts';
import { writeDocument } from '#core/page/write.ts';
import { EMPTY_LABEL, withPatch } from '#core/rights/label.ts';
import type { Context } from '../context.ts';
import { held, inheritedPages } from '../db/schema.ts';
import type { StoredFacts } from '../db/tables/inherited.ts';
import { fontFaces } from '../deliver/fonts.ts';
import { readHosts } from '../embeds/hosts.ts';
import { farAddress } from '../gather/preview.ts';
import { cutPath, openingFor, signedAddress } from '../media/addresses.ts';
import { notFound } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { type AssetRow, pieceOf } from '../shelf/present.ts';
import type { InheritedRow } from './look.ts';

interface Look {
  readonly script: string;
  /** Whether it is written with all mended that can be. */
  readonly mends: boolean;
}

/** An inherited page as it stood, with its faults to be marked, or as it would be written; nothing in either runs but `script`. */
export async function inheritedDocument(
  context: Context,
  id: string,
  which: 'found' | 'written',
  { script, mends }: Look,
): Promise<string> {
  const [row] = await context.db.select().from(inheritedPages).where(eq(inheritedPages.id, id));
  if (!row?.html) throw notFound('This page');
  const head = `<script src="${context.config.mediaOrigin}${script}"></script>`;
  if (which === 'found') return found(context, row, row.html, head);
  if (!row.reading || !row.facts) throw notFound('This page');
  return written(context, row, { reading: row.reading, facts: row.facts, mends }, head);
}

function found(context: Context, row: InheritedRow, html: string, head: string): Promise<string> {
  const { reading, facts, base } = row;
  const spots = reading && facts ? allFaults(reading, facts).flatMap((fault) => fault.spots) : [];
  const pictures = Object.fromEntries(
    (reading?.files ?? []).flatMap(({ address, preview }, at) => {
      const where = facts?.where[at];
      const shown = where === undefined ? null : farAddress(context, { address: where, page: base });
      return shown === null
        ? []
        : [
            [address, shown],
            [preview, shown],
          ];
    }),
  );
  return context.texts.inheritedShown({ html, base, head, spots, pictures });
}

interface Written {
  readonly reading: Inherited;
  readonly facts: StoredFacts;
  readonly mends: boolean;
}

/** The page as Placard would write it, of pieces that are not taken in yet: each picture as it lies out there. */
async function written(
  context: Context,
  row: InheritedRow,
  { reading, facts, mends }: Written,
  head: string,
): Promise<string> {
  const [{ rules }, hosts] = await Promise.all([readTarget(context, row.targetId), readHosts(context)]);
  const heldIds = facts.files.flatMap((fact) => fact?.held ?? []);
  const rows =
    heldIds.length === 0 ? [] : await context.db.select().from(held).where(inArray(held.id, heldIds));
  const draft = draftOf(reading, facts, rows, hosts);
  let ids = 0;
  const doc = toPage(
    reading,
    facts,
    draft.became,
    rules,
    { mends, unlinksDead: true },
    () => `part-${++ids}`,
  );
  const addressOf = (cut: Cut): string => {
    const known = rows.find(({ id }) => id === cut.assetId);
    if (known) {
      const path = cutPath(cut.assetId, recipeKey(cut.recipe), cut.size.width, cut.quality, cut.fileName);
      return signedAddress(context, path, openingFor(known));
    }
    if (cut.assetId.startsWith('embed-')) return DRAWN;
    const where = facts.where[Number(cut.assetId.replace('file-', ''))];
    return where === undefined ? '' : farAddress(context, { address: where, page: row.base });
  };
  const style = `${fontFaces('/fonts')}${documentStyle(rules)}${styleSheet(rules, doc, draft.pieces)}`;
  const html = writeDocument(doc, {
    rules,
    pieces: draft.pieces,
    addressOf,
    fileOf: () => '#',
    oneFileEach: true,
    isMarked: true,
    styleSheet: 'data:text/css,',
    head: `<style>${style}</style>`,
  });
  return context.texts.inheritedShown({
    html,
    base: context.config.mediaOrigin,
    head,
    spots: [],
    pictures: {},
  });
}

/** Pieces as they would be, by names of their own. */
function draftOf(reading: Inherited, facts: StoredFacts, rows: readonly AssetRow[], hosts: Hosts) {
  const pieces = new Map<string, Piece>(rows.map((row) => [row.id, pieceOf(row, hosts)]));
  const files = reading.files.map((file, at) => {
    const fact = facts.files[at];
    if (!fact) return null;
    const known = fact.held === null ? undefined : pieces.get(fact.held);
    if (known) return { id: known.id, alt: known.label.alt, caption: known.label.caption };
    const id = `file-${at}`;
    const label = withPatch(EMPTY_LABEL, labelFrom(file.statements));
    const name = fileNameOf(file);
    pieces.set(id, {
      ...DRAFT,
      id,
      stem: id,
      extension: /\.([a-z]{3,4})$/i.exec(name)?.[1]?.toLowerCase() ?? 'jpg',
      size: fact.size,
      label,
      kind: 'picture',
    });
    return { id, alt: label.alt, caption: label.caption };
  });
  const embeds = reading.embeds.map(({ embed }, at) => {
    const id = `embed-${at}`;
    const size = { width: 1440, height: 810 };
    pieces.set(id, {
      ...DRAFT,
      id,
      stem: id,
      extension: 'jpg',
      size,
      label: withPatch(EMPTY_LABEL, { title: embed.facts.title || embed.title }),
      kind: 'embed',
      embed: { embed, hosts, framing: {}, poster: 'drawn' },
    });
    return id;
  });
  const documents = Object.fromEntries(
    reading.documents.map(({ address }, at) => [address, `document-${at}`]),
  );
  return { pieces, became: { files, embeds, documents } };
}

/** What shows a thing that its host was not asked for yet. */
const DRAWN =
  "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 16 9'%3E%3Cpath fill='%232b4048' d='M0 0h16v9H0z'/%3E%3C/svg%3E";

const DRAFT = {
  trim: null,
  prep: AS_IT_CAME,
  bytes: 0,
  alpha: false,
  animated: false,
  isLicenceClaimed: true,
} as const;
