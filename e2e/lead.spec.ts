import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import {
  beginPage,
  choose,
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

async function withPicture(page: Page): Promise<void> {
  const buffer = await sharp({ create: { width: 1800, height: 1200, channels: 3, background: '#4a7a6c' } })
    .png()
    .toBuffer();
  await dropFiles(page, tray(page), [{ name: 'sluice at dusk.png', mimeType: 'image/png', buffer }]);
  await expect(tray(page).getByRole('button', { name: /^sluice-at-dusk/ })).toBeVisible();
}

const teaser = (page: Page) => sheet(page).locator('.sheet-teaser');

async function listingOf(page: Page): Promise<string> {
  const [, id] = /\/pages\/([^/?]+)/.exec(page.url()) ?? [];
  return (await (await page.request.get(`/api/pages/${id}/preview`)).json()).listing;
}

test('a lead and a teaser are chosen apart by keyboard, and shown side by side as readers get them', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Lead and teaser');
  await withPicture(page);
  await tray(page)
    .getByRole('button', { name: /^sluice-at-dusk/ })
    .press('Enter');
  await label(page).getByRole('button', { name: 'Make it the lead' }).press('Enter');
  await expect(figures(page).first()).toHaveAttribute('data-lead', 'Lead');
  await expect(label(page).getByRole('button', { name: 'It is the lead. Let none be' })).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'Proof', exact: true }).press('Enter');
  await expect(page.getByText('The page has a lead, and its teaser shows no picture.')).toBeVisible();
  await page.getByRole('button', { name: 'Make a teaser of the lead' }).press('Enter');
  await expect(page.getByText(/^Mended just now: The page has a lead/)).toBeVisible();
  await page.getByRole('link', { name: 'Back to the sheet' }).press('Enter');

  // Its words, shape and alt text are its own.
  await expect(teaser(page)).toContainText('In a listing');
  await teaser(page).getByRole('figure').click();
  await row(page, 'Teaser').getByRole('textbox', { name: 'What it says of the page' }).fill('Open again.');
  await row(page, 'Teaser').getByRole('textbox', { name: 'What it says of the page' }).press('Enter');
  await expect(teaser(page)).toContainText('Open again.');
  await label(page).getByRole('radiogroup', { name: 'Shape', exact: true }).getByText('1:1').click();
  const shape = (of: ReturnType<typeof teaser>) =>
    of
      .locator('[data-part="window"]')
      .first()
      .evaluate((window) => window.clientWidth / window.clientHeight);
  await expect.poll(() => shape(teaser(page))).toBeCloseTo(1, 1);
  expect(await shape(figures(page).first())).toBeCloseTo(1.5, 1);
  await expectAccessible(page);
  await saved(page);

  await row(page, 'Teaser').getByRole('button', { name: 'See it beside the article' }).press('Enter');
  await expect(page.getByTitle('The listing at 390 px')).toBeVisible();
  await expect(page.getByTitle('The article at 390 px')).toBeVisible();
  await choose(page.getByRole('combobox', { name: 'Width that is looked at' }), '1280 px');
  await expect(page.getByTitle('The listing at 1280 px')).toBeVisible();
  await expectAccessible(page);

  const html = await htmlOf(page);
  expect(html).not.toContain('Open again.');
  expect(html.match(/<figure/g)).toHaveLength(1);
  const address = await listingOf(page);
  for (const [width, columns] of [
    [390, 1],
    [834, 2],
    [1280, 3],
  ] as const) {
    const reader = await context.newPage();
    await reader.setViewportSize({ width, height: 900 });
    await reader.goto(address);
    const picture = await reader.locator('.teaser img').first().boundingBox();
    const listing = await reader.locator('.listing').boundingBox();
    expect(picture?.width).toBeCloseTo(((listing?.width ?? 0) - 24 * (columns - 1)) / columns, 0);
    expect((picture?.width ?? 0) / (picture?.height ?? 1)).toBeCloseTo(1, 1);
    await expect(reader.getByRole('link', { name: 'Lead and teaser' })).toBeVisible();
    await expect(reader.getByText('Open again.')).toBeVisible();
    await expectAccessible(reader);
    await reader.close();
  }
});
