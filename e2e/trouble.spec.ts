import { type Browser, expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import {
  beginPage,
  blocksOf,
  choose,
  dropFiles,
  expectAccessible,
  figures,
  placed,
  row,
  saved,
  sheet,
  signIn,
  tray,
  WHEN_MADE,
  world,
} from './hands.ts';
import { test } from './test.ts';
import { OUTSIDE_PORT } from './world.ts';

/** What goes wrong in a working day, and that nothing is lost by it. */

async function anotherPerson(browser: Browser, name: 'Piet' | 'Joss'): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await signIn(page, name);
  return page;
}

test('the database goes away while saving: the page says so, keeps the text, and saves when it is back', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Cut off');
  await sheet(page).click();
  await page.keyboard.type('Before the cut.');
  await saved(page);
  await world('cut');
  await page.keyboard.type(' And after it.');
  await expect(page.getByRole('alert').getByText('The database does not answer.')).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'kept on this machine' })).toBeVisible();
  await world('join');
  await expect(page.getByRole('alert').getByText('The database does not answer.')).toBeHidden(WHEN_MADE);
  await saved(page);
  await page.reload();
  await expect(sheet(page).getByText('Before the cut. And after it.')).toBeVisible();
});

test('the server is killed: what was written lies on this machine and is saved by the next one', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Killed');
  await sheet(page).click();
  await page.keyboard.type('Written before.');
  await saved(page);
  await world('kill');
  await page.keyboard.type(' Written while it was dead.');
  await expect(page.getByRole('alert').getByText('Placard cannot be reached.')).toBeVisible();
  const address = page.url();
  // The browser dies too: this page is closed without a word, and opened again when all is back.
  const second = await page.context().newPage();
  await page.close({ runBeforeUnload: false });
  await world('start');
  await second.goto(address);
  await expect(sheet(second).getByText('Written before. Written while it was dead.')).toBeVisible();
  await saved(second);
});

test('two people on one page see where the other is, and what both do is put together by itself', async ({
  page,
  browser,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Two at once');
  await sheet(page).click();
  await page.keyboard.type('A first paragraph.');
  await page.keyboard.press('Enter');
  await page.keyboard.type('A last paragraph.');
  await saved(page);

  const piet = await anotherPerson(browser, 'Piet');
  await piet.goto(page.url());
  await sheet(piet).getByText('A first paragraph.').click();
  await expect(page.getByText('Piet Hallam is here')).toBeVisible({ timeout: 15_000 });
  await expect(piet.getByText('Mara Oduya is here')).toBeVisible({ timeout: 15_000 });
  await expect(sheet(page).locator('[data-others="Piet Hallam"]')).toHaveText('A first paragraph.', {
    timeout: 15_000,
  });
  await piet.keyboard.press('Home');
  await piet.keyboard.type('Piet: ');
  await page.keyboard.type(' Mara was here.');
  // Neither has asked for anything: each sees the words of the other, and her own caret stays.
  for (const one of [page, piet])
    await expect(sheet(one).locator('p')).toHaveText(
      ['Piet: A first paragraph.', 'A last paragraph. Mara was here.'],
      { timeout: 20_000 },
    );
  await page.keyboard.type(' Still.');
  await expect(sheet(page).locator('p').last()).toHaveText('A last paragraph. Mara was here. Still.');
  await saved(page);
  await expectAccessible(page);
  await piet.context().close();
  await expect(page.getByText('Piet Hallam is here')).toHaveCount(0, { timeout: 40_000 });
});

test('two people who changed the same line see both, and lose nothing', async ({ page, browser }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'The same line');
  await sheet(page).click();
  await page.keyboard.type('A first paragraph.');
  await saved(page);
  const piet = await anotherPerson(browser, 'Piet');
  await piet.goto(page.url());
  await sheet(piet).getByText('A first paragraph.').click();
  await piet.keyboard.press('Home');
  await page.context().setOffline(true);
  await page.keyboard.type(' Mara was here.');
  await piet.keyboard.type('Piet: ');
  await saved(piet);
  await page.context().setOffline(false);
  const clash = page.getByRole('dialog', { name: 'Piet Hallam and you changed the same place' });
  await expect(clash).toBeVisible({ timeout: 20_000 });
  await expectAccessible(page);
  await expect(clash.getByText('Piet:').first()).toBeVisible();
  await clash.getByRole('button', { name: 'Put together' }).click();
  await saved(page);
  await page.reload();
  await expect(sheet(page).getByText('Piet: A first paragraph.')).toBeVisible();
  await expect(sheet(page).getByText('A first paragraph. Mara was here.')).toBeVisible();
  await piet.context().close();
});

