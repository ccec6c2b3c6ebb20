import { expect, type Locator, type Page } from '@playwright/test';
import { blocksOf, expectAccessible, figures, saved, signIn, tabTo, tray } from './hands.ts';
import { test } from './test.ts';

/** On the page of the bitterns, as the demo has it. */
const PAGE = '/pages/demo-page-1';
const BLOCKS = 'H2 P piece P P P piece H2 UL piece P';

/** Drags with the mouse as a hand does: taken up, moved over, let go. `at` is a share of the place's box. */
async function drag(page: Page, from: Locator, onto: Locator, at = { x: 0.5, y: 0.5 }): Promise<void> {
  await from.hover({ position: { x: 20, y: 20 } });
  await page.mouse.down();
  const one = await from.boundingBox();
  if (!one) throw new Error('not in sight');
  await page.mouse.move(one.x + 28, one.y + 12, { steps: 3 });
  // What is aimed at may still move, as long as pictures and faces arrive: a hand follows it.
  for (let before = ''; ; ) {
    const other = await onto.boundingBox();
    if (!other) throw new Error('not in sight');
    if (JSON.stringify(other) === before) break;
    before = JSON.stringify(other);
    await page.mouse.move(other.x + other.width * at.x, other.y + other.height * at.y, { steps: 8 });
  }
  await page.mouse.up();
}

const pieceOn = (page: Page, name: RegExp) => tray(page).getByRole('button', { name });
/** The pieces of the tray in their order, by the first word of each. */
const trayed = (page: Page): Promise<string> =>
  tray(page)
    .getByRole('img')
    .evaluateAll((images) => images.map((image) => image.getAttribute('alt')?.split(' ')[0]).join(' '));
const said = (page: Page) => page.getByRole('status').and(page.locator('[aria-live="assertive"]'));

test('pieces go by mouse from the tray to the sheet, to a want, among each other, and back', async ({
  page,
}) => {
  await signIn(page, 'Mara', PAGE);
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);
  const order = await trayed(page);
  const [first = '', second = ''] = order.split(' ');

  await drag(page, pieceOn(page, /Bittern/), page.getByText('Three bearings make a bird'), {
    x: 0.5,
    y: 0.1,
  });
  await expect.poll(() => blocksOf(page)).toBe('H2 P piece P piece P P piece H2 UL piece P');
  await expect(said(page)).toContainText('put before paragraph 3, Three bearings');
  await page.getByRole('button', { name: 'Undo placing a piece' }).click();
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);

  await drag(page, tray(page).getByRole('img').nth(1), tray(page).getByRole('img').first(), {
    x: 0.1,
    y: 0.5,
  });
  await expect.poll(() => trayed(page)).toBe([second, first, ...order.split(' ').slice(2)].join(' '));
  await page.getByRole('button', { name: 'Undo moving it on the tray' }).click();
  await expect.poll(() => trayed(page)).toBe(order);

  const want = tray(page).getByRole('button', { name: /Portrait of the warden/ });
  await drag(page, figures(page).first(), want);
  await expect(want).toBeHidden();
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);
  await page.getByRole('button', { name: 'Undo filling a want' }).click();
  await expect(want).toBeVisible();

  await drag(page, figures(page).first(), tray(page).getByRole('img').last());
  await expect.poll(() => blocksOf(page)).toBe('H2 P P P P piece H2 UL piece P');
  await expect.poll(() => trayed(page)).toBe(order);
  await page.getByRole('button', { name: 'Undo taking a piece off the page' }).click();
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);
  await saved(page);
});

