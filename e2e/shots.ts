import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import * as v from 'valibot';
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

const OpenPageSchema = v.object({
  version: v.number(),
  doc: v.looseObject({ blocks: v.array(v.unknown()) }),
});

/** Asks the server by itself, as whoever is signed in. */
const asking =
  (page: Page) =>
  async (method: 'get' | 'post' | 'put' | 'patch', path: string, data?: unknown, version?: number) => {
    const headers = { origin: ORIGIN, ...(version ? { 'if-match': `"${version}"` } : {}) };
    const answer = await page.request[method](`${ORIGIN}/api${path}`, { data, headers });
    return answer.status() === 204 ? null : answer.json();
  };

const PagesSchema = v.object({ pages: v.array(v.object({ id: v.string(), title: v.string() })) });
const PiecesSchema = v.object({ pieces: v.array(v.object({ id: v.string(), version: v.number() })) });

/** Says what is missing of the page for the bulletin, lays its picture beside the text, and sends it; as the site owner. */
async function sendToTheBulletin(page: Page): Promise<void> {
  const ask = asking(page);
  await ask('post', '/session', { email: 'sunniva@saltmere.example', password: 'saltmere-2026' });
  const { pages } = v.parse(PagesSchema, await ask('get', '/pages'));
  const id = pages.find(({ title }) => title.startsWith('From the warden'))?.id ?? '';
  for (const { id: asset, version } of v.parse(PiecesSchema, await ask('get', `/pages/${id}`)).pieces) {
    const alt = { kind: 'text', text: 'A hide on stilts over the reeds.' };
    const label = {
      title: 'Hide 2',
      alt,
      caption: 'Hide 2 from the bank.',
      licence: 'cc-by-4.0',
      creator: 'Ines Okonjo',
    };
    await ask('patch', `/assets/${asset}`, { label }, version);
  }
  const { doc, version } = v.parse(OpenPageSchema, await ask('get', `/pages/${id}`));
  const blocks = doc.blocks.map((block) => {
    const placed = v.safeParse(PlacedSchema, block);
    return placed.success
      ? { ...placed.output, attrs: { ...placed.output.attrs, position: 'beside-left' } }
      : block;
  });
  await ask('put', `/pages/${id}`, { doc: { ...doc, blocks } }, version);
  await page.goto(`${ORIGIN}/pages/${id}/sent`);
  await page.getByRole('button', { name: 'Send to the Members’ bulletin' }).click();
  await page.getByRole('heading', { name: /lost on the way/ }).waitFor({ timeout: 60_000 });
  await page.getByRole('radio', { name: '640 px' }).click();
  await page.getByRole('button', { name: /^Difference 1 in what stands/ }).waitFor();
  await page.waitForLoadState('networkidle');
}

const PlacedSchema = v.looseObject({ type: v.literal('placement'), attrs: v.looseObject({}) });

/** Signs another person in: House rules and the report are the site owner's. */
const signedIn = (name: string) => async (page: Page) => {
  await page.request.delete(`${ORIGIN}/api/session`, { headers: { origin: ORIGIN } });
  await page.goto(ORIGIN);
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await page.getByRole('heading', { name: /for you/ }).waitFor();
};
const asOwner = signedIn('Sunniva');
const asMara = signedIn('Mara');

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
    'rights',
    async (page) => {
      await page.goto(`${ORIGIN}/rights`);
      await page.getByRole('button', { name: /^Boardwalk at dawn/ }).click();
      await page.getByRole('region', { name: 'On the day' }).waitFor();
    },
  ],
  [
    'wording',
    async (page) => {
      await page.goto(`${ORIGIN}/shelf/words?place=pages`);
      await page
        .getByRole('list', { name: 'The round' })
        .getByRole('button', { name: /Cutters with bundles/ })
        .click();
      await page
        .getByRole('textbox', { name: 'Somebody who cannot see it hears' })
        .fill('Picture of three reed cutters carrying bundles on their shoulders through the marsh');
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
    'rules',
    async (page) => {
      await asOwner(page);
      await page.goto(`${ORIGIN}/rules`);
      await choose(page.getByRole('combobox', { name: 'Target' }), 'Members’ bulletin');
      const card = page.getByRole('region', { name: 'Sending', exact: true });
      await card.getByRole('button', { name: 'Learn it by a probe' }).click();
      await card.getByText('This was learned.').waitFor();
      await card.evaluate((element) => element.scrollIntoView({ block: 'center' }));
    },
    asMara,
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
    'film',
    async (page) => {
      await page.goto(`${ORIGIN}/shelf?words=eel+ramp`);
      await page.getByRole('option', { name: /Building the eel ramp/ }).click();
      await page.getByRole('link', { name: 'Caption, trim and level it' }).click();
      await page.getByRole('textbox', { name: 'Caption 2', exact: true }).click();
      await page.getByRole('img', { name: 'How loud it is over its length' }).waitFor();
    },
  ],
  ['send', sendToTheBulletin],
  [
    'report',
    async (page) => {
      await asOwner(page);
      await page.goto(`${ORIGIN}/report`);
      await page.getByRole('heading', { name: 'Pages today' }).waitFor();
    },
    asMara,
  ],
  [
    'bring-in',
    async (page) => {
      await page.goto(`${ORIGIN}/pages/bring-in`);
      const { port, hostname } = new URL(ORIGIN);
      const old = `http://reserve.${hostname}:${Number(port) + 1}/old/eels.htm`;
      await page.getByRole('textbox', { name: 'Addresses, one on each line' }).fill(old);
      await page.getByRole('button', { name: 'Read it' }).click();
      await page.getByRole('button', { name: /^Fault 5 in/ }).waitFor();
      await page.waitForLoadState('networkidle');
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
await context.close();

/** A recording that runs, from a camera that is made up. */
async function shootRecording(): Promise<void> {
  const fake = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'];
  const other = await chromium.launch({ ...CHROMIUM, args: [...CHROMIUM.args, ...fake] });
  const recording = await (await other.newContext({ viewport: FRAME, reducedMotion: 'reduce' })).newPage();
  await recording.goto(ORIGIN);
  await recording.getByRole('button', { name: /^Mara/ }).click();
  await recording.getByRole('heading', { name: /for you/ }).waitFor();
  await recording.goto(`${ORIGIN}/gather?page=demo-page-1`);
  await recording.getByRole('button', { name: 'Record...' }).click();
  await recording.getByRole('button', { name: 'Begin', exact: true }).click();
  await recording.getByText(/Records 0:07/).waitFor();
  await writeFile(join(FOLDER, 'record.png'), await recording.screenshot());
  console.log('record: taken');
  await other.close();
}

await shootRecording();
await browser.close();
