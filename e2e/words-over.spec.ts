import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { expectAccessible, figures, signIn } from './hands.ts';
import { test } from './test.ts';

const rowOf = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const words = (page: Page) => rowOf(page, 'Words over it');
const fragmentOf = async (page: Page, id: string) =>
  String((await (await page.request.get(`/api/pages/${id}/fragment`)).json()).html);

test('words over a picture are set where they stand out, and go out as text of the page', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages/demo-page-2');
  await figures(page).first().click();
  await page
    .getByRole('complementary', { name: 'Label' })
    .getByRole('link', { name: 'Prepare it here alone' })
    .click();
  await words(page).getByRole('button', { name: 'Put words over it' }).focus();
  await page.keyboard.press('Enter');
  const text = words(page).getByRole('textbox', { name: 'What stands there' });
  await expect(text).toBeFocused();
  await text.fill('Болото');
  await expect(words(page).getByRole('alert')).toHaveText(/^Only Latin letters, .* It stays as it was\.$/);
  // Written letter by letter, and kept when the field is left.
  await text.fill('');
  await text.pressSequentially('The boardwalk\nreopens <b>in May</b>');
  await expect(text).toBeFocused();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('button', { name: 'Undo the words over it' })).toBeVisible();
  await page.reload();
  await expect(text).toHaveValue('The boardwalk\nreopens <b>in May</b>');
  await expect(rowOf(page, 'Steps')).toContainText('“The boardwalk reopens <b>in May</b>” over it');
  // A slider has no undo of its own: the keys take back what was done with it, and no letter.
  const size = words(page).getByRole('slider', { name: 'Size' });
  await size.focus();
  await page.keyboard.press('ArrowRight');
  await expect(size).toHaveAttribute('aria-valuetext', '6.1%');
  await expect(page.getByRole('button', { name: 'Undo the words over it' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(size).toHaveAttribute('aria-valuetext', '6.0%');
  await expect(text).toHaveValue('The boardwalk\nreopens <b>in May</b>');
  // White words on a pale sky are told of, and a plate mends that.
  await words(page).getByRole('radio', { name: 'At the top', exact: true }).check();
  await expect(words(page).getByText(/^Contrast [\d.]+ where it is poorest, 3 is needed\./)).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Cuts' })).toContainText('Its words hardly stand out.');
  await words(page).getByRole('checkbox', { name: 'On a plate' }).check();
  await expect(words(page).getByText(/^Contrast \d+\.\d, 3 is needed\.$/)).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Cuts' })).not.toContainText('hardly stand out');
  await expect(words(page)).toContainText('Stands on the Reserve site as text of the page');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Compare with the original' }).click();
  await expect(page.getByRole('region', { name: 'Stage' }).locator('svg')).toBeVisible();
  await page.getByRole('button', { name: 'Stop comparing' }).click();
  await page.getByRole('button', { name: 'Undo the words over it' }).click();
  await expect(words(page).getByText(/where it is poorest/)).toBeVisible();
  await page.getByRole('link', { name: 'Done' }).click();
  await expect(figures(page).first().getByRole('paragraph')).toHaveText('The boardwalkreopens <b>in May</b>');
  expect(await fragmentOf(page, 'demo-page-2')).toContain(
    '<span>The boardwalk<br>reopens &lt;b&gt;in May&lt;/b&gt;</span>',
  );
  // The proof says the same, and mends it on the spot.
  await page.goto('/pages/demo-page-2/proof');
  const finding = page.getByRole('listitem').filter({ hasText: 'hardly stand out from it' });
  await finding.getByRole('button', { name: 'Lay a plate under them' }).click();
  await expect(finding).toHaveCount(0);
  await expect.poll(() => fragmentOf(page, 'demo-page-2')).toContain('class="over top plated"');
  const frame = page.frameLocator('iframe').first();
  await expect(frame.getByRole('figure').getByText('in May')).toBeVisible();
  await page.goto('/pages/demo-page-2');
  await figures(page).first().click();
  await page.getByRole('button', { name: 'as everywhere else' }).click();
  await expect.poll(() => fragmentOf(page, 'demo-page-2')).not.toContain('class="over');
});

test('words are drawn into the file for a site that keeps no text there, as the sheet shows them', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  const id = await bulletinPage(page);
  await page.goto(`/pages/${id}`);
  const picture = figures(page).locator('> div');
  await expect(picture.locator('svg')).toBeVisible();
  await figures(page)
    .getByRole('img')
    .evaluate(async (image) => {
      if (image instanceof HTMLImageElement) await image.decode();
    });
  const seen = await picture.screenshot({ type: 'png' });
  const fragment = await fragmentOf(page, id);
  expect(fragment).not.toContain('class="over');
  await page.goto(`/pages/${id}/proof`);
  const finding = page.getByRole('listitem').filter({ hasText: 'are not in its alt text' });
  await expect(finding).toBeVisible();
  const image = page.frameLocator('iframe').last().getByRole('figure').getByRole('img');
  await expect(image).toBeVisible();
  const address = await image.evaluate((one) =>
    one instanceof HTMLImageElement ? one.currentSrc || one.src : '',
  );
  const made = Buffer.from(await (await page.request.get(address)).body());
  expect(await distance(seen, made)).toBeLessThan(6);
  // The letters themselves agree: where the plate lies, px for px.
  expect(await distance(seen, made, PLATE)).toBeLessThan(14);
  expect(await darkShare(made, PLATE)).toBeGreaterThan(0.3);
  await finding.getByRole('button', { name: 'Add them to its alt text here' }).click();
  await expect(finding).toHaveCount(0);
  await expect.poll(() => fragmentOf(page, id)).toContain('It says: Booming again');
});

