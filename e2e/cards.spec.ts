import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import {
  beginPage,
  dropFiles,
  expectAccessible,
  figures,
  htmlOf,
  label,
  row,
  saved,
  sheet,
  signIn,
  tray,
} from './hands.ts';
import { test } from './test.ts';

/** A row of cards, from pieces on the tray to the page that goes out. */

async function withThreePieces(page: Page, title: string): Promise<void> {
  await beginPage(page, title);
  const files = await Promise.all(
    ['#7d8f6a', '#6a7d8f', '#8f6a7d'].map(async (background, at) => ({
      name: `cutting ${at + 1} ${title}.png`,
      mimeType: 'image/png',
      buffer: await sharp({ create: { width: 1200, height: 800, channels: 3, background } })
        .png()
        .toBuffer(),
    })),
  );
  await dropFiles(page, tray(page), files);
  await expect(tray(page).getByRole('button', { name: /^cutting-/ })).toHaveCount(3);
}

/** Writes the words of three cards, and puts each piece before its own. */
async function written(page: Page): Promise<void> {
  const lines = ['Come for a day.', 'Cut and bundle', 'Carry and stack', 'Soup and fire'];
  await sheet(page).click();
  for (const [at, line] of lines.entries()) {
    if (at > 0) await page.keyboard.press('Enter');
    await page.keyboard.type(line);
  }
  for (const at of [0, 1, 2]) {
    await sheet(page)
      .getByText(lines[at] ?? '')
      .click();
    await tray(page)
      .getByRole('button', { name: new RegExp(`^cutting-${at + 1}-`) })
      .press('Enter');
    await expect(figures(page)).toHaveCount(at + 1);
  }
}

test('pieces with their words become a row of cards, are put in order and linked, and stand as readers get them', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await withThreePieces(page, 'Reed days');
  await written(page);
  await sheet(page).getByText('Soup and fire').click();
  await page.keyboard.press('Control+a');
  await label(page).getByRole('button', { name: 'row of cards' }).click();
  await sheet(page).getByText('Cut and bundle').click();
  await expect(page.getByRole('heading', { name: 'Cards in a row' })).toBeVisible();
  await expect(sheet(page).getByRole('listitem')).toHaveText([
    /Cut and bundle/,
    /Carry and stack/,
    /Soup and fire/,
  ]);
  await expect(row(page, 'Cards')).toContainText('Each card gets 224 px');

  await sheet(page).getByText('Soup and fire').click();
  await expect(row(page, 'This card')).toContainText('Soup and fire');
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(sheet(page).getByRole('listitem')).toHaveText([
    /Cut and bundle/,
    /Soup and fire/,
    /Carry and stack/,
  ]);
  await row(page, 'This card').getByRole('textbox', { name: 'The whole card goes to' }).fill('nowhere');
  await row(page, 'This card').getByRole('button', { name: 'Keep' }).click();
  await expect(row(page, 'This card').getByRole('alert')).toBeVisible();
  await row(page, 'This card').getByRole('textbox', { name: 'The whole card goes to' }).fill('/walks/soup');
  await row(page, 'This card').getByRole('button', { name: 'Keep' }).click();
  await row(page, 'Cards').getByRole('radio', { name: '2 in a row' }).click();
  await expect(row(page, 'Cards')).toContainText('The last one stands alone in its row.');
  await expectAccessible(page);
  await row(page, 'Cards').getByRole('radio', { name: '3 in a row' }).click();
  await saved(page);

  const html = await htmlOf(page);
  expect(html).toContain('<ul class="cards in-3" style="--gap:24px">');
  expect(html).toContain('<a href="/walks/soup">Soup and fire</a>');
  expect(html).toMatch(/sizes="[^"]*\(max-width: 537\.98px\)[^"]* 224px"/);
  const [, id] = /\/pages\/([^/?]+)/.exec(page.url()) ?? [];
  const { address } = await (await page.request.get(`/api/pages/${id}/preview`)).json();
  for (const [width, inRow] of [
    [1280, 3],
    [834, 3],
    [390, 1],
  ] as const) {
    await page.setViewportSize({ width, height: 900 });
    await page.goto(address);
    const tops = await page
      .getByRole('listitem')
      .evaluateAll((cards) => cards.map((card) => Math.round(card.getBoundingClientRect().top)));
    expect(tops.filter((top) => top === tops[0])).toHaveLength(inRow);
    // A picture on a card is the place to press as its heading is.
    const card = await page.getByRole('listitem').nth(1).boundingBox();
    if (!card) throw new Error('There is no card.');
    const pressed = await page.evaluate(
      ([x, y]) =>
        document
          .elementFromPoint(x ?? 0, y ?? 0)
          ?.closest('a')
          ?.getAttribute('href'),
      [card.x + card.width / 2, card.y + 20],
    );
    expect(pressed).toBe('/walks/soup');
  }
});

test('a row of cards by keyboard alone', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Keys and cards');
  await sheet(page).focus();
  await page.keyboard.type('Cut and bundle');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Carry and stack');
  await page.keyboard.press('Control+a');
  const way = label(page).getByRole('button', { name: 'row of cards' });
  await way.focus();
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByRole('listitem')).toHaveText(['Cut and bundle', 'Carry and stack']);
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(sheet(page).getByRole('listitem')).toHaveText(['Carry and stack', 'Cut and bundle']);
  await page.keyboard.press('Control+z');
  await expect(sheet(page).getByRole('listitem')).toHaveText(['Cut and bundle', 'Carry and stack']);
  await page.keyboard.press('Control+z');
  await expect(sheet(page).getByRole('listitem')).toHaveCount(0);
  await expect(sheet(page)).toContainText('Carry and stack');
});

test('pieces chosen together on the tray become a row of cards of one shape, by keyboard alone', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await withThreePieces(page, 'From the tray');
  for (const at of [3, 1, 2]) {
    await tray(page)
      .getByRole('button', { name: new RegExp(`^cutting-${at}-`) })
      .press('Control+Enter');
  }
  await expect(page.getByRole('heading', { name: '3 pieces' })).toBeVisible();
  await expect(row(page, 'Pieces').getByRole('listitem')).toHaveText([
    /^cutting-3/,
    /^cutting-1/,
    /^cutting-2/,
  ]);
  await expectAccessible(page);
  await row(page, 'Make').getByRole('button', { name: 'a row of cards' }).press('Enter');
  await expect(sheet(page).getByRole('listitem')).toHaveCount(3);
  await expect(sheet(page)).toBeFocused();
  await page.keyboard.type('Soup and fire');
  await expect(sheet(page).getByRole('listitem').first()).toContainText('Soup and fire');
  const shape = row(page, 'Cards').getByRole('radio', { name: '1:1' });
  await shape.focus();
  await page.keyboard.press('Space');
  await expect(shape).toBeChecked();
  await saved(page);
  await expect.poll(async () => (await htmlOf(page)).match(/<li class="card"/g)?.length).toBe(3);
  const { width = 0, height = 1 } =
    (await figures(page).first().locator('[data-part="window"]').boundingBox()) ?? {};
  expect(width / height).toBeCloseTo(1, 1);
});
