import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  beginWithPicture,
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
  await beginWithPicture(page, title, title.toLowerCase().replaceAll(' ', '-'));
  await row(page, 'Rights').getByRole('button', { name: 'Set licence' }).click();
  await choose(row(page, 'Rights').getByRole('combobox', { name: 'Licence' }), 'Permission on file');
  await row(page, 'Rights').getByRole('combobox', { name: 'Maker', exact: true }).fill('Tomas Reill');
  await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
  await expect(row(page, 'Rights')).toContainText('May be used here. The credit is owed.');
}

/** The comp of the agency's walkway, from Gather onto the tray of the page that is open. */
async function gatherComp(page: Page): Promise<void> {
  await tray(page).getByRole('link', { name: 'Gather...' }).click();
  await page.getByRole('button', { name: /^Words: / }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('walkway');
  await page.keyboard.press('Enter');
  await page.getByRole('option', { name: /^Saltmarsh walkway/ }).click();
  await page.getByRole('button', { name: 'To the tray' }).click();
  await expect(page.getByText(/^(Taken in|Held already).*: /).last()).toBeVisible();
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

test('a comp on three pages is bought, and its original stands in its place with its crop and words', async ({
  page,
}) => {
  test.slow();
  await signIn(page, 'Sunniva');
  await page.goto('/rules');
  await page.getByRole('textbox', { name: 'Rights keeper' }).fill('500');
  await page.getByRole('button', { name: 'Save spending' }).click();
  await expect(page.getByText('Saved: who may spend how much.')).toBeVisible();

  await signIn(page, 'Piet');
  await beginPage(page, 'Sold one');
  const first = page.url();
  await gatherComp(page);
  await page.getByRole('link', { name: 'Sold one' }).click();
  await tray(page)
    .getByRole('button', { name: /Saltmarsh walkway/ })
    .press('Enter');
  await expect(figures(page)).toHaveCount(1);
  await row(page, 'Alt text and caption').getByRole('button', { name: 'Write alt text' }).click();
  await row(page, 'Alt text and caption')
    .getByRole('textbox', { name: 'Alt text' })
    .fill('A man looks out to sea.');
  await row(page, 'Alt text and caption').getByRole('button', { name: 'Save words' }).click();
  await saved(page);
  for (const title of ['Sold two', 'Sold three']) {
    await beginPage(page, title);
    await gatherComp(page);
    await page.getByRole('link', { name: title }).click();
    await tray(page)
      .getByRole('button', { name: /Saltmarsh walkway/ })
      .press('Enter');
    await expect(figures(page)).toHaveCount(1);
    await saved(page);
  }
  await expect(row(page, 'Rights')).toContainText('It is a comp');
  await row(page, 'Rights').getByRole('button', { name: 'Buy the original...' }).click();
  const panel = page.getByRole('dialog');
  await expect(panel).toContainText('on 3 pages');
  await choose(
    panel.getByRole('combobox', { name: /What is bought of/ }),
    '84.00 EUR: the web, newsletters and social media, in Europe, for 2 years',
  );
  await panel.getByRole('textbox', { name: 'Licensed to' }).fill('Saltmere Marsh Reserve');
  await expectAccessible(page);
  await panel.getByRole('button', { name: /^Buy it for/ }).click();
  await expect(page.getByText(/is bought, and stands in the place of its comp on 3 pages/)).toBeVisible({
    timeout: 30_000,
  });
  // Where no comp is left to buy there is nothing more to say.
  await expect(panel).toHaveCount(0);
  await page.goto(first);
  await figures(page).first().click();
  await expect(row(page, 'Rights')).toContainText('licensed to Saltmere Marsh Reserve');
  await expect(row(page, 'Alt text and caption')).toContainText('A man looks out to sea.');
  await expect(row(page, 'Agreed')).toContainText('in Europe');
});

test('the ledger goes out as CSV, comes back changed, is looked at row by row, and is taken back by one undo', async ({
  page,
}) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'There and back');
  await page.goto('/rights?matter=all&maker=Tomas+Reill&order=newest');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Take it away as CSV' }).click();
  const csv = await readFile(await (await download).path(), 'utf8');
  expect(csv).toContain('there-and-back');
  const changed = `${csv
    .split('\r\n')
    .map((line) => (line.includes('there-and-back') ? line.replace('Tomas Reill', 'Ines Okonjo') : line))
    .join('\r\n')}nobody,,x\r\n`;

  await page.getByRole('button', { name: 'Bring a ledger in...' }).click();
  const panel = page.getByRole('dialog');
  await panel
    .getByLabel('The file')
    .setInputFiles({ name: 'ledger.csv', mimeType: 'text/csv', buffer: Buffer.from(changed) });
  await expect(panel.getByRole('status')).toContainText('1 row would change a piece');
  await expect(panel.getByRole('status')).toContainText('1 name nothing on the shelf');
  await expect(panel).toContainText('maker: Tomas Reill Ines Okonjo');
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Change 1 piece' }).click();
  await expect(panel).toHaveCount(0);
  const line = page.getByRole('button', { name: /on “There and back”/ });
  await expect(line).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo bringing a ledger in (1 piece)' }).click();
  await expect(line).toBeVisible();
});

