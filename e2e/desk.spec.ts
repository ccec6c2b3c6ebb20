import { expect } from '@playwright/test';
import { expectAccessible, signIn, tabTo } from './hands.ts';
import { test } from './test.ts';

test('an errand is given to somebody with a note, by keyboard, seen by them first, and taken back', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  const waiting = page.getByRole('region', { name: /^Waiting/ });
  await waiting.getByRole('button', { name: /^\d+ more$/ }).click();
  const count = await waiting.getByRole('listitem').count();
  const give = waiting.getByRole('button', { name: /^Give to somebody: / }).first();
  await tabTo(give);
  await page.keyboard.press('Enter');
  const form = page.getByRole('form', { name: 'Give it to somebody' });
  await expect(form.getByRole('combobox', { name: 'To' })).toBeVisible();
  await expectAccessible(page);
  await tabTo(form.getByRole('button', { name: 'Give', exact: true }));
  await page.keyboard.press('Enter');
  await expect(form.getByText('Say to whom.')).toBeVisible();
  await tabTo(form.getByRole('combobox', { name: 'To' }));
  await page.keyboard.type('Piet');
  await tabTo(form.getByRole('textbox', { name: 'Note' }));
  await page.keyboard.type('Before Friday.');
  await page.keyboard.press('Enter');
  const given = waiting.getByRole('listitem').last();
  await expect(given).toContainText('With Piet Hallam, from you: “Before Friday.”');
  await expect(waiting.getByRole('listitem')).toHaveCount(count);
  await expectAccessible(page);

  await signIn(page, 'Piet');
  const first = waiting.getByRole('listitem').first();
  await expect(first).toContainText('For you, from Mara Oduya: “Before Friday.”');
  const takeBack = async () => {
    await first.getByRole('button', { name: /^Give to somebody: / }).click();
    await form.getByRole('button', { name: 'Take it back' }).click();
    await expect(waiting.getByText('Before Friday.')).toHaveCount(0);
  };
  await takeBack();
  await page.getByRole('button', { name: 'Undo taking it back' }).click();
  await expect(first).toContainText('For you: “Before Friday.”');
  await takeBack();
});
