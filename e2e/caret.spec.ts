import { expect } from '@playwright/test';
import {
  beginPage,
  blocksOf,
  dropFiles,
  expectAccessible,
  figures,
  label,
  placed,
  saved,
  sheet,
  signIn,
  smallPicture,
  tray,
} from './hands.ts';
import { test } from './test.ts';

test('what has the caret has the label, whatever was opened beside it', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-1');
  const text = label(page).getByRole('article', { name: 'Label of the text' });
  await expect(text).toBeVisible();

  // A piece of the tray that stands nowhere, then a caret in the text.
  await tray(page)
    .getByRole('button', { name: /^Bittern in/ })
    .click();
  await expect(label(page).getByRole('heading', { name: /Bittern in/ })).toBeVisible();
  await page.getByText('You hear them long before').click();
  await expect(text).toBeVisible();

  // A want, then a caret.
  await tray(page)
    .getByRole('button', { name: /Portrait of the warden/ })
    .click();
  await expect(page.getByRole('complementary', { name: 'Wants' })).toBeVisible();
  await page.getByText('Three bearings make a bird').click();
  await expect(text).toBeVisible();

  // A placed piece by the tray, then the arrow key into the text.
  await tray(page)
    .getByRole('button', { name: /^Heron below/ })
    .click();
  await expect(label(page).getByRole('heading', { name: /Heron below/ })).toBeVisible();
  await sheet(page).focus();
  await page.keyboard.press('ArrowDown');
  await expect(text).toBeVisible();

  // A piece that is taken off the tray has no label here any longer.
  await tray(page)
    .getByRole('button', { name: /^Bittern in/ })
    .click();
  await label(page).getByRole('button', { name: 'Take it off the tray' }).click();
  await expect(text).toBeVisible();
  await page.getByRole('button', { name: 'Undo taking a piece off the tray' }).click();
  await expect(tray(page).getByText('5 pieces,')).toBeVisible();
});

test('there is a line to write in before a first piece and after a last one', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Nothing but a picture');
  await dropFiles(page, tray(page), [await smallPicture('marsh-light.png')]);
  await tray(page)
    .getByRole('button', { name: /^marsh-light/ })
    .dblclick();
  await expect(figures(page)).toHaveCount(1);
  await page.keyboard.press('Alt+Home');
  await expect.poll(() => blocksOf(page)).toBe('piece P');
  await saved(page);

  // The first press on a piece at the head of the page, after it was opened anew, selects it.
  await page.reload();
  await figures(page).first().click();
  await expect(label(page).getByRole('region', { name: 'Fit' })).toBeVisible();

  const box = async () => (await figures(page).first().boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 };
  await page.mouse.click((await box()).x + 30, (await box()).y - 6);
  await page.keyboard.type('Above it.');
  await expect.poll(() => blocksOf(page)).toBe('P piece P');
  await expect(sheet(page).getByText('Above it.')).toBeVisible();

  await page.getByRole('region', { name: 'Sheet' }).evaluate((pane) => {
    pane.scrollTop = pane.scrollHeight;
  });
  const paper = await page.getByRole('region', { name: 'Sheet' }).boundingBox();
  await page.mouse.click((paper?.x ?? 0) + 200, (paper?.y ?? 0) + (paper?.height ?? 0) - 90);
  await page.keyboard.type('Under it.');
  await expect(sheet(page).getByText('Under it.')).toBeVisible();
  await expect.poll(() => blocksOf(page)).toBe('P piece P');
});

test('letters typed in a row on a selected piece do nothing, single ones do', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-1');
  const heron = placed(page, 'Heron below Hide No. 3');
  await heron.click();
  await expect(heron).toHaveClass(/beside-left/);
  await page.keyboard.type('We lower our oars', { delay: 60 });
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeDisabled();
  await expect(heron).toHaveClass(/beside-left/);
  await page.waitForTimeout(400);
  await page.keyboard.press('r');
  await expect(heron).toHaveClass(/beside-right/);
});

test('single keys can be switched off, and changed', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-2');
  const figure = figures(page).first();
  await figure.click();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await keys.getByRole('button', { name: 'Change the letters' }).click();
  await keys.getByRole('textbox', { name: 'Letter for: Centred' }).fill('g');
  await keys.getByRole('textbox', { name: 'Letter for: Edge to edge' }).fill('g');
  await expect(keys.getByText(/^G does something else already/)).toBeVisible();
  await expectAccessible(page);
  await keys.getByRole('button', { name: 'Close' }).click();
  await figure.click();
  await page.keyboard.press('g');
  await expect(page.getByRole('button', { name: 'Undo placing it centred' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: /your menu/ }).click();
  await page.getByRole('menuitem', { name: 'Keys' }).click();
  await keys.getByRole('checkbox', { name: 'Single keys act' }).click();
  await keys.getByRole('button', { name: 'Close' }).click();
  await figure.click();
  await page.keyboard.press('g');
  await page.waitForTimeout(900);
  await expect(page.getByRole('button', { name: 'Undo placing it centred' })).toHaveCount(0);
});

