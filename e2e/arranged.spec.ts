import { type BrowserContext, expect, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import {
  beginPage,
  dropFiles,
  expectAccessible,
  figures,
  htmlOf,
  label,
  row,
  saved,
  sheet,
  signIn,
  tabTo,
  tray,
} from './hands.ts';
import { test } from './test.ts';

/** Columns, galleries and before-and-afters, from pieces on the tray to the page that goes out. */

const WIDTHS = [390, 834, 1280] as const;
const SHAPES = [
  [1500, 1000],
  [1000, 1500],
  [1200, 1200],
  [1600, 900],
] as const;

async function withPieces(page: Page, title: string, count: number): Promise<void> {
  await beginPage(page, title);
  const files = await Promise.all(
    SHAPES.slice(0, count).map(async ([width, height], at) => ({
      name: `shore ${at + 1} ${title}.png`,
      mimeType: 'image/png',
      buffer: await sharp({
        create: { width, height, channels: 3, background: { r: 60 + at * 40, g: 120, b: 110 } },
      })
        .png()
        .toBuffer(),
    })),
  );
  await dropFiles(page, tray(page), files);
  await expect(tray(page).getByRole('button', { name: /^shore-/ })).toHaveCount(count);
}

async function choosePieces(page: Page, ...numbers: readonly number[]): Promise<void> {
  for (const number of numbers)
    await tray(page)
      .getByRole('button', { name: new RegExp(`^shore-${number}-`) })
      .press('Control+Enter');
}

/** The pieces on the sheet, in order, each by its number. */
const orderOf = (page: Page) =>
  figures(page)
    .locator('img')
    .evaluateAll((images) =>
      images.map((image) => /shore[- ](\d)/.exec(image.getAttribute('alt') ?? '')?.[1] ?? '?').join(' '),
    );

const boxesOf = (them: Locator) =>
  them.evaluateAll((elements) =>
    elements.map((element) => {
      const { left, top, width, height } = element.getBoundingClientRect();
      return { left, top, width, height };
    }),
  );

async function addressOf(page: Page): Promise<string> {
  const [, id] = /\/pages\/([^/?]+)/.exec(page.url()) ?? [];
  return (await (await page.request.get(`/api/pages/${id}/preview`)).json()).address;
}

/** The page as readers get it, without their having to be signed in. */
async function readerOf(context: BrowserContext, address: string, width: number): Promise<Page> {
  const reader = await context.newPage();
  await reader.setViewportSize({ width, height: 900 });
  await reader.goto(address);
  return reader;
}

/** How much of a page moved after it was drawn (Layout Instability: the sum of its shifts). */
const shiftOf = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        let sum = 0;
        new PerformanceObserver((list) => {
          for (const entry of list.getEntries()) sum += (entry as unknown as { value: number }).value;
        }).observe({ type: 'layout-shift', buffered: true });
        setTimeout(() => resolve(sum), 500);
      }),
  );

