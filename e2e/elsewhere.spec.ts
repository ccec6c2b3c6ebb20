import { expect } from '@playwright/test';
import {
  beginText,
  choose,
  dropFiles,
  expectAccessible,
  label,
  licensedPicture,
  row,
  saved,
  signIn,
} from './hands.ts';
import { test } from './test.ts';

test('one piece is copied for use elsewhere with its credit, without a page', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await signIn(page, 'Mara', '/shelf');
  await dropFiles(page, page.getByRole('listbox', { name: 'Pieces' }), [await licensedPicture('elsewhere')]);
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  const words = row(page, 'Alt text and caption');
  await words.getByRole('button', { name: 'Write alt text' }).click();
  await words.getByRole('textbox', { name: 'Alt text' }).fill('Reeds in the wind.');
  await words.getByRole('button', { name: 'Save words' }).click();
  const rights = row(page, 'Rights');
  await rights.getByRole('button', { name: 'Change rights' }).click();
  await choose(rights.getByRole('combobox', { name: 'It is' }), 'A map');
  await rights.getByRole('button', { name: 'Save rights' }).click();
  await expect(rights).toContainText('“Map: ');
  await label(page).getByRole('button', { name: 'Use elsewhere...' }).click();
  const panel = page.getByRole('dialog');
  await panel.getByRole('radio', { name: 'beside right' }).click();
  await expect(panel.getByRole('textbox', { name: 'The code of the figure' })).toHaveValue(/float:right/);
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Copy with picture and credit' }).click();
  await expect(page.getByText('is copied, with its picture.')).toBeVisible();
  const rich = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read();
    return (await item?.getType('text/html'))?.text();
  });
  expect(rich).toContain('src="data:image/');
  expect(rich).toContain('Reeds in the wind.');
  expect(rich).toContain('CC BY 4.0');
});

test('two rows saved one right after the other do not clash with each other', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf');
  await dropFiles(page, page.getByRole('listbox', { name: 'Pieces' }), [await licensedPicture('two-rows')]);
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  let goOn = () => {};
  const held = new Promise<void>((resolve) => {
    goOn = resolve;
  });
  await page.route('**/api/assets/*', async (route) => {
    if (route.request().method() === 'PATCH') await held;
    await route.fallback();
  });
  const words = row(page, 'Alt text and caption');
  await words.getByRole('button', { name: 'Write alt text' }).click();
  await words.getByRole('textbox', { name: 'Alt text' }).fill('Reeds in the rain.');
  await words.getByRole('button', { name: 'Save words' }).click();
  const rights = row(page, 'Rights');
  await rights.getByRole('button', { name: 'Change rights' }).click();
  await choose(rights.getByRole('combobox', { name: 'It is' }), 'A map');
  await rights.getByRole('button', { name: 'Save rights' }).click();
  goOn();
  await expect(rights).toContainText('“Map: ');
  await expect(words).toContainText('Reeds in the rain.');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rights).toContainText('“Picture: ');
  await expect(words).toContainText('Reeds in the rain.');
});

test('the words of a page are cut as a listing cuts them, kept, and undone', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginText(page, 'Found by its words', 'The hides are open again.');
  const words = row(page, 'Page words');
  await expect(words).toContainText('It has no summary');
  await words.getByRole('button', { name: 'Write its summary' }).click();
  await words
    .getByRole('textbox', { name: 'Summary' })
    .fill(`${'All the hides on the marsh are open. '.repeat(8)}End.`);
  await words.getByRole('textbox', { name: 'Key phrase' }).fill('bird hide');
  await expect(words.getByRole('status')).toContainText('A listing ends its summary after');
  await expect(words.getByRole('status')).toContainText('“bird hide” is not in the title');
  await expectAccessible(page);
  await words.getByRole('button', { name: 'Save the words of the page' }).click();
  await saved(page);
  await page.reload();
  await expect(words).toContainText('All the hides on the marsh are open.');
});
