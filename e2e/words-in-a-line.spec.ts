import { expect } from '@playwright/test';
import { beginPage, choose, expectAccessible, htmlOf, label, row, saved, sheet, signIn } from './hands.ts';
import { test } from './test.ts';

test('words are raised, printed small, said in full and in their language, and go out so', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Springs in square metres');
  await sheet(page).focus();
  const style = (name: string) =>
    label(page).getByRole('group', { name: 'Style' }).getByRole('button', { name, exact: true });
  await page.keyboard.type('The marsh has 40 km');
  await style('superscript').click();
  await page.keyboard.type('2');
  await style('superscript').click();
  await page.keyboard.type(' at MHWS');
  for (let letter = 0; letter < 4; letter += 1) await page.keyboard.press('Shift+ArrowLeft');
  const heard = row(page, 'Heard as');
  await heard.getByRole('textbox', { name: 'These letters stand for' }).fill('mean high water springs');
  await page.keyboard.press('Enter');
  await expect(sheet(page).locator('abbr')).toHaveText('MHWS');
  await page.keyboard.press('End');
  await page.keyboard.type(', the ');
  await page.keyboard.type('Ried');
  for (let letter = 0; letter < 4; letter += 1) await page.keyboard.press('Shift+ArrowLeft');
  await choose(heard.getByRole('combobox', { name: 'Language of these words' }), 'German');
  await heard.getByRole('button', { name: 'Keep' }).click();
  await expect(sheet(page).locator('[lang="de"]')).toHaveText('Ried');
  await expectAccessible(page);
  await page.keyboard.press('End');
  await style('small print').click();
  await page.keyboard.type(' as told');
  await saved(page);
  await expect
    .poll(async () => htmlOf(page))
    .toContain(
      '<p>The marsh has 40 km<sup>2</sup> at <abbr title="mean high water springs">MHWS</abbr>, the <span lang="de">Ried</span><small> as told</small></p>',
    );
});
