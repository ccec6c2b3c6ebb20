import { expect } from '@playwright/test';
import {
  beginPage,
  choose,
  dropFiles,
  expectAccessible,
  htmlOf,
  label,
  row,
  saved,
  sheet,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

/** What is done with the words of a whole page: replaced, led to, listed, written alone. */

test('words are replaced one by one and all at once, and come back by one undo', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Reeds and rushes');
  await sheet(page).click();
  await page.keyboard.type('Reed is cut in February. The reed dries, and reed is stacked.');
  await page.keyboard.press('Control+f');
  await page.keyboard.type('reed');
  const bar = page.getByRole('search', { name: 'Find on the page' });
  await expect(bar.getByRole('status')).toHaveText('1 of 3');
  await bar.getByRole('textbox', { name: 'Put in its place' }).fill('sedge');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toContainText('Sedge is cut in February. The reed dries');
  await expect(bar.getByRole('status')).toHaveText('1 of 2');
  await expectAccessible(page);
  await bar.getByRole('button', { name: /^Replace all/ }).click();
  await expect(sheet(page)).toContainText('The sedge dries, and sedge is stacked.');
  await expect(bar.getByRole('status')).toHaveText('Not on this page.');
  await page.getByRole('button', { name: 'Undo replacing words in 2 places' }).click();
  await expect(sheet(page)).toContainText('The reed dries, and reed is stacked.');
  await saved(page);
});

test('a heading is led to and listed, and a link to one that went is found', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Places on a page');
  await sheet(page).click();
  for (const line of ['See the boots.', '## What to bring', 'A flask.', '## How to come', 'By bus.']) {
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
  }
  await sheet(page).getByText('See the boots.').click();
  await page.keyboard.press('Home');
  await page.keyboard.press('Shift+End');
  await choose(row(page, 'Link').getByRole('combobox', { name: 'A heading of this page' }), 'What to bring');
  await expect(sheet(page).getByRole('link', { name: 'See the boots.' })).toHaveAttribute(
    'href',
    '#what-to-bring',
  );
  await sheet(page).getByText('See the boots.').click();
  await label(page).getByRole('button', { name: 'contents', exact: true }).click();
  const list = sheet(page).getByRole('navigation', { name: 'On this page' });
  await expect(list).toContainText('What to bring');
  await expect(list).toContainText('How to come');
  await saved(page);
  await expect.poll(() => htmlOf(page)).toContain('<li><a href="#how-to-come">How to come</a></li>');

  // Whatever it says, the heading is found by the anchor that it had when it was linked.
  await sheet(page).getByRole('heading', { name: 'What to bring' }).click();
  await page.keyboard.press('Home');
  await page.keyboard.press('Shift+End');
  await page.keyboard.type('Boots and a flask');
  await expect(list).toContainText('Boots and a flask');
  await expect.poll(() => htmlOf(page)).toContain('<h2 id="what-to-bring">Boots and a flask</h2>');
  const anchor = row(page, 'Anchor').getByRole('textbox', { name: 'Links find it by #' });
  await anchor.fill('Boots!');
  await row(page, 'Anchor').getByRole('button', { name: 'Keep' }).click();
  await expect(row(page, 'Anchor').getByRole('alert')).toContainText('small letters');
  await anchor.fill('kit');
  await row(page, 'Anchor').getByRole('button', { name: 'Keep' }).click();
  await expect.poll(() => htmlOf(page)).toContain('<h2 id="kit">');
  await page.getByRole('button', { name: 'Proof' }).click();
  await expect(page.getByText('A link leads to #what-to-bring, which is not on this page.')).toBeVisible();
});