test('pieces of the tray become a gallery, whose rows are of one height, and are put in order', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Gallery', 4);
  await choosePieces(page, 1, 2, 3, 4);
  await expect(page.getByRole('heading', { name: '4 pieces' })).toBeVisible();
  await expect(row(page, 'Make').getByRole('button', { name: 'a before-and-after' })).toBeDisabled();
  await row(page, 'Make').getByRole('button', { name: 'a gallery' }).click();
  await expect.poll(() => orderOf(page)).toBe('1 2 3 4');

  // By keys along the row, by drag, and back by undo.
  await figures(page).first().click();
  await expect(row(page, 'Gallery')).toContainText('Each row is of one height.');
  await page.keyboard.press('Alt+ArrowRight');
  await expect.poll(() => orderOf(page)).toBe('2 1 3 4');
  const [from, onto] = await boxesOf(figures(page));
  if (!from || !onto) throw new Error('There is no picture.');
  await page.mouse.move(from.left + 20, from.top + 40);
  await page.mouse.down();
  await page.mouse.move(from.left + 40, from.top + 50, { steps: 4 });
  await page.mouse.move(onto.left + onto.width - 12, onto.top + 60, { steps: 8 });
  await page.mouse.up();
  await expect.poll(() => orderOf(page)).toBe('1 2 3 4');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => orderOf(page)).toBe('2 1 3 4');

  await figures(page).first().click();
  await row(page, 'Gallery').getByRole('radio', { name: '3', exact: true }).click();
  await row(page, 'Gallery')
    .getByRole('textbox', { name: 'Said under all of them' })
    .fill('Four of the shore');
  await row(page, 'Gallery').getByRole('button', { name: 'Keep' }).click();
  await expect(sheet(page)).toContainText('Four of the shore');
  await expectAccessible(page);
  await saved(page);

  await expect.poll(() => htmlOf(page)).toContain('<figcaption>Four of the shore</figcaption>');
  const address = await addressOf(page);
  for (const width of WIDTHS) {
    const reader = await readerOf(context, address, width);
    const boxes = await boxesOf(reader.locator('.gallery li img'));
    const inFirst = boxes.filter(({ top }) => Math.abs(top - (boxes[0]?.top ?? 0)) < 1);
    expect(inFirst).toHaveLength(width === 390 ? 2 : 3);
    // A file is of whole px: its own shape is off by less than one of them.
    const heights = inFirst.map(({ height }) => height);
    expect(Math.max(...heights) - Math.min(...heights)).toBeLessThan(1.5);
    const right = Math.max(...inFirst.map(({ left, width: own }) => left + own));
    const column = await reader.locator('.placard-column').boundingBox();
    expect(right).toBeCloseTo((column?.x ?? 0) + (column?.width ?? 0), 0);
    expect(await shiftOf(reader)).toBe(0);
    await expectAccessible(reader);
    await reader.close();
  }
});