test('bad files in a batch are refused in a sentence each, and the others go on', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'A mixed batch');
  const good = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(640, 400);
    const context = canvas.getContext('2d');
    if (context) {
      context.fillStyle = `hsl(${Date.now() % 360} 40% 50%)`;
      context.fillRect(0, 0, 640, 400);
    }
    const blob = await canvas.convertToBlob({ type: 'image/png' });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });
  await dropFiles(page, tray(page), [
    { name: 'words.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('These are only words.') },
    { name: 'nothing.png', mimeType: 'image/png', buffer: Buffer.alloc(0) },
    { name: 'reed bed.png', mimeType: 'image/png', buffer: Buffer.from(good) },
    {
      name: 'script.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>1</script></svg>'),
    },
  ]);
  const coming = page.getByRole('region', { name: 'Coming in' });
  await expect(coming.getByText('4 of 4 files')).toBeVisible();
  await expect(
    coming.getByText('words.jpg is not a picture or a document, whatever its name says.'),
  ).toBeVisible();
  await expect(coming.getByText('nothing.png is empty: it has no bytes.')).toBeVisible();
  await expect(coming.getByText('script.svg is a drawing with a program in it')).toBeVisible();
  await expect(coming.getByText('Taken in as reed-bed.png.')).toBeVisible();
  await expect(tray(page).getByText('1 piece,')).toBeVisible();
  // The very same file once more is the same piece.
  await dropFiles(page, tray(page), [
    { name: 'copy of it.png', mimeType: 'image/png', buffer: Buffer.from(good) },
  ]);
  await expect(coming.getByText('Already on the shelf as reed-bed.png; that one is used.')).toBeVisible();
  await expect(tray(page).getByText('1 piece,')).toBeVisible();
});

test('a picture pasted into the text is placed there', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Pasted');
  await sheet(page).click();
  await page.keyboard.type('Above.');
  await sheet(page).evaluate(async (element) => {
    const canvas = new OffscreenCanvas(500, 300);
    canvas.getContext('2d')?.fillRect(0, 0, 250 + (Date.now() % 200), 300);
    const transfer = new DataTransfer();
    transfer.items.add(
      new File([await canvas.convertToBlob({ type: 'image/png' })], 'image.png', { type: 'image/png' }),
    );
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }),
    );
  });
  await expect(figures(page).getByRole('img')).toBeVisible();
  await expect(tray(page).getByText('1 placed')).toBeVisible();
});

test('a piece dragged onto a list comes to stand before or after it, never inside', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-3');
  const order = () => blocksOf(page);
  const before = 'P piece UL H2 UL piece P P H2 piece P';
  await expect.poll(order).toBe(before);
  await page
    .getByText('Boots that can get wet')
    .evaluate((line) => line.closest('ul')?.scrollIntoView({ block: 'start' }));
  const [from, onto] = await Promise.all([
    placed(page, 'Reed bed at first light').boundingBox(),
    page.getByText('Boots that can get wet').boundingBox(),
  ]);
  if (!from || !onto) throw new Error('not in sight');
  await page.mouse.move(from.x + 60, from.y + 30);
  await page.mouse.down();
  await page.mouse.move(from.x + 80, from.y + 10, { steps: 4 });
  await page.mouse.move(onto.x + 200, onto.y + 5, { steps: 8 });
  await page.mouse.up();
  await expect.poll(order).toBe('P piece UL H2 piece UL P P H2 piece P');
  await page.getByRole('button', { name: 'Undo moving it' }).click();
  await expect.poll(order).toBe(before);
});

