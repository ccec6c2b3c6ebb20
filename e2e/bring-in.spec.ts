import { expect, type Page } from '@playwright/test';
import { zipSync } from 'fflate';
import { expectAccessible, figures, label, sheet, signIn, smallPicture, tabTo, WHEN_MADE } from './hands.ts';
import { test } from './test.ts';
import { OUTSIDE_PORT } from './world.ts';

const old = (name: string) => `http://reserve.localhost:${OUTSIDE_PORT}/old/${name}`;
const faults = (page: Page) => page.getByRole('complementary', { name: 'Faults' });
const states = (page: Page) =>
  page.getByRole('region', { name: 'As it stands there, and as Placard writes it' });

test('an inherited page is read with its faults, brought in mended, worked on; another is taken back', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages');
  await page.getByRole('link', { name: 'Bring in' }).click();
  await page.getByRole('textbox', { name: 'Addresses, one on each line' }).fill(old('eels.htm'));
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(faults(page).getByRole('button', { name: 'Bring it in' })).toBeEnabled(WHEN_MADE);
  await expect(faults(page)).toContainText('A table only for layout.');
  await expect(faults(page)).toContainText('“CLICK HERE” as a link. Named after what it leads to.');
  const [there, here] = [
    states(page).frameLocator('iframe').first(),
    states(page).frameLocator('iframe').last(),
  ];
  await expect(there.getByText('CLICK HERE')).toBeVisible();
  await expect(here.getByRole('link', { name: 'Tides this week' })).toBeVisible();
  await expectAccessible(page);
  await faults(page)
    .getByRole('button', { name: /^Show fault 5/ })
    .click();
  await expect(
    states(page)
      .getByRole('button', { name: /^Fault 5 in/ })
      .first(),
  ).toHaveAttribute('aria-pressed', 'true');
  await faults(page).getByRole('checkbox', { name: 'They are our own work' }).click();
  const asked = faults(page).getByRole('list', { name: 'Pictures without words' });
  await asked.getByRole('textbox', { name: 'What sluice.jpg shows' }).fill('The sluice stands open.');
  await asked.getByRole('checkbox', { name: 'It only decorates (chart.gif)' }).press('Space');
  await expect(asked.getByRole('textbox', { name: 'What chart.gif shows' })).toBeDisabled();
  await expectAccessible(page);
  await faults(page).getByRole('button', { name: 'Bring it in' }).click();
  await faults(page).getByRole('link', { name: 'Open the page' }).click(WHEN_MADE);
  await expect(sheet(page).getByRole('heading', { name: 'What was counted' })).toBeVisible();
  await expect(figures(page)).toHaveCount(4);
  await figures(page).nth(1).click();
  await expect(label(page)).toContainText('The sluice stands open.');
  await page.getByRole('button', { name: 'Versions' }).click();
  await expect(page.getByText('As it was brought in').first()).toBeVisible();

  await page.goto('/pages/bring-in');
  await page.getByRole('textbox', { name: 'Addresses, one on each line' }).fill(old('counts.htm'));
  await page.getByRole('button', { name: 'Read it' }).click();
  await faults(page).getByRole('button', { name: 'Bring it in' }).click(WHEN_MADE);
  await faults(page).getByRole('button', { name: 'Take it back' }).click(WHEN_MADE);
  await expect(faults(page).getByRole('button', { name: 'Bring it in' })).toBeEnabled();
  await page.goto('/pages');
  await expect(page.getByRole('heading', { name: 'The Eel Pass!!' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Counts since 1998' })).toBeHidden();
});

test('a page is brought in by keyboard alone, as it is, and a page that is not there says so', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages/bring-in');
  const from = page.getByRole('button', { name: /^From: / });
  await from.press('Enter');
  await page.getByRole('menuitemradio', { name: 'pasted HTML' }).press('Enter');
  await tabTo(page.getByRole('textbox', { name: 'HTML of the page' }));
  await page.keyboard.insertText(
    '<title>Notes</title><p>Dry feet.</p><p><font size="5"><b>Reeds</b></font></p><p>They were cut in March.</p>',
  );
  await tabTo(page.getByRole('button', { name: 'Read it' }));
  await page.keyboard.press('Enter');
  await expect(faults(page).getByRole('button', { name: 'Bring it in' })).toBeEnabled(WHEN_MADE);
  await page.getByRole('button', { name: /^Mending: / }).press('Enter');
  await page.getByRole('menuitemradio', { name: 'nothing' }).press('Enter');
  await expect(faults(page)).toContainText('Left as it is.');
  await tabTo(faults(page).getByRole('button', { name: 'Bring it in' }));
  await page.keyboard.press('Enter');
  await expect(faults(page).getByRole('link', { name: 'Open the page' })).toBeVisible(WHEN_MADE);
  await tabTo(faults(page).getByRole('link', { name: 'Open the page' }));
  await page.keyboard.press('Enter');
  await expect(
    sheet(page)
      .getByRole('paragraph')
      .filter({ hasText: /^Reeds$/ }),
  ).toBeVisible();

  await page.goto('/pages/bring-in');
  await page.getByRole('textbox', { name: 'Addresses, one on each line' }).fill(old('nowhere.htm'));
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('heading', { name: 'It was not read' })).toBeVisible(WHEN_MADE);
  await expectAccessible(page);
});

test('a section of a site is read together, and some of it brought in; a ZIP gives its pages', async ({
  page,
}) => {
  await signIn(page, 'Piet', '/pages/bring-in');
  await page.getByRole('button', { name: /^From: / }).click();
  await page.getByRole('menuitemradio', { name: 'a whole section of a site' }).click();
  await page.getByRole('textbox', { name: /sitemap/ }).fill(old('sitemap.xml'));
  await page.getByRole('button', { name: 'Read it' }).click();
  const notes = page.getByRole('listitem').filter({ hasText: /old\/notes-(?:3|4)\.htm/ });
  await expect(notes).toHaveCount(2);
  for (const one of await notes.all()) await one.getByRole('checkbox').click(WHEN_MADE);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Bring in 2 pages, mended' }).click();
  await expect(notes.filter({ hasText: 'Brought in.' })).toHaveCount(2, WHEN_MADE);

  await page.getByRole('button', { name: /^From: / }).click();
  await page.getByRole('menuitemradio', { name: 'a file' }).click();
  const picture = await smallPicture('reed.png');
  const html =
    '<title>Reed day</title><p>We cut reeds.</p><img src="reed.png" width="300" height="200" alt="Volunteers in the reeds">';
  const zip = zipSync({ 'day.html': Buffer.from(html), 'reed.png': picture.buffer });
  await page
    .getByLabel('A page or a ZIP')
    .setInputFiles({ name: 'day.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) });
  await expect(faults(page).getByRole('button', { name: 'Bring it in' })).toBeEnabled(WHEN_MADE);
  await expect(page.getByText(/· 1 picture,/)).toBeVisible();
});
