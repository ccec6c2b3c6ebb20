import { eq, inArray, or } from 'drizzle-orm';
import type * as v from 'valibot';
import type { NewTranslationSchema, Sisters } from '#api/pages.ts';
import type { Person } from '#api/people.ts';
import { type Alternate, wholeAddress } from '#core/page/alternates.ts';
import type { PageDoc } from '#core/page/model.ts';
import { rulesInLanguage, translationOf } from '#core/page/translation.ts';
import { STORED, toStored } from '#core/stored.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { pages, targets, translations } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { maybeRules } from '../rules/store.ts';
import { indexPlacements, maybeDoc, presentState, readPage, type WholePage } from './store.ts';

interface TranslationToBegin extends v.InferOutput<typeof NewTranslationSchema> {
  readonly id: string;
  readonly pageId: string;
  readonly personId: string;
}

/**
 * Begins a page that says what another does in another language, and answers its ID. It shares the pieces and the arrangement of
 * that one, and remembers the state that it was begun from. Of each language and target there is one.
 */
export async function beginTranslation(
  context: Context,
  { id, pageId, language, targetId, personId }: TranslationToBegin,
  now: Date,
): Promise<string> {
  const original = await readPage(context, pageId, 'house');
  const target = targetId ?? original.row.targetId;
  const [known] = await context.db.select({ id: targets.id }).from(targets).where(eq(targets.id, target));
  if (!known) throw notFound('This target');
  if (isSameLanguage(language, original.rules.language) && target === original.row.targetId)
    throw new HttpProblem(422, `This page is in ${callLanguage(language)} already. Choose another language.`);
  const { sisters } = await sistersOf(context, original);
  const there = sisters.find((one) => isSameLanguage(language, one.language) && one.targetId === target);
  if (there && there.id !== id)
    throw new HttpProblem(
      409,
      `There is a page in ${callLanguage(language)} already: “${there.title || 'Untitled page'}”. Nothing was begun.`,
    );
  const doc = translationOf(original.doc, language);
  await context.db.transaction(async (tx) => {
    const [begun] = await tx.insert(pages).ignore().values({
      id,
      targetId: target,
      title: doc.title,
      doc,
      createdAt: now,
      updatedAt: now,
      updatedBy: personId,
    });
    // The very wish sent again after a lost line has begun it already.
    if (begun.affectedRows === 0) return;
    await tx.insert(translations).values({ pageId: id, originalId: pageId, base: original.doc });
    await indexPlacements(tx, id, doc);
    const what = `began the ${callLanguage(language)} translation`;
    const change = { personId, subject: 'page', subjectId: id, what, before: null } as const;
    await writeActivity(tx, { ...change, after: toStored(STORED.page, doc) }, now);
  });
  return id;
}

/** Whether a page in one language says what is wanted in another: `en-GB` does for `en`, and not for `en-US`. */
const isSameLanguage = (wanted: string, there: string) => wanted === there || wanted === primaryOf(there);

/** The same page in other languages, and what of its original a translation says. */
export async function presentSisters(context: Context, pageId: string, person: Person): Promise<Sisters> {
  const whole = await readPage(context, pageId, person);
  const { sisters, rootId } = await sistersOf(context, whole);
  const [row] = await context.db.select().from(translations).where(eq(translations.pageId, pageId));
  return {
    language: whole.rules.language,
    sisters: sisters.map(({ id, title, language, targetName }) => ({
      id,
      title,
      language,
      targetName,
      isOriginal: id === rootId,
    })),
    translation: row ? await translationFrom(context, row, person) : null,
  };
}

async function translationFrom(
  context: Context,
  { originalId, base, version }: typeof translations.$inferSelect,
  person: Person,
): Promise<Sisters['translation']> {
  const { doc: original, rules } = await readPage(context, originalId, person);
  const said = maybeDoc(base);
  // What is not known any more to have been said is taken for what is there: nothing is called changed that nobody can show.
  const shown = await presentState(context, original, person);
  return {
    version,
    originalId,
    originalLanguage: rules.language,
    base: said ?? original,
    original,
    ...shown,
  };
}

/** Says which state of its original a translation says. */
export async function saveTranslated(
  { db }: Context,
  pageId: string,
  version: number,
  base: PageDoc,
): Promise<number> {
  return db.transaction(async (tx) => {
    const [row] = await tx
      .select({ version: translations.version, base: translations.base })
      .from(translations)
      .where(eq(translations.pageId, pageId))
      .for('update');
    if (!row) throw notFound('This translation');
    if (row.version !== version)
      throw new HttpProblem(
        412,
        'Somebody else has said meanwhile what of this page is translated. Nothing was changed: look at it once more.',
      );
    await tx
      .update(translations)
      .set({ base, version: version + 1 })
      .where(eq(translations.pageId, pageId));
    return version + 1;
  });
}

interface SisterRow extends Alternate {
  readonly id: string;
  readonly title: string;
  readonly targetId: string;
  readonly targetName: string;
}

/** All pages that say the same in other languages, the first original before the others, and which that is. */
async function sistersOf(
  context: Context,
  { row }: Pick<WholePage, 'row'>,
): Promise<{ readonly sisters: readonly SisterRow[]; readonly rootId: string }> {
  const family = await familyOf(context, row.id);
  const [rootId = row.id] = family;
  const others = family.filter((id) => id !== row.id);
  if (others.length === 0) return { sisters: [], rootId };
  const found = await context.db
    .select()
    .from(pages)
    .innerJoin(targets, eq(pages.targetId, targets.id))
    .where(inArray(pages.id, others));
  const read = found.flatMap(({ pages: page, targets: target }) => {
    const [doc, rules] = [maybeDoc(page.doc), maybeRules(target.rules)];
    if (!doc || !rules) return [];
    const { language, siteAddress, name } = rulesInLanguage(rules, doc);
    const href = wholeAddress(doc.address ?? '', siteAddress);
    return [{ id: page.id, title: page.title, targetId: target.id, targetName: name, language, href }];
  });
  const place = (id: string) => family.indexOf(id);
  return { sisters: read.sort((one, other) => place(one.id) - place(other.id)), rootId };
}

/** The same page in every language that has an address, itself among them; none where it is in one language alone. */
export async function alternatesOf(context: Context, whole: WholePage): Promise<readonly Alternate[]> {
  const { sisters } = await sistersOf(context, whole);
  if (sisters.length === 0) return [];
  const { language, siteAddress } = whole.rules;
  return [{ language, href: wholeAddress(whole.doc.address ?? '', siteAddress) }, ...sisters];
}

/** Translations are made of translations too: so many at most are followed. */
const MOST_SISTERS = 100;

/** The IDs of a page and of all that are a translation of it or of which it is one, the first original first. */
async function familyOf({ db }: Context, pageId: string): Promise<readonly string[]> {
  const family = new Set([pageId]);
  const isTranslation = new Set<string>();
  for (let asked: readonly string[] = [pageId]; asked.length > 0 && family.size < MOST_SISTERS; ) {
    const pairs = await db
      .select({ pageId: translations.pageId, originalId: translations.originalId })
      .from(translations)
      .where(or(inArray(translations.pageId, [...asked]), inArray(translations.originalId, [...asked])));
    const fresh = new Set(pairs.flatMap((pair) => [pair.pageId, pair.originalId]));
    for (const pair of pairs) isTranslation.add(pair.pageId);
    asked = [...fresh].filter((id) => !family.has(id));
    for (const id of asked) family.add(id);
  }
  const ids = [...family].sort();
  return [...ids.filter((id) => !isTranslation.has(id)), ...ids.filter((id) => isTranslation.has(id))];
}
