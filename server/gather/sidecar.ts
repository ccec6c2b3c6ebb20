import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { and, desc, eq, isNull, like, or } from 'drizzle-orm';
import isEqual from 'fast-deep-equal';
import type { SidecarTaken } from '#api/gather.ts';
import { may, mayChangePiece, type Person } from '#api/people.ts';
import { draftFromMetadata, type MetadataDraft, sidecarOfLabel } from '#core/formats/metadata.ts';
import {
  EMPTY_LABEL,
  isLabelField,
  type Label,
  type LabelField,
  type LabelPatch,
} from '#core/rights/label.ts';
import { LABEL_FIELD_WORDS } from '#core/rights/say-label.ts';
import type { Context } from '../context.ts';
import { held, provenance } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';
import { withOwnLicence } from '../rights/house-licences.ts';
import { changeAsset } from '../shelf/change.ts';
import { type AssetRow, presentAsset } from '../shelf/present.ts';
import { escapeLike } from '../shelf/query.ts';
import { seenBy } from '../shelf/seen.ts';

/** How XMP begins (XMP Specification Part 1, 7.3), with or without its packet wrapper. */
const IS_XMP = /<(?:x:xmpmeta|rdf:RDF)[\s>]/;
/** What stands before its first element is looked through no further than this. */
const BEGINNING_LETTERS = 4000;

/** Reads what a sidecar says, in the program that reads every file's metadata. Throws an HttpProblem for what is none. */
export async function readSidecar(context: Context, text: string): Promise<MetadataDraft> {
  if (!IS_XMP.test(text.slice(0, BEGINNING_LETTERS)))
    throw new HttpProblem(422, 'This file is no XMP. Nothing was changed.');
  return withXmpFile(context, async (path) => {
    await writeFile(path, text);
    try {
      return draftFromMetadata(await context.metadata.read(path));
    } catch (error) {
      throw new HttpProblem(422, 'This XMP cannot be read. Nothing was changed.', {}, { cause: error });
    }
  });
}

/** A label as a sidecar, for a file that is left as it is. */
export function writeSidecar(context: Context, label: Label, credit: string, into: string): Promise<void> {
  return context.metadata.write(into, sidecarOfLabel(label, credit));
}

async function withXmpFile<T>({ config }: Context, use: (path: string) => Promise<T>): Promise<T> {
  const folder = join(config.dataFolder, 'uploads');
  await mkdir(folder, { recursive: true });
  const path = join(folder, `sidecar-${randomUUID()}.xmp`);
  try {
    return await use(path);
  } finally {
    await rm(path, { force: true });
  }
}

/**
 * Takes a sidecar in that came without its picture: what it says goes onto the label of the piece that it is called after, as a
 * draft. What somebody has said there already stays.
 */
export async function takeSidecar(
  context: Context,
  { file, text }: { readonly file: string; readonly text: string },
  person: Person,
  now: Date,
): Promise<SidecarTaken> {
  const row = await pieceCalled(context, file, person);
  const read = await readSidecar(context, text);
  const draft = { ...read, patch: await withOwnLicence(context.db, read.patch, read.said) };
  const { patch, left } = forLabel(draft, row, person);
  const name = `${row.stem}.${row.extension}`;
  const fields = Object.keys(patch)
    .filter(isLabelField)
    .filter((field) => field !== 'houseLicence');
  const after =
    fields.length === 0
      ? row
      : await changeAsset(context, row.id, row.version, { label: patch, drafted: fields }, person, now);
  await context.db.insert(provenance).values({
    id: randomUUID(),
    assetId: row.id,
    at: now,
    personId: person.id,
    way: 'upload',
    fileName: file.slice(-300),
    said: [...draft.said],
  });
  return {
    asset: await presentAsset(context, after, person),
    sentence: [
      fields.length === 0
        ? `It says nothing that the label of ${name} takes over.`
        : `On the label of ${name} now, as a draft: ${sayFields(fields)}.`,
      left.length === 0 ? '' : `Said there already, and left: ${sayFields(left)}.`,
    ]
      .filter(Boolean)
      .join(' '),
  };
}

const sayFields = (fields: readonly LabelField[]): string =>
  fields.map((field) => LABEL_FIELD_WORDS[field] ?? field).join(', ');

/** The newest piece that a sidecar is called after: "heron.xmp" or "heron.jpg.xmp", by its own name or that of its file. */
async function pieceCalled(context: Context, file: string, person: Person): Promise<AssetRow> {
  const called = file.replace(/\.xmp$/i, '');
  const stem = called.replace(/\.[^.]{1,5}$/, '');
  const [row] = await context.db
    .select()
    .from(held)
    .where(
      and(
        isNull(held.deletedAt),
        seenBy(context, person, held),
        or(
          eq(held.stem, stem),
          eq(held.originalName, called),
          called === stem ? like(held.originalName, `${escapeLike(stem)}.%`) : undefined,
        ),
      ),
    )
    .orderBy(desc(held.createdAt))
    .limit(1);
  if (!row)
    throw new HttpProblem(
      422,
      `No piece on the shelf is called ${stem}. Hand the sidecar in together with its picture; nothing was changed.`,
    );
  if (!mayChangePiece(person, row.createdBy))
    throw new HttpProblem(403, 'You can change the pieces that you handed in. This one is somebody else’s.');
  return row;
}

/** What of a sidecar goes onto a label, and what is said there already by a person. Licences are said by who may. */
function forLabel(
  { patch }: MetadataDraft,
  { label, drafted }: AssetRow,
  person: Person,
): { readonly patch: LabelPatch; readonly left: readonly LabelField[] } {
  const fields = Object.keys(patch)
    .filter(isLabelField)
    .filter((field) => !isEqual(patch[field], label[field]));
  const isFree = (field: LabelField) =>
    (isEqual(label[field], EMPTY_LABEL[field]) || drafted.includes(field)) &&
    (may(person.role, 'say-rights') || !OF_RIGHTS.has(field));
  return {
    patch: Object.fromEntries(fields.filter(isFree).map((field) => [field, patch[field]])),
    left: fields.filter((field) => !isFree(field)),
  };
}

const OF_RIGHTS: ReadonlySet<LabelField> = new Set(['licence', 'houseLicence', 'licenceAddress']);
