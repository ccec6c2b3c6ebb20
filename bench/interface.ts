import { appendFile, copyFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { Block } from '#core/page/blocks/block.ts';
import { examplePlacement, paragraph, placed } from '#core/page/testing.ts';
import { CHROMIUM } from '../scripts/lib/browser.mjs';
import { everyKind } from './every-kind.ts';
import { benchFirstSight } from './first-sight.ts';
import { millis, say, times } from './measure.ts';
import { type BenchWorld, grainedOriginals, ORIGIN } from './world.ts';

const FRAME_MILLIS = 1000 / 60;

/** Typing, preparing, scrolling and dropping in a real browser, on a Placard that runs at PLACARD_ORIGIN with its demo. */
export async function benchInterface({ folder }: Pick<BenchWorld, 'folder'>): Promise<void> {
  const isThere = await fetch(ORIGIN).then(
    () => true,
    () => false,
  );
  if (!isThere) {
    say('typing and scrolling', `nothing runs at ${ORIGIN}; npm start, then again`);
    return;
  }
  const browser = await chromium.launch(CHROMIUM);
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    // The loader names functions by a helper that the browser does not have.
    await page.addInitScript('globalThis.__name = (named) => named');
    await page.request.post(`${ORIGIN}/api/session`, {
      data: { email: 'mara@saltmere.example', password: 'saltmere-2026' },
    });
    await benchFirstSight(page);
    await typing(page);
    await preparing(page);
    await scrolling(page);
    await dropping(page, folder);
  } finally {
    await browser.close();
  }
}

async function typing(page: Page): Promise<void> {
  await typingOn(page, 'a page of 300 placements', (ids) =>
    Array.from({ length: 300 }, (_, at): Block[] => [
      paragraph(WORDS, `text-${at}`),
      placed(examplePlacement('column', { id: `p${at}`, asset: ids[at % ids.length] ?? '' })),
    ]).flat(),
  );
  await typingOn(page, 'one of 300 in blocks of every kind', (ids) => everyKind(ids, 300));
}

const WORDS = 'You hear them long before you see one: a note like breath across the neck of a bottle.';

async function typingOn(
  page: Page,
  what: string,
  blocksOf: (assetIds: readonly string[]) => readonly Block[],
): Promise<void> {
  const assets = await (await page.request.get(`${ORIGIN}/api/assets?limit=40`)).json();
  const ids: string[] = assets.assets.map((asset: { id: string }) => asset.id);
  const made = await page.request.post(`${ORIGIN}/api/pages`, {
    data: { title: 'Three hundred placements', targetId: 'reserve', wants: [], due: null },
    headers: { origin: ORIGIN },
  });
  const { id } = await made.json();
  await page.request.put(`${ORIGIN}/api/pages/${id}`, {
    data: {
      doc: { title: 'Three hundred placements', wants: [], tray: [...new Set(ids)], blocks: blocksOf(ids) },
    },
    headers: { origin: ORIGIN, 'if-match': '"1"' },
  });
  const typed = async (isBare: boolean) => {
    await page.goto(`${ORIGIN}/pages/${id}`);
    await page.getByText('You hear them').first().waitFor();
    if (isBare) await withoutEditor(page);
    await page.getByText('You hear them').first().click();
    await page.waitForTimeout(1500);
    const durations = await handled(page, () =>
      page.keyboard.type('The gate opens on Saturday at six, and all who helped will be there.', {
        delay: 40,
      }),
    );
    return durations.sort((a, b) => a - b);
  };
  const ours = await typed(false);
  const [still, dragged] = await draggingPieces(page, `${ORIGIN}/pages/${id}`);
  const bare = await typed(true);
  const source = await openingSource(page, `${ORIGIN}/pages/${id}`);
  const middle = (sorted: readonly number[]) => sorted[Math.floor(sorted.length / 2)] ?? 0;
  say(
    `a key typed in ${what} (aim: under 16 ms)`,
    `${millis(middle(ours))}, p95 ${millis(ours[Math.floor(ours.length * 0.95)] ?? 0)}, ${times(middle(ours), middle(bare))} the same page without any editor`,
  );
  say(`source of that page, opened beside the sheet`, millis(source.opened));
  say(
    'a key typed in that source',
    `${millis(middle(source.keys))}, p95 ${millis(source.keys[Math.floor(source.keys.length * 0.95)] ?? 0)}`,
  );
  say(
    'dragging a piece of the tray over that page, frames against standing still',
    `${dragged.perSecond.toFixed(0)} a second against ${still.perSecond.toFixed(0)}, ${Math.round(dragged.late * 100)}% late`,
  );
}

