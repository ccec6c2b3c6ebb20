import { expect } from '@playwright/test';
import { choose, expectAccessible, signIn, tabTo } from './hands.ts';
import { test } from './test.ts';
import { OUTSIDE_PORT } from './world.ts';

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

test('whoever asked to be told of errands gets a mail when one is given to them', async ({ page }) => {
  await signIn(page, 'Piet');
  await page.goto('/me');
  const card = page.getByRole('region', { name: 'What you are told' });
  const box = card.getByRole('checkbox', { name: 'Somebody gives you an errand: by e-mail' });
  await tabTo(box);
  await page.keyboard.press('Space');
  await expect(box).toBeChecked();
  await tabTo(card.getByRole('button', { name: 'Send a trial mail' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText('Sent to piet@saltmere.example.')).toBeVisible();

  // On a slow line what was chosen is still on its way when it is tried.
  await page.route('**/api/me/messages', async (going) => {
    if (going.request().method() === 'PUT') await new Promise((resolve) => setTimeout(resolve, 1500));
    await going.continue();
  });
  await tabTo(card.getByRole('textbox', { name: 'Address of a web hook' }));
  await page.keyboard.type(`http://bell.localhost:${OUTSIDE_PORT}/hook`);
  await page.keyboard.press('Enter');
  await expect(card.getByText('It is shown this once')).toBeVisible();
  await tabTo(card.getByRole('button', { name: 'Ring it for a trial' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText('The web hook answered.')).toBeVisible();
  await expectAccessible(page);
  await page.reload();
  await expect(box).toBeChecked();
  await expect(card.getByText('It is shown this once')).toHaveCount(0);

  await signIn(page, 'Mara');
  const waiting = page.getByRole('region', { name: /^Waiting/ });
  await waiting.getByRole('button', { name: /^\d+ more$/ }).click();
  await waiting
    .getByRole('button', { name: /^Give to somebody: / })
    .first()
    .click();
  const form = page.getByRole('form', { name: 'Give it to somebody' });
  await choose(form.getByRole('combobox', { name: 'To' }), 'Piet Hallam');
  await form.getByRole('textbox', { name: 'Note' }).fill('Told by mail.');
  await page.keyboard.press('Enter');
  await expect(waiting.getByText('Told by mail.')).toBeVisible();
  await expect(async () => {
    await page.goto(`http://post.localhost:${OUTSIDE_PORT}/`);
    await expect(page.getByText('Mara Oduya writes: “Told by mail.”')).toBeVisible({ timeout: 100 });
  }).toPass();
  await expect(page.getByText('To piet@saltmere.example').first()).toBeVisible();

  await signIn(page, 'Piet');
  await waiting
    .getByRole('listitem')
    .first()
    .getByRole('button', { name: /^Give to somebody: / })
    .click();
  await form.getByRole('button', { name: 'Take it back' }).click();
  await expect(waiting.getByText('Told by mail.')).toHaveCount(0);
  await page.goto('/me');
  await box.press('Space');
  await expect(box).not.toBeChecked();
  await card.getByRole('button', { name: 'What you were told last' }).click();
  await expect(card.getByRole('link', { name: /^Mara Oduya gives you an errand/ })).toBeVisible();
});
