import { setImmediate } from 'node:timers/promises';
import { and, asc, gt } from 'drizzle-orm';
import { foldWord, nearWord } from '#core/words/near-word.ts';
import type { Context } from '../context.ts';
import { assets } from '../db/schema.ts';
import { searchWords } from './derived.ts';
import { standing } from './put-away.ts';
import { isForAll } from './seen.ts';

/** What labels say changes slowly; a word that is newer is found by itself, and only has no neighbours yet. */
const KEPT_MILLIS = 60_000;
/** Pieces whose words are read at once: a thousand take some 5 ms, and others are answered in between. */
const AT_ONCE = 1000;

interface Vocabulary {
  readonly readAt: number;
  readonly words: Promise<ReadonlyMap<string, number>>;
}

const vocabularies = new WeakMap<Context, Vocabulary>();

/** The words in use on the shelf, and on how many pieces each. */
function vocabularyOf(context: Context): Promise<ReadonlyMap<string, number>> {
  const known = vocabularies.get(context);
  if (known && Date.now() - known.readAt < KEPT_MILLIS) return known.words;
  const words = readWords(context);
  vocabularies.set(context, { readAt: Date.now(), words });
  // What could not be read is read again the next time.
  words.catch(() => vocabularies.delete(context));
  return words;
}

async function readWords(context: Context): Promise<ReadonlyMap<string, number>> {
  const uses = new Map<string, number>();
  let after = '';
  for (;;) {
    const rows = await context.db
      .select({ id: assets.id, search: assets.search })
      .from(assets)
      .where(and(standing(context, 'house'), isForAll, gt(assets.id, after)))
      .orderBy(asc(assets.id))
      .limit(AT_ONCE);
    for (const { search } of rows)
      for (const word of new Set(searchWords(search).map(foldWord)))
        uses.set(word, (uses.get(word) ?? 0) + 1);
    const last = rows.at(-1);
    if (!last || rows.length < AT_ONCE) return uses;
    after = last.id;
    await setImmediate();
  }
}

/**
 * The words of a question that found nothing, with those that no piece has as those that were meant; null where nothing is
 * nearer.
 */
export async function meantWords(
  context: Context,
  typed: string,
  isHeld: (word: string) => Promise<boolean>,
): Promise<string | null> {
  const words = searchWords(typed);
  const meant: string[] = [];
  for (const word of words) {
    const other = (await isHeld(word)) ? null : nearWord(word, await vocabularyOf(context));
    meant.push(other ?? word);
  }
  return meant.join(' ') === words.join(' ') ? null : meant.join(' ');
}