test('pictures of a gallery open larger over the page, by keyboard and swipe, and as links without script', async ({
  page,
  browser,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Larger', 3);
  await choosePieces(page, 1, 2, 3);
  await row(page, 'Make').getByRole('button', { name: 'a gallery' }).press('Enter');
  await expect(figures(page)).toHaveCount(3);
  await saved(page);
  await expect.poll(async () => (await htmlOf(page)).match(/class="larger"/g)?.length).toBe(3);
  const address = await addressOf(page);
  const reader = await readerOf(context, address, 1280);
  const links = reader.locator('a.larger');
  await links.nth(1).focus();
  await reader.keyboard.press('Enter');
  const large = reader.getByRole('dialog');
  await expect(large).toBeVisible();
  const shown = () => large.locator('img').getAttribute('src');
  const [first, second, third] = await links.evaluateAll((all) =>
    all.map((link) => (link as HTMLAnchorElement).href),
  );
  expect(await shown()).toBe(second);
  await expectAccessible(reader);
  await reader.keyboard.press('ArrowRight');
  expect(await shown()).toBe(third);
  await large.getByRole('button', { name: 'Next picture' }).click();
  expect(await shown()).toBe(first);
  // A swipe to the left brings the next.
  await reader.mouse.move(700, 400);
  await reader.mouse.down();
  await reader.mouse.move(500, 405, { steps: 4 });
  await reader.mouse.up();
  expect(await shown()).toBe(second);
  await reader.keyboard.press('Escape');
  await expect(large).toHaveCount(0);
  await expect(links.nth(1)).toBeFocused();

  const plain = await browser.newContext({ javaScriptEnabled: false });
  const without = await readerOf(plain, address, 834);
  await without.locator('a.larger').first().click();
  expect(without.url()).toBe(first);
  await plain.close();
});

test('pieces become a list of links, and words alone open a picture over the page, or lead to it without script', async ({
  page,
  browser,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Linked', 2);
  await choosePieces(page, 1, 2);
  await row(page, 'Make').getByRole('button', { name: 'a list of links' }).press('Enter');
  await expect(sheet(page).locator('ul > li a')).toHaveCount(2);
  await expect(figures(page)).toHaveCount(0);
  await saved(page);
  await expect.poll(async () => (await htmlOf(page)).match(/class="larger"/g)?.length).toBe(2);
  await expectAccessible(page);

  // A piece of the tray by its words where the caret is, and words that lead to another one.
  await sheet(page).press('Control+End');
  await tray(page)
    .getByRole('button', { name: /^shore-1-/ })
    .click();
  await label(page).getByRole('button', { name: 'Words that open it' }).click();
  await expect(sheet(page).locator('a')).toHaveCount(3);
  await saved(page);

  const address = await addressOf(page);
  const reader = await readerOf(context, address, 834);
  const links = reader.locator('a.larger');
  await expect(links.first()).toHaveText(/^shore.*\(picture/i);
  await expectAccessible(reader);
  await links.first().focus();
  await reader.keyboard.press('Enter');
  const large = reader.getByRole('dialog');
  await expect(large.locator('img')).toHaveJSProperty('complete', true);
  expect(
    await large.locator('img').evaluate((img) => (img as HTMLImageElement).naturalWidth),
  ).toBeGreaterThan(900);
  await expectAccessible(reader);
  await reader.keyboard.press('Escape');
  await expect(links.first()).toBeFocused();

  const plain = await browser.newContext({ javaScriptEnabled: false });
  const without = await readerOf(plain, address, 390);
  const href = await without.locator('a.larger').first().getAttribute('href');
  await without.locator('a.larger').first().click();
  expect(without.url()).toContain(href?.split('?')[0] ?? 'nothing');
  await plain.close();
});

test('two pieces become a before-and-after, whose divider readers move, and two figures without script', async ({
  page,
  browser,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Pair', 2);
  await choosePieces(page, 1, 2);
  await row(page, 'Make').getByRole('button', { name: 'a before-and-after' }).press('Enter');
  await expect(figures(page)).toHaveCount(2);
  await expect(row(page, 'Before and after')).toContainText('Readers move the divider');
  // The second is cut as the first: they lie over each other.
  const [one, other] = await boxesOf(figures(page).locator('[data-part="window"]'));
  expect(other).toEqual(one);
  await row(page, 'Before and after').getByRole('textbox', { name: 'Divider at' }).fill('120');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Before and after').getByRole('alert')).toContainText('at most at 100%');
  await row(page, 'Before and after').getByRole('textbox', { name: 'Divider at' }).fill('30%');
  await page.keyboard.press('Enter');
  await row(page, 'Before and after').getByRole('button', { name: 'Exchange them' }).click();
  await expect.poll(() => orderOf(page)).toBe('2 1');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(() => orderOf(page)).toBe('1 2');
  await expectAccessible(page);
  await saved(page);
  await expect.poll(() => htmlOf(page)).toContain('style="--at:30%"');

  const address = await addressOf(page);
  for (const width of WIDTHS) {
    const reader = await readerOf(context, address, width);
    const slider = reader.getByRole('slider', { name: 'How much of before is shown, in percent' });
    await expect(slider).toHaveValue('30');
    expect(await shiftOf(reader)).toBe(0);
    await slider.focus();
    await reader.keyboard.press('ArrowRight');
    await expect(slider).toHaveValue('31');
    await expect(reader.locator('.before-after')).toHaveAttribute('style', /--at: ?31%/);
    const box = await slider.boundingBox();
    if (!box) throw new Error('There is no divider.');
    await reader.mouse.click(box.x + box.width * 0.8, box.y + box.height / 2);
    expect(Number(await slider.inputValue())).toBeGreaterThan(70);
    await expectAccessible(reader);
    // On paper there is nothing to move: both stand there whole.
    await reader.emulateMedia({ media: 'print' });
    await expect(reader.locator('.before-after > input')).toBeHidden();
    const [before, after] = await boxesOf(reader.locator('.placard img'));
    expect(after?.top).toBeGreaterThan((before?.top ?? 0) + (before?.height ?? 0) - 1);
    await reader.close();
  }
  const plain = await browser.newContext({ javaScriptEnabled: false });
  const without = await readerOf(plain, address, 834);
  const [before, after] = await boxesOf(without.locator('.placard img'));
  expect(after?.top).toBeGreaterThan((before?.top ?? 0) + (before?.height ?? 0) - 1);
  await plain.close();
});

test('a picture of the tray becomes a banner by keyboard, with real words over it that are judged', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Banner', 1);
  await tray(page)
    .getByRole('button', { name: /^shore-1-/ })
    .press('Enter');
  await label(page).getByRole('button', { name: 'Make a banner of it' }).press('Enter');
  const words = sheet(page).locator('.banner-words');
  await expect(words).toBeVisible();
  // The caret is in its heading: one writes on.
  await page.keyboard.type('The shore at low water');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Mud, and the birds that live on it.');
  await expect(words.getByRole('heading')).toHaveText('The shore at low water');
  const banner = row(page, 'Banner');
  await expect(banner).toContainText('Under 600 px the words stand below the picture.');
  await banner.getByRole('checkbox', { name: 'On a plate' }).press('Space');
  await banner.getByRole('radio', { name: 'At the bottom left' }).press('ArrowUp');
  await expect(banner.getByRole('radio', { name: 'At the left' })).toBeChecked();
  // Dark letters on what is dark.
  await banner.getByLabel('Ink').fill('#606060');
  await banner.getByLabel('Ink').blur();
  await expect(banner).toContainText(/The words of a banner hardly stand out\. Contrast \d\.\d/);
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await page.getByRole('button', { name: 'Lay a plate under them' }).first().press('Enter');
  await expect(page.getByText('Mended just now: The words of a banner hardly stand out.')).toBeVisible();
  // The frames show what was mended, and Back leaves the screen all the same.
  await expect(
    page.frameLocator('iframe[title="The page at 1280 px"]').locator('.banner.plated'),
  ).toBeVisible();
  await page.goBack();
  await words.getByRole('paragraph').click();
  await banner.getByRole('textbox', { name: 'The whole banner goes to' }).fill('/walks/shore');
  await banner.getByRole('textbox', { name: 'The whole banner goes to' }).press('Enter');
  await banner.getByRole('radio', { name: 'bleed' }).press('Space');
  await expectAccessible(page);
  await saved(page);

  await expect.poll(() => htmlOf(page)).toContain('<a href="/walks/shore">The shore at low water</a></h2>');
  const address = await addressOf(page);
  for (const width of WIDTHS) {
    const reader = await readerOf(context, address, width);
    const [picture] = await boxesOf(reader.locator('.banner img'));
    const [said] = await boxesOf(reader.locator('.banner-words'));
    if (!picture || !said) throw new Error('There is no banner.');
    expect(picture.width).toBe(width);
    const isOver = said.top + said.height <= picture.top + picture.height;
    expect(isOver).toBe(width >= 600);
    expect(said.top).toBeGreaterThan(picture.top);
    expect(await shiftOf(reader)).toBe(0);
    await expectAccessible(reader);
    await reader.close();
  }
});

test('text and pieces stand in columns, whose shares are set by number, key and drag', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Columns', 2);
  await sheet(page).click();
  await page.keyboard.type('The dyke is wet in February.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Bring boots and a flask.');
  await page.keyboard.press('Control+a');
  await label(page).getByRole('button', { name: 'columns', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Columns', exact: true, level: 2 })).toBeVisible();
  // Into the first column, behind its text, by key.
  await sheet(page).getByText('The dyke is wet').click();
  await tray(page)
    .getByRole('button', { name: /^shore-1-/ })
    .press('Enter');
  await expect(row(page, 'Columns')).toContainText('346, 346 px; under 480 px');
  const shares = row(page, 'Columns').getByRole('textbox', { name: 'Shares' });
  await shares.fill('70');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Columns').getByRole('alert')).toContainText('Shares are written as 50 : 50.');
  await shares.fill('60 : 40');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Columns')).toContainText('415, 277 px');
  const gap = page.getByRole('slider', { name: 'Between columns 1 and 2' });
  await gap.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(shares).toHaveValue('58 : 42');
  const handle = await gap.boundingBox();
  if (!handle) throw new Error('There is no gap to drag.');
  await page.mouse.move(handle.x + handle.width / 2, handle.y + handle.height / 2);
  await page.mouse.down();
  await page.mouse.move(handle.x + handle.width / 2 - 120, handle.y + 10, { steps: 6 });
  await page.mouse.up();
  await expect(shares).toHaveValue(/^4[0-4] : 5[6-9]$/);
  await row(page, 'Columns').getByRole('radio', { name: 'the second' }).click();
  await expectAccessible(page);
  await saved(page);
  await expect.poll(() => htmlOf(page)).toContain('<div class="column leads">');

  const address = await addressOf(page);
  for (const width of WIDTHS) {
    const reader = await readerOf(context, address, width);
    const [first, second] = await boxesOf(reader.locator('.columns > .column'));
    if (width === 390) expect(second?.top).toBeLessThan(first?.top ?? 0);
    else expect(second?.top).toBe(first?.top);
    const shown = await reader.locator('.column img').evaluate((img: HTMLImageElement) => img.sizes);
    if (width === 1280) expect(shown).toContain(`${Math.round(first?.width ?? 0)}px`);
    expect(await shiftOf(reader)).toBe(0);
    await expectAccessible(reader);
    await reader.close();
  }
  // Removed, a column leaves what stood in it.
  await sheet(page).getByText('Bring boots').click();
  await row(page, 'Columns').getByRole('button', { name: 'Remove this column' }).click();
  await expect(sheet(page).locator('.columns')).toHaveCount(0);
  await expect(sheet(page)).toContainText('Bring boots and a flask.');
  await page.keyboard.press('Control+z');
  await expect(sheet(page).locator('.columns')).toHaveCount(1);
});

test('by keyboard alone: pieces of the tray become columns, are shared, put first on a phone, and exported', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara');
  await withPieces(page, 'Columns by key', 2);
  await choosePieces(page, 1, 2);
  // The label stands before the tray: Tab backwards leads to it, past what is chosen and not over the sheet.
  const make = row(page, 'Make').getByRole('button', { name: 'columns' });
  await expect(make).toBeVisible();
  for (let presses = 0; presses < 40; presses += 1) {
    if (await make.evaluate((one) => one === document.activeElement)) break;
    await page.keyboard.press('Shift+Tab');
  }
  await page.keyboard.press('Enter');
  await expect(sheet(page).locator('.columns figure')).toHaveCount(2);
  await page.keyboard.type('The dyke is wet.');
  await tabTo(row(page, 'Columns').getByRole('textbox', { name: 'Shares' }));
  await page.keyboard.press('Control+a');
  await page.keyboard.type('60 : 40');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Columns')).toContainText('415, 277 px');
  await tabTo(row(page, 'Columns').getByRole('radio', { name: 'the first' }));
  await page.keyboard.press('ArrowRight', { delay: 80 });
  await expect(row(page, 'Columns').getByRole('radio', { name: 'the second' })).toBeChecked();
  await saved(page);
  await expect.poll(() => htmlOf(page)).toContain('<div class="column leads">');
  const reader = await readerOf(context, await addressOf(page), 390);
  const [one, other] = await boxesOf(reader.locator('.columns > .column'));
  expect(other?.top).toBeLessThan(one?.top ?? 0);
  await reader.close();
});
