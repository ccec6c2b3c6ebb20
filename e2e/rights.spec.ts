import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  choose,
  dropFiles,
  expectAccessible,
  figures,
  label,
  licensedPicture,
  row,
  saved,
  signIn,
  smallPicture,
  tabTo,
  tray,
} from './hands.ts';
import { test } from './test.ts';

/** A page with one picture of the house's own on it, placed and selected. */
async function withOwnPicture(page: Page, title: string): Promise<void> {
  await beginPage(page, title);
  const name = title.toLowerCase().replaceAll(' ', '-');
  await dropFiles(page, tray(page), [await smallPicture(name)]);
  await tray(page)
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .press('Enter');
  await expect(figures(page)).toHaveCount(1);
  await saved(page);
  await row(page, 'Rights').getByRole('button', { name: 'Set licence' }).click();
  await choose(row(page, 'Rights').getByRole('combobox', { name: 'Licence' }), 'Permission on file');
  await row(page, 'Rights').getByRole('textbox', { name: 'Maker', exact: true }).fill('Tomas Reill');
  await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
  await expect(row(page, 'Rights')).toContainText('May be used here. The credit is owed.');
}

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

test('what was agreed is said by keyboard alone, ends, and stops the page', async ({ page }) => {
  await signIn(page, 'Mara');
  await withOwnPicture(page, 'Agreed for a while');
  const agreed = row(page, 'Agreed');
  await tabTo(agreed.getByRole('button', { name: 'Say what was agreed' }));
  await page.keyboard.press('Enter');
  await expectAccessible(page);
  const type = async (name: string, words: string) => {
    const field = agreed.getByRole('textbox', { name, exact: true });
    await tabTo(field);
    await page.keyboard.press('Control+a');
    await page.keyboard.type(words);
  };
  await type('From', inDays(-365));
  await type('Until, that day included', inDays(-400));
  await type('Where', 'Ireland, Saltmere');
  await type('Price', 'forty');
  await page.keyboard.press('Enter');
  await expect(agreed).toContainText('It ends before it begins.');
  await expect(agreed).toContainText('Saltmere: no country is called so.');
  await expect(agreed).toContainText('A price is written as 48.00 GBP.');
  await type('Until, that day included', inDays(20));
  await type('Where', 'Ireland');
  await type('Price', '48 GBP');
  await page.keyboard.press('Enter');
  await expect(agreed).toContainText('in Ireland, for 48.00 GBP.');
  await expect(row(page, 'Rights')).toContainText(
    'It may be shown in Ireland, and the Reserve site is read in the United Kingdom.',
  );

  await agreed.getByRole('button', { name: 'Change what was agreed', exact: true }).click();
  await type('Where', 'Europe');
  await page.keyboard.press('Enter');
  await expect(row(page, 'Rights')).toContainText(/May be used here until \d+ \w+ \d{4}\./);

  await agreed.getByRole('button', { name: 'Change what was agreed', exact: true }).click();
  await type('Until, that day included', inDays(-2));
  await page.keyboard.press('Enter');
  await expect(row(page, 'Rights')).toContainText('Renew it, or put another in its place.');
  await page.getByRole('button', { name: 'Take away...' }).click();
  await page.getByRole('menuitem', { name: 'The HTML, to paste elsewhere' }).click();
  await expect(page.getByRole('alert')).toContainText('This page cannot go out yet');
  await expect(page.getByRole('alert')).toContainText('may not be used like this');
});

