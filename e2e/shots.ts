import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import { CHROMIUM } from '../scripts/lib/browser.mjs';
import { choose } from './hands.ts';

/** Takes the pictures of docs/screenshots from the demo that `npm start` runs. */
const ORIGIN = process.env.PLACARD_ORIGIN ?? 'http://localhost:4400';
const FOLDER = join(import.meta.dirname, '..', 'docs', 'screenshots');
const FRAME = { width: 1280, height: 800 };
type Deed = (page: Page) => Promise<void>;

/** As the three places of work stand on a phone. */
const PHONE = { width: 400, height: 800 };
const onPhone = async (page: Page, open: Deed) => {
  await page.setViewportSize(PHONE);
  await open(page);
};
const backAtTheDesk: Deed = (page) => page.setViewportSize(FRAME);

const outside = (host: string, path: string) =>
  `http://${host}.localhost:${Number(new URL(ORIGIN).port) + 1}${path}`;

/** Code as hosts and notes hand it on. */
const MESSY = `<div style="position:relative;padding-bottom:56.25%;height:0">
<iframe width="560" height="315" src="${outside('lanternreel', '/play/eel-pass-71?start=12&trk=mail_0311')}" frameborder="0" allow="camera; microphone; autoplay; clipboard-write; fullscreen" onload="track()"></iframe>
<script src="${outside('lanternreel', '/w.js')}"></script></div>`;

/** Each picture by its name, how it is come by, and how what was done for it is taken back. */
const SHOTS: readonly (readonly [string, Deed, Deed?])[] = [
  [
    'desk',
    async (page) => {
      await page.goto(ORIGIN);
      await page.getByRole('heading', { name: /for you/ }).waitFor();
    },
  ],
  [
    'page',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-1`);
      await page.getByRole('figure').first().click();
    },
  ],
  [
    'arranged',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-2`);
      const picture = page
        .getByRole('figure')
        .filter({ has: page.getByAltText('Placed piece: Walkers at noon') });
      await picture.scrollIntoViewIfNeeded();
      await page.waitForLoadState('networkidle');
      await picture.click();
      await page.getByRole('region', { name: 'Gallery' }).waitFor();
    },
  ],
  [
    'table',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-5`);
      await page.getByRole('cell', { name: '07:49' }).click();
      await page.getByRole('heading', { name: 'A table' }).waitFor();
    },
  ],
  [
    'versions',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-2?versions=list`);
      const versions = page.getByRole('complementary', { name: 'Versions' });
      await versions.getByRole('button', { name: 'Before the second walk' }).click();
      await versions.getByRole('button', { name: /^Text “After two winters/ }).click();
      await page.waitForLoadState('networkidle');
    },
  ],
  [
    'source',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-5?source=yes`);
      const source = page.getByRole('textbox', { name: 'Source of the page' });
      await source.getByText('The boardwalk is under').click({ position: { x: 10, y: 8 } });
      await page.keyboard.press('Home');
      await page.keyboard.insertText(
        '<p style="color:#c00" onclick="x()">The warden closes the gate.</p>\n<marquee>Mind the step!</marquee>\n',
      );
      await page.getByRole('heading', { name: '3 things typed here cannot be kept.' }).waitFor();
    },
  ],
  [
    'gather',
    async (page) => {
      await page.goto(`${ORIGIN}/gather?page=demo-page-2&words=boardwalk&shape=landscape&leastWidth=1600`);
      await page.getByRole('option', { name: /^Planks at last light/ }).click();
      await page.getByText('Its page says the same licence.').waitFor();
    },
  ],
  [
    'bench',
    async (page) => {
      await page.goto(`${ORIGIN}/shelf?words=sluice+eel+pass`);
      await page.getByRole('option', { name: /sluice with the eel pass/ }).click();
      await page.getByRole('link', { name: 'Prepare it' }).click();
      await page
        .getByRole('navigation', { name: 'Cuts' })
        .getByRole('button', { name: /^Square/ })
        .click();
    },
  ],
  [
    'weigh',
    async (page) => {
      await page.goto(`${ORIGIN}/shelf?words=noon+june`);
      await page.getByRole('option').first().click();
      await page.getByRole('link', { name: 'Prepare it' }).click();
      await page.getByRole('button', { name: 'Weigh it' }).click();
      await page
        .getByRole('region', { name: /^Smallest file/ })
        .getByRole('button', { name: 'AVIF' })
        .waitFor({ timeout: 90_000 });
    },
  ],
  [
    'run',
    async (page) => {
      await page.goto(`${ORIGIN}/shelf?folder=birds`);
      for (let at = 0; at < 9; at += 1)
        await page
          .getByRole('option')
          .nth(at)
          .click({ modifiers: ['Control'] });
      await page.getByRole('button', { name: 'Run...' }).click();
      await page.getByRole('group', { name: 'Sizes' }).getByRole('button', { name: 'Card 400' }).click();
      await choose(page.getByRole('combobox', { name: 'Names' }), 'By a pattern');
      await page.getByRole('combobox', { name: 'Folder' }).fill('birds/spring');
      await page.getByRole('status').filter({ hasText: 'to move' }).waitFor();
    },
  ],
  [
    'embed',
    async (page) => {
      await page.goto(`${ORIGIN}/embeds?text=${encodeURIComponent(MESSY)}`);
      await page.getByText('Captions: English, Welsh.').waitFor();
      await page.frameLocator('iframe').getByRole('button').waitFor();
    },
  ],
  [
    'embed-placed',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-4`);
      await page.getByRole('figure').filter({ hasText: 'when it is clicked' }).click();
    },
  ],
  [
    'shelf',
    async (page) => {
      await page.goto(`${ORIGIN}/shelf`);
      await page.getByRole('option').nth(4).click();
    },
  ],
  [
    'proof',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-1/proof`);
      await page.getByRole('button', { name: 'Finding 1 at 1280 px' }).waitFor();
    },
  ],
  [
    'listing',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/demo-page-2/proof?with=listing`);
      await page.getByRole('radio', { name: '834 px' }).click();
      await page.frameLocator('iframe[title="The listing at 834 px"]').getByRole('img').first().waitFor();
      await page.waitForLoadState('networkidle');
    },
  ],
  [
    'rules',
    async (page) => {
      await page.goto(`${ORIGIN}/rules`);
      await page.getByRole('heading', { name: 'Cuts' }).waitFor();
    },
  ],
  [
    'narrow-page',
    (page) =>
      onPhone(page, async (phone) => {
        await phone.goto(`${ORIGIN}/pages/demo-page-1`);
        await phone.getByRole('figure').first().click();
      }),
    backAtTheDesk,
  ],
  [
    'narrow-proof',
    (page) =>
      onPhone(page, async (phone) => {
        await phone.goto(`${ORIGIN}/pages/demo-page-1/proof`);
        await phone.getByRole('complementary', { name: 'Findings' }).waitFor();
      }),
    backAtTheDesk,
  ],
  [
    'page-dark',
    async (page) => {
      await page.emulateMedia({ colorScheme: 'dark' });
      await page.goto(`${ORIGIN}/pages/demo-page-2`);
      await page
        .getByRole('figure')
        .filter({ has: page.getByAltText('Placed piece: Boardwalk at dawn') })
        .click();
    },
  ],
];

