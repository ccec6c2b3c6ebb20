import { expect, type Page } from '@playwright/test';
import { faultsOf } from './axe.ts';
import { expectAccessible, WHEN_MADE } from './hands.ts';
import { test } from './test.ts';
import { UI_ORIGIN } from './world.ts';

/** Opens the page of all controls in a theme. */
async function openControls(page: Page, theme: 'light' | 'dark'): Promise<void> {
  await page.emulateMedia({ colorScheme: theme });
  await page.goto(`${UI_ORIGIN}/ui`);
  await expect(page.getByRole('heading', { level: 1, name: 'Controls' })).toBeVisible(WHEN_MADE);
}

for (const theme of ['light', 'dark'] as const) {
  test(`axe finds nothing on the controls in all their states, in the ${theme} theme`, async ({ page }) => {
    await openControls(page, theme);
    await expectAccessible(page);
    await test.step('opened: a list, a menu, a calendar, what stands beside, a panel, a question', async () => {
      // What is opened hides all else from those who cannot see; it alone is looked at.
      for (const [role, name, opened] of [
        ['combobox', 'One of a list', '[role="listbox"]'],
        ['button', 'A list of deeds', '[role="menu"]'],
        ['button', 'Choose from a calendar', '[role="dialog"]'],
        ['button', 'Beside itself', '[role="dialog"]'],
        ['button', 'A panel', '[role="dialog"]'],
        ['button', 'A question', '[role="alertdialog"]'],
      ] as const) {
        await page.getByRole(role, { name }).click();
        await expect(page.locator(opened)).toBeVisible();
        expect(await faultsOf(page, opened)).toEqual([]);
        await page.keyboard.press('Escape');
        await expect(page.locator(opened)).toHaveCount(0);
      }
    });
  });
}

test('the controls fit a phone, and stand out in the colours that a person forces', async ({ page }) => {
  await page.setViewportSize({ width: 400, height: 800 });
  await openControls(page, 'light');
  const wide = await page.evaluate(() => document.querySelector('main')?.scrollWidth ?? 0);
  expect(wide).toBeLessThanOrEqual(400);
  await page.emulateMedia({ forcedColors: 'active' });
  const box = page.getByRole('checkbox', { name: 'So or not so', exact: true });
  const fill = () => box.evaluate((one) => getComputedStyle(one).backgroundColor);
  const on = await fill();
  await box.click();
  expect(await fill()).not.toBe(on);
});

test('the controls are worked by keys alone', async ({ page }) => {
  await openControls(page, 'light');
  await test.step('a list is chosen from by its first letters', async () => {
    const list = page.getByRole('combobox', { name: 'One of a list' });
    await list.focus();
    await page.keyboard.press('Enter');
    await page.keyboard.type('Cut sq');
    await page.keyboard.press('Enter');
    await expect(list).toHaveText('Cut square');
  });
  await test.step('arrows choose among a few', async () => {
    const few = page.getByRole('radiogroup', { name: 'One of a few' });
    // The list gives the focus back to its button once it has closed.
    await expect(page.getByRole('listbox')).toHaveCount(0);
    await few.getByRole('radio', { name: '1:1' }).focus();
    await expect(few.getByRole('radio', { name: '1:1' })).toBeFocused();
    // Held as long as a finger does: the group asks whether the arrow is still down when the focus has moved.
    await page.keyboard.press('ArrowLeft', { delay: 60 });
    await expect(few.getByRole('radio', { name: '16:9' })).toBeChecked();
  });
  await test.step('a date is typed as it is said, or chosen day by day', async () => {
    const date = page.getByRole('textbox', { name: 'A date' });
    await date.fill('3 May 2026');
    await date.blur();
    await expect(date).toHaveValue('3 May 2026');
    await page.getByRole('button', { name: 'Choose from a calendar' }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('grid', { name: 'May 2026' })).toBeVisible();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(date).toHaveValue('10 May 2026');
    await date.fill('soon');
    await date.blur();
    await expect(date).toHaveAttribute('aria-invalid', 'true');
    await expect(date).toHaveValue('soon');
  });
  await test.step('a table is walked through by arrows and sorted by its heads', async () => {
    const table = page.getByRole('table', { name: 'A table' });
    await table.getByRole('button', { name: 'Name' }).focus();
    await page.keyboard.press('Enter');
    await expect(table.getByRole('row').nth(1)).toContainText('bittern');
    await page.keyboard.press('ArrowDown');
    await expect(table.getByRole('cell', { name: 'bittern' })).toBeFocused();
  });
});
