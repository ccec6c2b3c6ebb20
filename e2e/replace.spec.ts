import { expect } from '@playwright/test';
import {
  beginPage,
  dropFiles,
  expectAccessible,
  label,
  placed,
  row,
  saved,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

test('a piece is replaced by any other on every page, with what goes over asked first, and all of it taken back', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Replaced everywhere');
  await dropFiles(page, tray(page), [
    await smallPicture('withy-bed.png'),
    await smallPicture('osier-holt.png'),
  ]);
  await tray(page)
    .getByRole('button', { name: /withy-bed/ })
    .first()
    .click();
  await label(page).getByRole('button', { name: 'Write alt text' }).first().click();
  await page.getByRole('textbox', { name: /Alt text/ }).fill('Withies stand in rows.');
  await page.getByRole('button', { name: 'Save words' }).click();
  await tray(page)
    .getByRole('button', { name: /withy-bed/ })
    .first()
    .dblclick();
  await expect(placed(page, 'withy-bed')).toHaveCount(1);
  await row(page, 'Alt text and caption')
    .getByRole('button', { name: 'Change alt text and caption' })
    .click();
  await page.getByRole('textbox', { name: 'Caption' }).fill('Only said here.');
  await page.getByRole('checkbox', { name: 'For this page only' }).check();
  await page.getByRole('button', { name: 'Save words' }).click();
  await expect(placed(page, 'withy-bed')).toContainText('Only said here.');
  await saved(page);
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox').last().fill('replace this');
  await page.getByRole('option', { name: 'Replace this piece on every page...' }).click();
  const panel = page.getByRole('dialog', { name: /^Replace .* on every page/ });
  await panel.getByRole('textbox', { name: 'The piece that takes its place' }).fill('osier');
  await panel.getByRole('button', { name: /osier-holt/ }).click();
  await expect(panel).toContainText('has none of these yet');
  await expect(panel).toContainText('Read them again: Replaced everywhere (alt text and caption).');
  await expectAccessible(page);
  await panel.getByRole('checkbox', { name: 'its alt text' }).click();
  await panel.getByRole('button', { name: 'Replace it on 1 page' }).click();
  await expect(panel).toBeHidden();
  await expect(placed(page, 'osier-holt')).toHaveCount(1);
  await expect(placed(page, 'withy-bed')).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo putting it in/ }).click();
  await expect(placed(page, 'withy-bed')).toHaveCount(1);
  await expect(placed(page, 'osier-holt')).toHaveCount(0);
});
