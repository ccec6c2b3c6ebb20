import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { WHOLE } from '#core/media/recipe.ts';
import { trueShapeRows } from '#core/media/rows.ts';
import type { Block, PageDoc } from '#core/page/model.ts';
import { examplePiece, examplePlacement, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { writeFragment } from '#core/page/write.ts';
import { proofPage } from '#core/proof/proof.ts';
import { seeded } from '../demo/painter/random.ts';
import { render } from '../demo/painter/render.ts';
import { paintScene } from '../demo/painter/scene.ts';
import { makeCut } from '../server/imaging/cut.ts';
import { readOriginal } from '../server/imaging/read-original.ts';

/** Each figure is a ratio against the bare library, or a time on this machine; nothing is asserted. */
const RUNS = 9;

async function median(work: () => unknown | Promise<unknown>): Promise<number> {
  const times: number[] = [];
  // Once unmeasured: what is compared is work that has been done before.
  await work();
  for (let run = 0; run < RUNS; run += 1) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return times.sort((a, b) => a - b)[Math.floor(RUNS / 2)] ?? 0;
}

function say(what: string, figure: string): void {
  process.stdout.write(`${what.padEnd(58)} ${figure}\n`);
}

async function cuts(folder: string): Promise<void> {
  const original = join(folder, 'original.jpg');
  await (await render(paintScene('heron', 'dawn', 5, 1.5), { width: 6000, height: 4000, grain: 26 }, 5))
    .jpeg({ quality: 90 })
    .toFile(original);
  const size = { width: 6000, height: 4000 };
  for (const format of ['jpeg', 'webp', 'avif'] as const) {
    const ours = await median(() =>
      makeCut(original, { original: size, recipe: WHOLE, width: 1440, format, quality: 70, animated: false }),
    );
    const bare = await median(() => {
      const image = sharp(original).autoOrient().resize(1440, 960, { fit: 'fill' });
      if (format === 'jpeg') return image.jpeg({ quality: 70, mozjpeg: true }).toBuffer();
      return format === 'webp'
        ? image.webp({ quality: 70, effort: 4 }).toBuffer()
        : image.avif({ quality: 70, effort: 2 }).toBuffer();
    });
    say(
      `a cut of 24 megapixels, ${format}, against bare sharp`,
      `${(ours / bare).toFixed(2)} times (${Math.round(ours)} ms)`,
    );
  }
  const looking = await median(() => readOriginal(original, 'original.jpg'));
  const decoding = await median(() => sharp(original).resize(64).toBuffer());
  say(
    'looking at 24 megapixels, against decoding them once',
    `${(looking / decoding).toFixed(2)} times (${Math.round(looking)} ms)`,
  );
}

async function pages(): Promise<void> {
  const blocks = Array.from({ length: 300 }, (_, at): Block[] => [
    paragraph('You hear them long before you see one: a note like breath across the neck of a bottle.'),
    {
      type: 'placement',
      attrs: examplePlacement(at % 2 === 0 ? 'beside-left' : 'column', {
        id: `p${at}`,
        ratio: { across: 3, down: 2 },
      }),
    },
  ]).flat();
  const page: PageDoc = { title: 'Many', wants: [], tray: [], blocks };
  const pieces = new Map([['heron', examplePiece()]]);
  const write = () => writeFragment(page, { rules: PLAIN_RULES, pieces, addressOf: (cut) => cut.fileName });
  const html = write();
  say(
    'proof of a page of 300 placements',
    `${(await median(() => proofPage({ page, rules: PLAIN_RULES, pieces, html }))).toFixed(1)} ms (aim: under 50)`,
  );
  say('writing the HTML of that page', `${(await median(write)).toFixed(1)} ms`);
}

async function rows(): Promise<void> {
  const random = seeded(1);
  const aspects = Array.from({ length: 100_000 }, () => random.between(0.5, 2.8));
  say(
    'laying out rows of 100,000 pieces',
    `${(await median(() => trueShapeRows(aspects, 900, 150, 10))).toFixed(1)} ms`,
  );
}

const folder = await mkdtemp(join(tmpdir(), 'placard-bench-'));
try {
  await pages();
  await rows();
  await cuts(folder);
} finally {
  await rm(folder, { recursive: true, force: true });
}