/** A page for the bulletin with one picture in the column, over which words stand on a plate in its middle. */
async function bulletinPage(page: Page): Promise<string> {
  const headers = { origin: new URL(page.url()).origin };
  const targets = await (await page.request.get('/api/targets')).json();
  const bulletin = targets.find((one: { rules: { wordsOver: string } }) => one.rules.wordsOver === 'drawn');
  const { assets } = await (await page.request.get('/api/assets?words=heron&kind=photo&limit=5')).json();
  const made = await page.request.post('/api/pages', {
    headers,
    data: { title: 'Booming', targetId: bulletin.id, wants: [], due: null },
  });
  const { id } = await made.json();
  const created = await (await page.request.get(`/api/pages/${id}`)).json();
  const prep = {
    ...assets[0].prep,
    words: { text: 'Booming again', place: 'middle', size: 110, ink: '#ffffff', plate: '#172126' },
  };
  const attrs = {
    id: 'worded',
    asset: assets[0].id,
    position: 'column',
    width: null,
    margins: null,
    ratio: { across: 3, down: 2 },
    backgroundColour: null,
    prep,
    stackBelow: null,
    click: { kind: 'nothing' },
    alt: { kind: 'text', text: 'A heron in the reeds.' },
    caption: null,
  };
  const saved = await page.request.put(`/api/pages/${created.id}`, {
    headers: { ...headers, 'if-match': `"${created.version}"` },
    data: { doc: { ...created.doc, tray: [assets[0].id], blocks: [{ type: 'placement', attrs }] } },
  });
  expect(saved.status(), await saved.text()).toBe(200);
  return created.id;
}

interface Part {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}
/** Where the plate lies, in px of a picture of 300 by 200. */
const PLATE: Part = { left: 40, top: 80, width: 220, height: 40 };

const small = async (bytes: Buffer, part: Part) =>
  sharp(await sharp(bytes).removeAlpha().resize(300, 200, { fit: 'fill' }).png().toBuffer())
    .extract(part)
    .raw()
    .toBuffer();

/** The mean distance of two pictures, 0 to 255, at 300 px. */
async function distance(
  one: Buffer,
  other: Buffer,
  part: Part = { left: 0, top: 0, width: 300, height: 200 },
) {
  const [first, second] = await Promise.all([small(one, part), small(other, part)]);
  let sum = 0;
  for (let at = 0; at < first.length; at += 1) sum += Math.abs((first[at] ?? 0) - (second[at] ?? 0));
  return sum / first.length;
}

async function darkShare(bytes: Buffer, part: Part): Promise<number> {
  const pixels = await small(bytes, part);
  return pixels.filter((channel) => channel < 50).length / pixels.length;
}
