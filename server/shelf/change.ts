import { and, desc, eq, isNull } from 'drizzle-orm';
import type { AssetChange } from '#api/assets.ts';
import type { Person } from '#api/people.ts';
import { may, mayChangePiece } from '#api/people.ts';
import type { Embed } from '#core/embed/model.ts';
import type { FilmRecipe } from '#core/film/recipe.ts';
import { folderPath } from '#core/naming/folders.ts';
import { withAncestors } from '#core/naming/paths.ts';
import { nameFault, sayNameFault } from '#core/naming/rule.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { isLabelField, type Label, withPatch } from '#core/rights/label.ts';
import { isOfCopies } from '#core/rights/licences.ts';
import { sayAccess, sayTerms } from '#core/rights/say-terms.ts';
import { writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/failures.ts';
import { activity, assets, embeds, folders, held, pictures } from '../db/schema.ts';
import type { SavedEmbed } from '../embeds/saved.ts';
import { changeRecipe } from '../films/order.ts';
import { isSame } from '../is-same.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { settleDifferences } from '../rights/differences.ts';
import { withHouseLicence } from '../rights/house-licences.ts';
import { today } from '../rules/today.ts';
import { derivedColumns } from './derived.ts';
import { freeStemLike } from './names.ts';
import { type AssetRow, presentAsset } from './present.ts';
import { seen } from './seen.ts';

/**
 * Changes a piece: its label, name or folder. `version` is the state the change was made on; when somebody saved
 * another meanwhile, nothing is written and the answer (412) carries the state as it is now. The very change that
 * stands already, sent again after a lost line, is answered as it was the first time.
 */
export async function changeAsset(
  context: Context,
  id: string,
  version: number,
  change: AssetChange,
  person: Person,
  now: Date,
): Promise<AssetRow> {
  const row = seen(await findAsset(context, id), person);
  const next = await changed(context, row, change, person, now);
  assertMay(person, row, next);
  assertLicence(row, next.label);
  const isOld = row.version !== version;
  if (isOld) return alreadyChanged(context, row, version, next, person);
  if (next.stem !== row.stem) await assertFree(context, row, next.stem);
  const isWritten = await writeChange(context, row, next, person, now).catch(async (error: unknown) => {
    // Somebody took the name between the look and the writing.
    if (isDuplicate(error)) throw await nameTaken(context, row, next.stem);
    throw error;
  });
  const after = await findAsset(context, id);
  return isWritten ? after : alreadyChanged(context, after, version, next, person);
}

/** What a change can say of a piece. */
type Said = Pick<AssetRow, 'label' | 'stem' | 'folder' | 'drafted' | 'trim' | 'prep' | 'embed' | 'recipe'>;

async function changed(
  context: Context,
  row: AssetRow,
  change: AssetChange,
  person: Person,
  now: Date,
): Promise<Said> {
  const label = change.label
    ? await withHouseLicence(
        context.db,
        decided(row.label, withPatch(row.label, change.label), person, await today(context, now)),
      )
    : row.label;
  const said = new Set<string>(
    [...Object.keys(change.label ?? {}), ...(change.confirmed ?? [])].filter(isLabelField),
  );
  const again = (change.drafted ?? []).filter(isLabelField);
  return {
    label,
    stem: change.stem === undefined ? row.stem : goodName(row, change.stem),
    folder: change.folder === undefined ? row.folder : folderPath(change.folder),
    drafted: [...new Set([...row.drafted.filter((field) => !said.has(field)), ...again])],
    trim: change.trim === undefined ? (row.trim ?? null) : change.trim,
    prep: change.prep ?? row.prep ?? null,
    embed: change.embed ? changedEmbed(row, change.embed) : (row.embed ?? null),
    recipe: change.recipe ? changedRecipe(row, change.recipe) : (row.recipe ?? null),
  };
}

/** A label whose new decisions, also of what happens when a term is over, are of whoever is signed in, whatever was sent. */
function decided(before: Label, label: Label, person: Person, on: string): Label {
  const by = person.name;
  const decisions = label.decisions.map((one) =>
    before.decisions.some((other) => isSame(one, other)) ? one : { ...one, by, on },
  );
  const { afterwards } = label.terms;
  if (afterwards.do === 'unsaid' || isSame(afterwards, before.terms.afterwards))
    return { ...label, decisions };
  const mine = { ...afterwards, by, personId: person.id };
  return { ...label, decisions, terms: { ...label.terms, afterwards: mine } };
}

function saidOf({ label, stem, folder, drafted, trim, prep, embed, recipe }: AssetRow): Said {
  const ofKind = { embed: embed ?? null, recipe: recipe ?? null };
  return { label, stem, folder, drafted, trim: trim ?? null, prep: prep ?? null, ...ofKind };
}

/** Writes a change on the version it was made on, with its history; false when another version stands. */
function writeChange(
  context: Context,
  row: AssetRow,
  next: Said,
  person: Person,
  now: Date,
): Promise<boolean> {
  const { trim, prep, embed, recipe, ...shared } = next;
  return context.db.transaction(async (tx) => {
    const [result] = await tx
      .update(assets)
      .set({
        ...shared,
        version: row.version + 1,
        ...derivedColumns(next.label, next.stem, row.originalName, next.drafted),
      })
      .where(and(eq(assets.id, row.id), eq(assets.version, row.version), isNull(assets.deletedAt)));
    if (result.affectedRows === 0) return false;
    await tx.update(pictures).set({ trim, prep }).where(eq(pictures.assetId, row.id));
    if (recipe && !isSame(recipe, row.recipe)) await changeRecipe(tx, row, recipe, person, now);
    if (embed) await tx.update(embeds).set({ embed }).where(eq(embeds.assetId, row.id));
    if (next.folder !== row.folder) {
      for (const path of withAncestors(next.folder)) await tx.insert(folders).ignore().values({ path });
    }
    const [before, after] = [historyOf(saidOf(row)), historyOf(next)];
    await writeActivity(
      tx,
      { personId: person.id, subject: 'asset', subjectId: row.id, what: 'changed its label', before, after },
      now,
    );
    if (CREDITED.some((field) => !isSame(row.label[field], next.label[field])))
      await settleDifferences(tx, { id: row.id, label: next.label }, now);
    if (rightsChange(row, next))
      await writeAudit(
        tx,
        { person, what: 'rights', subject: pieceName(row), detail: sayRights(row, next) },
        now,
      );
    return true;
  });
}

/** The fields of a label that its file and its source speak of too. */
const CREDITED = ['licence', 'houseLicence', 'creator', 'copyrightNotice'] as const;

const historyOf = ({ embed, recipe, ...said }: Said) => ({
  ...said,
  ...(embed ? { embed } : {}),
  ...(recipe ? { recipe } : {}),
});

/** What stands, where it is this very change; throws the clash otherwise. */
async function alreadyChanged(
  context: Context,
  row: AssetRow,
  version: number,
  next: Said,
  person: Person,
): Promise<AssetRow> {
  const isNext = row.version === version + 1 && isSame(saidOf(row), next);
  if (isNext && (await lastChangedBy(context, row.id)) === person.id) return row;
  const current = await presentAsset(context, row, person);
  throw new HttpProblem(
    412,
    'Somebody changed this label meanwhile. Yours is not written over theirs; look at both and choose.',
    { current },
  );
}

async function lastChangedBy(context: Context, assetId: string): Promise<string | undefined> {
  const [last] = await context.db
    .select({ personId: activity.personId })
    .from(activity)
    .where(and(eq(activity.subject, 'asset'), eq(activity.subjectId, assetId)))
    .orderBy(desc(activity.id))
    .limit(1);
  return last?.personId;
}

/** The settings of an embed change; what it embeds does not, since pages that show it rest on that. */
function changedEmbed({ embed: saved }: AssetRow, embed: Embed): SavedEmbed {
  if (!saved) throw new HttpProblem(422, 'This piece embeds nothing. Nothing was changed.');
  if (
    saved.embed.address !== embed.address ||
    saved.embed.carrier !== embed.carrier ||
    saved.embed.host !== embed.host
  )
    throw new HttpProblem(
      422,
      'An embed keeps what it embeds. Put the other one on the shelf, and replace this by it.',
    );
  return { ...saved, embed };
}

/** The file as it came stays what it is. */
function changedRecipe({ kind }: AssetRow, recipe: FilmRecipe): FilmRecipe {
  if (kind !== 'film') throw new HttpProblem(422, 'This piece is no film. Nothing was changed.');
  return recipe;
}

export async function findAsset(context: Context, id: string): Promise<AssetRow> {
  const [row] = await context.db
    .select()
    .from(held)
    .where(and(eq(held.id, id), isNull(held.deletedAt)));
  if (!row) throw notFound('This piece');
  return row;
}

/** Only what its host shows by itself, with no picture of its own here, goes without a licence. */
function assertLicence({ embed }: AssetRow, { licence }: Label): void {
  if (isOfCopies(licence) || embed?.poster === 'drawn') return;
  throw new HttpProblem(
    422,
    'A file of it is held here, so that a copy goes out and a licence is needed. Its licence stays as it was.',
  );
}

/** A contributor says what they handed in, and leaves other people's pieces and the rights alone. */
function assertMay(person: Person, row: AssetRow, next: Said): void {
  if (!isSame(row.label.decisions, next.label.decisions) && !may(person.role, 'decide-rights'))
    throw new HttpProblem(
      403,
      'What a licence leaves open is decided by the rights keeper or the site owner. Nothing was changed.',
    );
  if (may(person.role, 'say-rights')) return;
  if (!mayChangePiece(person, row.createdBy))
    throw new HttpProblem(403, 'You can change the pieces that you handed in. This one is somebody else’s.');
  if (rightsChange(row, next))
    throw new HttpProblem(403, 'Licences are said by editors and rights keepers. Nothing was changed.');
}

/** The fields of a label that settle what may be done with a piece. */
const RIGHTS = ['licence', 'houseLicence', 'licenceAddress', 'licensedTo', 'terms', 'decisions'] as const;

/**
 * Whether a change would change what may be done with a piece, whatever it is called: another licence, or one that was
 * only drafted and counts as said from then on, or is a draft again.
 */
function rightsChange(row: AssetRow, next: Said): boolean {
  return RIGHTS.some(
    (field) =>
      !isSame(row.label[field], next.label[field]) ||
      row.drafted.includes(field) !== next.drafted.includes(field),
  );
}

function sayRights(row: AssetRow, next: Said): string {
  const [before, after] = [termsOf(row.label).short, termsOf(next.label).short];
  const news = [
    isSame(row.label.terms, next.label.terms)
      ? ''
      : `, agreed: ${[sayTerms(next.label.terms), sayAccess(next.label.terms)].filter(Boolean).join(' ') || 'nothing besides'}`,
    isSame(row.label.decisions, next.label.decisions) ? '' : ', with a decision',
  ].join('');
  const holder = next.label.licensedTo ? `, licensed to ${next.label.licensedTo}` : '';
  return before === after
    ? `${after}, ${row.drafted.includes('licence') ? 'as it was drafted' : 'as before'}${holder}${news}`
    : `${after}, before it ${before}${holder}${news}`;
}

export const pieceName = ({ title, stem, extension }: Pick<AssetRow, 'title' | 'stem' | 'extension'>) =>
  title ? `${title} (${stem}.${extension})` : `${stem}.${extension}`;

function goodName(row: AssetRow, wished: string): string {
  const fault = wished === row.stem ? undefined : nameFault(wished);
  if (fault) throw new HttpProblem(422, `${sayNameFault(fault)} The name stays ${row.stem}.`);
  return wished;
}

async function assertFree(context: Context, row: AssetRow, wished: string): Promise<void> {
  if ((await freeStemLike(context.db, wished, row.id)) !== wished)
    throw await nameTaken(context, row, wished);
}

async function nameTaken(context: Context, row: AssetRow, wished: string): Promise<HttpProblem> {
  const free = await freeStemLike(context.db, wished, row.id);
  return new HttpProblem(
    409,
    `Another piece is called ${wished}. ${free} is free. The name stays ${row.stem}.`,
    {
      offered: free,
    },
  );
}
