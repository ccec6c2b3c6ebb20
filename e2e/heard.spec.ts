import { expect } from '@playwright/test';
import { beginWithPicture, expectAccessible, figures, row, signIn } from './hands.ts';
import { test } from './test.ts';

test('a page is read as it is heard, its long description with it, and what nobody says is marked', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginWithPicture(page, 'Heard in order', 'heard');
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await page.getByRole('radio', { name: 'as it is heard' }).press('Space');
  const heard = page.getByRole('region', { name: 'The page as it is heard' });
  await expect(heard).toContainText('Heading, level 1: Heard in order');
  await expect(heard).toContainText('Nothing is said here');
  await expectAccessible(page);
  const finding = heard.getByRole('button', { name: /^Finding/ }).first();
  await finding.press('Enter');
  await expect(finding).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('link', { name: 'Back to the sheet' }).click();
  await figures(page).first().click();
  const words = row(page, 'Alt text and caption');
  await words.getByRole('button', { name: 'Write alt text' }).click();
  await words.getByRole('textbox', { name: 'Alt text' }).fill('Bars for May and June.');
  await words
    .getByRole('textbox', { name: 'Long description' })
    .fill('Eels\n\nMonth\tEels\nMay\t12\nJune\t420');
  await words.getByRole('button', { name: /^Save/ }).click();
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await page.getByRole('radio', { name: 'as it is heard' }).click();
  await expect(heard).toContainText('Picture: Bars for May and June.');
  await expect(heard).toContainText('Table, 3 rows of 2');
  await expect(heard).toContainText('Row: Month May; Eels 12');
});

test('a page is seen as others get it: without pictures, enlarged, spaced out, on paper', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginWithPicture(page, 'Seen otherwise', 'seen-otherwise');
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  const frames = page.getByRole('region', { name: 'The page at its widths' });
  const picture = frames.frameLocator('iframe').first().locator('img');
  const isThere = (one: HTMLElement | SVGElement) => one instanceof HTMLImageElement && one.naturalWidth > 0;
  await expect.poll(() => picture.evaluate(isThere)).toBe(true);
  await expectAccessible(page);
  await page.getByRole('radio', { name: 'text at 200 %' }).press('Space');
  await expect(frames.getByRole('figure', { name: 'The page at 640 px' })).toBeVisible();
  await page.getByRole('radio', { name: 'no pictures' }).press('Space');
  await expect.poll(() => picture.evaluate(isThere)).toBe(false);
  await page.getByRole('radio', { name: 'printed' }).press('Space');
  await expect(frames.getByRole('figure')).toHaveCount(1);
  await expect(frames.getByRole('figure', { name: 'The page at 794 px' })).toBeVisible();
  // What is looked at stands in the address: it is the same after a reload.
  await page.reload();
  await expect(page.getByRole('radio', { name: 'printed' })).toBeChecked();
});
