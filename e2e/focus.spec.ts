import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  dropFiles,
  label,
  placed,
  row,
  saved,
  signIn,
  smallPicture,
  tabTo,
  tray,
} from './hands.ts';
import { test } from './test.ts';

/** Where work goes on after each step: the focus is on something, and not at the top of the window. */

const hasFocus = (page: Page) =>
  page.evaluate(() => document.activeElement !== null && document.activeElement !== document.body);

test('who comes in by the door begins on the screen, which is told', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveTitle('Sign in - Placard');
  await expect(page.getByRole('textbox', { name: 'E-mail address' })).toBeFocused();
  await page.keyboard.type('mara@saltmere.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('saltmere-2026');
  await page.keyboard.press('Enter');
  await expect(page).toHaveTitle(/ - Desk - Placard$/);
  await expect(page.getByRole('main')).toBeFocused();
  await expect(page.getByText(/ - Desk$/)).toBeAttached();
});

test('each form of a label gives the focus back to where it was opened', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Focus');
  await expect.poll(() => hasFocus(page)).toBe(true);
  await dropFiles(page, tray(page), [await smallPicture('focus-post.png')]);
  await tray(page)
    .getByRole('button', { name: /focus-post/ })
    .first()
    .dblclick();
  await expect(placed(page, 'focus-post')).toHaveCount(1);
  const words = row(page, 'Alt text and caption');
  await words.getByRole('button', { name: 'Write alt text' }).press('Enter');
  await expect(words.getByRole('textbox', { name: 'Alt text' })).toBeFocused();
  await page.keyboard.type('A post in the water.');
  await words.getByRole('button', { name: 'Save words' }).press('Enter');
  await expect(words.getByRole('button', { name: 'Change alt text and caption' })).toBeFocused();
  const rights = row(page, 'Rights');
  await rights.getByRole('button', { name: 'Set licence' }).press('Enter');
  await expect(rights.getByRole('combobox', { name: 'Licence' })).toBeFocused();
  await rights.getByRole('button', { name: 'Save rights' }).press('Enter');
  await expect(rights.getByRole('button', { name: 'Set licence' })).toBeFocused();
  for (const field of [/^Width/, /^Top/]) {
    const number = label(page).getByRole('textbox', { name: field }).first();
    await number.fill('40');
    await page.keyboard.press('Enter');
    await expect(number).toBeFocused();
  }
  await saved(page);
});

test('what opens over a screen gives the focus back, however it was opened', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-3');
  const ways = page.getByRole('button', { name: 'Take away...' });
  await ways.press('Enter');
  await page.getByRole('menuitem', { name: 'The HTML, to paste elsewhere' }).press('Enter');
  await expect(page.getByRole('dialog', { name: /HTML of this page/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(ways).toBeFocused();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('keys');
  await page.getByRole('option', { name: 'Show the keys' }).click();
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  expect(await hasFocus(page)).toBe(true);
});

test('the stations lead by key to the first thing that is missing', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-1');
  const stations = page.getByRole('navigation', { name: 'Stations' });
  const open = stations.getByRole('button', { name: /^(Cleared|Worded)/, disabled: false }).first();
  await tabTo(open);
  await page.keyboard.press('Enter');
  await expect(label(page).getByRole('article').first()).toBeVisible();
  expect(await hasFocus(page)).toBe(true);
});

test('a row that is opened while another is still being saved stays open', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf');
  await page.getByRole('option').first().click();
  // The line is slow just now.
  await page.route('**/api/assets/*', async (route) => {
    if (route.request().method() === 'PATCH') await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  const [words, source] = [row(page, 'Alt text and caption'), row(page, 'Source')];
  await words
    .getByRole('button', { name: /alt text/ })
    .first()
    .click();
  await words.getByRole('textbox', { name: 'Caption' }).fill('Said on a slow line.');
  const saved = page.waitForResponse((answer) => answer.request().method() === 'PATCH');
  await words.getByRole('button', { name: 'Save words' }).click();
  await source.getByRole('button', { name: 'Say who may see it' }).click();
  await saved;
  await expect(words).toContainText('Said on a slow line.');
  await expect(row(page, 'Access').getByRole('combobox', { name: 'Seen by' })).toBeVisible();
});
