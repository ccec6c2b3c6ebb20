import { expect } from '@playwright/test';
import { beginWithPicture, choose, expectAccessible, figures, row, signIn, tabTo } from './hands.ts';
import { test } from './test.ts';

test('a page is read as it is heard, its long description with it, and what nobody says is marked', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginWithPicture(page, 'Heard in order', 'heard');
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await page.getByRole('radio', { name: 'as it is heard' }).press('Space');
  const heard = page.getByRole('region', { name: 'The page as it is heard' });
  await expect(heard).toContainText('Heading, level 1: Heard in order');
  await expect(heard).toContainText('Nothing is said here');
  await expectAccessible(page);
  const finding = heard.getByRole('button', { name: /^Finding/ }).first();
  await finding.press('Enter');
  await expect(finding).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('link', { name: 'Back to the sheet' }).click();
  await figures(page).first().click();
  const words = row(page, 'Alt text and caption');
  await words.getByRole('button', { name: 'Write alt text' }).click();
  await words.getByRole('textbox', { name: 'Alt text' }).fill('Bars for May and June.');
  await words
    .getByRole('textbox', { name: 'Long description' })
    .fill('Eels\n\nMonth\tEels\nMay\t12\nJune\t420');
  await words.getByRole('button', { name: /^Save/ }).click();
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await page.getByRole('radio', { name: 'as it is heard' }).click();
  await expect(heard).toContainText('Picture: Bars for May and June.');
  await expect(heard).toContainText('Table, 3 rows of 2');
  await expect(heard).toContainText('Row: Month May; Eels 12');
});

test('a page is seen as others get it: without pictures, enlarged, spaced out, on paper', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginWithPicture(page, 'Seen otherwise', 'seen-otherwise');
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  const frames = page.getByRole('region', { name: 'The page at its widths' });
  const picture = frames.frameLocator('iframe').first().locator('img');
  const isThere = (one: HTMLElement | SVGElement) => one instanceof HTMLImageElement && one.naturalWidth > 0;
  await expect.poll(() => picture.evaluate(isThere)).toBe(true);
  await expectAccessible(page);
  const seen = page.getByRole('combobox', { name: 'How it is seen' });
  await choose(seen, 'text at 200 %');
  await expect(frames.getByRole('figure', { name: 'The page at 640 px' })).toBeVisible();
  await choose(seen, 'no pictures');
  await expect.poll(() => picture.evaluate(isThere)).toBe(false);
  await choose(seen, 'printed');
  await expect(frames.getByRole('figure')).toHaveCount(1);
  await expect(frames.getByRole('figure', { name: 'The page at 794 px' })).toBeVisible();
  // What is looked at stands in the address: it is the same after a reload.
  await page.reload();
  await expect(seen).toHaveText('printed');
});

test('a page is seen at any width, and gets the files that a sharper screen asks for', async ({ page }) => {
  await signIn(page, 'Mara');
  await page.goto('/pages/demo-page-2/proof');
  const frames = page.getByRole('region', { name: 'The page at its widths' });
  const width = page.getByRole('combobox', { name: 'Width that is looked at' });
  await tabTo(width);
  await page.keyboard.press('Enter');
  await page.keyboard.type('another');
  await page.keyboard.press('Enter');
  const other = page.getByRole('textbox', { name: 'Another width' });
  await expect(other).toBeFocused();
  await page.keyboard.type('12');
  await page.keyboard.press('Enter');
  await expect(page.getByText('From 240 to 3840 px.')).toBeVisible();
  await other.fill('260');
  await page.keyboard.press('Enter');
  await expect(frames.getByRole('figure')).toHaveCount(1);
  await expect(frames.getByRole('figure', { name: 'The page at 260 px' })).toBeVisible();
  await expectAccessible(page);

  const picture = page.frameLocator('iframe[title="The page at 260 px"]').locator('img').first();
  const chosen = () =>
    picture.evaluate((one) => (one instanceof HTMLImageElement ? one.currentSrc.replace(/\?.*$/, '') : ''));
  const screen = page.getByRole('combobox', { name: 'Screen' });
  await choose(screen, 'screen of 1x');
  await expect(frames.getByText(/^260 px, \d+(\.\d)? k?B at 1x$/)).toBeVisible();
  const plain = await chosen();
  const size = () => picture.evaluate((one) => `${one.clientWidth} by ${one.clientHeight}`);
  const before = await size();
  await choose(screen, 'screen of 3x');
  await expect(frames.getByText(/^260 px, \d+(\.\d)? k?B at 3x$/)).toBeVisible();
  expect(await chosen()).not.toBe(plain);
  expect(await size()).toBe(before);
});

test('what of a page is there after one second and three of a slow line is shown and drawn', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await page.goto('/pages/demo-page-2/proof');
  await page.getByRole('radio', { name: 'on a slow line' }).press('Space');
  const slow = page.getByRole('region', { name: 'The page on a slow line' });
  await choose(page.getByRole('combobox', { name: 'Screen' }), 'screen of 3x');
  await expect(slow.getByText(/all is there after \d+\.\d s: \d pictures, \d+ kB\.$/)).toBeVisible();
  await expect(slow.getByText('The words, no picture yet.').first()).toBeVisible();
  await expect(slow.getByRole('img', { name: 'Pictures that had come, second by second' })).toBeVisible();
  const at = (title: string) =>
    slow.frameLocator(`iframe[title="${title} at 390 px"]`).locator('img').first();
  const isShown = (one: HTMLElement | SVGElement) => getComputedStyle(one).visibility === 'visible';
  expect(await at('As it comes').evaluate(isShown)).toBe(true);
  await expect(slow.locator('iframe[title="After 1 s at 390 px"]')).toBeVisible();
  expect(await at('After 1 s').evaluate(isShown)).toBe(false);
  await expectAccessible(page);
  await slow.getByRole('button', { name: 'Load it again' }).press('Enter');
  await expect(slow.getByText('It comes...')).toBeVisible();
  await expect(slow.getByText(/all is there after/)).toBeVisible();
});
