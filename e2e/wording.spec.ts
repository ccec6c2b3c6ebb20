import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  dropFiles,
  expectAccessible,
  figures,
  saved,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

const card = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const heard = (page: Page) => page.getByRole('textbox', { name: 'Somebody who cannot see it hears' });

/** A page with pictures that nobody has worded. */
async function unworded(page: Page, title: string, ...names: readonly string[]): Promise<string> {
  await beginPage(page, title);
  for (const name of names) {
    await dropFiles(page, tray(page), [await smallPicture(name)]);
    await tray(page)
      .getByRole('button', { name: new RegExp(`^${name}`) })
      .press('Enter');
  }
  await expect(figures(page)).toHaveCount(names.length);
  await saved(page);
  return new URL(page.url()).pathname.split('/').at(-1) ?? '';
}

test('a wording round is gone through by keyboard alone', async ({ page }) => {
  await signIn(page, 'Mara');
  const id = await unworded(page, 'To be worded', 'first-reed', 'second-reed', 'third-reed');
  await page.goto(`/shelf/words?place=page&page=${id}`);
  await expect(heard(page)).toBeFocused();
  await expect(page.getByText('3 to go')).toBeVisible();
  await page.keyboard.type('Picture of reeds in the wind.');
  await expect(page.getByText('which screen readers already say')).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Alt+.');
  await expect(heard(page)).toHaveValue('Reeds in the wind.');
  await expect(page.getByText('Graphic: Reeds in the wind.')).toBeVisible();
  await page.keyboard.press('Enter');

  // The second decorates, the third says too much for a sentence.
  await expect(page.getByText('2 to go')).toBeVisible();
  await expect(heard(page)).toBeFocused();
  await page.keyboard.press('Alt+2');
  await expect(heard(page)).toHaveCount(0);
  await page.keyboard.press('Alt+ArrowRight');
  await expect(heard(page)).toBeFocused();
  await page.keyboard.type('Reeds by month.');
  await page.keyboard.press('Alt+3');
  await page.keyboard.press('Tab');
  const long = page.getByRole('textbox', { name: 'The long of it' });
  if (!(await long.evaluate((field) => field === document.activeElement))) await long.focus();
  await page.keyboard.type('Twelve in January, four hundred in June.');
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText('That was the last one.')).toBeVisible();
  await expect(page.getByText('0 to go')).toBeVisible();
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(heard(page)).toHaveValue('Reeds in the wind.');

  await page.goto(`/pages/${id}`);
  await page.getByRole('button', { name: /^Worded/ }).hover();
  await expect(page.getByRole('button', { name: /^Worded/ })).toHaveAccessibleName(/3 of 3/);
});

test('a contributor proposes words, and an editor takes them', async ({ page }) => {
  await signIn(page, 'Mara');
  const id = await unworded(page, 'Proposed to', 'proposed-reed');
  await signIn(page, 'Joss');
  await page.goto('/shelf/words?place=shelf');
  const round = page.getByRole('list', { name: 'The round' });
  await round.getByRole('button', { name: /proposed-reed/ }).click();
  await heard(page).fill('Reeds that Joss saw.');
  await page.getByRole('button', { name: 'Propose it, next' }).click();

  await signIn(page, 'Mara');
  await page.goto(`/shelf/words?place=page&page=${id}`);
  const words = card(page, 'proposed-reed');
  await expect(words).toContainText('Joss Imrie proposes');
  await expectAccessible(page);
  await words.getByRole('button', { name: 'Take it' }).click();
  await expect(heard(page)).toHaveValue('Reeds that Joss saw.');
  await words.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByText('0 to go')).toBeVisible();
});

test('what was worded counts at once, however long its saving takes', async ({ page }) => {
  await signIn(page, 'Mara');
  const id = await unworded(page, 'Saved slowly', 'slow-one', 'slow-two');
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  await page.route('**/api/assets/*', async (route) => {
    if (route.request().method() === 'PATCH') await held;
    await route.continue();
  });
  await page.goto(`/shelf/words?place=page&page=${id}`);
  await expect(page.getByText('2 to go')).toBeVisible();
  await page.keyboard.type('Reeds in the wind.');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 to go')).toBeVisible();
  await page.keyboard.type('Reeds in the rain.');
  await page.keyboard.press('Enter');
  await expect(page.getByText('That was the last one.', { exact: true })).toBeVisible();
  await expect(page.getByText('0 to go')).toBeVisible();
  release();
  await page.unrouteAll({ behavior: 'wait' });
  await page.goto(`/pages/${id}`);
  await expect(page.getByRole('button', { name: /^Worded/ })).toHaveAccessibleName(/2 of 2/);
});
