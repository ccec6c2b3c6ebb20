import { eq } from 'drizzle-orm';
import type { Person } from '#api/people.ts';
import type { HouseRules } from '#core/page/target.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { credentials } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { keyFor, maybeUnsealed, sealed } from '../sealed.ts';

/** The place that a credential is for: a target that is sent elsewhere is opened by another one. */
const placeOf = ({ sending, siteAddress }: Pick<HouseRules, 'sending' | 'siteAddress'>): string => {
  const { by, address, host, bucket, user } = sending;
  return [by, address || host || siteAddress, bucket, user].join(' ');
};

/** One key for each target and place, so that what was sealed for one is told to no other. */
const keyOf = ({ secret }: Pick<Context, 'secret'>, { targetId, place }: Sealed) =>
  keyFor(secret, {
    salt: targetId,
    purpose: `credential of a target${place === null ? '' : ` at ${place}`}`,
  });

interface Sealed {
  readonly targetId: string;
  /** Null for what was sealed before places were told apart, when all were Micropub's. */
  readonly place: string | null;
}

/** Begins what is sealed for a place; what was sealed before begins with nothing. */
const FOR_PLACE = '2:';

const seal = (context: Pick<Context, 'secret'>, where: Sealed, token: string): string =>
  `${FOR_PLACE}${sealed(keyOf(context, where), token)}`;

/** What was sealed; null where it was sealed by another secret, as after a database was moved without it, or for another place. */
function unsealed(context: Pick<Context, 'secret'>, where: Sealed, text: string): string | null {
  const isForPlace = text.startsWith(FOR_PLACE);
  if (!isForPlace && !where.place?.startsWith('micropub ')) return null;
  return isForPlace
    ? maybeUnsealed(keyOf(context, where), text.slice(FOR_PLACE.length))
    : maybeUnsealed(keyOf(context, { ...where, place: null }), text);
}

/** RFC 6750, 2.1. */
const ONE_WORD = /^[\x21-\x7e]{1,2000}$/;

/** Keeps what opens a target, in place of what did before. It is never shown again. */
export async function keepCredential(
  context: Context,
  targetId: string,
  token: string,
  person: Person,
  now: Date,
): Promise<void> {
  const { rules } = await readTarget(context, targetId);
  if (rules.sending.by === 'micropub' && !ONE_WORD.test(token))
    throw new HttpProblem(422, 'A token is one word of letters, digits and signs, as the site gave it.');
  const row = {
    sealed: seal(context, { targetId, place: placeOf(rules) }, token),
    at: now,
    personId: person.id,
  };
  await context.db.transaction(async (tx) => {
    await tx
      .insert(credentials)
      .values({ targetId, ...row })
      .onDuplicateKeyUpdate({ set: row });
    await writeAudit(tx, { person, what: 'rules', subject: rules.name, detail: 'its token was set' }, now);
  });
}

export async function forgetCredential(
  context: Context,
  targetId: string,
  person: Person,
  now: Date,
): Promise<void> {
  const { rules } = await readTarget(context, targetId);
  await context.db.transaction(async (tx) => {
    await tx.delete(credentials).where(eq(credentials.targetId, targetId));
    await writeAudit(
      tx,
      { person, what: 'rules', subject: rules.name, detail: 'its token was removed' },
      now,
    );
  });
}

/** When the credential of a target was set; null where it has none for where it is sent now. */
export async function credentialSince(context: Context, targetId: string): Promise<Date | null> {
  const { row, token } = await kept(context, targetId);
  return token === null ? null : (row?.at ?? null);
}

/** What opens a target; refused in words where nothing does. */
export async function tokenOf(context: Context, targetId: string): Promise<string> {
  const { row, token } = await kept(context, targetId);
  if (token !== null) return token;
  throw new HttpProblem(
    409,
    row
      ? 'What opens this target was set for another place, or cannot be read any more. Set it again in House rules. Nothing was sent.'
      : 'Nothing opens this target to the house yet: the site owner sets its token, password or key in House rules. Nothing was sent.',
  );
}

async function kept(context: Context, targetId: string) {
  const [row] = await context.db.select().from(credentials).where(eq(credentials.targetId, targetId));
  if (!row) return { row: null, token: null };
  const { rules } = await readTarget(context, targetId);
  return { row, token: unsealed(context, { targetId, place: placeOf(rules) }, row.sealed) };
}
