import { expect, type Page } from '@playwright/test';
import {
  beginText,
  dropFiles,
  expectAccessible,
  saved,
  sheet,
  signIn,
  smallPicture,
  tabTo,
  tray,
} from './hands.ts';
import { test } from './test.ts';

const pane = (page: Page) => page.getByRole('complementary', { name: 'Versions' });
const then = (page: Page) => page.getByRole('textbox', { name: 'Text of the version' });
const differences = (page: Page) => pane(page).getByRole('region', { name: 'What differs' });

async function name(page: Page, called: string): Promise<void> {
  await pane(page).getByLabel('Name what stands now').fill(called);
  await pane(page).getByRole('button', { name: 'Keep' }).click();
  await expect(pane(page).getByRole('button', { name: called })).toBeVisible();
}

test('a version is named, compared side by side and in words, and brought back in part and whole', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginText(page, 'The second walk', 'Boots are enough.', 'The gate is closed.', 'Bring water.');
  await page.getByRole('button', { name: 'Versions' }).click();
  await expect(pane(page).getByText('None is kept yet.')).toBeVisible();
  await name(page, 'Before the second walk');

  await sheet(page).getByText('Boots').click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Waders are better.');
  await sheet(page).getByText('The gate').click({ clickCount: 3 });
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.getByRole('textbox', { name: 'Title of the page' }).fill('The third walk');

  await pane(page).getByRole('button', { name: 'Before the second walk' }).click();
  await expect(then(page).locator('p').first()).toHaveText('Boots are enough.');
  await expect(page.getByRole('textbox', { name: 'Title of the version' })).toHaveValue('The second walk');
  await expect(differences(page).getByRole('status')).toHaveText('3 things differ.');
  await expect(differences(page).getByRole('listitem')).toHaveText([
    /^The titleBring back\s*changed\s*The secondthird walk$/,
    /^Text “Boots are enough\. Waders are better\.”Bring back\s*reworded/,
    /^Text “The gate is closed\.”Bring back\s*taken out$/,
  ]);
  await expect(differences(page).locator('ins')).toHaveText(['third', ' Waders are better.']);
  await expectAccessible(page);

  // What differs is marked on both sheets, and what is looked at is shown on both.
  await expect(then(page).locator('[data-compared="removed"]')).toHaveText('The gate is closed.');
  await differences(page)
    .getByRole('button', { name: /^Text “Boots/ })
    .click();
  await expect(sheet(page).locator('[data-here]')).toHaveText('Boots are enough. Waders are better.');
  await expect(then(page).locator('[data-here]')).toHaveText('Boots are enough.');

  await differences(page).getByRole('button', { name: 'Bring back: Text “The gate is closed.”' }).click();
  await expect(sheet(page).locator('p')).toHaveText([
    'Boots are enough. Waders are better.',
    'The gate is closed.',
    'Bring water.',
  ]);
  await page.getByRole('button', { name: /^Undo bringing back a part/ }).click();
  await expect(sheet(page).getByText('The gate')).toHaveCount(0);
  await differences(page).getByRole('button', { name: 'Bring back the whole page' }).click();
  await expect(differences(page).getByRole('status')).toHaveText('Nothing differs: the page is as it was.');
  await expect(page.getByRole('textbox', { name: 'Title of the page' })).toHaveValue('The second walk');
  await saved(page);

  // The address leads to the very comparison, and Back to the sheet leaves no mark.
  await page.reload();
  await expect(then(page).locator('p').first()).toHaveText('Boots are enough.');
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  await expect(sheet(page).locator('p').first()).toHaveText('Boots are enough.');
  await expect(sheet(page).locator('[data-compared], [data-here]')).toHaveCount(0);
});

test('a version is kept by itself when the page goes out, and shows the pieces that have left the page since', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginText(page, 'Gone out once', 'Words.');
  await dropFiles(page, tray(page), [await smallPicture('gate at low water')]);
  await tray(page).getByRole('button', { name: /gate/ }).first().dblclick();
  await expect(sheet(page).locator('figure img')).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'Versions' }).click();
  await name(page, 'With the gate');
  await sheet(page).locator('figure').click();
  await page.keyboard.press('Delete');
  await expect(sheet(page).locator('figure')).toHaveCount(0);
  await saved(page);
  await page.reload();
  await pane(page).getByRole('button', { name: 'With the gate' }).click();
  await expect(then(page).locator('figure img')).toBeVisible();
  await differences(page)
    .getByRole('button', { name: /^Bring back: gate/i })
    .click();
  await expect(sheet(page).locator('figure img')).toBeVisible();
});

test('by keyboard alone: found by its name in Find or do, named, looked at, brought back', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginText(page, 'By key', 'Boots are enough.');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Versions of this');
  await page.keyboard.press('Enter');
  const field = pane(page).getByLabel('Name what stands now');
  await tabTo(field);
  await page.keyboard.type('First');
  await page.keyboard.press('Enter');
  const first = pane(page).getByRole('button', { name: 'First' });
  await expect(first).toBeVisible();
  await sheet(page).focus();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' And dry.');
  await tabTo(first);
  await page.keyboard.press('Enter');
  const back = differences(page).getByRole('button', { name: /^Bring back: Text/ });
  await tabTo(back);
  await page.keyboard.press('Enter');
  await expect(sheet(page).locator('p').first()).toHaveText('Boots are enough.');
  await page.keyboard.press('Control+z');
  await expect(sheet(page).locator('p').first()).toHaveText('Boots are enough. And dry.');
});
