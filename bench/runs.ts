import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import sharp from 'sharp';
import { plainOrder, type RunOrder } from '#core/run/order.ts';
import { RESERVE_SITE } from '../demo/rules.ts';
import { eachAtMost } from '../server/at-once.ts';
import { people, targets } from '../server/db/schema.ts';
import { FROM_OWN_MACHINE } from '../server/gather/incoming.ts';
import { takeIn } from '../server/gather/take-in.ts';
import { workOne } from '../server/jobs/worker.ts';
import { beginRun, previewRun, readRun } from '../server/runs/runs.ts';
import { millis, say, timeOf, times } from './measure.ts';
import { type BenchWorld, grainedOriginals } from './world.ts';

const AT_ONCE = 2;
const MIDDLE = { width: 4243, height: 2828 };
/** Small, so that a thousand take minutes and not hours. */
const SMALL = { width: 900, height: 600 };
const WIDTHS = [480, 960, 1440];
const PERSON = 'bench';
const READER = { id: PERSON, role: 'rights-keeper' } as const;

/** A run over many pieces to three widths in two formats, against sharp by itself at the same settings. */
export async function benchRuns(world: BenchWorld, count: number): Promise<void> {
  const { folder } = world;
  const originals = await grainedOriginals(folder, count, MIDDLE);
  const pieces = await taken(world, originals);
  const bare = await timeOf(() => eachAtMost(AT_ONCE, originals, bareCuts));
  const order = orderOver(pieces);
  const ours = await timeOf(() => runOver(world, order));
  say(
    `a run over ${count} files of 12 megapixels, 6 cuts each, against bare sharp (aim: at most 1.10)`,
    `${times(ours, bare)} (${millis(ours / count)} a piece)`,
  );
}

/** Memory of the process that works a long run, between its first tenth and its end. */
export async function benchMemory(world: BenchWorld, count: number): Promise<void> {
  const originals = await grainedOriginals(world.folder, count, SMALL);
  const pieces = await taken(world, originals);
  const memory: number[] = [];
  const timer = setInterval(() => memory.push(process.memoryUsage().rss), 500);
  await runOver(world, { ...orderOver(pieces), sizes: [{ by: 'width', px: 480 }] });
  clearInterval(timer);
  const tenth = Math.max(1, Math.floor(memory.length / 10));
  const mean = (part: readonly number[]) =>
    part.reduce((sum, one) => sum + one, 0) / Math.max(1, part.length) / 1e6;
  const [early, late] = [mean(memory.slice(tenth, tenth * 2)), mean(memory.slice(-tenth))];
  say(
    `memory in a run over ${count} files, its last tenth against its second (aim: at most 1.10)`,
    `${times(late, early)} (${Math.round(early)} MB, ${Math.round(late)} MB)`,
  );
}

/** Takes originals onto the shelf of the world; answers the pieces. */
async function taken({ context }: BenchWorld, originals: readonly string[]): Promise<readonly string[]> {
  await context.db.insert(people).ignore().values({
    id: PERSON,
    name: PERSON,
    email: 'bench@saltmere.example',
    role: 'editor',
    passwordHash: '',
  });
  await context.db.insert(targets).ignore().values({ id: 'bench', rules: RESERVE_SITE });
  const pieces: string[] = [];
  await eachAtMost(AT_ONCE, originals, async (path) => {
    const file = {
      path,
      name: basename(path),
      personId: PERSON,
      folder: '',
      pageId: null,
      origin: FROM_OWN_MACHINE,
    };
    pieces.push((await takeIn(context, file, new Date())).row.id);
  });
  return pieces;
}

async function runOver({ context }: BenchWorld, order: RunOrder): Promise<void> {
  const { seen } = await previewRun(context, order, READER);
  const runId = await beginRun(context, order, seen, READER, new Date());
  await workOne(context);
  const run = await readRun(context, runId, READER, new Date());
  if (run.done !== order.pieces.length)
    throw new Error(`The run did ${run.done} of ${order.pieces.length}: ${run.words}`);
}

async function bareCuts(path: string): Promise<void> {
  const bytes = await readFile(path);
  for (const width of WIDTHS) {
    const height = Math.round((width * MIDDLE.height) / MIDDLE.width);
    const image = () =>
      sharp(bytes)
        .autoOrient()
        .resize({ width, height, fit: 'fill', kernel: 'lanczos3' })
        .toColourspace('srgb');
    await image().avif({ quality: 55, effort: 2 }).toBuffer();
    await image().flatten({ background: '#fff' }).jpeg({ quality: 80, mozjpeg: true }).toBuffer();
  }
}

function orderOver(pieces: readonly string[]): RunOrder {
  return { ...plainOrder('bench', pieces), sizes: WIDTHS.map((px) => ({ by: 'width', px })) };
}