test('rich text loses its foreign styles and keeps headings, lists and links', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Rich text');
  await sheet(page).click();
  await sheet(page).evaluate((element) => {
    const transfer = new DataTransfer();
    transfer.setData(
      'text/html',
      '<h1 style="color:red">Title</h1><p style="font:40px x"><span style="color:red">Red <b>bold</b></span> <a href="javascript:alert(1)">bad</a> <a href="https://saltmere.example/" onclick="x()">good</a>.</p><p>The reed is cut on the east bank.</p><script>window.hacked = true</script><ul><li>One</li></ul>',
    );
    element.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }),
    );
  });
  await expect(sheet(page).getByRole('heading', { level: 2, name: 'Title' })).toBeVisible();
  await expect(sheet(page).getByRole('listitem')).toHaveText('One');
  await expect(sheet(page).getByRole('link')).toHaveCount(1);
  expect(await sheet(page).innerHTML()).not.toMatch(/style="(color|font)|javascript:|onclick/);
  expect(await page.evaluate(() => Reflect.get(window, 'hacked'))).toBeUndefined();
  // How much was lost is said, and each place of it can be seen.
  const told = page.getByText(/Programs never come along\. Foreign style was left out in 2 places\./);
  await expect(told).toBeVisible();
  await page.getByRole('button', { name: 'See what' }).press('Enter');
  const lost = page.getByRole('dialog', { name: 'What the text lost on its way' });
  await expect(lost.getByRole('listitem').filter({ hasText: 'Red bold' })).toContainText('coloured red');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(lost).toBeHidden();
  await saved(page);
});

test('pictures of pasted text are offered where they stood, and one is taken in there', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'An article with pictures');
  await sheet(page).click();
  const data = 'data:image/gif;base64,R0lGODlhAQABAIAAAP///wAAACwAAAAAAQABAAACAkQBADs=';
  await sheet(page).evaluate(
    (element, [web, within]) => {
      const transfer = new DataTransfer();
      transfer.setData(
        'text/html',
        `<p>Before it.</p><p><img src="${web}" alt="The plain one"></p><p>Between.</p><p><img src="${within}"></p><p><img src="file:///C:/clip/tide%20gauge.png"> After it.</p>`,
      );
      element.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: transfer, bubbles: true, cancelable: true }),
      );
    },
    [`http://anysite.localhost:${OUTSIDE_PORT}/picture/plain.jpg`, data],
  );
  const offers = page.getByRole('group', { name: 'A picture that came with the text' });
  await expect(offers).toHaveCount(3);
  await expect(offers.nth(0)).toContainText(
    'A picture “The plain one” came with the text, from anysite.localhost.',
  );
  await expect(offers.nth(2)).toContainText('A picture “tide gauge.png” stood here, on the machine');
  await expectAccessible(page);
  await offers.nth(0).getByRole('button', { name: 'Take it in' }).click();
  await expect(offers).toHaveCount(2);
  await expect(figures(page)).toHaveCount(1);
  const standing = () =>
    sheet(page).evaluate((text) =>
      [...text.children].map((block) => (block.matches('.placed') ? 'piece' : block.textContent)).slice(0, 3),
    );
  expect(await standing()).toEqual(['Before it.', 'piece', 'Between.']);
  await saved(page);
  await offers.nth(1).getByRole('button', { name: 'Leave it out' }).click();
  await expect(offers).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo leaving a picture out' }).click();
  await expect(offers).toHaveCount(2);
  await offers.nth(0).getByRole('button', { name: 'Take it in' }).click();
  await expect(figures(page)).toHaveCount(2);
});

