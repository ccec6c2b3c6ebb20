import { get } from 'node:http';
import type { Locator, Page } from '@playwright/test';
import { millis, say } from './measure.ts';
import { ORIGIN } from './world.ts';

const FILMS = ['eel-pass-71', 'first-boom-12', 'reed-cutting-3', 'boardwalk-22'];
const OUTSIDE_PORT = Number(new URL(ORIGIN).port) + 1;

/** From pasting an address to what it is, to its poster, and to its being live, beside what the other site takes alone. */
export async function benchFirstSight(page: Page): Promise<void> {
  await page.goto(`${ORIGIN}/embeds`);
  const box = page.getByRole('textbox', { name: 'An address, or embed code' });
  await box.waitFor();
  await page.waitForTimeout(800);
  // What is loaded once for the whole screen is not counted.
  await box.fill(`http://fathomchart.localhost:${OUTSIDE_PORT}/chart/saltmere-bar`);
  await page.getByText(/^Shows “/).waitFor();
  await box.fill('');
  await page.waitForTimeout(500);
  const runs: Readonly<Record<'bare' | 'told' | 'seen' | 'live', number>>[] = [];
  for (const film of FILMS) {
    const path = `/watch/${film}`;
    const asked = encodeURIComponent(addressOf(path));
    const bare = await spent(async () => {
      await Promise.all([path, `/play/${film}`, `/oembed?format=json&url=${asked}`].map(answer));
      await answer(`/posters/${film}.jpg`);
    });
    const start = performance.now();
    await box.fill(addressOf(path));
    await page.getByText(/^Plays “/).waitFor();
    const told = performance.now() - start;
    await shown(page.locator('img:has(+ iframe)').or(page.locator('img[src*=poster]')).first());
    const seen = performance.now() - start;
    await shown(page.frameLocator('iframe[title="As readers get it"]').locator('img').first());
    runs.push({ bare, told, seen, live: performance.now() - start });
    await box.fill('');
    await page.waitForTimeout(300);
  }
  const middle = (times: readonly number[]) => [...times].sort((a, b) => a - b)[times.length >> 1] ?? 0;
  const of = (part: 'bare' | 'told' | 'seen' | 'live') => millis(middle(runs.map((run) => run[part])));
  say(
    'first sight of an embed, from its pasted address (aim: under 300 ms more than the other site takes)',
    `what it is ${of('told')}, its poster ${of('seen')}, live ${of('live')}; the other site ${of('bare')}`,
  );
}

async function shown(picture: Locator): Promise<void> {
  await picture.waitFor();
  await picture.evaluate((image: HTMLImageElement) => image.decode());
}

const addressOf = (path: string) => `http://lanternreel.localhost:${OUTSIDE_PORT}${path}`;

async function spent(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

/** Asked at the loopback by its name, which Node does not find by itself. */
function answer(path: string): Promise<void> {
  return new Promise((resolve, reject) => {
    const { host } = new URL(addressOf(path));
    get({ host: '127.0.0.1', port: OUTSIDE_PORT, path, headers: { host } }, (response) => {
      response.resume().once('end', resolve).once('error', reject);
    }).once('error', reject);
  });
}
