import { and, asc, count, eq, like, type SQL, sql } from 'drizzle-orm';
import type { Person } from '#api/people.ts';
import type { KeptLicence } from '#api/rights.ts';
import type { Statement } from '#core/gather/statement.ts';
import { type HouseLicence, houseKey, maybeHouseLicence } from '#core/rights/house-licence.ts';
import type { Label, LabelPatch } from '#core/rights/label.ts';
import { isCatalogued, LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import { justDone, writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { assets, houseLicences } from '../db/schema.ts';
import { isSame } from '../is-same.ts';
import { HttpProblem, notFound } from '../problem.ts';

/** The licences of the house, by name. */
export async function readHouseLicences(db: Queries): Promise<readonly KeptLicence[]> {
  const rows = await db.select().from(houseLicences).orderBy(asc(houseLicences.name), asc(houseLicences.id));
  return rows.map(keptIn);
}

const keptIn = ({ version, ...licence }: typeof houseLicences.$inferSelect): KeptLicence => ({
  licence,
  version,
});

/** The pieces under licences of the house that fit a condition on what those say. */
export function underHouseLicence(fits: SQL): SQL {
  const isTheirs = sql`concat('house:', ${houseLicences.id}) = ${assets.licence}`;
  return sql`(${like(assets.licence, 'house:%')} and exists (select 1 from ${houseLicences} where ${isTheirs} and ${fits}))`;
}

/** A label whose house licence says what it says today, whatever was sent; refused where the house has none such. */
export async function withHouseLicence(db: Queries, label: Label): Promise<Label> {
  if (label.licence !== 'house')
    return label.houseLicence === null ? label : { ...label, houseLicence: null };
  const id = label.houseLicence?.id;
  const [row] = id === undefined ? [] : await db.select().from(houseLicences).where(eq(houseLicences.id, id));
  if (!row) throw new HttpProblem(422, 'The house has no such licence any more. Nothing was changed.');
  return { ...label, houseLicence: keptIn(row).licence };
}

/** What is drafted of a label, with a licence that the catalogue does not know and the house does, as it is said word for word. */
export async function withOwnLicence(
  db: Queries,
  patch: LabelPatch,
  said: readonly Statement[],
): Promise<LabelPatch> {
  const told = said.filter(({ about }) => about === 'licence');
  if (told.length === 0 || (patch.licence !== undefined && patch.licence !== 'unknown')) return patch;
  const licences = (await readHouseLicences(db)).map(({ licence }) => licence);
  const named = new Map(
    told.flatMap(({ value }) => maybeHouseLicence(value, licences) ?? []).map((one) => [one.id, one]),
  );
  const [only, ...others] = named.values();
  return only && others.length === 0 ? { ...patch, licence: 'house', houseLicence: only } : patch;
}

const KEPT = 'kept a licence';
const REMOVED = 'removed a licence';

/**
 * Keeps a licence of the house on the version that it was changed from (0 for a new one), and in the same step what every label
 * says that carries it. The very same sent again after a lost line is answered as it was.
 */
export async function saveHouseLicence(
  context: Context,
  licence: HouseLicence,
  version: number,
  person: Person,
  now: Date,
): Promise<KeptLicence> {
  const all = await readHouseLicences(context.db);
  const before = all.find((one) => one.licence.id === licence.id);
  if (before && before.version === version + 1 && isSame(before.licence, licence)) return before;
  if ((before?.version ?? 0) !== version)
    throw new HttpProblem(
      412,
      'Somebody changed the licences of the house meanwhile. Look at them once more; nothing was changed.',
    );
  assertNamedOnce(
    licence,
    all.map((one) => one.licence),
  );
  const kept = { ...licence, version: version + 1 };
  await context.db.transaction(async (tx) => {
    if (before) {
      const isThis = and(eq(houseLicences.id, licence.id), eq(houseLicences.version, version));
      const [result] = await tx.update(houseLicences).set(kept).where(isThis);
      if (result.affectedRows === 0)
        throw new HttpProblem(409, 'Somebody else is changing it just now. Nothing was changed.');
      await tx
        .update(assets)
        .set({
          label: sql`json_set(${assets.label}, '$.houseLicence', json_extract(${JSON.stringify(licence)}, '$'))`,
          version: sql`${assets.version} + 1`,
        })
        .where(eq(assets.licence, houseKey(licence.id)));
    } else await tx.insert(houseLicences).values(kept);
    const change = { what: KEPT, before: before?.licence ?? null, after: licence };
    await writeActivity(
      tx,
      { personId: person.id, subject: 'licence', subjectId: licence.id, ...change },
      now,
    );
    await writeAudit(
      tx,
      { person, what: 'rights', subject: `the licence ${licence.name}`, detail: JSON.stringify(licence) },
      now,
    );
  });
  return keptIn(kept);
}

/** A name says one licence: neither one of the catalogue nor another of the house is called so. */
function assertNamedOnce(licence: HouseLicence, all: readonly HouseLicence[]): void {
  const others = all.filter(({ id }) => id !== licence.id);
  const catalogue = LICENCE_IDS.filter(isCatalogued).map((id) => licenceTerms(id));
  const said = [licence.name, licence.short, ...(licence.address === '' ? [] : [licence.address])];
  for (const text of said) {
    const other =
      maybeHouseLicence(text, others) ??
      catalogue.find((one) =>
        [one.name, one.short, one.address].some((name) => name?.toLowerCase() === text.toLowerCase()),
      );
    if (other)
      throw new HttpProblem(
        409,
        `“${text}” says ${other.name} already. Call this one otherwise; nothing was changed.`,
      );
  }
}

/** Removes a licence that no piece carries, also none that was thrown away. */
export async function removeHouseLicence(
  context: Context,
  id: string,
  version: number,
  person: Person,
  now: Date,
): Promise<void> {
  const deed = { personId: person.id, subject: 'licence', subjectId: id, what: REMOVED } as const;
  if (await justDone(context.db, deed, now)) return;
  await context.db.transaction(async (tx) => {
    const [kept] = await tx.select().from(houseLicences).where(eq(houseLicences.id, id)).for('update');
    if (!kept) throw notFound('This licence');
    if (kept.version !== version)
      throw new HttpProblem(412, 'Somebody changed it meanwhile. Look at it once more; nothing was changed.');
    const [used] = await tx
      .select({ pieces: count() })
      .from(assets)
      .where(eq(assets.licence, houseKey(id)));
    if ((used?.pieces ?? 0) > 0)
      throw new HttpProblem(
        409,
        `${used?.pieces} ${used?.pieces === 1 ? 'piece carries' : 'pieces carry'} it, so it stays. Say another licence of them first.`,
      );
    await tx.delete(houseLicences).where(eq(houseLicences.id, id));
    await writeActivity(tx, { ...deed, before: keptIn(kept).licence, after: null }, now);
    await writeAudit(
      tx,
      { person, what: 'rights', subject: `the licence ${kept.name}`, detail: 'removed' },
      now,
    );
  });
}
