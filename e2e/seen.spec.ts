import { expect, type Locator, type Page } from '@playwright/test';
import { label, placed, row, signIn } from './hands.ts';
import { test } from './test.ts';

/** That what is there is seen by those who set their screen otherwise. */

const SCREENS = [
  '/',
  '/pages',
  '/pages/demo-page-1',
  '/pages/demo-page-1/proof',
  '/shelf',
  '/gather',
  '/embeds',
  '/rules',
] as const;

/** Texts that their own box cuts off, where nothing says that there is more. */
const cutOff = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const cut: string[] = [];
    for (const element of document.querySelectorAll<HTMLElement>('body *')) {
      const style = getComputedStyle(element);
      const hides = /hidden|clip/.test(`${style.overflowX} ${style.overflowY}`);
      const isShown = element.clientWidth > 2 && element.clientHeight > 2 && style.visibility === 'visible';
      const hasText = [...element.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim());
      const saysMore = style.textOverflow === 'ellipsis' || style.webkitLineClamp !== 'none';
      if (!hides || !isShown || !hasText || saysMore) continue;
      const over = [element.scrollWidth - element.clientWidth, element.scrollHeight - element.clientHeight];
      if (over.some((px) => px > 2))
        cut.push(`${element.tagName} ${element.textContent?.trim().slice(0, 40)}`);
    }
    return cut;
  });

/** WCAG 2.2, 1.4.12: the spacing that a reader may set. */
const SPACED = `* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; }
p { margin-bottom: 2em !important; }`;

test('no text is cut off with the spacing that a reader may set', async ({ page }) => {
  await signIn(page, 'Sunniva');
  for (const path of SCREENS) {
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 }).first()).toBeVisible();
    await page.addStyleTag({ content: SPACED });
    await expect.poll(() => cutOff(page), { message: path }).toEqual([]);
    const sideways = () =>
      page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
    expect(await sideways(), path).toBe(0);
  }
});

/** How a control is set off where a person's own colours take the place of all others. */
const look = (control: Locator) =>
  control.evaluate((element) => {
    const { backgroundColor, outlineStyle, outlineWidth, borderTopWidth, borderLeftColor, color } =
      getComputedStyle(element);
    return [backgroundColor, outlineStyle, outlineWidth, borderTopWidth, borderLeftColor, color].join(' ');
  });

test('in a person’s own colours what is chosen is seen: a position, a cut, a picture, a station', async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: 'active' });
  await signIn(page, 'Mara', '/pages/demo-page-1');
  await placed(page, 'Heron below Hide No. 3').first().click();
  const positions = row(page, 'Fit').getByRole('radiogroup', { name: /Position/ });
  const [chosen, other] = [
    positions.getByRole('radio', { checked: true }).first(),
    positions.getByRole('radio', { checked: false }).first(),
  ];
  expect(await look(chosen)).not.toBe(await look(other));
  await label(page).getByRole('link', { name: 'Prepare it', exact: true }).first().click();
  const cuts = page.getByRole('navigation', { name: 'Cuts' });
  const open = cuts.getByRole('button', { pressed: true }).first();
  await expect(open).toBeVisible();
  expect(await look(open)).not.toBe(await look(cuts.getByRole('button', { pressed: false }).first()));
  await page.goto('/shelf');
  const pieces = page.getByRole('option');
  await pieces.first().click();
  expect(await look(page.getByRole('option', { selected: true }).first())).not.toBe(
    await look(page.getByRole('option', { selected: false }).first()),
  );
});
