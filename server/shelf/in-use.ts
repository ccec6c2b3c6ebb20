import { setImmediate } from 'node:timers/promises';
import { and, asc, gt, sql } from 'drizzle-orm';
import * as v from 'valibot';
import type { InUseField } from '#api/assets.ts';
import { foldWord } from '#core/words/near-word.ts';
import type { Context } from '../context.ts';
import { assets } from '../db/schema.ts';
import { standing } from './put-away.ts';
import { isForAll } from './seen.ts';

/** What labels say changes slowly; a word that is newer is typed once more. */
const KEPT_MILLIS = 60_000;
/** Pieces whose words are read at once; others are answered in between. */
const AT_ONCE = 1000;
const MOST_OFFERED = 8;

/** Each value in use with how many pieces say it. */
type InUse = ReadonlyMap<string, number>;

interface Known {
  readonly readAt: number;
  readonly inUse: Promise<Readonly<Record<InUseField, InUse>>>;
}

const known = new WeakMap<Context, Known>();

/** Values of a field that labels use and that begin as what is typed, each of its words too; those of most pieces first. */
export async function inUse(context: Context, field: InUseField, begins: string): Promise<string[]> {
  const sought = foldWord(begins.trim());
  if (sought === '') return [];
  const values = (await valuesInUse(context))[field];
  const found = [...values].filter(([value]) => {
    const folded = foldWord(value);
    return folded !== sought && (folded.startsWith(sought) || folded.includes(` ${sought}`));
  });
  return found
    .sort(([one, uses], [other, others]) => others - uses || (one < other ? -1 : 1))
    .slice(0, MOST_OFFERED)
    .map(([value]) => value);
}

function valuesInUse(context: Context): Known['inUse'] {
  const before = known.get(context);
  if (before && Date.now() - before.readAt < KEPT_MILLIS) return before.inUse;
  const reading = readValues(context);
  known.set(context, { readAt: Date.now(), inUse: reading });
  // What could not be read is read again the next time.
  reading.catch(() => known.delete(context));
  return reading;
}

const KeywordsSchema = v.pipe(v.string(), v.parseJson(), v.array(v.string()));

async function readValues(context: Context): Promise<Readonly<Record<InUseField, InUse>>> {
  const uses = {
    keywords: new Map<string, number>(),
    place: new Map<string, number>(),
    creator: new Map<string, number>(),
    source: new Map<string, number>(),
  };
  const count = (field: InUseField, value: string | null) => {
    if (value) uses[field].set(value, (uses[field].get(value) ?? 0) + 1);
  };
  for (let after = ''; ; ) {
    const rows = await context.db
      .select({
        id: assets.id,
        creator: assets.creator,
        source: assets.source,
        place: sql<string | null>`json_value(${assets.label}, '$.place')`,
        keywords: sql<unknown>`cast(json_extract(${assets.label}, '$.keywords') as char)`,
      })
      .from(assets)
      .where(and(standing(context, 'house'), isForAll, gt(assets.id, after)))
      .orderBy(asc(assets.id))
      .limit(AT_ONCE);
    for (const { creator, source, place, keywords } of rows) {
      count('creator', creator);
      count('source', source);
      count('place', place);
      const words = v.safeParse(KeywordsSchema, keywords);
      if (words.success) for (const word of words.output) count('keywords', word);
    }
    const last = rows.at(-1);
    if (!last || rows.length < AT_ONCE) return uses;
    after = last.id;
    await setImmediate();
  }
}
