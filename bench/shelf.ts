import { randomUUID } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { bitsApart, quartersOf } from '#core/media/lookalike.ts';
import { EMPTY_LABEL, withPatch } from '#core/rights/label.ts';
import { seeded } from '../demo/painter/random.ts';
import { assets, perceptualHashes, pictures } from '../server/db/schema.ts';
import { derivedColumns } from '../server/shelf/derived.ts';
import { alikeTo } from '../server/shelf/lookalikes.ts';
import { askShelf, countShelf } from '../server/shelf/query.ts';
import { median, millis, say, times, timings } from './measure.ts';
import type { BenchWorld } from './world.ts';

/** One from whom what only a group may see is kept, which takes the longer question. */
const READER = { id: 'bench', role: 'editor' } as const;

const MANY = 100_000;
const BATCH = 1000;
const SUBJECTS = ['heron', 'bittern', 'boardwalk', 'sluice', 'reed', 'channel', 'hide', 'warden'];
const LICENCES = ['own', 'cc-by-4.0', 'cc-by-nc-4.0', 'cc0', 'unknown', 'comp'] as const;

/** Questions to a shelf of 100,000 pieces, against the plain SQL for the same rows. */
export async function benchShelf(world: BenchWorld): Promise<void> {
  await seedShelf(world);
  const { context } = world;
  const questions = [
    ['everything, newest first', {}],
    ['the word heron, newest first', { words: 'heron' }],
    [
      'usable commercially, at least 3000 px, widest first',
      { licence: 'commercial', leastWidth: 3000, order: 'widest' },
    ],
    ['one folder, by name', { folder: 'birds/heron', order: 'name' }],
  ] as const;
  for (const [words, question] of questions) {
    const sql = plain(words);
    const parts = [
      ['', () => askShelf(context, question, READER), sql.rows],
      [', counted', () => countShelf(context, question, READER), sql.count],
    ] as const;
    for (const [part, ask, bareSql] of parts) {
      const ours = await timings(ask, 20);
      const bare = await median(() => context.connection.pool.query(bareSql), 20);
      const p95 = ours[Math.floor(ours.length * 0.95)] ?? 0;
      say(
        `shelf of 100,000: ${words}${part} (aim: at most 3, p95 under 50 ms)`,
        `${times(ours[10] ?? 0, bare)} the plain SQL, p95 ${millis(p95)}`,
      );
    }
  }
  await lookalikes(world);
}

/** The rows of each question and nothing else, and the count that the shelf says. */
function plain(words: string): { readonly rows: string; readonly count: string } {
  const where: Readonly<Record<string, string>> = {
    'everything, newest first': '',
    'the word heron, newest first': "AND MATCH(search) AGAINST ('+heron*' IN BOOLEAN MODE)",
    'usable commercially, at least 3000 px, widest first':
      "AND licence IN ('own','cc-by-4.0','cc0') AND width_px >= 3000",
    'one folder, by name': "AND (folder = 'birds/heron' OR folder LIKE 'birds/heron/%')",
  };
  const order = words.includes('widest')
    ? 'width_px DESC'
    : words.includes('name')
      ? 'stem'
      : 'created_at DESC';
  const filter = `deleted_at IS NULL AND folded_into IS NULL ${where[words] ?? ''}`;
  return {
    rows: `SELECT * FROM assets WHERE ${filter} ORDER BY ${order}, id DESC LIMIT 121`,
    count: `SELECT (SELECT count(*) FROM assets WHERE ${filter}), (SELECT count(*) FROM assets WHERE deleted_at IS NULL AND folded_into IS NULL)`,
  };
}

async function lookalikes({ context }: BenchWorld): Promise<void> {
  const [some] = await context.db.select().from(perceptualHashes).limit(1);
  if (!some) return;
  const { pool } = context.connection;
  const indexed = await timings(() => alikeTo(context, some.hash), 20);
  const scan = await median(
    () =>
      pool.query(
        'SELECT asset_id FROM perceptual_hashes WHERE BIT_COUNT(CONV(hash, 16, 10) ^ CONV(?, 16, 10)) <= 6',
        [some.hash],
      ),
    5,
  );
  const rows = await context.db.select({ hash: perceptualHashes.hash }).from(perceptualHashes);
  const inProcess = await median(() => rows.filter(({ hash }) => bitsApart(hash, some.hash) <= 6).length, 3);
  say(
    'lookalikes among 100,000 (aim: under 50 ms)',
    `${millis(indexed[10] ?? 0)}, ${times(indexed[10] ?? 0, scan)} a plain scan in SQL (${millis(scan)}), ${millis(inProcess)} in this process`,
  );
}

/** A shelf of 100,000 pieces, as many words, licences and looks. */
export async function seedShelf({ context }: BenchWorld): Promise<void> {
  const random = seeded(11);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random.next() * list.length)] ?? (list[0] as T);
  for (let from = 0; from < MANY; from += BATCH) {
    const rows: (typeof assets.$inferInsert)[] = [];
    const shown: (typeof pictures.$inferInsert)[] = [];
    const hashes: (typeof perceptualHashes.$inferInsert)[] = [];
    for (let number = from; number < from + BATCH; number += 1) {
      const id = randomUUID();
      const subject = pick(SUBJECTS);
      const licence = pick(LICENCES);
      const stem = `${subject}-${number}`;
      const label = withPatch(EMPTY_LABEL, {
        title: `A ${subject}, number ${number}`,
        creator: 'Ines Okonjo',
        licence,
      });
      rows.push({
        id,
        kind: 'picture',
        identity: `${number}`.padStart(64, '0'),
        widthPx: Math.round(random.between(400, 6000)),
        heightPx: Math.round(random.between(400, 4000)),
        stem,
        extension: 'jpg',
        folder: `birds/${subject}`,
        label,
        drafted: [],
        originalName: `${stem}.jpg`,
        ...derivedColumns(label, stem, `${stem}.jpg`, []),
        createdAt: new Date(Date.UTC(2026, 0, 1) + number * 60_000),
        createdBy: 'bench',
      });
      shown.push({
        assetId: id,
        sha256: `${number}`.padStart(64, '0'),
        format: 'jpeg',
        bytes: 5_000_000,
        alpha: false,
        animated: false,
      });
      const hash = Array.from({ length: 16 }, () => Math.floor(random.next() * 16).toString(16)).join('');
      const [first, second, third, fourth] = quartersOf(hash);
      hashes.push({ assetId: id, hash, first, second, third, fourth });
    }
    await context.db.insert(assets).values(rows);
    await context.db.insert(pictures).values(shown);
    await context.db.insert(perceptualHashes).values(hashes);
  }
  await context.db.execute(sql`ANALYZE TABLE assets, pictures, perceptual_hashes`);
}