test('pieces are carried by keys to every place that takes them, and each step is said', async ({ page }) => {
  await signIn(page, 'Mara', PAGE);
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);
  const order = await trayed(page);
  const piece = pieceOn(page, /Bittern/);

  await piece.focus();
  await page.keyboard.press('m');
  await expect(said(page)).toContainText(/^Carrying Bittern.*, 2 of 12\. Arrows and Tab go on/u);
  await page.keyboard.press('ArrowDown');
  await expect(said(page)).toContainText('before the piece Heron below Hide No. 3, 3 of 12');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(said(page)).toContainText('put back');
  await expect(piece).toBeFocused();
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);

  await page.keyboard.press('m');
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await expect.poll(() => blocksOf(page)).toBe(`${BLOCKS} piece P`);
  // What was put down is selected on the sheet, and is taken up there again: not right after another letter.
  await page.waitForTimeout(300);
  await page.keyboard.press('m');
  await expect(said(page)).toContainText('where it stands, 12 of 12');
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await expect.poll(() => blocksOf(page)).toBe(`piece ${BLOCKS} P`);
  await page.waitForTimeout(300);
  await page.keyboard.press('m');
  await page.keyboard.press('Tab');
  await expect(said(page)).toContainText('back on the tray, 1 of 1');
  await page.keyboard.press('Enter');
  await expect.poll(() => blocksOf(page)).toBe(`${BLOCKS} P`);
  for (const step of ['taking a piece off the page', 'moving it', 'placing a piece'])
    await page.getByRole('button', { name: `Undo ${step}` }).click();
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);

  await piece.focus();
  await page.keyboard.press('m');
  await page.keyboard.press('Shift+Tab');
  await expect(said(page)).toContainText('into the want Portrait of the warden, 1 of 1');
  await page.keyboard.press('Enter');
  await expect(tray(page).getByRole('button', { name: /Portrait of the warden/ })).toBeHidden();
  await page.getByRole('button', { name: 'Undo filling a want' }).click();

  await tabTo(tray(page).getByRole('button', { name: new RegExp(`^${order.split(' ')[0]}`, 'u') }));
  await page.keyboard.press('Alt+ArrowRight');
  await expect(said(page)).toContainText('put 2 of 5 on the tray.');
  await page.keyboard.press('Alt+Home');
  await expect.poll(() => trayed(page)).toBe(order);
});

test('pieces of the shelf are carried into a folder by keys', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf');
  const folders = page.getByRole('navigation', { name: 'Folders' });
  await page.getByRole('option').first().click();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('option').nth(1)).toBeFocused();
  await page.keyboard.press('Space');
  await page.keyboard.press('m');
  await expect(said(page)).toContainText(/^Carrying 2 pieces, into .*, 1 of \d+\./u);
  await page.keyboard.press('End');
  const last =
    /^into (?<path>.+), \d+ of \d+/u.exec((await said(page).textContent()) ?? '')?.groups?.path ?? '';
  await expect(folders.getByRole('button', { name: last.split(' / ').at(-1) ?? '' }).last()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByText(`2 pieces moved to ${last.replaceAll(' / ', '/')}.`)).toBeVisible();
  await page.getByRole('button', { name: 'Undo moving 2 pieces' }).click();
  await expect(page.getByRole('button', { name: /^Redo moving 2 pieces/ })).toBeVisible();
});

test('pieces dragged from the shelf of another window come onto the page', async ({ page }) => {
  await signIn(page, 'Mara', PAGE);
  await expect.poll(() => blocksOf(page)).toBe(BLOCKS);
  const asked = await page.request.get('/api/assets?words=plate&limit=1');
  const id: unknown = (await asked.json()).assets[0].id;
  const carried = await page.evaluateHandle((piece) => {
    const data = new DataTransfer();
    data.setData('application/x-placard-pieces', JSON.stringify([piece]));
    return data;
  }, id);
  for (const event of ['dragenter', 'dragover', 'drop'] as const)
    await tray(page).dispatchEvent(event, { dataTransfer: carried });
  await expect(tray(page).getByText('6 pieces,')).toBeVisible();
  await page.getByRole('button', { name: 'Undo putting a piece on the tray' }).click();
  await expect(tray(page).getByText('5 pieces,')).toBeVisible();
});