test('a consent that is withdrawn stops a page, and nobody decides it away', async ({ page }) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'Somebody in it');
  await row(page, 'Agreed').getByRole('button', { name: 'Say what was agreed' }).click();
  await choose(
    row(page, 'Agreed').getByRole('combobox', { name: 'Consent of those who are shown' }),
    'Withdrawn',
  );
  await row(page, 'Agreed').getByRole('button', { name: 'Save what was agreed' }).click();
  await expect(row(page, 'Rights')).toContainText('Somebody shown in it has withdrawn their consent.');
  await expect(row(page, 'Rights').getByRole('button', { name: 'Decide it all the same' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo what was agreed' }).click();
  await expect(row(page, 'Rights')).toContainText('May be used here.');
});

test('what a statement leaves open is decided by the rights keeper, with who, when and why', async ({
  page,
}) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'A statement only');
  const rights = row(page, 'Rights');
  await rights.getByRole('button', { name: 'Change rights' }).click();
  await choose(
    rights.getByRole('combobox', { name: 'Licence' }),
    'Copyright undetermined (rights statement)',
  );
  await rights.getByRole('button', { name: 'Save rights' }).click();
  await expect(rights).toContainText('Its statement says: copyright undetermined.');
  await rights.getByRole('button', { name: 'Decide it all the same' }).click();
  await expectAccessible(page);
  await rights.getByRole('button', { name: 'Record the decision' }).click();
  await expect(rights).toContainText('Say why.');
  await rights.getByRole('textbox', { name: 'Why' }).fill('The archive wrote that nobody claims it.');
  await rights.getByRole('button', { name: 'Record the decision' }).click();
  await expect(rights).toContainText(
    /Piet Hallam decided so on .*: “The archive wrote that nobody claims it\.”/,
  );
  const address = page.url();

  // An editor sees who decided, and cannot decide.
  await signIn(page, 'Mara');
  await page.goto(address);
  await figures(page).first().click();
  await expect(label(page)).toContainText('Piet Hallam decided so on');
  await expect(rights.getByRole('button', { name: 'Take the decision back' })).toHaveCount(0);

  await signIn(page, 'Piet');
  await page.goto(address);
  await figures(page).first().click();
  await rights.getByRole('button', { name: 'Take the decision back' }).click();
  await expect(rights).toContainText('is for the rights keeper to decide');
});

test('a licence that only the file claims does not count under Cleared until somebody keeps it', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await page.goto('/gather');
  await beginPage(page, 'Claimed and kept');
  await dropFiles(page, tray(page), [await licensedPicture('claimed-and-kept')]);
  await tray(page)
    .getByRole('button', { name: /^claimed-and-kept/ })
    .press('Enter');
  await expect(row(page, 'Rights')).toContainText(
    'That it is under CC BY 4.0 is only claimed, by its file. Look, and keep it.',
  );
  await expect(page.getByRole('button', { name: /^Cleared/ })).toHaveAccessibleName(/0 of 1/);
  await expectAccessible(page);
  await row(page, 'Rights').getByRole('button', { name: 'Keep this licence' }).click();
  await expect(row(page, 'Rights')).toContainText('May be used here.');
  await expect(page.getByRole('button', { name: /^Cleared/ })).toHaveAccessibleName(/1 of 1/);
});

test('what ends is found in the Rights area by keyboard, and what happens on the day is said beforehand', async ({
  page,
}) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'Ends on a page');
  await row(page, 'Agreed').getByRole('button', { name: 'Say what was agreed' }).click();
  await row(page, 'Agreed').getByRole('textbox', { name: 'Until, that day included' }).fill(inDays(3));
  await row(page, 'Agreed').getByRole('button', { name: 'Save what was agreed' }).click();
  await expect(row(page, 'Rights')).toContainText('May be used here until');

  await page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name: 'Rights' }).click();
  await page.getByRole('button', { name: 'Matter: what waits for somebody' }).click();
  await page.getByRole('menuitemradio', { name: 'what ends' }).click();
  await page.getByRole('button', { name: 'Within: six months' }).click();
  await page.getByRole('menuitemradio', { name: 'a month' }).click();
  const settle = page.getByRole('region', { name: 'Has to be settled' });
  const line = settle.getByRole('button', { name: /on “Ends on a page”/ });
  await expect(line).toContainText('in 3 days');
  await tabTo(line);
  await page.keyboard.press('Enter');
  await expect(row(page, 'Used')).toContainText('Ends on a page');
  await expect(row(page, 'Said by')).toContainText('Piet Hallam said what was agreed');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'As a table' }).click();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'As lines of time' }).click();
  await row(page, 'On the day').getByRole('button', { name: 'Take it off then' }).click();
  await expect(row(page, 'On the day')).toContainText('it is taken off its pages. Piet Hallam decided so.');
  await expect(page.getByRole('region', { name: 'Ends by itself' })).toContainText('and is taken off then');
  await page.getByRole('button', { name: 'Undo taking it off on the day' }).click();
  await expect(row(page, 'On the day')).toContainText('Nobody has said what happens after');

  // The same as a table, and the same said of many at once.
  await page.getByRole('button', { name: 'As a table' }).click();
  await page.getByRole('checkbox', { name: 'Choose ends-on-a-page' }).check();
  await page.getByRole('button', { name: 'Agreed...' }).click();
  await page.getByRole('textbox', { name: 'Until, that day included' }).fill(inDays(200));
  await page.getByRole('button', { name: 'Save for all 1' }).click();
  await expect(page.getByRole('checkbox', { name: 'Choose ends-on-a-page' })).toHaveCount(0);
});
