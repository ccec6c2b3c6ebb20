import { expect } from '@playwright/test';
import { beginPage, expectAccessible, htmlOf, label, row, saved, sheet, signIn } from './hands.ts';
import { test } from './test.ts';

/** Tables: from a sheet of figures to a page that a phone scrolls, and by keyboard alone. */

const WEEK =
  'Day\tHigh water\tMetres\tLow water\tSunrise\tFerry steps\nMonday\t06:12\t4.1\t12:30\t06:44\tdry\nTuesday\t07:01\t4.2\t13:15\t06:42\twet';

test('figures from a sheet become a table, which is worked on by its label, goes out, and scrolls in itself on a phone', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Tides of a week');
  await sheet(page).click();
  await page.evaluate((text) => navigator.clipboard.writeText(text), WEEK);
  await page.keyboard.press('Control+v');
  const table = sheet(page).getByRole('table');
  await expect(table.getByRole('columnheader')).toHaveCount(6);
  await table.getByText('Tuesday').click();
  await expect(page.getByRole('heading', { name: 'A table' })).toBeVisible();
  await row(page, 'Table').getByRole('textbox', { name: 'Caption' }).fill('Water & light at the sluice');
  await row(page, 'Table').getByRole('button', { name: 'Keep' }).click();
  await expect(sheet(page).getByRole('table', { name: 'Water & light at the sluice' })).toBeVisible();
  await table.getByText('Tuesday').click();
  await row(page, 'Headings').getByRole('button', { name: 'first column' }).click();
  await row(page, 'This row').getByRole('button', { name: 'Add below' }).click();
  await row(page, 'This row').getByRole('button', { name: 'Move up' }).click();
  await table.getByRole('rowheader').last().click();
  await page.keyboard.type('Wednesday');
  await expect(table.getByRole('row').nth(1)).toHaveText(/^Tuesday/);
  await table.getByText('dry').click({ position: { x: 4, y: 6 } });
  await page.keyboard.down('Shift');
  await table.getByText('wet').click({ position: { x: 4, y: 6 } });
  await page.keyboard.up('Shift');
  await expectAccessible(page);
  for (const step of ['typing', 'moving a row'])
    await page.getByRole('button', { name: `Undo ${step}` }).click();
  await expect(table.getByRole('row').nth(1)).toHaveText(/^Monday/);
  await saved(page);

  const html = await htmlOf(page);
  expect(html).toContain(
    '<div class="table-frame" role="region" aria-label="Water &amp; light at the sluice" tabindex="0">',
  );
  expect(html).toContain('<th scope="col">High water</th>');
  expect(html).toContain('<th scope="row">Monday</th>');

  await page.getByRole('button', { name: 'Proof' }).click();
  await expect(page.getByRole('heading', { name: /sending/ })).toBeVisible();
  const phone = page.frameLocator('iframe').first();
  const frame = phone.getByRole('region', { name: 'Water & light at the sluice' });
  await expect(frame).toBeVisible();
  const widths = await frame.evaluate((element) => [
    element.scrollWidth > element.clientWidth,
    document.documentElement.scrollWidth <= document.documentElement.clientWidth,
    getComputedStyle(element).overflowX,
  ]);
  expect(widths).toEqual([true, true, 'auto']);
});

test('a table by keyboard alone', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Hours of the hides');
  await sheet(page).focus();
  await page.keyboard.type('When they are open:');
  await label(page)
    .getByRole('group', { name: 'What is added below' })
    .getByRole('button', { name: 'table', exact: true })
    .press('Enter');
  const table = sheet(page).getByRole('table');
  await expect(table).toBeVisible();
  for (const words of ['Hide', 'From', 'To', 'North', '06:00', '18:00', 'South', '07:00']) {
    await page.keyboard.type(words);
    await page.keyboard.press('Tab');
  }
  await page.keyboard.type('17:00');
  // Behind the last cell Tab adds a row.
  await page.keyboard.press('Tab');
  await page.keyboard.type('Loft');
  await expect(table.getByRole('row')).toHaveCount(4);
  await page.keyboard.press('Alt+ArrowUp');
  await expect(table.getByRole('row').nth(2)).toHaveText(/^Loft/);
  await page.keyboard.press('Control+z');
  await expect(table.getByRole('row').nth(3)).toHaveText(/^Loft/);
  await saved(page);
  expect(await htmlOf(page)).toContain('<tr><td>South</td><td>07:00</td><td>17:00</td></tr>');
});
