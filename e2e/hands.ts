import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { expect, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { paintPiece } from '../demo/paint.ts';
import type { DemoPiece } from '../demo/pieces.ts';
import { metadataTool } from '../server/imaging/metadata.ts';
import { faultsOf } from './axe.ts';
import { CONTROL } from './world.ts';

type Name = 'Mara' | 'Piet' | 'Sunniva' | 'Joss';

/** Signed in before the first look, as whoever comes back to an open browser is. */
export async function signIn(page: Page, name: Name, path = '/'): Promise<void> {
  const email = `${name.toLowerCase()}@saltmere.example`;
  const answer = await page.request.post('/api/session', { data: { email, password: 'saltmere-2026' } });
  expect(answer.ok()).toBe(true);
  await page.goto(path);
  await expect(page.getByRole('navigation', { name: 'Areas' })).toBeVisible();
}

/** Signs in on the screen. */
export async function signInByHand(page: Page, name: Name): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await expect(page.getByRole('heading', { level: 1, name: /for you/ })).toBeVisible();
}

/** What is made of large files is waited for as long as a slow machine takes: nothing is measured here. */
export const WHEN_MADE = { timeout: 240_000 };

/** Presses Tab until this has the focus. */
export async function tabTo(target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  for (let presses = 0; presses < 200; presses += 1) {
    if (await target.evaluate((element) => element === document.activeElement)) return;
    await target.page().keyboard.press('Tab');
  }
  throw new Error(`Tab does not reach ${target}`);
}

export async function beginPage(page: Page, title: string): Promise<void> {
  await page.getByRole('link', { name: 'Pages' }).click();
  // The Desk has a link of the same name, and stays until the pages are there.
  await expect(page.getByRole('heading', { level: 1, name: 'Pages' })).toBeVisible();
  await page.getByRole('link', { name: 'Begin a page' }).first().click();
  await page.getByRole('textbox', { name: 'Title' }).fill(title);
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(sheet(page)).toBeVisible();
}

/** Begins a page with one small picture of this name on its sheet, of which nothing is said yet; saved. */
export async function beginWithPicture(page: Page, title: string, name: string): Promise<void> {
  await beginPage(page, title);
  await dropFiles(page, tray(page), [await smallPicture(`${name}.png`)]);
  await tray(page)
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .press('Enter');
  await expect(figures(page)).toHaveCount(1);
  await saved(page);
}

/** Begins a page with these lines of text on it, saved; answers its address. */
export async function beginText(page: Page, title: string, ...lines: readonly string[]): Promise<string> {
  await beginPage(page, title);
  await sheet(page).click();
  for (const [at, words] of lines.entries()) {
    if (at > 0) await page.keyboard.press('Enter');
    await page.keyboard.type(words);
  }
  await saved(page);
  return page.url();
}

export const sheet = (page: Page) => page.getByRole('textbox', { name: 'Text of the page' });
export const tray = (page: Page) => page.getByRole('region', { name: 'Tray' });
export const label = (page: Page) => page.getByRole('complementary', { name: 'Label' });
export const row = (page: Page, name: string) => label(page).getByRole('region', { name, exact: true });
/** The pieces that are placed in the article, in their order. */
export const figures = (page: Page) => page.locator('figure:not(.sheet-teaser *)');
export const placed = (page: Page, name: string) =>
  figures(page).filter({ has: page.getByAltText(`Placed piece: ${name}`) });

/** Pastes HTML on the sheet, as from a page elsewhere, with its plain text beside it where that is given. */
export async function pasteHtml(page: Page, html: string, text = ''): Promise<void> {
  await sheet(page).evaluate(
    (element, [rich = '', plain = '']) => {
      const transfer = new DataTransfer();
      transfer.setData('text/html', rich);
      if (plain !== '') transfer.setData('text/plain', plain);
      element.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }),
      );
    },
    [html, text],
  );
}

/** The HTML of the page that is open, as it goes out. */
export async function htmlOf(page: Page): Promise<string> {
  const [, id] = /\/pages\/([^/?]+)/.exec(page.url()) ?? [];
  const answer = await page.request.get(`/api/pages/${id}/fragment?unfinished=yes`);
  return (await answer.json()).html;
}

/** What the sheet holds, block by block: "P piece UL". */
export const blocksOf = (page: Page): Promise<string> =>
  sheet(page)
    .locator('> *')
    .evaluateAll((blocks) =>
      blocks.map((block) => (block.tagName === 'FIGURE' ? 'piece' : block.tagName)).join(' '),
    );

