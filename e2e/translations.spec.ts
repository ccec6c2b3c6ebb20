import { expect, type Page } from '@playwright/test';
import {
  beginText,
  choose,
  expectAccessible,
  htmlOf,
  label,
  row,
  saved,
  sheet,
  signIn,
  tabTo,
} from './hands.ts';
import { test } from './test.ts';

const pane = (page: Page) => page.getByRole('complementary', { name: 'Translation' });
const part = (page: Page, name: string) => pane(page).getByRole('region', { name });
const original = (page: Page) => page.getByRole('textbox', { name: 'Text of the original' });

async function beginGerman(page: Page): Promise<string> {
  await row(page, 'Translations').getByRole('button', { name: 'Begin a translation' }).click();
  await choose(
    row(page, 'Translations').getByRole('combobox', { name: 'Language of the translation' }),
    'German',
  );
  await row(page, 'Translations').getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(pane(page)).toBeVisible();
  return page.url();
}

test('a translation shares the arrangement, says what is not translated, and what its original says otherwise since', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  const english = await beginText(
    page,
    'Boots in two languages',
    'Boots are enough.',
    'Bring water.',
    'The gate is closed.',
  );
  const german = await beginGerman(page);
  await expect(part(page, 'Not translated yet').getByRole('listitem')).toHaveText([
    'The title',
    'Text “Boots are enough.”',
    'Text “Bring water.”',
    'Text “The gate is closed.”',
  ]);
  await part(page, 'Not translated yet').getByRole('button', { name: 'The title' }).click();
  await page.keyboard.type('Stiefel in zwei Sprachen');
  await part(page, 'Not translated yet').getByRole('button', { name: /Boots/ }).click();
  await page.keyboard.type('Stiefel genügen.');
  await expect(original(page).locator('[data-here]')).toHaveText('Boots are enough.');
  await part(page, 'Not translated yet')
    .getByRole('button', { name: /The gate/ })
    .click();
  await page.keyboard.type('Das Tor ist zu.');
  await expect(part(page, 'Not translated yet').getByRole('listitem')).toHaveText(['Text “Bring water.”']);
  await saved(page);
  await expectAccessible(page);

  // The original goes on.
  await page.goto(english);
  await expect(row(page, 'Translations').getByRole('link')).toHaveText('Stiefel in zwei Sprachen');
  await sheet(page).getByText('Boots are').click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Waders are better.');
  await sheet(page).getByText('The gate').click({ clickCount: 3 });
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await saved(page);

  await page.goto(german);
  await expect(part(page, 'Reworded').getByRole('listitem')).toHaveText([/Waders are better/]);
  await expect(part(page, 'Arranged otherwise').getByRole('listitem')).toHaveText([
    /Das Tor ist zu.*taken out/,
  ]);
  await expectAccessible(page);
  await part(page, 'Arranged otherwise').getByRole('button', { name: 'Take over the arrangement' }).click();
  await expect(sheet(page).locator('p')).toHaveText(['Stiefel genügen.', 'Bring water.']);
  await expect(part(page, 'Arranged otherwise')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo taking over the arrangement' }).click();
  await expect(sheet(page).getByText('Das Tor ist zu.')).toBeVisible();
  await expect(part(page, 'Arranged otherwise')).toBeVisible();
  await page.getByRole('button', { name: 'Redo taking over the arrangement' }).click();

  // Said once it is translated, and taken back as everything is.
  const done = part(page, 'Reworded').getByRole('button', { name: /^Done/ });
  await tabTo(done);
  await page.keyboard.press('Enter');
  await expect(part(page, 'Reworded')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo what was translated' }).click();
  await expect(part(page, 'Reworded')).toBeVisible();
  await saved(page);

  // It goes out in its own language.
  expect(await htmlOf(page)).toContain('<div class="placard" lang="de">');
  await page.goto('/pages');
  await expect(page.getByText('Reserve site, German').first()).toBeVisible();
});

test('there is one page in each language', async ({ page }) => {
  await signIn(page, 'Mara');
  const english = await beginText(page, 'Once in German', 'Boots.');
  await beginGerman(page);
  await page.goto(english);
  await row(page, 'Translations').getByRole('button', { name: 'Begin a translation' }).click();
  const languages = row(page, 'Translations').getByRole('combobox');
  await languages.click();
  await expect(page.getByRole('option', { name: 'Danish' })).toBeVisible();
  await expect(page.getByRole('option', { name: 'German', exact: true })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(label(page)).toBeVisible();
});