test('what a licence forbids is said on the Bench where it is done, and is left or decided there', async ({
  page,
}) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'Not to be changed');
  const rights = row(page, 'Rights');
  await rights.getByRole('button', { name: 'Change rights' }).click();
  await choose(rights.getByRole('combobox', { name: 'Licence' }), 'Creative Commons BY-ND 4.0');
  await rights.getByRole('button', { name: 'Save rights' }).click();
  await expect(rights).toContainText('CC BY-ND 4.0');
  await row(page, 'Cut').getByRole('link', { name: 'Prepare it', exact: true }).click();
  await page.getByRole('button', { name: 'Mirror', exact: true }).click();
  await expect(rights).toContainText('CC BY-ND 4.0 forbids changes');
  await expectAccessible(page);
  await rights.getByRole('button', { name: 'Leave it whole and as it is' }).click();
  // The cut that is open is a crop by its shape.
  await expect(rights).toContainText('On a page it is placed whole, or fitted whole into the shape.');
  await page.getByRole('button', { name: 'Mirror', exact: true }).click();
  await rights.getByRole('button', { name: 'Decide it all the same' }).click();
  await rights.getByRole('textbox', { name: 'Why' }).fill('Tomas Reill wrote that it may be mirrored.');
  await rights.getByRole('button', { name: 'Record the decision' }).click();
  await expect(rights).toContainText('Piet Hallam decided so on');
});

test('a credit is reworded by hand, follows the label, and says what it leaves out', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Own words of thanks');
  await dropFiles(page, tray(page), [await licensedPicture('thanked')]);
  await tray(page)
    .getByRole('button', { name: /^thanked/ })
    .press('Enter');
  await expect(figures(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'Keep this licence' }).click();
  const rights = row(page, 'Rights');
  await tabTo(rights.getByRole('button', { name: 'Word it yourself' }));
  await page.keyboard.press('Enter');
  const typed = rights.getByRole('textbox', { name: 'Credit' });
  await expect(typed).toBeFocused();
  await expect(rights.getByRole('status')).toHaveText(/^Follows the label: /);
  await typed.fill('Thanks to a friend of the marsh');
  await expect(rights.getByText(/^It leaves out the maker/)).toBeVisible();
  await expectAccessible(page);
  await rights.getByRole('button', { name: 'Save credit' }).click();
  await expect(figures(page).first()).toContainText('Thanks to a friend of the marsh');
  await saved(page);

  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  const found = page.getByRole('listitem').filter({ hasText: 'leaves out the maker' });
  await found.getByRole('button', { name: 'Write it by the licence' }).click();
  await expect(found).toHaveCount(0);
  await page.goBack();
  await figures(page).first().click();
  await rights.getByRole('button', { name: 'Word it yourself' }).click();
  await expect(typed).toHaveValue('Picture: Ines Okonjo, CC BY 4.0.');
  await typed.fill('By courtesy of Ines Okonjo (CC BY 4.0)');
  await rights.getByRole('button', { name: 'Save credit' }).click();
  await expect(figures(page).first()).toContainText('By courtesy of Ines Okonjo (CC BY 4.0)');
  await rights.getByRole('button', { name: 'Change rights' }).click();
  await rights.getByRole('combobox', { name: 'Maker', exact: true }).fill('Wenna Tregear');
  await rights.getByRole('button', { name: 'Save rights' }).click();
  await expect(figures(page).first()).toContainText('By courtesy of Wenna Tregear (CC BY 4.0)');
});

test('a picture is kept for some people of the house, and is not there for the others', async ({ page }) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'Kept for some');
  await row(page, 'Source').getByRole('button', { name: 'Say who may see it' }).click();
  const access = row(page, 'Access');
  await expectAccessible(page);
  await choose(access.getByRole('combobox', { name: 'Seen by' }), 'Only these people of the house');
  await expect(access.getByRole('checkbox', { name: /^Mara/ })).toBeVisible();
  await access.getByRole('checkbox', { name: /^Joss/ }).check();
  await access.getByRole('button', { name: 'Save who may see and use it' }).click();
  await expect(access).toContainText(
    'Seen by one person of the house, whoever brought it in, and the rights keeper.',
  );
  await expect(row(page, 'Rights')).toContainText(
    'May not be used here. It is for a group of the house alone, and not for readers.',
  );
  const address = page.url();
  await signIn(page, 'Mara');
  await page.goto(address);
  await expect(page.getByRole('heading', { name: 'Kept for some' })).toBeVisible();
  await expect(page.getByText('kept-for-some')).toHaveCount(0);
});