test('a contributor hands in and says what it is, and reads no page', async ({ page }) => {
  await signIn(page, 'Joss');
  await expect(page.getByRole('link', { name: 'Shelf', exact: true })).toBeVisible();
  for (const area of ['Pages', 'Embeds'])
    await expect(page.getByRole('link', { name: area, exact: true })).toBeHidden();
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('option', { name: 'Open the house rules' })).toBeVisible();
  await expect(page.getByRole('option', { name: /^(Begin|Gather|Read an embed|Do the same)/ })).toHaveCount(
    0,
  );
  for (const path of [
    '/pages',
    '/pages/demo-page-1',
    '/pages/new',
    '/embeds',
    '/gather',
    '/shelf/runs/new',
  ]) {
    await page.goto(path);
    await expect(page.getByText('Yours, contributor, does not let you')).toBeVisible();
  }
  await expectAccessible(page);
  await page.goto('/shelf?words=boardwalk+noon');
  await page
    .getByRole('option', { name: /^Boardwalk at noon/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: /Boardwalk at noon/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Change alt text and caption' })).toBeHidden();
});

test('a screen that fails says so in its place, and what was typed is there afterwards', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Typed before it failed');
  await sheet(page).click();
  await page.keyboard.type('These words stay.');
  await saved(page);
  await page.keyboard.type(' And these, a moment ago.');
  await page.route('**/assets/rules-screen-*.js', (route) => route.abort());
  await page.getByRole('link', { name: 'House rules' }).click();
  await expect(page.getByRole('alert').getByRole('heading', { name: 'Placard was renewed' })).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Areas' })).toBeVisible();
  await expectAccessible(page);
  await page.goBack();
  await expect(sheet(page).getByText('These words stay. And these, a moment ago.')).toBeVisible();
  await page.unroute('**/assets/rules-screen-*.js');
  await page.goto('/rules');
  await expect(page.getByRole('heading', { name: 'House rules' })).toBeVisible();
});

test('the site owner searches the log, and takes it away', async ({ page }) => {
  await page.request.post('/api/session', { data: { email: 'piet@saltmere.example', password: 'not his' } });
  await signIn(page, 'Sunniva', '/rules');
  const log = page.getByRole('region', { name: 'Log' });
  await expect(log.getByRole('listitem').first()).toContainText('Sunniva Brandt signed in');
  await choose(log.getByRole('combobox', { name: 'What was done' }), 'who was not let in');
  await log.getByRole('textbox', { name: 'Name, subject or address' }).fill('piet');
  await expect(log.getByRole('listitem').first()).toContainText('piet@saltmere.example was not let in');
  const [taken] = await Promise.all([
    page.waitForEvent('download'),
    log.getByRole('link', { name: 'Take it away as CSV' }).click(),
  ]);
  expect(taken.suggestedFilename()).toMatch(/^placard-log-.*\.csv$/);
  await expectAccessible(page);
});

test('a label that is being edited is so after a reload, on a page and on the shelf', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Half said');
  await dropFiles(page, tray(page), [
    { name: 'half said.png', mimeType: 'image/png', buffer: await aPicture() },
  ]);
  await tray(page)
    .getByRole('button', { name: /^half-said/ })
    .press('Enter');
  await expect(figures(page)).toHaveCount(1);
  await saved(page);
  const words = row(page, 'Alt text and caption');
  const alt = words.getByRole('textbox', { name: 'Alt text' });
  await words.getByRole('button', { name: 'Write alt text' }).click();
  await alt.fill('Reeds, hal');
  await page.reload();
  await expect(alt).toHaveValue('Reeds, hal');
  await alt.fill('Reeds, half in the water.');
  await words.getByRole('button', { name: 'Save words' }).click();
  await expect(alt).toBeHidden();

  await page.goto('/shelf?words=half-said');
  await page.getByRole('option').first().click();
  await words.getByRole('button', { name: 'Add another language' }).click();
  await alt.fill('Schilf, hal');
  await page.reload();
  await expect(alt).toHaveValue('Schilf, hal');
  await words.getByRole('button', { name: 'Close: add another language' }).click();
  await page.reload();
  await expect(words.getByRole('button', { name: 'Add another language' })).toBeVisible();
  await expect(alt).toBeHidden();
});

const aPicture = () =>
  sharp({ create: { width: 900, height: 600, channels: 3, background: '#7d8f6a' } })
    .png()
    .toBuffer();