test('a link leads to another page of the site wherever that stands, and says that it opens a new window', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Linked to');
  const address = row(page, 'For').getByRole('textbox', { name: 'Address on the site' });
  await address.fill('visit/linked');
  await row(page, 'For').getByRole('button', { name: 'Keep' }).click();
  await expect(row(page, 'For').getByRole('alert')).toContainText('An address begins with');
  await saved(page);

  await beginPage(page, 'Linked from');
  await sheet(page).click();
  await page.keyboard.type('See the tides.');
  await page.keyboard.press('Shift+Home');
  const link = row(page, 'Link');
  await choose(link.getByRole('combobox', { name: 'Another page of this site' }), 'Linked to');
  await expect(link).toContainText('Its address is not known yet');
  await link.getByRole('checkbox', { name: 'opens in a new window' }).check();
  await saved(page);
  await expect.poll(() => htmlOf(page)).toContain('<p>See the tides.</p>');
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await expect(page.getByText('A link leads to “Linked to”, whose address is not known yet.')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Back to the sheet' }).click();
  const from = page.url();

  await page.getByRole('link', { name: 'Pages', exact: true }).click();
  await page.getByRole('link', { name: 'Linked to' }).first().click();
  await address.fill('/visit/linked');
  await row(page, 'For').getByRole('button', { name: 'Keep' }).press('Enter');
  await saved(page);
  await expect(page.getByRole('button', { name: 'Undo the address of the page' })).toBeVisible();
  await page.goto(from);
  await expect
    .poll(() => htmlOf(page))
    .toContain(
      '<a href="/visit/linked" target="_blank" rel="noopener">See the tides.<span class="link-says"> (opens in a new window)</span></a>',
    );
});

test('the sheet stands alone while one writes, with special characters by their names, by keyboard', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Alone');
  await sheet(page).click();
  await page.keyboard.type('Low water 06');
  await label(page).getByRole('button', { name: 'Special characters' }).press('Enter');
  await page.keyboard.type('en dash');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toContainText('Low water 06–');
  await sheet(page).getByText('Low water').click();
  await page.keyboard.press('End');
  await page.getByRole('button', { name: 'The sheet alone' }).press('Enter');
  await expect(label(page)).toHaveCount(0);
  await expect(page.getByRole('navigation', { name: 'Areas' })).toHaveCount(0);
  await sheet(page).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('07');
  await expect(sheet(page)).toContainText('Low water 06–07');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(label(page)).toBeVisible();
  await expect(sheet(page)).toContainText('Low water 06–07');
  await saved(page);
});

test('a whole card, and a picture that is pressed, lead to another page by what it is', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Whole links');
  await sheet(page).click();
  await page.keyboard.type('Tides');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Walks');
  await page.keyboard.press('Control+a');
  await label(page).getByRole('button', { name: 'row of cards' }).click();
  await sheet(page).getByText('Tides').click();
  const card = row(page, 'This card');
  await choose(card.getByRole('combobox', { name: 'Another page of this site' }), 'Tides this week');
  await expect(card.getByRole('textbox')).toHaveCount(0);
  await expect
    .poll(() => htmlOf(page))
    .toMatch(/<li class="card linked">\n<p><a href="\/[^"]+">Tides<\/a><\/p>\n<\/li>/);
  await expectAccessible(page);
  await card.getByRole('button', { name: 'Remove the link' }).click();
  await expect(card.getByRole('textbox', { name: 'The whole card goes to' })).toHaveValue('');
  await saved(page);

  await dropFiles(page, tray(page), [await smallPicture('reed pressed.png')]);
  await tray(page)
    .getByRole('button', { name: /^reed-pressed/ })
    .dblclick();
  await sheet(page).locator('figure').click();
  await row(page, 'Fit').getByRole('button', { name: 'Move it, link it' }).click();
  await choose(
    row(page, 'Fit').getByRole('combobox', { name: 'Another page of this site' }),
    'Tides this week',
  );
  await expect(row(page, 'Fit').getByRole('button', { name: 'Remove the link' })).toBeVisible();
  await saved(page);
  expect(await htmlOf(page)).toMatch(/<a href="\/[^"]+"><(?:picture|img)/);
});
