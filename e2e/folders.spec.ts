import { expect } from '@playwright/test';
import { expectAccessible, signIn } from './hands.ts';
import { test } from './test.ts';

test('folders are made, filled by dragging, moved and removed, and each step can be taken back', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf');
  const folders = page.getByRole('navigation', { name: 'Folders' });
  const folder = (name: string) => folders.getByRole('button', { name: new RegExp(`^${name}`) });

  // Made, with a reason where it cannot be.
  await folders.getByRole('button', { name: 'New folder...' }).click();
  await page.getByRole('textbox', { name: 'New folder' }).fill('a/b/c/d/e/f');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('alert')).toContainText('at most 5 deep');
  await expectAccessible(page);
  await page.getByRole('textbox', { name: 'New folder' }).fill('Spring Walk');
  await page.keyboard.press('Enter');
  await expect(folder('spring-walk')).toHaveAttribute('aria-current', 'true');
  await expect(page.getByText('This folder is empty')).toBeVisible();

  // Filled by dragging two chosen pieces onto it.
  await folder('All').click();
  await page
    .getByRole('option')
    .nth(0)
    .click({ modifiers: ['Control'] });
  await page
    .getByRole('option')
    .nth(1)
    .click({ modifiers: ['Control'] });
  await page.getByRole('option').nth(1).dragTo(folder('spring-walk'));
  await expect(page.getByText('2 pieces moved to spring-walk.')).toBeVisible();
  await expect(folder('spring-walk')).toContainText('2');

  // Moved with what lies in it, and back by one step.
  await folder('spring-walk').click();
  await expect(page.getByRole('option')).toHaveCount(2);
  await folders.getByRole('button', { name: 'Move or rename...' }).click();
  await page.getByRole('textbox', { name: 'New path of spring-walk' }).fill('events/spring walk');
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(page).toHaveURL(/folder=events%2Fspring-walk/);
  await expect(page.getByRole('option')).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo moving spring-walk' }).click();
  // The list is asked anew; until then the folder of that name is the one that is open.
  await expect(folder('spring-walk')).not.toHaveAttribute('aria-current', 'true');
  await folder('spring-walk').click();
  await expect(page.getByRole('option')).toHaveCount(2);

  // Emptied by one step back, and removed.
  await page.getByRole('button', { name: 'Undo moving 2 pieces' }).click();
  await expect(page.getByRole('option')).toHaveCount(0);
  await folders.getByRole('button', { name: 'Remove it' }).click();
  await expect(folder('spring-walk')).toHaveCount(0);
});

test('sections of the site that have no folder are offered one, all at once, by keyboard', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf');
  const folders = page.getByRole('navigation', { name: 'Folders' });
  await expect(folders.getByText('visit/hides, visit/getting-here')).toBeVisible();
  await folders.getByRole('button', { name: 'Make them' }).focus();
  await page.keyboard.press('Enter');
  await expect(folders.getByRole('button', { name: 'hides 0' })).toBeVisible();
  await expect(folders.getByRole('button', { name: 'getting-here 0' })).toBeVisible();
  await expect(folders.getByText(/^No folder yet/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo 2 folders' }).click();
  await expect(folders.getByText(/^No folder yet/)).toBeVisible();
  for (const name of ['hides 0', 'visit 0'])
    await expect(folders.getByRole('button', { name })).toHaveCount(0);
});

test('the sections of a site are kept in its House rules', async ({ page }) => {
  await signIn(page, 'Sunniva');
  await page.getByRole('link', { name: 'House rules' }).click();
  const sections = page.getByRole('textbox', { name: 'Sections of the site' });
  await expect(sections).toHaveValue(/visit\/hides/);
  const before = await sections.inputValue();
  await sections.fill(`${before}\nvisit/Shop & Café`);
  const save = page.getByRole('button', { name: 'Save rules' });
  await save.click();
  await expect(save).toBeDisabled();
  await page.goto('/shelf');
  await expect(page.getByRole('navigation', { name: 'Folders' })).toContainText('visit/shop-cafe');
  await page.getByRole('link', { name: 'House rules' }).click();
  await sections.fill(before);
  await save.click();
  await expect(page.getByRole('navigation', { name: 'Folders' })).toHaveCount(0);
});
