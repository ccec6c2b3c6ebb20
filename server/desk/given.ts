import { eq, inArray, notInArray } from 'drizzle-orm';
import type { Errand, Given } from '#api/desk.ts';
import { may, type Person } from '#api/people.ts';
import type { Context } from '../context.ts';
import { errandsGiven } from '../db/schema.ts';
import { readColleagues } from '../people/colleagues.ts';
import { HttpProblem } from '../problem.ts';

/** An errand before it is known to whom it was given. */
export type OpenErrand = Omit<Errand, 'given' | 'isGivable'>;

/** Runs and purchases wait for whoever began them. */
const isGivable = ({ id, kind }: OpenErrand): boolean => kind !== 'run' && !id.startsWith('purchase-');

/** Who works here and may do what waits. */
export async function colleaguesOf(context: Context): Promise<readonly { id: string; name: string }[]> {
  const all = await readColleagues(context);
  return all
    .filter(({ role, left }) => !left && may(role, 'edit-pages'))
    .map(({ id, name }) => ({ id, name }));
}

/** Errands with to whom they were given: those of whoever asks first, those of others last. */
export async function withGiven(
  context: Context,
  errands: readonly OpenErrand[],
  person: Person,
): Promise<readonly Errand[]> {
  const given = await readGiven(
    context,
    errands.map(({ id }) => id),
  );
  const place = ({ given: one }: Errand) => (one === null ? 1 : one.to.id === person.id ? 0 : 2);
  return errands
    .map((errand) => ({ ...errand, given: given.get(errand.id) ?? null, isGivable: isGivable(errand) }))
    .sort((one, other) => place(one) - place(other));
}

async function readGiven(context: Context, ids: readonly string[]): Promise<ReadonlyMap<string, Given>> {
  if (ids.length === 0) return new Map();
  const rows = await context.db
    .select()
    .from(errandsGiven)
    .where(inArray(errandsGiven.errandId, [...ids]));
  const all = await readColleagues(context);
  const names = new Map(all.map(({ id, name }) => [id, name]));
  const named = (id: string) => ({ id, name: names.get(id) ?? 'Somebody who left' });
  return new Map(
    rows.map(({ errandId, toId, byId, note, at }) => [
      errandId,
      { to: named(toId), by: named(byId), note, at: at.toISOString() },
    ]),
  );
}

/** Gives one of the open errands to somebody; what was given of those that are done is forgotten. */
export async function giveErrand(
  context: Context,
  open: readonly OpenErrand[],
  {
    id,
    to,
    note,
    by,
  }: { readonly id: string; readonly to: string; readonly note: string; readonly by: Person },
): Promise<void> {
  // Pieces that were handed in wait for whoever may clear them, and are not seen by all alike.
  const ids = ['handed-in', ...open.map((errand) => errand.id)];
  if (!open.some((errand) => errand.id === id))
    throw new HttpProblem(404, 'This is done already, or somebody else’s.');
  if (!(await colleaguesOf(context)).some((colleague) => colleague.id === to))
    throw new HttpProblem(422, 'Nobody of this name may do it here.');
  const row = { toId: to, byId: by.id, note, at: new Date() };
  await context.db.transaction(async (transaction) => {
    await transaction.delete(errandsGiven).where(notInArray(errandsGiven.errandId, ids));
    await transaction
      .insert(errandsGiven)
      .values({ errandId: id, ...row })
      .onDuplicateKeyUpdate({ set: row });
  });
}

export async function takeErrandBack(context: Context, id: string): Promise<void> {
  await context.db.delete(errandsGiven).where(eq(errandsGiven.errandId, id));
}
