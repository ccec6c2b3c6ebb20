import { expect, type Page } from '@playwright/test';
import { signIn } from './hands.ts';
import { test } from './test.ts';

/** The address at which a page stands as readers get it. */
async function asReadersGetIt(page: Page, id: string): Promise<string> {
  await signIn(page, 'Mara', `/pages/${id}/proof`);
  const frame = page.locator('iframe').first();
  await expect(frame).toHaveAttribute('src', /.+/u);
  return new URL((await frame.getAttribute('src')) ?? '', page.url()).href;
}

/** Where each block of the page begins, in px from its top. */
const tops = (page: Page): Promise<number[]> =>
  page
    .locator('.placard-column > *')
    .evaluateAll((blocks) => blocks.map((block) => block.getBoundingClientRect().top));

test('nothing on a page shifts by more than a line when its own faces arrive', async ({ page, context }) => {
  const address = await asReadersGetIt(page, 'demo-page-1');
  for (const width of [360, 768, 1280]) {
    const [slow, quick] = [await context.newPage(), await context.newPage()];
    for (const one of [slow, quick]) await one.setViewportSize({ width, height: 900 });
    await slow.route('**/fonts/**', (route) => route.abort());
    await slow.goto(address);
    await quick.goto(address);
    await quick.evaluate(() => document.fonts.ready.then(() => undefined));
    const [before, after] = [await tops(slow), await tops(quick)];
    expect(before).toHaveLength(after.length);
    const shifts = before.map((top, at) => Math.abs(top - (after[at] ?? 0)));
    const line = await quick
      .locator('.placard-column h2')
      .first()
      .evaluate((heading) => parseFloat(getComputedStyle(heading).lineHeight));
    expect(Math.max(...shifts)).toBeLessThanOrEqual(line);
    await slow.close();
    await quick.close();
  }
});

test('on paper no figure is cut in two, and links say where they lead', async ({ page, context }) => {
  const address = await asReadersGetIt(page, 'demo-page-1');
  const paper = await context.newPage();
  await paper.goto(address);
  await paper.emulateMedia({ media: 'print' });
  const broken = await paper
    .getByRole('figure')
    .evaluateAll((figures) => figures.map((figure) => getComputedStyle(figure).breakInside));
  expect(new Set(broken)).toEqual(new Set(['avoid']));
  await paper.evaluate(() => {
    const link = document.createElement('a');
    link.href = 'https://saltmere.example/hides';
    link.textContent = 'the hides';
    document.querySelector('.placard p')?.append(link);
  });
  const said = await paper
    .getByRole('link', { name: /the hides/ })
    .evaluate((link) => getComputedStyle(link, '::after').content);
  expect(said).toContain('https://saltmere.example/hides');
});

test('captions are at least 14 px, and begin a heading’s section clear of the picture before it', async ({
  page,
  context,
}) => {
  const address = await asReadersGetIt(page, 'demo-page-2');
  const reader = await context.newPage();
  await reader.setViewportSize({ width: 1280, height: 900 });
  await reader.goto(address);
  const sizes = await reader
    .locator('figcaption')
    .evaluateAll((captions) =>
      captions.map((caption) => Number.parseFloat(getComputedStyle(caption).fontSize)),
    );
  expect(Math.min(...sizes)).toBeGreaterThanOrEqual(14);
  const overlap = await reader.evaluate(() => {
    const floats = [...document.querySelectorAll('.beside-left, .beside-right')].map((one) =>
      one.getBoundingClientRect(),
    );
    return [...document.querySelectorAll('.placard h2, .placard h3')].some((heading) => {
      const { top } = heading.getBoundingClientRect();
      return floats.some((box) => box.top < top && box.bottom > top + 1);
    });
  });
  expect(overlap).toBe(false);
});
