import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { choose, dropFiles, expectAccessible, signIn, type TestFile, WHEN_MADE, world } from './hands.ts';
import { test } from './test.ts';

const PIECES = 60;
/** One row is left out. */
const RUN = PIECES - 1;

/** A camera's card: pictures of their own, with the names that a camera gives. */
async function cameraCard(count: number): Promise<readonly TestFile[]> {
  return Promise.all(
    Array.from({ length: count }, async (_, at): Promise<TestFile> => {
      const [hue, x] = [(at * 37) % 360, 40 + ((at * 131) % 1300)];
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1500" height="1000"><rect width="1500" height="1000" fill="hsl(${hue} 40% 60%)"/><circle cx="${x}" cy="${300 + (at % 9) * 50}" r="${60 + at}" fill="hsl(${(hue + 90) % 360} 50% 40%)"/><rect y="${700 + (at % 7) * 20}" width="1500" height="300" fill="hsl(${(hue + 200) % 360} 30% 30%)"/></svg>`;
      const buffer = await sharp(Buffer.from(svg)).jpeg({ quality: 80 }).toBuffer();
      return { name: `IMG_${String(at + 1).padStart(4, '0')}.JPG`, mimeType: 'image/jpeg', buffer };
    }),
  );
}

const table = (page: Page) => page.getByRole('table');
const progress = (page: Page) => page.getByRole('status').first();

async function foundInFolder(page: Page, folder: string): Promise<number> {
  const answer = await page.request.get(`/api/assets/count?folder=${encodeURIComponent(folder)}`);
  return ((await answer.json()) as { found: number }).found;
}

test('sixty pictures are sized, named and moved in one run, which is stopped, survives a kill, and is taken back', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf/runs/new');
  const empty = page.getByRole('heading', { name: 'A run does the same to many pictures at once' });
  await dropFiles(page, empty, await cameraCard(PIECES));
  await expect(page.getByRole('button', { name: `Run ${PIECES}` })).toBeEnabled(WHEN_MADE);

  // What is done with them.
  await page.getByRole('button', { name: /^Another size/ }).click();
  await page.getByRole('textbox', { name: 'Another size' }).fill('wide');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('no size between 1 and 8000 px');
  await page.getByRole('textbox', { name: 'Another size' }).fill('700 long');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('group', { name: 'Sizes' }).getByRole('button', { name: 'Lead 1600' }).click();
  await page.getByRole('checkbox', { name: /^Each at twice its pixels/ }).uncheck();
  await choose(page.getByRole('combobox', { name: 'Names' }), 'By a pattern');
  await page.getByRole('button', { name: 'add...' }).click();
  await page.getByRole('menuitem', { name: 'number' }).click();
  await page.getByRole('combobox', { name: 'Folder' }).fill('Events / Open day');
  await expect(table(page).getByRole('button', { name: 'picture-01: write another name' })).toBeVisible();
  await expect(table(page).getByText('in events / open-day').first()).toBeVisible();

  // Single rows are changed and left out.
  await table(page).getByRole('button', { name: 'picture-01: write another name' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Bundles drying');
  await page.keyboard.press('Enter');
  await expect(table(page).getByRole('alert')).toContainText('small letters');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('bundles-drying');
  await page.keyboard.press('Enter');
  await expect(table(page).getByRole('button', { name: /^bundles-drying:/ })).toBeVisible();
  await table(page).getByRole('checkbox').nth(1).uncheck();
  await expect(table(page).getByText('Left out.')).toBeVisible();
  await expectAccessible(page);

  // Nothing is done before it is begun.
  expect(await foundInFolder(page, 'events/open-day')).toBe(0);
  await page.getByRole('button', { name: `Run ${RUN}` }).click();
  await expect(progress(page)).toContainText(new RegExp(`^\\d+ of ${RUN}`));
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(progress(page)).toContainText(new RegExp(`Stopped\\. \\d+ of ${RUN} are done and stay so\\.`));
  await page.getByRole('button', { name: /^Go on with/ }).click();
  await expect(
    page.getByRole('banner').getByRole('link', { name: new RegExp(`of ${RUN} in a run`) }),
  ).toBeVisible();
  await expect(progress(page)).toContainText(new RegExp(`^\\d+ of ${RUN}`));
  await world('kill');
  await world('start');
  await expect(progress(page)).toContainText(`${RUN} of ${RUN} done.`, WHEN_MADE);
  await expect(page.getByRole('complementary', { name: 'Report' })).toContainText(`${RUN} pictures renamed.`);
  await expectAccessible(page);
  expect(await foundInFolder(page, 'events/open-day')).toBe(RUN);

  // One step back takes all of it back, and one forward does it again.
  await page.getByRole('button', { name: `Undo a run over ${RUN} pictures` }).click();
  await expect(progress(page)).toContainText(`Taken back: ${RUN} pictures as they were.`);
  expect(await foundInFolder(page, 'events/open-day')).toBe(0);
  await page.getByRole('link', { name: 'Earlier runs' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: `A run over ${RUN} pieces` })).toContainText(
    'Taken back',
  );
});

test('chosen pictures are renamed by search and replace, by keyboard alone, and packed into a ZIP', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf?words=boardwalk');
  // Embeds and maps are found by the word too; the names of these pictures have it.
  const options = page.getByRole('option', { name: / boardwalk-/ });
  await expect(options.first()).toBeVisible();
  await options.first().focus();
  await page.keyboard.press('Space');
  await options.nth(1).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Run...' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Where it goes: on the shelf' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitemradio').first()).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('menuitemradio', { name: 'in a ZIP' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Pack \d/ })).toBeVisible();
  await choose(page.getByRole('combobox', { name: 'Names' }), 'Search and replace');
  await page.getByRole('textbox', { name: 'Search for' }).fill('boardwalk');
  await page.getByRole('textbox', { name: 'Put in its place' }).fill('plank way');
  await expect(
    table(page)
      .getByRole('button', { name: /plank-way/ })
      .first(),
  ).toBeVisible();
  const pack = page.getByRole('button', { name: /^Pack \d/ });
  await pack.focus();
  await page.keyboard.press('Enter');
  const link = page.getByRole('link', { name: /^Download/ });
  await expect(link).toBeVisible(WHEN_MADE);
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
  const names = Object.keys(unzipSync(await readFile(await download.path())));
  expect(names).toContain('manifest.csv');
  expect(names.some((name) => /plank-way.*\.avif$/.test(name))).toBe(true);
  // The shelf is as it was.
  await page.goto('/shelf?words=boardwalk');
  await expect(options.first()).toBeVisible();
  await expect(page.getByRole('option', { name: /plank-way/ })).toHaveCount(0);
});

test('a contributor is offered no run', async ({ page }) => {
  await signIn(page, 'Joss', '/shelf');
  await page
    .getByRole('option')
    .first()
    .click({ modifiers: ['Control'] });
  await expect(page.getByText('1 chosen')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Run...' })).toHaveCount(0);
});
