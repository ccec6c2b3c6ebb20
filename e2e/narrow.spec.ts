import { expect, type Page } from '@playwright/test';
import { choose, expectAccessible, figures, label, placed, sheet, tray } from './hands.ts';
import { test } from './test.ts';

/** A phone, the narrowest page there is, and a screen of 1280 by 800 enlarged to 200 %. */
const SCREENS = [
  { width: 400, height: 800 },
  { width: 320, height: 640 },
  { width: 640, height: 400 },
] as const;

const PATHS = [
  '/',
  '/pages',
  '/pages/new',
  '/pages/demo-page-1',
  '/pages/demo-page-1?place=label',
  '/pages/demo-page-1?place=tray',
  '/pages/demo-page-1/proof',
  '/shelf',
  '/gather',
  '/embeds',
  '/rules',
  '/lookalikes',
] as const;

/** Signed in, since the areas are behind a button here. */
async function openNarrow(page: Page, name: 'Mara' | 'Sunniva' | 'Piet', path: string): Promise<void> {
  await page.setViewportSize(SCREENS[0]);
  const email = `${name.toLowerCase()}@saltmere.example`;
  await page.request.post('/api/session', { data: { email, password: 'saltmere-2026' } });
  await page.goto(path);
  await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
}

const placesOf = (page: Page) => page.getByRole('navigation', { name: /^Places of/ });
const goTo = (page: Page, place: string) =>
  placesOf(page)
    .getByRole('button', { name: new RegExp(`^${place}`) })
    .click();

/** What goes over the edge of the screen, or makes something scroll sideways. */
const sideways = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    for (const element of document.querySelectorAll<HTMLElement>('*')) {
      const scrolls =
        /auto|scroll/.test(getComputedStyle(element).overflowX) || element === document.documentElement;
      if (scrolls && element.clientWidth > 0 && element.scrollWidth > element.clientWidth + 1)
        found.push(`${element.tagName} ${element.className} scrolls`);
      const { left, right, width, height } = element.getBoundingClientRect();
      const isControl = element.matches('button, a, input, select, textarea');
      if (isControl && width > 2 && height > 2 && (right > innerWidth + 1 || left < -1))
        found.push(`${element.tagName} ${element.textContent} is cut off`);
    }
    return found;
  });

for (const screen of SCREENS.slice(1))
  test(`nothing scrolls sideways or is cut off at ${screen.width} by ${screen.height}`, async ({ page }) => {
    await openNarrow(page, 'Sunniva', '/');
    await page.setViewportSize(screen);
    for (const path of PATHS) {
      await page.goto(path);
      await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
      await expect.poll(() => sideways(page), { message: path }).toEqual([]);
    }
  });

test('on a phone a picture is worded, and the proof read, one place at a time', async ({ page }) => {
  await openNarrow(page, 'Mara', '/pages/demo-page-1');
  await expect(sheet(page)).toBeVisible();
  await expect(tray(page)).toBeHidden();
  await expectAccessible(page);
  await figures(page).first().getByRole('img').first().click();
  await expect(placesOf(page).getByRole('button', { name: /^Label Heron/ })).toBeVisible();
  await goTo(page, 'Label');
  await expect(label(page)).toBeVisible();
  await expect(sheet(page)).toBeHidden();
  await expectAccessible(page);
  await goTo(page, 'Tray');
  await expectAccessible(page);
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeVisible();
  await tray(page)
    .getByRole('button', { name: /boardwalk/i })
    .first()
    .click();
  await label(page)
    .getByRole('button', { name: /Write alt text/ })
    .first()
    .click();
  await page.getByRole('textbox', { name: /Alt text/ }).fill('A boardwalk leads through reeds at noon.');
  await page.getByRole('button', { name: 'Save words' }).click();
  await expect(label(page).getByText('A boardwalk leads through reeds at noon.').first()).toBeVisible();
  await goTo(page, 'Proof');
  await expect(page.getByRole('complementary', { name: 'Findings' })).toBeVisible();
  await expect(page.getByTitle('The page at 390 px')).toBeVisible();
  await page.getByRole('button', { name: '834 px' }).click();
  await expect(page.getByTitle('The page at 834 px')).toBeVisible();
  await expectAccessible(page);
  await expect(page.getByRole('button', { name: 'Take away...' })).toBeVisible();
  await goTo(page, 'Sheet');
  await expect(placed(page, 'Heron below Hide No. 3').first()).toBeVisible();
});

test('on a phone the areas and what a person can do are behind buttons of the bar', async ({ page }) => {
  await openNarrow(page, 'Mara', '/');
  await page.getByRole('button', { name: 'Desk, other areas' }).click();
  await page.getByRole('menuitem', { name: 'Shelf' }).click();
  await expect(page).toHaveURL(/\/shelf/);
  await page.getByRole('button', { name: /^Find or do/ }).click();
  await expect(page.getByRole('dialog', { name: 'Find or do' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /your menu/ }).click();
  await expect(page.getByRole('menuitem', { name: 'Sign out' })).toBeInViewport({ ratio: 1 });
});

test('on a phone the folders, the pieces and a label of the shelf are places, and a licence is set there', async ({
  page,
}) => {
  await openNarrow(page, 'Sunniva', '/shelf?words=heron');
  const pieces = page.getByRole('listbox', { name: 'Pieces' });
  await expect(pieces).toBeVisible();
  await expect(label(page)).toBeHidden();
  await expectAccessible(page);
  await pieces.getByRole('option').first().click();
  await goTo(page, 'Label');
  await expect(pieces).toBeHidden();
  await label(page)
    .getByRole('button', { name: /Change rights|Set licence/ })
    .click();
  await choose(label(page).getByRole('combobox', { name: 'Licence' }), 'Our own work');
  await label(page).getByRole('button', { name: 'Save rights' }).click();
  await expect(label(page).getByRole('region', { name: 'Rights' })).toContainText('Our own work');
  await expectAccessible(page);
  await goTo(page, 'Folders');
  await page
    .getByRole('navigation', { name: 'Folders' })
    .getByRole('button', { name: /^boardwalk/ })
    .click();
  await goTo(page, 'Pieces boardwalk|Pieces');
  await expect(page.getByRole('button', { name: 'Folder: boardwalk' })).toBeVisible();
});

test('on a phone the Bench has the cuts, the picture and what is done to it, one at a time', async ({
  page,
}) => {
  await openNarrow(page, 'Mara', '/shelf?words=sluice+eel+pass');
  await page.getByRole('option').first().click();
  await goTo(page, 'Label');
  await page.getByRole('link', { name: 'Prepare it' }).click();
  await expect(page.getByRole('region', { name: 'Stage' })).toBeVisible();
  await expectAccessible(page);
  await goTo(page, 'Cuts');
  await page
    .getByRole('navigation', { name: 'Cuts' })
    .getByRole('button', { name: /^Square/ })
    .click();
  await goTo(page, 'Recipe');
  await page.getByRole('checkbox', { name: 'Black and white' }).check();
  await expect(page.getByText('Toned: in black and white.')).toBeVisible();
  await expectAccessible(page);
  for (const place of ['Cuts', 'Piece', 'Recipe']) {
    await goTo(page, place);
    expect(await sideways(page)).toEqual([]);
  }
  await page
    .getByRole('button', { name: 'Undo tone' })
    .or(page.getByRole('button', { name: 'Undo the tone' }))
    .first()
    .click();
});
