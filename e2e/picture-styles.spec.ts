import { expect } from '@playwright/test';
import {
  beginPage,
  choose,
  dropFiles,
  expectAccessible,
  figures,
  htmlOf,
  label,
  saved,
  sheet,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

test('a picture style is named by House rules, chosen on the label by keyboard, and goes out as the class of the target', async ({
  page,
}) => {
  await signIn(page, 'Sunniva', '/rules');
  await page.getByRole('button', { name: 'Another picture style' }).click();
  await page.getByRole('textbox', { name: 'Name of style 3' }).fill('Framed');
  await page.getByRole('textbox', { name: 'Class of Framed' }).fill('beside-left');
  await page.getByRole('textbox', { name: 'Line of Framed in px' }).fill('3');
  // A class that Placard uses itself is none of the target's.
  await expect(page.getByRole('textbox', { name: 'Class of Framed' })).toHaveValue('picture-3');
  await page.getByRole('textbox', { name: 'Class of Framed' }).fill('framed');
  await page.getByRole('textbox', { name: 'Name of style 3' }).click();
  await choose(page.getByRole('combobox', { name: 'Tone of Framed' }), 'Grey');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save rules' }).click();
  await expect(page.getByText('House rules saved.')).toBeVisible();

  await signIn(page, 'Mara');
  await beginPage(page, 'Styles of pictures');
  await dropFiles(page, tray(page), [await smallPicture('reed styles.png')]);
  await tray(page)
    .getByRole('button', { name: /^reed-styles/ })
    .dblclick();
  await expect(figures(page)).toHaveCount(1);
  await sheet(page).locator('figure').click();
  const styles = label(page).getByRole('radiogroup', { name: 'Picture style' });
  await expect(styles.getByRole('radio')).toHaveText(['Plain', 'Old print', 'Raised', 'Framed']);
  await styles.getByRole('radio', { name: 'Plain' }).focus();
  await page.keyboard.press('ArrowLeft', { delay: 80 });
  await expect(styles.getByRole('radio', { name: 'Framed' })).toBeChecked();
  await expect(figures(page).first()).toHaveClass(/(^| )framed( |$)/);
  // On the sheet it looks as it will for readers, and is no wider than without.
  const look = await figures(page)
    .locator('img')
    .evaluate((image) => {
      const { outlineWidth, filter } = getComputedStyle(image);
      return `${outlineWidth} ${filter}`;
    });
  expect(look).toBe('3px grayscale(1)');
  await expectAccessible(page);
  await saved(page);
  expect(await htmlOf(page)).toContain('<figure class="placed column framed"');
  await page.getByRole('button', { name: 'Undo the style “Framed”' }).click();
  await expect(figures(page).first()).not.toHaveClass(/framed/);
  await saved(page);
});
