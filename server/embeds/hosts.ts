import { and, eq } from 'drizzle-orm';
import * as v from 'valibot';
import { type DecideSchema, type HostsAnswer, HostsSchema } from '#api/embeds.ts';
import type { Person } from '#api/people.ts';
import { readWebAddress, sayAddressFault } from '#core/embed/address.ts';
import { type HostDecision, type HostEntry, withoutQuery } from '#core/embed/host.ts';
import { writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { embedHosts } from '../db/schema.ts';
import { isSame } from '../is-same.ts';
import { HttpProblem } from '../problem.ts';

const HOUSE = 'house';
const TRIES = 5;

export async function readHosts(context: Context): Promise<HostsAnswer> {
  const [row] = await context.db.select().from(embedHosts).where(eq(embedHosts.id, HOUSE));
  if (!row) return { version: 0, entries: [], decisions: [] };
  return v.parse(HostsSchema, { version: row.version, entries: row.entries, decisions: row.decisions });
}

/** Saves the entries on the version they were changed from; a clash (412) carries those that stand. */
export function saveEntries(
  context: Context,
  version: number,
  entries: readonly HostEntry[],
  person: Person,
  now: Date,
): Promise<HostsAnswer> {
  const ids = entries.map(({ id }) => id);
  const twice = ids.find((id, at) => ids.indexOf(id) !== at);
  if (twice)
    throw new HttpProblem(422, `Two hosts have the id "${twice}". Give each its own. Nothing was saved.`);
  return save(context, version, 'changed the hosts of embeds', person, now, (before) => ({
    entries: [...entries],
    decisions: before.decisions,
  }));
}

/** Records a decision to trust an address or its host. */
export function decide(
  context: Context,
  wish: v.InferOutput<typeof DecideSchema>,
  person: Person,
  now: Date,
): Promise<HostsAnswer> {
  const read = readWebAddress(wish.address);
  if (read.kind === 'fault') throw new HttpProblem(422, sayAddressFault(read.fault));
  const value = wish.scope === 'host' ? read.url.host : withoutQuery(read.url);
  const decision: HostDecision = {
    scope: wish.scope,
    value,
    reason: wish.reason,
    by: person.name,
    at: now.toISOString(),
  };
  return saveNow(context, `decided to trust ${value}`, person, now, (before) => ({
    entries: before.entries,
    decisions: [...before.decisions.filter((one) => !isOfSame(one, decision)), decision],
  }));
}

/** Takes a decision back. Pages that rest on it fall back to a link. */
export function undecide(
  context: Context,
  which: Pick<HostDecision, 'scope' | 'value'>,
  person: Person,
  now: Date,
): Promise<HostsAnswer> {
  return saveNow(context, `no longer trusts ${which.value}`, person, now, (before) => ({
    entries: before.entries,
    decisions: before.decisions.filter((one) => !isOfSame(one, which)),
  }));
}

function isOfSame(
  one: Pick<HostDecision, 'scope' | 'value'>,
  other: Pick<HostDecision, 'scope' | 'value'>,
): boolean {
  return one.scope === other.scope && one.value === other.value;
}

type Lists = Pick<HostsAnswer, 'entries' | 'decisions'>;
type Change = (before: HostsAnswer) => Lists;

async function saveNow(
  context: Context,
  what: string,
  person: Person,
  now: Date,
  change: Change,
): Promise<HostsAnswer> {
  for (let tries = 1; ; tries += 1) {
    const { version } = await readHosts(context);
    try {
      return await save(context, version, what, person, now, change);
    } catch (error) {
      // Somebody else decided at the same moment: it is said anew on what stands then.
      if (!(error instanceof HttpProblem && error.status === 412) || tries >= TRIES) throw error;
    }
  }
}

async function save(
  context: Context,
  version: number,
  what: string,
  person: Person,
  now: Date,
  change: Change,
): Promise<HostsAnswer> {
  await context.db.insert(embedHosts).ignore().values({ id: HOUSE, entries: [], decisions: [], version: 0 });
  const before = await readHosts(context);
  const after = change(before);
  const isWritten = await context.db.transaction(async (tx) => {
    const [result] = await tx
      .update(embedHosts)
      .set({ entries: [...after.entries], decisions: [...after.decisions], version: version + 1 })
      .where(and(eq(embedHosts.id, HOUSE), eq(embedHosts.version, version)));
    if (result.affectedRows === 0) return false;
    await writeActivity(
      tx,
      { personId: person.id, subject: 'hosts', subjectId: HOUSE, what, before: listsOf(before), after },
      now,
    );
    await writeAudit(tx, { person, what: 'hosts', subject: what }, now);
    return true;
  });
  if (isWritten) return { version: version + 1, ...after };
  const current = await readHosts(context);
  // The very lists that stand already, sent again after a lost line.
  if (current.version === version + 1 && isSame(listsOf(current), listsOf({ version, ...after })))
    return current;
  throw new HttpProblem(
    412,
    'Somebody changed the hosts meanwhile. Yours are not written over theirs; look at both and save again.',
    { current },
  );
}

const listsOf = ({ entries, decisions }: HostsAnswer): Lists => ({ entries, decisions });
