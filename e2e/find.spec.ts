import { expect, type Page } from '@playwright/test';
import { beginPage, expectAccessible, row, saved, sheet, signIn, tray } from './hands.ts';
import { test } from './test.ts';

const field = (page: Page) => page.getByRole('searchbox', { name: 'Find on the page' });
const found = (page: Page) => page.getByRole('search', { name: 'Find on the page' }).getByRole('status');
const chosen = (page: Page) => page.evaluate(() => String(window.getSelection()));

test('words are found in the text and in what is said of pieces, and one goes on where they stand', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages/demo-page-1');
  await sheet(page).getByText('You hear them').click();
  await page.keyboard.press('Control+f');
  await expect(field(page)).toBeFocused();
  await page.keyboard.type('REED');
  await expect(found(page)).toHaveText(/^1 of \d+/);
  await expectAccessible(page);
  const all = Number(/of (\d+)/.exec((await found(page).textContent()) ?? '')?.[1]);
  expect(all).toBeGreaterThan(1);
  const where: string[] = [];
  for (let at = 0; at < all; at += 1) {
    where.push((await found(page).textContent()) ?? '');
    await page.keyboard.press('Enter');
  }
  expect(where.some((one) => one.endsWith('in the alt text of a piece'))).toBe(true);
  await expect(found(page)).toHaveText(where[0] ?? '');
  await page.keyboard.press('Shift+Enter');
  await expect(found(page)).toHaveText(where[all - 1] ?? '');
  const inText = where.findIndex((one) => /^\d+ of \d+$/.test(one));
  while ((await found(page).textContent()) !== where[inText]) await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(field(page)).toHaveCount(0);
  expect((await chosen(page)).toLowerCase()).toBe('reed');
  await page.keyboard.press('Control+f');
  await page.keyboard.type('no such words');
  await expect(found(page)).toHaveText('Not on this page.');
  await page.keyboard.press('Escape');
});

test('a link in the text is changed, and removed', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Links that come and go');
  await sheet(page).click();
  await page.keyboard.type('the tide table');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+k');
  const words = row(page, 'Link').getByRole('textbox', { name: 'These words go to' });
  await words.fill('/tides');
  await page.keyboard.press('Enter');
  const link = sheet(page).getByRole('link', { name: 'the tide table' });
  await expect(link).toHaveAttribute('href', '/tides');
  await words.fill('/tides/march');
  await row(page, 'Link').getByRole('button', { name: 'Change' }).click();
  await expect(link).toHaveAttribute('href', '/tides/march');
  await row(page, 'Link').getByRole('button', { name: 'Remove the link' }).click();
  await expect(link).toHaveCount(0);
  await expect(sheet(page)).toContainText('the tide table');
  await saved(page);
  await expect(tray(page)).toBeVisible();
});
