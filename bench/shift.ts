import { chromium, type Page } from '@playwright/test';
import * as v from 'valibot';
import { CHROMIUM } from '../scripts/lib/browser.mjs';
import { say } from './measure.ts';
import { ORIGIN } from './world.ts';

const WIDTHS = [360, 768, 1280];
/** The faces come so much later than the page: by then it stands in those of the reader's machine. */
const FACES_LATER_MILLIS = 700;
const PagesSchema = v.array(v.object({ id: v.string() }));
const PreviewSchema = v.object({ address: v.string() });

/** How far pages shift while they load (Layout Instability, cumulative layout shift), with faces that come late. */
export async function benchShift(): Promise<void> {
  const isThere = await fetch(ORIGIN).then(
    () => true,
    () => false,
  );
  if (!isThere) {
    say('layout shift of pages', `nothing runs at ${ORIGIN}; npm start, then again`);
    return;
  }
  const browser = await chromium.launch(CHROMIUM);
  try {
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.request.post(`${ORIGIN}/api/session`, {
      data: { email: 'mara@saltmere.example', password: 'saltmere-2026' },
    });
    const pages = v.parse(PagesSchema, await (await page.request.get(`${ORIGIN}/api/pages`)).json());
    await page.route('**/fonts/**', async (route) => {
      await new Promise((resolve) => setTimeout(resolve, FACES_LATER_MILLIS));
      await route.continue();
    });
    const shifts: number[] = [];
    for (const { id } of pages) {
      const answer = await page.request.get(`${ORIGIN}/api/pages/${id}/preview`);
      if (!answer.ok()) continue;
      const { address } = v.parse(PreviewSchema, await answer.json());
      for (const width of WIDTHS) shifts.push(await shiftOf(page, address, width));
    }
    say(
      `layout shift of ${shifts.length / WIDTHS.length} pages at ${WIDTHS.join(', ')} px, with faces that come late (aim: 0)`,
      `${Math.max(...shifts).toFixed(4)} at most, ${(shifts.reduce((sum, one) => sum + one, 0) / shifts.length).toFixed(4)} on average`,
    );
  } finally {
    await browser.close();
  }
}

async function shiftOf(page: Page, address: string, width: number): Promise<number> {
  await page.setViewportSize({ width, height: 900 });
  await page.goto(address, { waitUntil: 'networkidle' });
  await page.waitForTimeout(FACES_LATER_MILLIS);
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        let sum = 0;
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries()) sum += 'value' in entry ? Number(entry.value) : 0;
        }).observe({ type: 'layout-shift', buffered: true });
        setTimeout(() => resolve(sum), 200);
      }),
  );
}