/** Of a picture's pixels, in percent: from here on somebody has to look at it. */
const LOOK_FROM_PERCENT = 0.3;

/** How far a picture is from the one before. */
function sayDifference(before: Buffer, now: Buffer): string {
  const [old, fresh] = [PNG.sync.read(before), PNG.sync.read(now)];
  if (old.width !== fresh.width || old.height !== fresh.height) return 'of another size';
  const { width, height } = fresh;
  const pixels = pixelmatch(old.data, fresh.data, undefined, width, height, { threshold: 0.15 });
  const percent = (100 * pixels) / (width * height);
  return `${percent.toFixed(2)}% other${percent > LOOK_FROM_PERCENT ? ', to be looked at' : ''}`;
}

await mkdir(FOLDER, { recursive: true });
const browser = await chromium.launch(CHROMIUM);
const context = await browser.newContext({ viewport: FRAME, reducedMotion: 'reduce' });
const page = await context.newPage();
await page.goto(ORIGIN);
await page.getByRole('button', { name: /^Mara/ }).click();
await page.getByRole('heading', { name: /for you/ }).waitFor();
for (const [name, open, close] of SHOTS) {
  await open(page);
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(500);
  const path = join(FOLDER, `${name}.png`);
  const before = await readFile(path).catch(() => null);
  // Hiding the caret writes a style on every element, which the editor reads as a change of what is selected.
  const now = await page.screenshot({ caret: 'initial' });
  await writeFile(path, now);
  console.log(`${name}: ${before ? sayDifference(before, now) : 'new'}`);
  await close?.(page);
}
await browser.close();
