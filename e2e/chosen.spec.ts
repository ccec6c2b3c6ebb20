import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  blocksOf,
  dropFiles,
  expectAccessible,
  figures,
  label,
  row,
  saved,
  sheet,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

/** Pieces that are chosen together on the sheet, though they do not stand together. */

async function withThree(page: Page, title: string): Promise<void> {
  await signIn(page, 'Mara');
  await beginPage(page, title);
  const files = await Promise.all(['one', 'two', 'three'].map((name) => smallPicture(`${name} ${title}`)));
  await dropFiles(page, tray(page), files);
  for (const [at, name] of ['one', 'two', 'three'].entries()) {
    const option = tray(page).getByRole('button', { name: new RegExp(`^${name}-`) });
    await expect(option).toBeVisible();
    await sheet(page).press('Control+End');
    await page.keyboard.type(`Line ${at + 1}.`);
    await option.press('Enter');
    await expect(figures(page)).toHaveCount(at + 1);
  }
  await saved(page);
}

test('a press with Ctrl chooses pieces wherever they stand, and they become a gallery where the first of them stood', async ({
  page,
}) => {
  await withThree(page, 'Chosen apart');
  await figures(page).nth(0).click();
  await figures(page)
    .nth(2)
    .click({ modifiers: ['Control'] });
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toBeVisible();
  await expect(row(page, 'Pieces').getByRole('listitem')).toHaveCount(2);
  await expectAccessible(page);
  await row(page, 'Make').getByRole('button', { name: 'a gallery' }).click();
  await expect(sheet(page).locator('.gallery figure')).toHaveCount(2);
  await expect(row(page, 'Gallery')).toBeVisible();
  await page.getByRole('button', { name: 'Undo making a gallery' }).click();
  await expect(sheet(page).locator('.gallery')).toHaveCount(0);
  await expect(figures(page)).toHaveCount(3);
});

test('by keyboard alone: pieces are chosen, cut together, and stand on another page with their settings', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await withThree(page, 'Chosen by key');
  // From one piece to the next as from line to line; B lets one break out of the column.
  await sheet(page).press('Control+Home');
  const toPiece = async (number: number) => {
    for (let presses = 0; presses < 20; presses += 1) {
      const at = await figures(page).evaluateAll((all) =>
        all.findIndex((one) => one.classList.contains('is-selected')),
      );
      if (at === number) return;
      await page.keyboard.press('ArrowDown');
    }
    throw new Error(`The arrows do not reach piece ${number}.`);
  };
  await toPiece(0);
  await page.keyboard.press('Control+Enter');
  await toPiece(2);
  await page.keyboard.press('Control+Enter');
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toBeVisible();
  await page.keyboard.press('Control+x');
  await expect(figures(page)).toHaveCount(1);
  await saved(page);
  await beginPage(page, 'Chosen and moved');
  await sheet(page).focus();
  await page.keyboard.press('Control+v');
  await expect(figures(page)).toHaveCount(2);
  await saved(page);
  await page.reload();
  await expect(figures(page)).toHaveCount(2);
});

test('by keyboard alone: several of the tray are carried to the sheet, and several of the sheet to another place', async ({
  page,
}) => {
  await withThree(page, 'Carried together');
  await tray(page).getByRole('button', { name: /^one-/ }).focus();
  await page.keyboard.press('Enter');
  await expect(figures(page)).toHaveCount(4);
  await page.keyboard.press('Control+z');
  await expect(figures(page)).toHaveCount(3);

  const option = (name: string) => tray(page).getByRole('button', { name: new RegExp(`^${name}-`) });
  // The caret in the text, for a piece that is selected on the sheet would be the first of the choice.
  await sheet(page).press('Control+End');
  await expect(label(page).getByRole('heading', { name: 'Text', exact: true })).toBeVisible();
  await option('one').focus();
  await page.keyboard.press('Control+Enter');
  await option('three').focus();
  await page.keyboard.press('Control+Enter');
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toBeVisible();
  // Over the sheet to the label of both, and back: what is chosen stays so.
  await sheet(page).focus();
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toBeVisible();
  await option('three').focus();
  await page.keyboard.press('m');
  await expect(page.getByText(/Carrying 2 pieces, /)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(figures(page)).toHaveCount(5);
  await page.keyboard.press('Control+z');
  await expect(figures(page)).toHaveCount(3);

  await figures(page).nth(0).click();
  await figures(page)
    .nth(2)
    .click({ modifiers: ['Control'] });
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toBeVisible();
  const before = await blocksOf(page);
  await page.keyboard.press('m');
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await expect.poll(() => blocksOf(page)).toMatch(/^piece piece /);
  await page.keyboard.press('Control+z');
  await expect.poll(() => blocksOf(page)).toBe(before);
});

test('what is chosen is let go by Escape, and taken off the page by Delete', async ({ page }) => {
  await withThree(page, 'Chosen and let go');
  await figures(page).nth(1).click();
  await figures(page)
    .nth(2)
    .click({ modifiers: ['Control'] });
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(label(page).getByRole('heading', { name: '2 pieces' })).toHaveCount(0);
  await figures(page)
    .nth(0)
    .click({ modifiers: ['Control'] });
  await page.keyboard.press('Delete');
  await expect(figures(page)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(figures(page)).toHaveCount(3);
});
