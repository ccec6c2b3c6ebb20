import { eq } from 'drizzle-orm';
import type { FilmHost } from '#api/films.ts';
import type { Person } from '#api/people.ts';
import type { HostEntry } from '#core/embed/host.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { credentials } from '../db/schema.ts';
import { readHosts } from '../embeds/hosts.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { keyFor, maybeUnsealed, sealed } from '../sealed.ts';

/** A host that takes films, with where it takes them. */
export type TakingHost = HostEntry & { readonly upload: string };

const takes = (entry: HostEntry): entry is TakingHost => entry.upload !== null;

/** What opens a film host lies with what opens targets, under a name that no target has. */
const placeOf = (hostId: string) => `film-host ${hostId}`.slice(0, 36);

/** One key for each host and place, so that what was given for one is told to no other. */
const keyOf = ({ secret }: Pick<Context, 'secret'>, { id, upload }: TakingHost) =>
  keyFor(secret, { salt: id, purpose: `token of a film host at ${upload}` });

/** The hosts that take films, and whether the house is known there. */
export async function filmHosts(context: Context): Promise<FilmHost[]> {
  const { entries } = await readHosts(context);
  return Promise.all(
    entries.filter(takes).map(async (entry) => ({
      id: entry.id,
      name: entry.name,
      isReady: (await tokenAt(context, entry)) !== null,
    })),
  );
}

export async function takingHost(context: Context, id: string): Promise<TakingHost> {
  const { entries } = await readHosts(context);
  const entry = entries.filter(takes).find((one) => one.id === id);
  if (!entry) throw notFound('This film host');
  return entry;
}

/** What opens a film host; null where nobody has given it, or for another place. */
export async function tokenAt(context: Context, entry: TakingHost): Promise<string | null> {
  const [row] = await context.db
    .select()
    .from(credentials)
    .where(eq(credentials.targetId, placeOf(entry.id)));
  return row ? maybeUnsealed(keyOf(context, entry), row.sealed) : null;
}

/** RFC 6750, 2.1. */
const ONE_WORD = /^[\x21-\x7e]{1,2000}$/;

/** Keeps what opens a film host. It is never shown again. */
export async function keepHostToken(
  context: Context,
  { id, token }: { readonly id: string; readonly token: string },
  person: Person,
  now: Date,
): Promise<void> {
  const entry = await takingHost(context, id);
  if (!ONE_WORD.test(token))
    throw new HttpProblem(422, 'A token is one word of letters, digits and signs, as the host gave it.');
  const row = { sealed: sealed(keyOf(context, entry), token), at: now, personId: person.id };
  await context.db.transaction(async (tx) => {
    await tx
      .insert(credentials)
      .values({ targetId: placeOf(id), ...row })
      .onDuplicateKeyUpdate({ set: row });
    const detail = 'its token for films was set';
    await writeAudit(tx, { person, what: 'rules', subject: entry.name, detail }, now);
  });
}