/** Source of the page beside the sheet: until its lines stand there, and a key typed in them. */
async function openingSource(
  page: Page,
  address: string,
): Promise<{ readonly opened: number; readonly keys: readonly number[] }> {
  await page.goto(address);
  await page.getByText('You hear them').first().waitFor();
  await page.waitForTimeout(1500);
  const begun = Date.now();
  await page.getByRole('button', { name: 'Source', exact: true }).click();
  const line = page.locator('.cm-line', { hasText: 'You hear them' }).first();
  await line.waitFor();
  const opened = Date.now() - begun;
  await line.click();
  await page.keyboard.press('End');
  const keys = await handled(page, () =>
    page.keyboard.type('and a few more words to be read', { delay: 60 }),
  );
  return { opened, keys: keys.sort((a, b) => a - b) };
}

async function draggingPieces(page: Page, address: string): Promise<readonly [Frames, Frames]> {
  await page.goto(address);
  await page.getByText('You hear them').first().waitFor();
  await page.waitForTimeout(1500);
  const still = await framesDuring(page, () => page.waitForTimeout(2000));
  const piece = await page.getByRole('region', { name: 'Tray' }).getByRole('img').first().boundingBox();
  if (!piece) throw new Error('There is nothing on the tray.');
  await page.mouse.move(piece.x + 20, piece.y + 20);
  await page.mouse.down();
  await page.mouse.move(400, 500, { steps: 5 });
  const dragged = await framesDuring(page, async () => {
    for (let at = 0; at < 100; at += 1) {
      await page.mouse.move(400, 380 + 160 * Math.sin(at / 8));
      await page.waitForTimeout(16);
    }
  });
  await page.keyboard.press('Escape');
  await page.mouse.up();
  return [still, dragged];
}

/** Leaves the page as it looks, as plain text that can be written in: what the browser itself takes for a key. */
async function withoutEditor(page: Page): Promise<void> {
  await page.waitForTimeout(1000);
  await page
    .getByRole('textbox', { name: 'Text of the page' })
    .evaluate((sheet) => sheet.replaceWith(sheet.cloneNode(true)));
}

/** How long the page worked on each key, in milliseconds: from a key's event to the end of the work it set off. */
async function handled(page: Page, work: () => Promise<void>): Promise<number[]> {
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { benchTimes: times });
    document.addEventListener(
      'keydown',
      () => {
        const start = performance.now();
        // After the event, its microtasks and what they drew.
        const channel = new MessageChannel();
        channel.port1.onmessage = () => times.push(performance.now() - start);
        channel.port2.postMessage(null);
      },
      true,
    );
  });
  await work();
  return page.evaluate(() => Reflect.get(window, 'benchTimes') as number[]);
}

