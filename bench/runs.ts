import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { plainOrder, type RunOrder } from '#core/run/order.ts';
import { RESERVE_SITE } from '../demo/rules.ts';
import { eachAtMost } from '../server/at-once.ts';
import { people, targets } from '../server/db/schema.ts';
import { FROM_OWN_MACHINE, takeIn } from '../server/gather/take-in.ts';
import { workOne } from '../server/jobs/worker.ts';
import { beginRun, previewRun, readRun } from '../server/runs/runs.ts';
import { millis, say, timeOf, times } from './measure.ts';
import { type BenchWorld, grainedOriginals } from './world.ts';

const AT_ONCE = 2;
const MIDDLE = { width: 4243, height: 2828 };
const WIDTHS = [480, 960, 1440];
const PERSON = 'bench';

/** A run over many pieces to three widths in two formats, against sharp by itself at the same settings. */
export async function benchRuns(world: BenchWorld, count: number): Promise<void> {
  const { context, folder } = world;
  await context.db.insert(people).ignore().values({
    id: PERSON,
    name: PERSON,
    email: 'bench@saltmere.example',
    role: 'editor',
    passwordHash: '',
  });
  await context.db.insert(targets).ignore().values({ id: 'bench', rules: RESERVE_SITE });
  const originals = await grainedOriginals(folder, count, MIDDLE);
  const pieces: string[] = [];
  await eachAtMost(AT_ONCE, originals, async (path) => {
    const name = path.split('/').at(-1) ?? '';
    const taken = await takeIn(
      context,
      { path, name, personId: PERSON, folder: '', origin: FROM_OWN_MACHINE },
      new Date(),
    );
    pieces.push(taken.row.id);
  });
  const bare = await timeOf(() => eachAtMost(AT_ONCE, originals, bareCuts));
  const order = orderOver(pieces);
  const { seen } = await previewRun(context, order);
  const runId = await beginRun(context, order, seen, PERSON, new Date());
  const memory: number[] = [];
  const timer = setInterval(async () => {
    memory.push(process.memoryUsage().rss);
  }, 500);
  const ours = await timeOf(() => workOne(context));
  clearInterval(timer);
  const run = await readRun(context, runId, PERSON, new Date());
  if (run.done !== count) throw new Error(`The run did ${run.done} of ${count}: ${run.words}`);
  say(
    `a run over ${count} files of 12 megapixels, 6 cuts each, against bare sharp (aim: at most 1.10)`,
    `${times(ours, bare)} (${millis(ours / count)} a piece)`,
  );
  const tenth = Math.max(1, Math.floor(memory.length / 10));
  const mean = (part: readonly number[]) =>
    part.reduce((sum, one) => sum + one, 0) / Math.max(1, part.length) / 1e6;
  say(
    'memory of this process in the second tenth of it, and in the last (aim: no growth over 10 %)',
    `${Math.round(mean(memory.slice(tenth, tenth * 2)))} MB, ${Math.round(mean(memory.slice(-tenth)))} MB`,
  );
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
