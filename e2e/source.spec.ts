import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  dropFiles,
  expectAccessible,
  figures,
  htmlOf,
  saved,
  sheet,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

const source = (page: Page) => page.getByRole('textbox', { name: 'Source of the page' });
const pane = (page: Page) => page.getByRole('region', { name: 'Source' });

/** A line of the source, by what it says. */
const line = (page: Page, words: string) => source(page).locator('.cm-line', { hasText: words });

async function beginWith(page: Page, title: string, ...lines: readonly string[]): Promise<void> {
  await signIn(page, 'Mara');
  await beginPage(page, title);
  await sheet(page).click();
  for (const words of lines) {
    await page.keyboard.type(words);
    await page.keyboard.press('Enter');
  }
  await saved(page);
}

test('what is typed in the source is shown before anything of it is dropped, kept in one step, and undone', async ({
  page,
}) => {
  await beginWith(page, 'Typed in source', 'Boots are enough.', 'The gate is closed.');
  await page.getByRole('button', { name: 'Source', exact: true }).click();
  await expect(line(page, 'Boots')).toHaveText('<p>Boots are enough.</p>');
  await expectAccessible(page);
  // Tied line by line to the sheet, both ways.
  await sheet(page).getByText('The gate').click();
  await expect(line(page, 'The gate')).toHaveClass(/cm-here/);
  await line(page, 'Boots').click();
  await expect(sheet(page).locator('[data-here]')).toHaveText('Boots are enough.');
  await expect(line(page, 'The gate')).not.toHaveClass(/cm-here/);
  await page.keyboard.press('End');
  await page.keyboard.insertText(
    '\n<p style="color:red" onclick="x()">Mind the <b>step</b>.</p>\n<marquee>Ducks</marquee>',
  );
  await expect(pane(page).getByRole('heading')).toHaveText('3 things typed here cannot be kept.');
  await expect(pane(page).getByRole('listitem')).toHaveText([
    /^Line 2\s*style: colour and size belong to the site’s style sheet\.$/,
    /^Line 2\s*onclick: a program is never kept\.$/,
    /^Line 3\s*<marquee>: text that moves cannot be read by all; its words stay\.$/,
  ]);
  await expect(source(page).locator('.cm-lost').first()).toContainText('style=');
  // Nothing of it is on the page until it is kept.
  await expect(sheet(page).getByText('Mind the step.')).toHaveCount(0);
  await expectAccessible(page);
  await pane(page).getByRole('button', { name: 'Keep the rest' }).click();
  await expect(sheet(page).getByText('Mind the step.')).toBeVisible();
  await expect(sheet(page).getByText('Ducks')).toBeVisible();
  await expect(line(page, 'Mind the')).toHaveText('<p>Mind the <strong>step</strong>.</p>');
  await expect(pane(page).getByRole('heading')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo typing in source' }).click();
  await expect(sheet(page).getByText('Mind the step.')).toHaveCount(0);
  await expect(line(page, 'Mind the')).toHaveCount(0);
  await saved(page);
});

test('what was typed and not kept is there again after the window was closed, and can be let go', async ({
  page,
}) => {
  await beginWith(page, 'Left in source', 'Boots are enough.');
  await page.getByRole('button', { name: 'Source', exact: true }).click();
  await line(page, 'Boots').click();
  await page.keyboard.press('Home');
  await page.keyboard.insertText('<h2>Before</h2>');
  await expect(pane(page).getByRole('heading')).toHaveText('What you typed is not on the page yet.');
  await page.reload();
  await expect(pane(page).getByRole('heading')).toHaveText('What you typed is not on the page yet.');
  await expect(line(page, 'Before')).toBeVisible();
  // By keyboard: from the source to what can be done with what was typed.
  await source(page).focus();
  await page.keyboard.press('Tab');
  await expect(pane(page).getByRole('button', { name: 'Keep what I typed' })).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Enter');
  await expect(line(page, 'Before')).toHaveCount(0);
  await expect(source(page)).toBeFocused();
  await page.getByRole('button', { name: 'Back to the sheet' }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  await expect(sheet(page).getByText('Before')).toHaveCount(0);
});

/** Chooses words of a line by keys, or puts the caret before them. */
async function choose(page: Page, inLine: string, words: string, isChosen = true): Promise<void> {
  const found = line(page, inLine);
  // A long line is wrapped, and Home is the beginning of what stands in one row.
  await found.click({ position: { x: 10, y: 8 } });
  await page.keyboard.press('Home');
  const at = ((await found.textContent()) ?? '').indexOf(words);
  for (let step = 0; step < at; step += 1) await page.keyboard.press('ArrowRight');
  if (isChosen) for (const _letter of words) await page.keyboard.press('Shift+ArrowRight');
}

test('pieces stand in the source as signs: where they stand and what they say is changed there, and they are taken out', async ({
  page,
}) => {
  await beginWith(page, 'Pieces in source', 'Boots are enough.');
  await dropFiles(page, tray(page), [await smallPicture('reed signs.png')]);
  await tray(page)
    .getByRole('button', { name: /^reed-signs/ })
    .dblclick();
  await expect(figures(page)).toHaveCount(1);
  await page.getByRole('button', { name: 'Source', exact: true }).click();
  await expect(source(page).locator('.cm-sign').first()).toContainText(
    'reed-signs, its files kept by Placard',
  );
  await choose(page, '<figure', 'column');
  await page.keyboard.type('centred');
  await choose(page, '<img', ' …', false);
  await page.keyboard.type(' alt="Reeds in the wind."');
  await page.keyboard.press('End');
  await page.keyboard.insertText('\n<figcaption>Low & slack.</figcaption>');
  await expect(pane(page).getByRole('heading')).toHaveText('What you typed is not on the page yet.');
  await pane(page).getByRole('button', { name: 'Keep what I typed' }).click();
  await saved(page);
  const html = await htmlOf(page);
  expect(html).toContain('<figure class="placed centred"');
  expect(html).toMatch(/<img [^>]*alt="Reeds in the wind\."/);
  expect(html).toContain('<figcaption>Low &amp; slack.</figcaption>');
  // All of it is taken out at once, and undo brings it back.
  await source(page).press('Control+a');
  await page.keyboard.insertText('<p>Nothing else.</p>');
  await pane(page).getByRole('button', { name: 'Keep what I typed' }).click();
  await expect(figures(page)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo typing in source' }).click();
  await expect(figures(page)).toHaveCount(1);
  await saved(page);
});

test('what was typed in source and what was written on the sheet meanwhile are both kept', async ({
  page,
}) => {
  await beginWith(page, 'Source for two', 'Boots are enough.', 'The gate is closed.');
  await page.getByRole('button', { name: 'Source', exact: true }).click();
  await line(page, 'Boots').click();
  await page.keyboard.press('End');
  await page.keyboard.insertText('\n<p>Typed in source.</p>');
  await expect(pane(page).getByRole('heading')).toHaveText('What you typed is not on the page yet.');
  // On the sheet beside it the page goes on.
  await sheet(page).getByText('The gate is closed.').click();
  await page.keyboard.press('End');
  await page.keyboard.type(' Today.');
  await expect(sheet(page).getByText('The gate is closed. Today.')).toBeVisible();
  await pane(page).getByRole('button', { name: 'Keep what I typed' }).click();
  await expect(sheet(page).getByText('Typed in source.')).toBeVisible();
  await expect(sheet(page).getByText('The gate is closed. Today.')).toBeVisible();
  await saved(page);
});
