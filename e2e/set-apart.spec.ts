import { expect, type Page } from '@playwright/test';
import { beginPage, expectAccessible, htmlOf, label, pasteHtml, row, saved, sheet, signIn } from './hands.ts';
import { test } from './test.ts';

/** What stands apart from the running text: side boxes, folded sections, code, lines across the page. */

const is = (page: Page, words: string) =>
  label(page)
    .getByRole('group', { name: 'What it is set apart in' })
    .getByRole('button', { name: words, exact: true });

test('a side box, a folded section, code and a line go from the sheet to the page, and come back from there', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Come prepared');
  await sheet(page).click();
  await page.keyboard.type('Bring boots: the dyke is wet until noon.');
  await is(page, 'side box').click();
  await expect(page.getByRole('heading', { name: 'A side box' })).toBeVisible();
  const box = row(page, 'Side box');
  await box.getByRole('textbox', { name: 'Title' }).fill('What to bring');
  await box.getByRole('button', { name: 'Keep' }).click();
  await box.getByRole('radio', { name: 'beside left' }).click();
  await box.getByRole('textbox', { name: 'Width' }).fill('90%');
  await box.getByRole('textbox', { name: 'Width' }).press('Enter');
  await expect(box).toContainText('A box beside the text takes at most 60%.');
  await box.getByRole('textbox', { name: 'Width' }).fill('35');
  await box.getByRole('textbox', { name: 'Width' }).press('Enter');
  await expect(sheet(page).getByRole('complementary')).toContainText('What to bring');

  await sheet(page).getByRole('paragraph').last().click();
  await page.keyboard.type('Cutting begins at nine.');
  await is(page, 'folded section').click();
  await expect(page.getByRole('heading', { name: 'A folded section' })).toBeVisible();
  const folded = row(page, 'Folded');
  await folded.getByRole('textbox', { name: 'Says while closed' }).fill('The day, hour by hour');
  await folded.getByRole('button', { name: 'Keep' }).click();
  await expectAccessible(page);

  await sheet(page).getByRole('paragraph').last().click();
  await page.keyboard.type('---');
  await page.keyboard.type('``` ');
  await page.keyboard.type('reed = 7');
  await saved(page);

  const html = await htmlOf(page);
  expect(html).toContain('<aside class="box beside-left" style="--w:35%');
  expect(html).toContain('aria-label="What to bring"');
  expect(html).toContain('<summary>The day, hour by hour</summary>');
  expect(html).toContain('<hr class="rule">');
  expect(html).toContain('<code>reed = 7</code>');

  await page.goto('/');
  await beginPage(page, 'Once more prepared');
  await sheet(page).click();
  await pasteHtml(page, html.replace(/<h1>.*<\/h1>/, ''));
  await expect(sheet(page).getByRole('complementary')).toContainText('Bring boots');
  await saved(page);
  await expect
    .poll(async () => (await htmlOf(page)).replace(/<h1>.*<\/h1>/, ''))
    .toBe(html.replace(/<h1>.*<\/h1>/, ''));
});

test('a side box stands beside the text where there is room, and under it on a phone; a folded section opens by key', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Beside and folded');
  await sheet(page).click();
  await pasteHtml(
    page,
    `<aside class="box beside-right" style="--w:40%"><p class="box-title">Boots</p><p>The dyke is wet until noon.</p></aside>
<p>${'Every February we cut a seventh of the reed. '.repeat(12)}</p>
<details><summary>Hour by hour</summary><p>Nine: the cutters meet.</p></details>`,
  );
  await saved(page);
  const [, id] = /\/pages\/([^/?]+)/.exec(page.url()) ?? [];
  const { address } = await (await page.request.get(`/api/pages/${id}/preview`)).json();
  for (const [width, isBeside] of [
    [1280, true],
    [390, false],
  ] as const) {
    await page.setViewportSize({ width, height: 800 });
    await page.goto(address);
    const box = await page.getByRole('complementary', { name: 'Boots' }).boundingBox();
    const text = await page.getByText(/^Every February/).boundingBox();
    if (!box || !text) throw new Error('Nothing is shown.');
    expect(box.y < text.y + 5).toBe(true);
    expect(box.width < text.width * 0.6).toBe(isBeside);
    const summary = page.locator('summary');
    await expect(page.getByText('Nine: the cutters meet.')).toBeHidden();
    await summary.focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText('Nine: the cutters meet.')).toBeVisible();
  }
});