test('a selected piece says what it is and how it stands, and again when a key changes it', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages/demo-page-2');
  const beside = placed(page, 'Boardwalk at dawn');
  await expect(figures(page).first()).toBeVisible();
  await beside.click();
  const said = page.getByRole('status').and(page.locator('[aria-live="assertive"]'));
  await expect(said).toContainText(
    /^.+: beside the text, on the right, 40% of the column, \d+ px shown of \d+, margins top \d+, right \d+, bottom \d+, left \d+\.$/u,
  );
  await expect(beside).toHaveAttribute('aria-current', 'true');
  await expect(beside).toHaveAccessibleDescription(/beside the text, on the right/u);
  await page.keyboard.press('w');
  await expect(said).toContainText(/: as wide as the column, 720 px shown of \d+/u);
  await page.getByText('By the next morning').click();
  await expect(page.getByRole('figure').and(page.locator('[aria-current]'))).toHaveCount(0);
});

test('each screen has its title, and the focus is never lost on the way to it', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-2');
  await expect(page).toHaveTitle('The boardwalk reopens - Sheet - Placard');
  const proof = page
    .getByRole('button', { name: 'Proof', exact: true })
    .or(page.getByRole('link', { name: 'Proof', exact: true }));
  await proof.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveTitle('The boardwalk reopens - Proof - Placard');
  await expect(page.getByRole('main')).toBeFocused();
  await page.getByRole('link', { name: 'Pages', exact: true }).click();
  await expect(page).toHaveTitle('Pages - Placard');
  await page.getByRole('link', { name: 'Begin a page' }).click();
  await expect(page).toHaveTitle('Begin a page - Placard');
});

test('"Find or do" offers what the screen can do, on every screen, and the proof of any page', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf?words=sluice+eel+pass');
  await page.getByRole('option').first().click();
  await page.getByRole('link', { name: 'Prepare it' }).click();
  const palette = page.getByRole('dialog', { name: 'Find or do' });
  const offers = async (words: string, name: string) => {
    await page.keyboard.press('Control+k');
    await expect(palette).toBeVisible();
    await page.keyboard.type(words);
    await expect(palette.getByRole('option', { name, exact: true })).toBeVisible();
  };
  await offers('compare', 'Compare with the original');
  await palette.getByRole('option', { name: 'Compare with the original' }).click();
  await expect(page.getByRole('slider', { name: 'Where it is divided' })).toBeVisible();
  await page.goto('/gather');
  await expect(page.getByRole('button', { name: 'Choose files' })).toBeVisible();
  await offers('whole folder', 'Choose a whole folder of this machine');
  await page.keyboard.press('Escape');
  await page.goto('/shelf/runs/new');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await offers('proof boardwalk reopens', 'Proof of The boardwalk reopens');
  await palette.getByRole('option', { name: 'Proof of The boardwalk reopens' }).click();
  await expect(page).toHaveTitle('The boardwalk reopens - Proof - Placard');
  await offers('zip', 'Take everything away as a ZIP');
  await palette.getByRole('option', { name: 'Take everything away as a ZIP' }).click();
  await expect(page.getByRole('dialog', { name: /ZIP/ })).toBeVisible();
});

test('Ctrl K on chosen words asks where they lead, and finds things everywhere else', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-3');
  const field = label(page).getByRole('textbox', { name: 'These words go to' });
  // Pictures that arrive move the text from under the pointer: pressed again until words of it are chosen.
  await expect(async () => {
    await page.getByText('You will be shown how to cut').click();
    await page.keyboard.press('Home');
    await page.keyboard.press('Shift+End');
    await expect(field).toBeVisible({ timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await field.fill('/visit/hides');
  await page.keyboard.press('Enter');
  await expect(sheet(page).getByRole('link')).toHaveAttribute('href', '/visit/hides');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(sheet(page).getByRole('link')).toHaveCount(0);
  await page.getByText('You will be shown how to cut').click();
  await page.keyboard.press('Control+k');
  const palette = page.getByRole('dialog', { name: 'Find or do' });
  await palette.getByRole('option', { name: 'Proof this page' }).click();
  await expect(page.getByRole('heading', { name: /sending/ })).toBeVisible();
});

test('a piece goes where was pressed last, however late the browser tells of it', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Late news');
  await dropFiles(page, tray(page), [await smallPicture('late-news.png')]);
  await sheet(page).click();
  await page.keyboard.type('Come for a day.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Bring boots.');
  // On a busy machine the news of a moved caret comes when the text has been left: then nobody reads it.
  await page.evaluate(() =>
    window.addEventListener(
      'selectionchange',
      (event) => event.isTrusted && event.stopImmediatePropagation(),
      {
        capture: true,
      },
    ),
  );
  await sheet(page).getByText('Come for a day.').click();
  await tray(page)
    .getByRole('button', { name: /^late-news/ })
    .press('Enter');
  await expect(figures(page)).toHaveCount(1);
  await expect.poll(() => blocksOf(page)).toBe('P piece P');
});
