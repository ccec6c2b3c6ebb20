import { expect, type Page } from '@playwright/test';
import { beginText, expectAccessible, htmlOf, label, row, saved, sheet, signIn, tabTo } from './hands.ts';
import { test } from './test.ts';

const part = (page: Page) => sheet(page).locator('.kept-part');

async function keepAs(page: Page, name: string): Promise<void> {
  await label(page).getByRole('button', { name: 'kept part', exact: true }).click();
  await row(page, 'Kept part').getByLabel('Name of the part').fill(name);
  await row(page, 'Kept part').getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(row(page, 'Kept part').getByText(`${name}, on this page alone.`)).toBeVisible();
  await saved(page);
}

test('a part is kept, stands on three pages, is changed once with the pages shown first, and unlinked', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  const first = await beginText(page, 'Part one', 'Come along on Sunday.');
  await keepAs(page, 'Sunday call');
  await expectAccessible(page);

  const others: string[] = [];
  for (const title of ['Part two', 'Part three']) {
    others.push(await beginText(page, title, 'Something else.'));
    await row(page, 'Kept parts').getByRole('button', { name: 'Add Sunday call' }).click();
    await expect(part(page)).toHaveText('Come along on Sunday.');
    await saved(page);
  }
  // The third page goes its own way for a while.
  await part(page).getByText('Come along').click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Not in rain.');
  await expect(row(page, 'Kept part').getByText('It is changed here.')).toBeVisible();
  await saved(page);

  await page.goto(first);
  await part(page).getByText('Come along').click({ clickCount: 3 });
  await page.keyboard.type('Come along on Saturday.');
  await expect(
    row(page, 'Kept part').getByText(/Sunday call, on 3 pages\. It is changed here\./),
  ).toBeVisible();
  await row(page, 'Kept part').getByRole('button', { name: 'Change it everywhere…' }).click();
  const panel = page.getByRole('dialog', { name: 'Change “Sunday call” everywhere' });
  await expect(panel.getByRole('listitem')).toHaveText(['Part two', 'Part three']);
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Change it on one page' }).click();
  await expect(panel).toHaveCount(0);
  await expect(row(page, 'Kept part').getByText('Sunday call, on 3 pages.', { exact: true })).toBeVisible();

  const [two = '', three = ''] = others;
  await page.goto(two);
  await expect(part(page)).toHaveText('Come along on Saturday.');
  expect(await htmlOf(page)).toMatch(
    /<div class="kept-part" data-part="[\w-]+">\n<p>Come along on Saturday\.<\/p>\n<\/div>/,
  );
  await page.goto(three);
  await expect(part(page)).toHaveText('Come along on Sunday. Not in rain.');
  await part(page).getByText('Come along').click();
  await row(page, 'Kept part').getByRole('button', { name: 'As it is kept' }).click();
  await expect(part(page)).toHaveText('Come along on Saturday.');
  await row(page, 'Kept part')
    .getByRole('button', { name: /^Unlink it/ })
    .click();
  await expect(part(page)).toHaveCount(0);
  await expect(sheet(page).getByText('Come along on Saturday.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo unlinking a part' }).click();
  await expect(part(page)).toHaveText('Come along on Saturday.');
});

test('what was written a moment ago stands on its page once when it changes everywhere', async ({ page }) => {
  await signIn(page, 'Mara');
  const first = await beginText(page, 'Slow one', 'Open from nine.');
  await keepAs(page, 'Slow hours');
  await beginText(page, 'Slow two', 'Something else.');
  await row(page, 'Kept parts').getByRole('button', { name: 'Add Slow hours' }).click();
  await expect(part(page)).toHaveText('Open from nine.');
  await saved(page);
  await page.goto(first);
  await page.route('**/api/pages/*', async (route) => {
    if (route.request().method() === 'PUT') await new Promise((resolve) => setTimeout(resolve, 4000));
    await route.continue();
  });
  await part(page).getByText('Open from').click({ clickCount: 3 });
  await page.keyboard.type('Open from ten.');
  await row(page, 'Kept part').getByRole('button', { name: 'Change it everywhere…' }).click();
  await page.getByRole('button', { name: 'Change it on one page' }).click();
  await expect(row(page, 'Kept part').getByText('Slow hours, on 2 pages.', { exact: true })).toBeVisible();
  await saved(page);
  await expect(part(page)).toHaveText('Open from ten.');
});

test('a change everywhere reaches a page that somebody has open, and is taken back on all of them', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara');
  await beginText(page, 'Open one', 'Low water at six.');
  await keepAs(page, 'Water');
  const second = await context.newPage();
  await second.goto('/');
  await beginText(second, 'Open two', 'Words.');
  await row(second, 'Kept parts').getByRole('button', { name: 'Add Water' }).click();
  await expect(part(second)).toHaveText('Low water at six.');
  await saved(second);

  await part(page).getByText('Low water').click({ clickCount: 3 });
  await page.keyboard.type('Low water at seven.');
  await row(page, 'Kept part').getByRole('button', { name: 'Change it everywhere…' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Change it on one page' }).click();
  await expect(part(second)).toHaveText('Low water at seven.', { timeout: 20_000 });
  await page.getByRole('button', { name: 'Undo changing “Water” everywhere' }).click();
  await expect(part(second)).toHaveText('Low water at six.', { timeout: 20_000 });
});

test('by keyboard alone: a part is set apart, kept, added and changed everywhere', async ({ page }) => {
  await signIn(page, 'Mara');
  const first = await beginText(page, 'Key one', 'Bring boots.');
  const press = async (name: string | RegExp) => {
    await tabTo(label(page).getByRole('button', { name, exact: typeof name === 'string' }));
    await page.keyboard.press('Enter');
  };
  // Chips of one row are one stop of Tab; arrows lead from one to the next.
  const chips = row(page, 'Set apart').getByRole('button');
  await tabTo(chips.first());
  const chip = row(page, 'Set apart').getByRole('button', { name: 'kept part', exact: true });
  for (
    let presses = 0;
    presses < 20 && !(await chip.evaluate((one) => one === document.activeElement));
    presses += 1
  )
    await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await tabTo(row(page, 'Kept part').getByLabel('Name of the part'));
  await page.keyboard.type('Boots');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Kept part').getByText('Boots, on this page alone.')).toBeVisible();
  await saved(page);
  await beginText(page, 'Key two', 'Words.');
  await press('Add Boots');
  await expect(part(page)).toHaveText('Bring boots.');
  await sheet(page).focus();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('End');
  await page.keyboard.type(' And socks.');
  await press('Change it everywhere…');
  await tabTo(page.getByRole('dialog').getByRole('button', { name: 'Change it on one page' }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.goto(first);
  await expect(part(page)).toHaveText('Bring boots. And socks.');
});
