import { and, eq, isNull } from 'drizzle-orm';
import type { AssetChange } from '#api/assets.ts';
import type { Person } from '#api/people.ts';
import { may } from '#api/people.ts';
import type { Embed } from '#core/embed/model.ts';
import { folderPath, withAncestors } from '#core/naming/folders.ts';
import { nameFault, sayNameFault } from '#core/naming/names.ts';
import { isLabelField, type Label, withPatch } from '#core/rights/label.ts';
import { isOfCopies } from '#core/rights/licences.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { assets, folders } from '../db/schema.ts';
import type { SavedEmbed } from '../embeds/saved.ts';
import { notFound, Refusal } from '../problem.ts';
import { derivedColumns } from './derived.ts';
import { freeStemLike } from './names.ts';
import { type AssetRow, presentAssets } from './present.ts';

/**
 * Changes a piece: its label, name or folder. `version` is the state the change was made on; when somebody saved
 * another meanwhile, nothing is written and the answer (412) carries the state as it is now.
 */
export async function changeAsset(
  context: Context,
  id: string,
  version: number,
  change: AssetChange,
  person: Person,
  now: Date,
): Promise<AssetRow> {
  const row = await findAsset(context, id);
  assertMay(person, row, change);
  const label: Label = change.label ? withPatch(row.label, change.label) : row.label;
  assertLicence(row, label);
  const stem = change.stem === undefined ? row.stem : await checkedStem(context, row, change.stem);
  const folder = change.folder === undefined ? row.folder : folderPath(change.folder);
  const trim = change.trim === undefined ? (row.trim ?? null) : change.trim;
  const prep = change.prep ?? row.prep ?? null;
  const embed = change.embed ? changedEmbed(row, change.embed) : row.embed;
  const said = new Set(
    [...Object.keys(change.label ?? {}), ...(change.confirmed ?? [])].filter(isLabelField) as string[],
  );
  const drafted = row.drafted.filter((field) => !said.has(field));
  await context.db.transaction(async (tx) => {
    const [result] = await tx
      .update(assets)
      .set({
        label,
        stem,
        folder,
        drafted,
        trim,
        prep,
        embed,
        version: version + 1,
        ...derivedColumns(label, stem, row.originalName),
      })
      .where(and(eq(assets.id, id), eq(assets.version, version)));
    if (result.affectedRows === 0) {
      const [current] = await presentAssets(context, [await findAsset(context, id)]);
      throw new Refusal(
        412,
        'Somebody changed this label meanwhile. Yours is not written over theirs; look at both and choose.',
        { current },
      );
    }
    if (folder !== row.folder) {
      for (const path of withAncestors(folder)) await tx.insert(folders).ignore().values({ path });
    }
    const before = {
      label: row.label,
      stem: row.stem,
      folder: row.folder,
      trim: row.trim ?? null,
      prep: row.prep ?? null,
      ...(row.embed ? { embed: row.embed } : {}),
    };
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'asset',
        subjectId: id,
        what: 'changed its label',
        before,
        after: { label, stem, folder, trim, prep, ...(embed ? { embed } : {}) },
      },
      now,
    );
  });
  return findAsset(context, id);
}

/** The settings of an embed change; what it embeds does not, since pages that show it rest on that. */
function changedEmbed({ embed: saved }: AssetRow, embed: Embed): SavedEmbed {
  if (!saved) throw new Refusal(422, 'This piece embeds nothing. Nothing was changed.');
  if (
    saved.embed.address !== embed.address ||
    saved.embed.carrier !== embed.carrier ||
    saved.embed.host !== embed.host
  )
    throw new Refusal(
      422,
      'An embed keeps what it embeds. Put the other one on the shelf, and replace this by it.',
    );
  return { ...saved, embed };
}

export async function findAsset(context: Context, id: string): Promise<AssetRow> {
  const [row] = await context.db
    .select()
    .from(assets)
    .where(and(eq(assets.id, id), isNull(assets.deletedAt)));
  if (!row) throw notFound('This piece');
  return row;
}

/** Only what its host shows by itself, with no picture of its own here, goes without a licence. */
function assertLicence({ embed }: AssetRow, { licence }: Label): void {
  if (isOfCopies(licence) || embed?.poster === 'drawn') return;
  throw new Refusal(
    422,
    'A file of it is held here, so that a copy goes out and a licence is needed. Its licence stays as it was.',
  );
}

/** A contributor says what they handed in, and leaves other people's pieces and licences alone. */
function assertMay(person: Person, row: AssetRow, change: AssetChange): void {
  if (may(person.role, 'say-rights')) return;
  if (row.createdBy !== person.id)
    throw new Refusal(403, 'You can change the pieces that you handed in. This one is somebody else’s.');
  if (change.label && 'licence' in change.label)
    throw new Refusal(403, 'Licences are said by editors and rights keepers. Nothing was changed.');
}

async function checkedStem(context: Context, row: AssetRow, wished: string): Promise<string> {
  if (wished === row.stem) return wished;
  const fault = nameFault(wished);
  if (fault) throw new Refusal(422, `${sayNameFault(fault)} The name stays ${row.stem}.`);
  const free = await freeStemLike(context.db, wished, row.id);
  if (free !== wished) {
    throw new Refusal(
      409,
      `Another piece is called ${wished}. ${free} is free. The name stays ${row.stem}.`,
      { offered: free },
    );
  }
  return wished;
}
