import { execFileSync } from 'node:child_process';
import { mkdtemp, readdir, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { expect } from '@playwright/test';
import {
  blocksOf,
  choose,
  dropFiles,
  label,
  largeFiles,
  placed,
  row,
  saved,
  sheet,
  signInByHand,
  tabTo,
  tray,
  WHEN_MADE,
} from './hands.ts';
import { test } from './test.ts';

test('from three large files to a page taken away, with the mouse', async ({ page, context }) => {
  const [plain, turned, labelled] = await largeFiles();
  await signInByHand(page, 'Mara');

  await test.step('begin a page with what it needs', async () => {
    await page.getByRole('link', { name: 'Begin a page' }).click();
    await page.getByRole('textbox', { name: 'Title' }).fill('The eel pass opens');
    await page.getByRole('button', { name: 'Another want' }).click();
    await page.getByRole('textbox', { name: 'Want 2: what for' }).fill('Portrait of the warden');
    await choose(page.getByRole('combobox', { name: 'Shape' }).nth(1), 'portrait');
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    await expect(tray(page).getByRole('button', { name: /Portrait of the warden/ })).toBeVisible();
    await expect(page.getByRole('button', { name: /Wanted 0 of 2/ })).toBeVisible();
  });

  await test.step('drop three large files on the tray, each with its progress', async () => {
    await dropFiles(page, tray(page), [plain, turned, labelled]);
    const coming = page.getByRole('region', { name: 'Coming in' });
    await expect(coming.getByRole('progressbar', { name: 'IMG_20261101_0612.JPG' })).toBeVisible();
    await expect(coming.getByText('3 of 3 files')).toBeVisible(WHEN_MADE);
    await coming.getByRole('button', { name: 'Clear' }).click();
    await expect(tray(page).getByText('3 pieces')).toBeVisible();
  });

  await test.step('what a file says of itself stands on its label as a draft, and names it', async () => {
    await tray(page)
      .getByRole('button', { name: /Bittern at the sluice/ })
      .click();
    await expect(label(page).getByText('The file says of itself: title, maker, licence.')).toBeVisible();
    await expect(row(page, 'Name').getByText('bittern-at-the-sluice.jpg')).toBeVisible();
    await label(page).getByRole('button', { name: 'Keep it' }).click();
    await expect(label(page).getByText('The file says of itself')).toBeHidden();
  });

  await test.step('a want is filled by dropping a piece on it', async () => {
    const lead = tray(page).getByRole('button', { name: /Lead of the page/ });
    await tray(page)
      .getByRole('button', { name: /Bittern at the sluice/ })
      .dragTo(lead);
    await expect(lead).toBeHidden();
    await expect(page.getByRole('button', { name: /Wanted 1 of 2/ })).toBeVisible();
  });

  await test.step('complete the label: words and rights, with a judgement in a sentence', async () => {
    await row(page, 'Alt text and caption').getByRole('button', { name: 'Write alt text' }).click();
    await row(page, 'Alt text and caption')
      .getByRole('textbox', { name: 'Alt text' })
      .fill('A bittern stands between reeds beside the sluice.');
    await row(page, 'Alt text and caption')
      .getByRole('textbox', { name: 'Caption' })
      .fill('It came up with the tide.');
    await row(page, 'Alt text and caption').getByRole('button', { name: 'Save words' }).click();
    await expect(
      row(page, 'Alt text and caption').getByText('“A bittern stands between reeds beside the sluice.”'),
    ).toBeVisible();
    await expect(row(page, 'Rights').getByText('May be used here. The credit is owed.')).toBeVisible();

    await tray(page)
      .getByRole('button', { name: /^picture/ })
      .first()
      .click();
    await expect(row(page, 'Rights').getByText('May not be used here.')).toBeVisible();
    await row(page, 'Rights').getByRole('button', { name: 'Set licence' }).click();
    await choose(
      row(page, 'Rights').getByRole('combobox', { name: 'Licence' }),
      'Creative Commons BY-NC 4.0',
    );
    await row(page, 'Rights').getByRole('combobox', { name: 'Maker', exact: true }).fill('T. Veraldi');
    await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
    await expect(row(page, 'Rights').getByText('CC BY-NC 4.0 forbids commercial use')).toBeVisible();
    await row(page, 'Rights').getByRole('button', { name: 'Change rights' }).click();
    await choose(row(page, 'Rights').getByRole('combobox', { name: 'Licence' }), 'Our own work');
    await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
    await expect(row(page, 'Rights').getByText('May be used here. No credit required.')).toBeVisible();
  });

  await test.step('write on the sheet', async () => {
    await sheet(page).click();
    await page.keyboard.type('Eels climb where it is wet and rough. ');
    await page.keyboard.type(
      'The ramp beside the gate is lined with bristles, and a trickle runs down it day and night.',
    );
    await page.keyboard.press('Enter');
    await page.keyboard.type('## What to bring');
    // Held as long as a hand holds a key: the browser tells the editor of a moved cursor a moment later.
    await page.keyboard.press('Home', { delay: 80 });
    await page.keyboard.press('End', { delay: 80 });
    await page.keyboard.press('Enter');
    await page.keyboard.type('- Boots');
    await page.keyboard.press('Enter');
    await page.keyboard.type('A flask');
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await page.keyboard.type(
      'The gate opens on Saturday at six, and everybody who helped to build it will be there to see the first eels go up.',
    );
    await expect(sheet(page).getByRole('heading', { level: 2, name: 'What to bring' })).toBeVisible();
    await expect(sheet(page).getByRole('listitem')).toHaveCount(2);
    await saved(page);
  });

  const bittern = placed(page, 'Bittern at the sluice');
  await test.step('drag a piece from the tray to the sheet, and place it', async () => {
    await tray(page)
      .getByRole('button', { name: /Bittern at the sluice/ })
      .dragTo(sheet(page).getByText('Eels climb'), { targetPosition: { x: 60, y: 4 } });
    await expect(bittern).toBeVisible();
    await expect(page.getByRole('button', { name: /Placed 1 of 3/ })).toBeVisible();
    const fit = row(page, 'Fit');
    const position = async (name: string, sentence: RegExp) => {
      await fit.getByRole('radio', { name }).check({ force: true });
      await expect(fit.getByText(sentence)).toBeVisible();
    };
    await position('Centred', /In the middle of the column, 70% of it/);
    await position('Column', /As wide as the column/);
    await position('Breakout', /up to 960 px wide/);
    await position('Bleed', /From one edge/);
    await position('Beside right', /on the right, 46%/);
    await position('Beside left', /on the left, 46%/);
  });

  await test.step('text runs round it, with nothing on its outer edge', async () => {
    const text = await sheet(page).getByText('Eels climb').boundingBox();
    const figure = await bittern.boundingBox();
    const column = await sheet(page).boundingBox();
    expect(Math.abs((figure?.x ?? 0) - (column?.x ?? 1))).toBeLessThan(1);
    expect(figure?.width).toBeCloseTo(331.2, 0);
    expect((text?.y ?? 0) < (figure?.y ?? 0) + (figure?.height ?? 0)).toBe(true);
  });

  await test.step('width by number and by handle, margins linked and apart', async () => {
    const width = row(page, 'Fit').getByRole('textbox', { name: 'Width' });
    await width.fill('about half');
    await width.press('Enter');
    await expect(row(page, 'Fit').getByRole('alert')).toHaveText('A width is written as 480 or 46%.');
    await width.fill('40%');
    await width.press('Enter');
    await expect.poll(async () => (await bittern.boundingBox())?.width).toBeCloseTo(288, 0);
    await width.fill('300 px');
    await width.press('Enter');
    await expect.poll(async () => (await bittern.boundingBox())?.width).toBeCloseTo(300, 0);
    const handle = page.getByRole('slider', { name: 'Width' });
    const box = await handle.boundingBox();
    if (!box) throw new Error('no handle');
    await page.mouse.move(box.x + 7, box.y + 20);
    await page.mouse.down();
    await page.mouse.move(box.x + 47, box.y + 22, { steps: 6 });
    await page.mouse.up();
    await expect.poll(async () => (await bittern.boundingBox())?.width).toBeCloseTo(340, 0);
    await expect(width).toHaveValue('340 px');
    const margins = row(page, 'Fit').getByRole('group', { name: 'Margins in px' });
    await margins.getByRole('textbox', { name: 'Right' }).fill('30');
    await margins.getByRole('textbox', { name: 'Right' }).press('Enter');
    await expect
      .poll(() => bittern.evaluate((element) => getComputedStyle(element).marginRight))
      .toBe('30px');
    await row(page, 'Fit').getByRole('checkbox', { name: 'One for all four sides' }).check();
    await margins.getByRole('textbox', { name: 'Top' }).fill('8');
    await margins.getByRole('textbox', { name: 'Top' }).press('Enter');
    await expect.poll(() => bittern.evaluate((element) => getComputedStyle(element).margin)).toBe('8px');
    await row(page, 'Fit').getByRole('button', { name: 'Reset margins' }).click();
    await expect
      .poll(() => bittern.evaluate((element) => getComputedStyle(element).margin))
      .toBe('4px 22px 12px 0px');
  });

  await test.step('cut it to a shape: the credit says so', async () => {
    await row(page, 'Cut').getByRole('radio', { name: '1:1' }).check({ force: true });
    await expect(row(page, 'Rights').getByText('The credit must say that it was cropped.')).toBeVisible();
    await expect(bittern.locator('figcaption')).toHaveText(
      'It came up with the tide. Photo: Ines Okonjo, CC BY 4.0, cropped.',
    );
  });

  await test.step('move it, link it, say other words here', async () => {
    await row(page, 'Fit').getByRole('button', { name: 'Move it, link it' }).click();
    const order = async () => (await blocksOf(page)).split(' ').indexOf('piece');
    await row(page, 'Fit').getByRole('button', { name: 'To the bottom' }).click();
    await expect.poll(order).toBeGreaterThan(2);
    await row(page, 'Fit').getByRole('button', { name: 'To the top' }).click();
    await expect.poll(order).toBe(0);
    await row(page, 'Fit').getByRole('button', { name: 'Down', exact: true }).click();
    await expect.poll(order).toBe(1);
    await row(page, 'Fit').getByRole('spinbutton', { name: 'Beside paragraph' }).fill('1');
    await row(page, 'Fit').getByRole('button', { name: 'Move', exact: true }).click();
    await expect.poll(order).toBe(0);
    await row(page, 'Fit').getByRole('textbox', { name: 'A click goes to' }).fill('javascript:alert(1)');
    await row(page, 'Fit').getByRole('button', { name: 'Link', exact: true }).click();
    await expect(row(page, 'Fit').getByRole('alert')).toContainText('A link begins with');
    await row(page, 'Fit').getByRole('checkbox', { name: 'A click opens it larger' }).check();
    await row(page, 'Alt text and caption')
      .getByRole('button', { name: 'Change alt text and caption' })
      .click();
    await row(page, 'Alt text and caption').getByRole('checkbox', { name: 'For this page only' }).check();
    await row(page, 'Alt text and caption')
      .getByRole('textbox', { name: 'Caption' })
      .fill('Seen on the first morning.');
    await row(page, 'Alt text and caption').getByRole('button', { name: 'Save words' }).click();
    await expect(bittern.locator('figcaption')).toContainText('Seen on the first morning.');
    await expect(row(page, 'Alt text and caption').getByText('Said for this page only.')).toBeVisible();
  });

  await test.step('undo and redo through all of it, by name', async () => {
    await page.getByRole('button', { name: 'Undo its words here' }).click();
    await expect(bittern.locator('figcaption')).toContainText('It came up with the tide.');
    await page.getByRole('button', { name: 'Redo its words here' }).click();
    await expect(bittern.locator('figcaption')).toContainText('Seen on the first morning.');
    await saved(page);
  });

  await test.step('a reload loses nothing', async () => {
    await page.reload();
    await expect(bittern.locator('figcaption')).toContainText('Seen on the first morning.');
    await expect(sheet(page).getByRole('heading', { name: 'What to bring' })).toBeVisible();
  });

  await test.step('proof at three widths, with a remedy applied in place', async () => {
    await page.getByRole('button', { name: 'Proof' }).click();
    for (const width of [390, 834, 1280]) {
      const frame = page.frameLocator(`iframe[title="The page at ${width} px"]`);
      await expect(frame.getByRole('heading', { level: 1, name: 'The eel pass opens' })).toBeVisible();
      await expect(frame.getByRole('img', { name: 'A bittern stands between reeds' })).toBeVisible(WHEN_MADE);
    }
    await expect(page.getByRole('heading', { name: /Nothing stops sending/ })).toBeVisible();
    const want = page.getByRole('listitem').filter({ hasText: '“Portrait of the warden” is still wanted.' });
    await want.getByRole('button', { name: 'It is not wanted' }).click();
    await expect(page.getByText('Mended just now: “Portrait of the warden” is still wanted.')).toBeVisible();
    // Between the widths of the frames, where it no longer stacks, the text beside it has hardly any room.
    const squeezed = page.getByRole('listitem').filter({ hasText: /^\d+Only \d+ letters fit beside/ });
    await squeezed.getByRole('button', { name: /^Stack it under/ }).click();
    await expect(page.getByRole('heading', { name: 'Nothing stops sending', exact: true })).toBeVisible();
  });

  await test.step('copy the fragment', async () => {
    await page.getByRole('button', { name: 'Take away...' }).click();
    await page.getByRole('menuitem', { name: 'The HTML, to paste elsewhere' }).click();
    const code = page.getByRole('textbox', { name: 'HTML' });
    await page
      .getByRole('textbox', { name: 'Where its files will live' })
      .fill('https://files.saltmere.example/spring');
    await page.getByRole('checkbox', { name: /^Sizes and sides in the HTML/ }).click();
    await expect(code).toHaveValue(/src="https:\/\/files\.saltmere\.example\/spring\/[^"]+"/);
    await expect(code).toHaveValue(/float:left/);
    await page.getByRole('checkbox', { name: /^Sizes and sides in the HTML/ }).click();
    await expect(code).toHaveValue(/--w:/);
    await page.getByRole('button', { name: 'Copy the HTML' }).click();
    await expect(page.getByText('The HTML is copied.')).toBeVisible();
    const copied = await page.evaluate(() => navigator.clipboard.readText());
    expect(copied).toContain('<figure class="placed beside-left');
    expect(copied).toMatch(
      /<img [^>]*srcset=[^>]*sizes=[^>]*width="\d+" height="\d+" alt="A bittern stands between reeds beside the sluice\. Opens larger"/,
    );
    await page.getByRole('button', { name: 'Done' }).click();
  });

  await test.step('take everything as a ZIP that opens from disk and looks as proofed', async () => {
    await page.getByRole('button', { name: 'Take away...' }).click();
    await page.getByRole('menuitem', { name: 'Everything as a ZIP' }).click();
    const link = page.getByRole('link', { name: /^Download/ });
    await expect(link).toBeVisible(WHEN_MADE);
    const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
    const folder = await mkdtemp(join(tmpdir(), 'placard-taken-'));
    await download.saveAs(join(folder, 'page.zip'));
    execFileSync('python3', ['-m', 'zipfile', '-e', join(folder, 'page.zip'), join(folder, 'page')]);
    expect(await readdir(join(folder, 'page'))).toEqual(
      expect.arrayContaining(['index.html', 'style.css', 'credits.html', 'media.jsonld', 'media', 'fonts']),
    );
    expect(await readFile(join(folder, 'page', 'credits.html'), 'utf8')).toContain('Ines Okonjo');
    const preview = page.frameLocator('iframe[title="The page at 1280 px"]');
    const proofed = await preview
      .getByRole('figure')
      .evaluate((figure) => figure.getBoundingClientRect().toJSON());
    const fromDisk = await context.newPage();
    await fromDisk.goto(pathToFileURL(join(folder, 'page', 'index.html')).href);
    await fromDisk.evaluate(() => document.fonts.ready);
    const opened = await fromDisk
      .getByRole('figure')
      .evaluate((figure) => figure.getBoundingClientRect().toJSON());
    expect(opened).toEqual(proofed);
    expect(
      await fromDisk
        .getByRole('figure')
        .getByRole('img')
        .evaluate((image) => image instanceof HTMLImageElement && image.naturalWidth),
    ).toBeGreaterThan(0);
    await fromDisk.close();
  });
});

test('the whole way by keyboard alone', async ({ page }) => {
  await page.goto('/');
  const toThe = (name: RegExp, role: 'button' | 'textbox' = 'button') =>
    tabTo(page.getByRole(role, { name }).first());
  await toThe(/^E-mail/, 'textbox');
  await page.keyboard.type('mara@saltmere.example');
  await page.keyboard.press('Tab');
  await page.keyboard.type('saltmere-2026');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: /for you/ })).toBeVisible();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('Begin a page');
  await expect(page.getByRole('option', { name: 'Begin a page', exact: true })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await page.keyboard.press('Enter');
  await toThe(/^Title$/, 'textbox');
  await page.keyboard.type('By keyboard');
  await page.keyboard.press('Enter');
  await expect(sheet(page)).toBeVisible();

  await toThe(/Title of the page/, 'textbox');
  await page.keyboard.press('Enter');
  await page.keyboard.type('First paragraph, long enough to stand beside a picture of the marsh at dawn.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Second paragraph.');
  await saved(page);

  // Pieces come from the shelf: find one, put it on the tray of this page.
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Show pictures without');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('listbox', { name: 'Pieces' })).toBeVisible();
  await page.goto('/shelf?words=heron+hide');
  const found = page.getByRole('option', { name: /Heron below Hide No. 3/ });
  await expect(found).toBeVisible();
  await page.getByRole('listbox', { name: 'Pieces' }).focus();
  await page.keyboard.press('ArrowDown');
  await expect(found).toBeFocused();
  await page.keyboard.press('Space');
  await toThe(/Put on a tray/);
  await page.keyboard.press('Enter');
  const tray = page.getByRole('menuitem', { name: 'By keyboard' });
  await expect(tray).toBeVisible();
  for (let press = 0; press < 30; press += 1) {
    if (await tray.evaluate((item) => item === document.activeElement)) break;
    await page.keyboard.press('ArrowDown');
  }
  await expect(tray).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 piece put on the tray of By keyboard.')).toBeVisible();

  await page.keyboard.press('Control+k');
  await page.keyboard.type('By keyboard');
  await page.keyboard.press('Enter');
  await toThe(/Heron below Hide No. 3 .*not placed yet/);
  await page.keyboard.press('Enter');
  const heron = placed(page, 'Heron below Hide No. 3');
  await expect(heron).toBeVisible();

  const index = async () => (await blocksOf(page)).split(' ').indexOf('piece');
  await page.keyboard.press('Alt+Home');
  await expect.poll(index).toBe(0);
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(index).toBe(1);
  await page.keyboard.press('l');
  await expect(heron).toHaveClass(/beside-left/);
  await page.keyboard.press('-');
  await expect(row(page, 'Fit').getByText('on the left, 44% of the column')).toBeVisible();
  await page.keyboard.press('r');
  await expect(heron).toHaveClass(/beside-right/);
  await page.keyboard.press('n');
  await expect(row(page, 'Fit').getByRole('spinbutton', { name: /paragraph/ })).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await expect.poll(index).toBe(0);
  await saved(page);

  await toThe(/^Proof$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /sending/ })).toBeVisible();
  await toThe(/^Take away/);
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'HTML' })).toHaveValue(/beside-right/);
});
