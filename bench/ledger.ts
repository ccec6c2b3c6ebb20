import { randomUUID } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { judgeOnPage } from '#core/page/judge-page.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { examplePiece, PLAIN_RULES } from '#core/page/testing.ts';
import { NO_TERMS } from '#core/rights/terms.ts';
import { altFault } from '#core/words/alt.ts';
import { assets, pages, people, targets } from '../server/db/schema.ts';
import { indexPlacements } from '../server/pages/store.ts';
import { presentPerson } from '../server/people/guard.ts';
import { askLedger } from '../server/rights/ledger.ts';
import { replaceEverywhere } from '../server/shelf/replace.ts';
import { median, millis, say, timeOf, timings } from './measure.ts';
import { seedShelf } from './shelf.ts';
import type { BenchWorld } from './world.ts';

const READER = { id: 'bench', role: 'editor' } as const;

const TODAY = '2026-11-28';
const NOW = new Date(`${TODAY}T12:00:00Z`);
const PAGES = 200;
const EACH = 40;

/** The ledger of a shelf of 100,000, a swap on 200 pages, and all uses of 1,000 pages judged. */
export async function benchLedger(world: BenchWorld): Promise<void> {
  await judging();
  await seedShelf(world);
  await seedUses(world);
  const questions = [
    ['what waits', {}],
    ['what ends within a month, anywhere', { matter: 'ends', within: '30', place: 'anywhere' }],
    ['all by a maker, newest first', { matter: 'all', maker: 'Okonjo', place: 'anywhere', order: 'newest' }],
    ['comps on no page', { matter: 'comp', place: 'nowhere' }],
    ['all on pages, by name', { matter: 'all', order: 'name' }],
  ] as const;
  for (const [words, question] of questions) {
    const asked = await timings(() => askLedger(world.context, question, TODAY, READER), 20);
    say(
      `ledger of 100,000: ${words} (aim: p95 under 100 ms)`,
      `${millis(asked[10] ?? 0)}, p95 ${millis(asked[19] ?? 0)}`,
    );
  }
  await swap(world);
}

/** A tenth of the pieces has terms, and pages show some of all. */
async function seedUses({ context }: BenchWorld): Promise<void> {
  const { db } = context;
  await db.execute(
    sql`update ${assets} set ${sql.identifier('last_day')} = date_add(${TODAY}, interval (conv(left(${assets.id}, 4), 16, 10) mod 700) day) where conv(right(${assets.id}, 2), 16, 10) < 26`,
  );
  await db.insert(targets).values({ id: 'reserve', rules: PLAIN_RULES });
  await db.insert(people).values({
    id: 'bench',
    name: 'Bench',
    email: 'bench@saltmere.example',
    role: 'editor',
    passwordHash: '',
  });
  const held = await db
    .select({ id: assets.id })
    .from(assets)
    .limit(PAGES * EACH);
  const [shared] = held;
  for (let number = 0; number < PAGES; number += 1) {
    const here = [shared, ...held.slice(number * EACH, (number + 1) * EACH)].flatMap((one) => one?.id ?? []);
    const doc = pageOf(`Page ${number}`, here);
    const id = randomUUID();
    const at = { createdAt: NOW, updatedAt: NOW, updatedBy: 'bench' };
    await db.insert(pages).values({ id, targetId: 'reserve', title: doc.title, doc, ...at });
    await db.transaction((tx) => indexPlacements(tx, id, doc));
  }
}

const pageOf = (title: string, pieces: readonly string[]): PageDoc => ({
  ...emptyPage(title),
  blocks: pieces.map((asset, at) => ({ type: 'placement', attrs: newPlacement(`place-${at}`, asset) })),
});

async function swap({ context }: BenchWorld): Promise<void> {
  const [old, fresh] = await context.db
    .select({ id: assets.id })
    .from(assets)
    .limit(PAGES * EACH + 1);
  const [person] = await context.db.select().from(people).where(eq(people.id, 'bench'));
  const [other] = await context.db.select({ id: assets.id }).from(assets).orderBy(sql`id desc`).limit(1);
  if (!old || !fresh || !other || !person) return;
  const took = await timeOf(() => replaceEverywhere(context, old.id, other.id, presentPerson(person), NOW));
  say(`a piece on ${PAGES} pages of ${EACH} pictures swapped (aim: under 5 s)`, millis(took));
}

/** In core alone: 1,000 pages of ten pieces each, with terms and crops, and an alt text as it is typed. */
async function judging(): Promise<void> {
  const terms = { ...NO_TERMS, begins: '2026-01-01', ends: '2027-01-01', territory: ['GB'] };
  const pieces = Array.from({ length: 10 }, (_, at) =>
    examplePiece({ id: `piece-${at}`, label: { licence: 'cc-by-4.0', creator: 'Ines Okonjo', terms } }),
  );
  const all = Array.from({ length: 1000 }, (_, at) =>
    pageOf(
      `Page ${at}`,
      pieces.map(({ id }) => id),
    ),
  );
  const judged = await median(() => {
    for (const page of all) for (const piece of pieces) judgeOnPage(PLAIN_RULES, page, piece, NOW);
  }, 5);
  const text = 'Three reed cutters carry bundles on their shoulders through the marsh in the evening light.';
  const checked = await median(() => {
    for (let time = 0; time < 100; time += 1)
      altFault({ kind: 'text', text }, { linked: false, caption: '' });
  });
  say('10,000 uses on 1,000 pages judged (aim: under 1 s)', millis(judged));
  say('an alt text checked as it is typed (aim: under 4 ms)', `${(checked / 100).toFixed(3)} ms`);
}