/** The Bench on an original of 24 megapixels: how soon it is to be seen, and frames while a slider and a frame are moved. */
async function preparing(page: Page): Promise<void> {
  const { assets } = await (await page.request.get(`${ORIGIN}/api/assets?leastWidth=6000&kind=photo`)).json();
  const id: string = assets[0].id;
  await page.goto(`${ORIGIN}/shelf?piece=${id}`);
  const link = page.getByRole('link', { name: 'Prepare it' });
  await link.waitFor();
  await page.waitForTimeout(800);
  const start = performance.now();
  await link.click();
  const picture = page.getByRole('region', { name: 'Stage' }).getByRole('img').first();
  await picture.waitFor();
  await picture.evaluate((image: HTMLImageElement) => image.decode());
  say(
    'the Bench from pressing to the picture on its stage (aim: under 400 ms)',
    millis(performance.now() - start),
  );
  await page.waitForTimeout(800);
  const bare = await framesDuring(page, () => page.waitForTimeout(2000));
  const dragged = async (box: { x: number; y: number } | null, byX: number) => {
    if (!box) throw new Error('There is nothing to drag at the Bench.');
    await page.mouse.move(box.x, box.y);
    await page.mouse.down();
    for (let at = 0; at < 100; at += 1) {
      await page.mouse.move(box.x + byX * Math.sin(at / 8), box.y);
      await page.waitForTimeout(16);
    }
    await page.keyboard.press('Escape');
  };
  const middleOf = (box: { x: number; y: number; width: number; height: number } | null) =>
    box && { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const slider = middleOf(await page.getByRole('slider', { name: 'Light' }).boundingBox());
  const toned = await framesDuring(page, () => dragged(slider, 25));
  await page.mouse.move(slider?.x ?? 0, slider?.y ?? 0);
  await page.mouse.up();
  const frame = await page.getByRole('button', { name: /^Frame: / }).boundingBox();
  const framed = await framesDuring(page, () => dragged(frame && { x: frame.x + 40, y: frame.y + 40 }, 60));
  await page.mouse.up();
  for (const [what, { perSecond, late }] of [
    ['a tone slider', toned],
    ['a frame', framed],
  ] as const)
    say(
      `dragging ${what} on 24 megapixels, frames against standing still`,
      `${perSecond.toFixed(0)} a second against ${bare.perSecond.toFixed(0)}, ${Math.round(late * 100)}% late`,
    );
}

async function scrolling(page: Page): Promise<void> {
  await page.goto(`${ORIGIN}/shelf`);
  const rows = page.getByRole('listbox', { name: 'Pieces' });
  await rows.getByRole('option').first().waitFor();
  const bare = await framesDuring(page, () => page.waitForTimeout(2000));
  await rows.hover();
  const ours = await framesDuring(page, async () => {
    for (let turn = 0; turn < 60; turn += 1) {
      await page.mouse.wheel(0, 260);
      await page.waitForTimeout(30);
    }
  });
  const held = await page.getByRole('status').first().textContent();
  say(
    `scrolling a shelf of ${held ?? 'pieces'}, frames against standing still`,
    `${ours.perSecond.toFixed(0)} a second against ${bare.perSecond.toFixed(0)}, ${Math.round(ours.late * 100)}% late`,
  );
}

async function dropping(page: Page, folder: string): Promise<void> {
  const files = await manyFiles(folder, 200);
  await page.goto(`${ORIGIN}/gather`);
  await page.getByRole('region', { name: 'Commonfield' }).waitFor();
  await page.waitForTimeout(1500);
  const bare = await framesDuring(page, () => page.waitForTimeout(2000));
  const ours = await framesDuring(page, async () => {
    await page.locator('input[type=file]').first().setInputFiles(files);
    await page.waitForTimeout(10_000);
  });
  const coming = page.getByRole('region', { name: 'Coming in' });
  const settled = await coming.getByRole('status').textContent();
  await page.getByRole('button', { name: 'Stop all' }).click();
  await page.waitForTimeout(2000);
  await throwAway(page, files);
  say(
    `200 files of 12 megapixels at once (${settled} in), frames against standing still`,
    `${ours.perSecond.toFixed(0)} a second against ${bare.perSecond.toFixed(0)}, ${Math.round(ours.late * 100)}% late`,
  );
}

/** Files of which each is another, by its last bytes; a reader of pictures passes over those. */
async function manyFiles(folder: string, count: number): Promise<readonly string[]> {
  const originals = await grainedOriginals(folder, 8, { width: 4243, height: 2828 });
  return Promise.all(
    Array.from({ length: count }, async (_, at) => {
      const path = join(folder, `P119-${Date.now()}-${at}.JPG`);
      await copyFile(originals[at % originals.length] ?? '', path);
      await appendFile(path, `${Date.now()} ${at}`);
      return path;
    }),
  );
}

/** Leaves the shelf as it was. */
async function throwAway(page: Page, files: readonly string[]): Promise<void> {
  const names = new Set(files.map((path) => basename(path)));
  const { assets } = await (await page.request.get(`${ORIGIN}/api/assets?order=newest&limit=200`)).json();
  for (const asset of assets)
    if (names.has(asset.originalName))
      await page.request.delete(`${ORIGIN}/api/assets/${asset.id}`, { headers: { origin: ORIGIN } });
}

interface Frames {
  readonly perSecond: number;
  /** Share of frames that came over one and a half times late. */
  readonly late: number;
}

async function framesDuring(page: Page, work: () => Promise<void>): Promise<Frames> {
  await page.evaluate(() => {
    const times: number[] = [];
    Object.assign(window, { benchFrames: times, benchStop: false });
    const tick = (at: number) => {
      times.push(at);
      if (!Reflect.get(window, 'benchStop')) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  await work();
  const times = await page.evaluate(() => {
    Object.assign(window, { benchStop: true });
    return Reflect.get(window, 'benchFrames') as number[];
  });
  const gaps = times.slice(1).map((at, index) => at - (times[index] ?? at));
  const sum = gaps.reduce((total, gap) => total + gap, 0);
  return {
    perSecond: (gaps.length / sum) * 1000,
    late: gaps.filter((gap) => gap > FRAME_MILLIS * 1.5).length / Math.max(1, gaps.length),
  };
}