/** Chooses from a list that opens. */
export async function choose(list: Locator, words: string): Promise<void> {
  await list.click();
  await list.page().getByRole('option', { name: words, exact: true }).click();
}

export async function saved(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();
}

/** Breaks something on purpose, or mends it. */
export async function world(deed: 'cut' | 'join' | 'kill' | 'start'): Promise<void> {
  const response = await fetch(`${CONTROL}/${deed}`);
  expect(response.ok).toBe(true);
}

export interface TestFile {
  readonly name: string;
  readonly mimeType: string;
  readonly buffer: Buffer;
}

/** Three large originals as cameras and agencies hand them over, 24 megapixels each. */
export async function largeFiles(): Promise<readonly [TestFile, TestFile, TestFile]> {
  const base = {
    painting: { kind: 'scene', subject: 'heron', light: 'dawn' },
    width: 6000,
    height: 4000,
    folder: '',
    by: 'mara',
  } as const;
  const pieces: readonly DemoPiece[] = [
    { ...base, key: 'test-plain', file: 'IMG_20261101_0612.JPG', seed: 901 },
    {
      ...base,
      key: 'test-turned',
      file: 'P1190500.JPG',
      painting: { kind: 'scene', subject: 'cutters', light: 'noon' },
      width: 4000,
      height: 6000,
      seed: 902,
      turned: true,
    },
    {
      ...base,
      key: 'test-labelled',
      file: 'DSC_0042.jpg',
      painting: { kind: 'scene', subject: 'bittern', light: 'mist' },
      seed: 903,
      inFile: { title: 'Bittern at the sluice', creator: 'Ines Okonjo', licence: 'cc-by-4.0' },
    },
  ];
  const folder = process.env.PLACARD_PAINTINGS ?? join(import.meta.dirname, '..', 'var', 'paintings');
  await mkdir(folder, { recursive: true });
  const tool = metadataTool();
  const files: TestFile[] = [];
  for (const piece of pieces) {
    files.push({
      name: piece.file,
      mimeType: 'image/jpeg',
      buffer: await readFile(await paintPiece(piece, folder, 1, tool)),
    });
  }
  await tool.end();
  const [plain, turned, labelled] = files;
  if (!plain || !turned || !labelled) throw new Error('Not all files were painted.');
  return [plain, turned, labelled];
}

/** Drops files on a place, as from a folder on the desktop. */
export async function dropFiles(page: Page, target: Locator, files: readonly TestFile[]): Promise<void> {
  const data = await page.evaluateHandle(
    async (list) => {
      const transfer = new DataTransfer();
      for (const { name, type, base64 } of list) {
        const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
        transfer.items.add(new File([bytes], name, { type }));
      }
      return transfer;
    },
    files.map((file) => ({ name: file.name, type: file.mimeType, base64: file.buffer.toString('base64') })),
  );
  for (const event of ['dragenter', 'dragover', 'drop'] as const)
    await target.dispatchEvent(event, { dataTransfer: data });
}

/** Drops text on a place, as an address or code that is dragged from another window. */
export async function dropText(page: Page, target: Locator, text: string): Promise<void> {
  const data = await page.evaluateHandle((dragged) => {
    const transfer = new DataTransfer();
    transfer.setData('text/plain', dragged);
    return transfer;
  }, text);
  for (const event of ['dragenter', 'dragover', 'drop'] as const)
    await target.dispatchEvent(event, { dataTransfer: data });
}

/** No fault that axe can find, on the whole page as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  expect(await faultsOf(page)).toEqual([]);
}

/** A small picture whose file says who made it and under which licence. */
export async function licensedPicture(name: string): Promise<TestFile> {
  const { mimeType, buffer } = await smallPicture(name);
  const xmp = `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?><x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmpRights="http://ns.adobe.com/xap/1.0/rights/" xmpRights:WebStatement="https://creativecommons.org/licenses/by/4.0/"><dc:creator><rdf:Seq><rdf:li>Ines Okonjo</rdf:li></rdf:Seq></dc:creator></rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;
  return { name, mimeType, buffer: await sharp(buffer).withXmp(xmp).png().toBuffer() };
}

/** A small picture that nobody has handed in yet. */
export async function smallPicture(name: string): Promise<TestFile> {
  const rgb = Array.from({ length: 3 }, () => Math.floor(Math.random() * 256));
  const [r = 0, g = 0, b = 0] = rgb;
  const buffer = await sharp({ create: { width: 640, height: 400, channels: 3, background: { r, g, b } } })
    .png()
    .toBuffer();
  return { name, mimeType: 'image/png', buffer };
}