test('a licence of the house is made, said of a picture, changed for all at once, and taken back', async ({
  page,
}) => {
  await signIn(page, 'Piet');
  await withOwnPicture(page, 'Under the agreement');
  const address = page.url();
  await page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name: 'Rights' }).click();
  await page.getByRole('button', { name: 'Licences of the house...' }).click();
  const panel = page.getByRole('dialog', { name: 'Licences of the house' });
  await panel.getByRole('button', { name: 'Make a licence...' }).click();
  await expectAccessible(page);
  await panel.getByRole('textbox', { name: 'Name', exact: true }).fill('Town Archive, standing agreement');
  await panel.getByRole('textbox', { name: 'In a credit' }).fill('Archive agreement');
  await panel.getByRole('button', { name: 'Make the licence' }).click();
  await expect(panel).toContainText('For any use. May be cropped and changed.');
  await panel.getByRole('button', { name: 'Done' }).click();
  await page.goto(address);
  await figures(page).first().click();
  await row(page, 'Rights').getByRole('button', { name: 'Change rights' }).click();
  const licence = row(page, 'Rights').getByRole('combobox', { name: 'Licence' });
  await choose(licence, 'Town Archive, standing agreement');
  await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
  await expect(row(page, 'Rights')).toContainText('Tomas Reill, Archive agreement');
  // What the rights keeper corrects holds for every piece at once.
  await page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name: 'Rights' }).click();
  await page.getByRole('button', { name: 'Licences of the house...' }).click();
  await panel.getByRole('button', { name: 'Change Town Archive, standing agreement' }).click();
  await panel.getByRole('checkbox', { name: 'To be published' }).uncheck();
  await panel.getByRole('button', { name: 'Save the licence' }).click();
  await expect(panel).toContainText('Not to be published.');
  await panel.getByRole('button', { name: 'Remove Town Archive, standing agreement' }).click();
  await expect(panel).toContainText('1 piece carries it, so it stays.');
  await panel.getByRole('button', { name: 'Done' }).click();
  await page.goto(address);
  await figures(page).first().click();
  await expect(row(page, 'Rights')).toContainText('Archive agreement does not let it be published.');
});

test('a sidecar comes in with its picture, and what contradicts it is said, left, and taken over', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Beside its sidecar');
  const picture = await smallPicture('beside.png');
  const xmp = `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:creator><rdf:Seq><rdf:li>Ines Okonjo</rdf:li></rdf:Seq></dc:creator></rdf:Description></rdf:RDF></x:xmpmeta>`;
  const sidecar = { name: 'beside.xmp', mimeType: 'application/rdf+xml', buffer: Buffer.from(xmp) };
  await dropFiles(page, tray(page), [picture, sidecar]);
  await tray(page)
    .getByRole('button', { name: /^beside/ })
    .press('Enter');
  await saved(page);
  await expect(label(page)).toContainText('The file says of itself: maker.');
  await row(page, 'Rights').getByRole('button', { name: 'Set licence' }).click();
  await row(page, 'Rights').getByRole('combobox', { name: 'Maker', exact: true }).fill('Tomas Reill');
  await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
  const source = row(page, 'Source');
  const contradicts = 'The file says of its maker: Ines Okonjo. The label says: Tomas Reill.';
  await expect(source).toContainText(contradicts);
  await expectAccessible(page);
  const address = page.url();
  await page.getByRole('navigation', { name: 'Areas' }).getByRole('link', { name: 'Desk' }).click();
  await page.getByRole('button', { name: /more$/ }).click();
  await expect(
    page.getByText('The credit of a piece on Beside its sidecar contradicts its file.'),
  ).toBeVisible();
  await page.goto(address);
  await figures(page).first().click();
  await source.getByRole('button', { name: 'Leave the label' }).click();
  await expect(source).not.toContainText(contradicts);
  await page.keyboard.press('Control+z');
  await expect(source).toContainText(contradicts);
  await source.getByRole('button', { name: 'Take it over' }).click();
  await expect(source).not.toContainText(contradicts);
  await expect(label(page)).toContainText('Ines Okonjo');
});
