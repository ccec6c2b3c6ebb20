import { expect, type Page } from '@playwright/test';
import { expectAccessible, figures, signIn, WHEN_MADE } from './hands.ts';
import { test } from './test.ts';

/** The picture on the stage. */
const stagePicture = (page: Page) =>
  page.getByRole('region', { name: 'Stage' }).locator('[data-stage="picture"]');

const cut = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Cuts' }).getByRole('button', { name });
/** Its figures are read only when it is the one that is open. */
async function openCut(page: Page, name: RegExp): Promise<void> {
  await cut(page, name).click();
  await expect(cut(page, name)).toHaveAttribute('aria-pressed', 'true');
}
const rowOf = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const frame = (page: Page) => page.getByRole('button', { name: /^Frame: / });

async function openBench(page: Page): Promise<void> {
  await signIn(page, 'Mara', '/shelf?words=sluice+eel+pass');
  await page.getByRole('option', { name: /sluice with the eel pass/ }).click();
  await page.getByRole('link', { name: 'Prepare it' }).click();
  await expect(page.getByRole('heading', { name: 'The sluice with the eel pass' })).toBeVisible();
}

test('one focal point moves every cut, and a cut framed by hand stays as it was framed', async ({ page }) => {
  await openBench(page);
  await openCut(page, /^Square/);
  await expect(rowOf(page, 'Frame').getByText('It follows the focal point.')).toBeVisible();
  const leftOf = async () =>
    Number(await rowOf(page, 'Frame').getByRole('textbox', { name: 'Left' }).inputValue());
  const before = await leftOf();
  const stage = await stagePicture(page).boundingBox();
  if (!stage) throw new Error('no stage');
  await page.mouse.click(stage.x + stage.width * 0.04, stage.y + stage.height * 0.5);
  await expect.poll(leftOf).toBeLessThan(before);
  await page.getByRole('button', { name: 'Undo the focal point' }).click();
  await expect.poll(leftOf).toBe(before);
  const box = await frame(page).boundingBox();
  if (!box) throw new Error('no frame');
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x - 40, box.y + 20, { steps: 5 });
  await page.mouse.up();
  await expect(
    rowOf(page, 'Frame').getByRole('button', { name: 'Follow the focal point again' }),
  ).toBeVisible();
  const framed = await leftOf();
  expect(framed).not.toBe(before);
  await expect(page.getByRole('button', { name: 'Undo framing it by hand' })).toBeVisible();
  await openCut(page, /^Card/);
  await expect(rowOf(page, 'Frame').getByText('It follows the focal point.')).toBeVisible();
  await openCut(page, /^Square/);
  await page.reload();
  await expect.poll(leftOf).toBe(framed);
  await rowOf(page, 'Frame').getByRole('button', { name: 'Follow the focal point again' }).click();
  await expect.poll(leftOf).toBe(before);
});

test('turning, straightening and tone are steps that can be switched off, and the original stays', async ({
  page,
}) => {
  await openBench(page);
  await rowOf(page, 'Turn').getByRole('button', { name: 'Right' }).click();
  await expect(rowOf(page, 'Steps').getByText('Turned by 90° clockwise.')).toBeVisible();
  const horizon = rowOf(page, 'Straight').getByRole('slider', { name: 'Horizon' });
  await horizon.focus();
  for (let press = 0; press < 8; press += 1) await page.keyboard.press('ArrowRight');
  await expect(rowOf(page, 'Steps').getByText('Straightened by 0.8°.')).toBeVisible();
  const light = rowOf(page, 'Tone').getByRole('slider', { name: 'Light' });
  await light.focus();
  for (let press = 0; press < 5; press += 1) await page.keyboard.press('ArrowRight');
  await expect(rowOf(page, 'Steps').getByText('Toned: lighter by 5.')).toBeVisible();
  // A line that falls by 3 in 100 to the right is made level, on top of what was straightened before.
  await rowOf(page, 'Straight').getByRole('button', { name: 'Draw a line that should be level' }).click();
  const picture = await stagePicture(page).boundingBox();
  if (!picture) throw new Error('no stage');
  await page.mouse.move(picture.x + 40, picture.y + 80);
  await page.mouse.down();
  await page.mouse.move(picture.x + 140, picture.y + 83, { steps: 4 });
  await page.mouse.up();
  await expect(rowOf(page, 'Steps').getByText('Straightened by -0.9°.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo straightening it' }).click();
  await expect(rowOf(page, 'Steps').getByText('Straightened by 0.8°.')).toBeVisible();
  await rowOf(page, 'Steps').getByRole('checkbox', { name: 'Turned by 90° clockwise.' }).uncheck();
  await page.getByRole('button', { name: 'Undo switching a step off' }).click();
  await expect(
    rowOf(page, 'Steps').getByRole('checkbox', { name: 'Turned by 90° clockwise.' }),
  ).toBeChecked();
  await page.getByRole('button', { name: 'Compare with the original' }).click();
  const divided = page.getByRole('slider', { name: 'Where it is divided' });
  await divided.focus();
  await page.keyboard.press('End');
  await expect(divided).toHaveAttribute('aria-valuetext', '100% as it came');
  await page.getByRole('button', { name: 'Stop comparing' }).click();
  await page.getByRole('link', { name: 'Done' }).click();
  // The shelf shows it as it is prepared: it stands upright now.
  const thumb = page.getByRole('option', { name: /sluice with the eel pass/ }).locator('img');
  await expect(thumb).toBeVisible();
  await expect
    .poll(() =>
      thumb.evaluate(
        (image) => image instanceof HTMLImageElement && image.naturalHeight > image.naturalWidth,
      ),
    )
    .toBe(true);
  await page.goBack();
  await rowOf(page, 'Steps').getByRole('button', { name: 'Revert to the original' }).click();
  await expect(rowOf(page, 'Steps').getByText('Nothing is done to it.')).toBeVisible();
});

test('what the browser shows and what the server makes agree', async ({ page }) => {
  await openBench(page);
  const pieces = await page.evaluate(async () => {
    const answer = await fetch('/api/assets?kind=photo&limit=40');
    const { assets } = await answer.json();
    return assets.slice(0, 12).map((asset: { id: string; version: number; prep: object }) => asset);
  });
  expect(pieces.length).toBe(12);
  for (const [at, piece] of pieces.entries()) {
    const prep = {
      ...piece.prep,
      turn: [0, 90, 180, 270][at % 4],
      mirror: at % 3 === 0,
      straighten: (at - 6) * 9,
      crop: at % 2 === 0 ? { left: 0.1, top: 0.2, width: 0.6, height: 0.7 } : null,
      sharpness: at * 8,
      tone: {
        light: at * 4 - 20,
        contrast: 30 - at * 5,
        colour: at * 8 - 40,
        warmth: at * 6 - 30,
        monochrome: at === 5,
        inks: at === 7 ? { dark: '#172126', light: '#f7efe0' } : null,
      },
    };
    const changed = await page.request.patch(`/api/assets/${piece.id}`, {
      data: { prep },
      headers: { 'if-match': `"${piece.version}"` },
    });
    const asset = await changed.json();
    await page.goto(`/shelf/${piece.id}/bench`);
    await expect(stagePicture(page).getByRole('img').first()).toBeVisible();
    const far = await distanceBetween(page, asset.view);
    expect(far, `piece ${at + 1}`).toBeLessThan(6);
    await page.request.patch(`/api/assets/${piece.id}`, {
      data: { prep: piece.prep },
      headers: { 'if-match': `"${asset.version}"` },
    });
  }
});

/** The mean distance, 0 to 255, between the stage as the browser draws it and the server's picture, at 64 px. */
async function distanceBetween(page: Page, serverView: string): Promise<number> {
  // The marks on the stage are no part of the picture.
  await page.addStyleTag({
    content: '[data-handle], [data-shade], [data-dimension] { display: none !important }',
  });
  await stagePicture(page)
    .getByRole('img')
    .first()
    .evaluate(async (image) => {
      if (image instanceof HTMLImageElement) await image.decode();
    });
  const shot = await stagePicture(page).screenshot({ type: 'png' });
  const { default: sharp } = await import('sharp');
  const answer = await fetch(serverView);
  expect(answer.status, serverView).toBe(200);
  const served = Buffer.from(await answer.arrayBuffer());
  const small = (bytes: Buffer) =>
    sharp(bytes).removeAlpha().resize(64, 64, { fit: 'fill' }).blur(0.8).raw().toBuffer();
  const [one, other] = await Promise.all([small(shot), small(served)]);
  let sum = 0;
  for (let at = 0; at < one.length; at += 1) sum += Math.abs((one[at] ?? 0) - (other[at] ?? 0));
  return sum / one.length;
}

test('a piece is cropped for every use by its corners, by numbers and by keys, and given its own shape back', async ({
  page,
}) => {
  await openBench(page);
  await openCut(page, /^The piece itself/);
  const crop = rowOf(page, 'Crop');
  const numberOf = async (name: string) => Number(await crop.getByRole('textbox', { name }).inputValue());
  const whole = { wide: await numberOf('Wide'), high: await numberOf('High') };
  await expect(crop.getByText('It is in its own shape.')).toBeVisible();
  const corner = await stagePicture(page).locator('[data-corner]').first().boundingBox();
  if (!corner) throw new Error('no corner');
  await page.mouse.move(corner.x + 8, corner.y + 8);
  await page.mouse.down();
  await page.mouse.move(corner.x + 88, corner.y + 48, { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => numberOf('Wide')).toBeLessThan(whole.wide);
  expect(await numberOf('High')).toBeLessThan(whole.high);
  await expect(cut(page, /^The piece itself/)).toContainText('Cropped by you.');
  await expect(rowOf(page, 'Steps')).toContainText(/Cropped to \d+% of it for every use\./);
  await expect(rowOf(page, 'Rights')).toContainText('May be used here.');

  // A cut of a shape is taken from inside it, and what is cropped can be put back by one press, key or step.
  await crop.getByRole('textbox', { name: 'Wide' }).fill(String(Math.round(whole.wide / 2)));
  await page.keyboard.press('Enter');
  await expect.poll(() => numberOf('Wide')).toBe(Math.round(whole.wide / 2));
  await openCut(page, /^Square/);
  await expect.poll(() => frameWidth(page)).toBeLessThanOrEqual(Math.round(whole.wide / 2));
  await openCut(page, /^The piece itself/);
  await frame(page).focus();
  await page.keyboard.press('Backspace');
  await expect.poll(() => numberOf('Wide')).toBe(whole.wide);
  await page.getByRole('button', { name: 'Undo its own shape' }).click();
  await expect.poll(() => numberOf('Wide')).toBe(Math.round(whole.wide / 2));
  await crop.getByRole('button', { name: '1:1' }).click();
  await expect.poll(async () => (await numberOf('Wide')) - (await numberOf('High'))).toBeLessThanOrEqual(1);
  await crop.getByRole('button', { name: 'Undo crop' }).click();
  await expect.poll(() => numberOf('Wide')).toBe(whole.wide);
  await expectAccessible(page);
});

const frameWidth = async (page: Page) =>
  Number(await rowOf(page, 'Frame').getByRole('textbox', { name: 'Wide' }).inputValue());

test('a picture is fitted whole into a shape on a ground, on the sheet as in what goes out', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages/demo-page-2');
  await figures(page).first().click();
  const ofPiece = page.getByRole('complementary', { name: 'Label' });
  await ofPiece.getByRole('radiogroup', { name: 'Shape', exact: true }).getByText('1:1').click();
  await ofPiece
    .getByRole('radiogroup', { name: 'How it stands in its shape' })
    .getByText('Fit it in whole')
    .click();
  await expect(ofPiece.getByText(/^Fitted whole into 1:1/)).toBeVisible();
  const box = await figures(page).first().locator('[data-part="window"]').boundingBox();
  expect(Math.abs((box?.width ?? 0) - (box?.height ?? 1))).toBeLessThan(1.5);
  await expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();
  const fragment = await (await page.request.get('/api/pages/demo-page-2/fragment')).text();
  expect(fragment).toMatch(/1x1-on-ffffff-\d+\.avif/);
  await page.getByRole('button', { name: 'Undo fitting it in whole' }).click();
  await expect(ofPiece.getByText(/^1:1 from/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo cutting it to 1:1' }).click();
  await expect(ofPiece.getByText(/^16:9 from/)).toBeVisible();
  await page.getByRole('link', { name: 'Pages', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Pages' })).toBeVisible();
  await expect
    .poll(async () => (await page.request.get('/api/pages/demo-page-2/fragment')).text())
    .not.toContain('1x1-on');
});

test('a piece is prepared in one place alone, and stays as it is everywhere else', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-2');
  const ofPiece = page.getByRole('complementary', { name: 'Label' });
  await figures(page).first().click();
  const shape = async () => {
    const box = await figures(page).first().locator('[data-part="window"]').boundingBox();
    return (box?.width ?? 0) / (box?.height ?? 1);
  };
  await ofPiece.getByRole('radiogroup', { name: 'Shape', exact: true }).getByText('whole').click();
  await expect.poll(shape).toBeCloseTo(1.5, 1);
  await expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();
  await ofPiece.getByRole('link', { name: 'Prepare it here alone' }).click();
  await expect(page.getByText(/^In “The boardwalk reopens” alone\./)).toBeVisible();
  await rowOf(page, 'Turn').getByRole('button', { name: 'Right' }).click();
  await expect(rowOf(page, 'Steps')).toContainText('Turned by 90° clockwise.');
  await page.getByRole('button', { name: 'Undo turning it right' }).click();
  await expect(rowOf(page, 'Steps')).toContainText('Nothing is done to it.');
  await page.getByRole('button', { name: 'Redo turning it right' }).click();
  await expect(rowOf(page, 'Steps')).toContainText('Turned by 90° clockwise.');
  await page.getByRole('link', { name: 'Done' }).click();
  await figures(page).first().click();
  await expect(ofPiece.getByText('Prepared by itself in this place.')).toBeVisible();
  expect(await shape()).toBeLessThan(0.8);
  const fragment = await (await page.request.get('/api/pages/demo-page-2/fragment')).text();
  expect(fragment).toMatch(/boardwalk[a-z0-9-]*-[a-z0-9]{5,7}-\d+\.avif/);
  const turned = await page.evaluate(async () => {
    const { pieces } = await (await fetch('/api/pages/demo-page-2')).json();
    return pieces.filter((piece: { prep: { turn: number } }) => piece.prep.turn !== 0).length;
  });
  expect(turned).toBe(0);
  await ofPiece.getByRole('button', { name: 'as everywhere else' }).click();
  await expect.poll(shape).toBeCloseTo(1.5, 1);
  await ofPiece.getByRole('radiogroup', { name: 'Shape', exact: true }).getByText('16:9').click();
  await expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();
});

test('what was made of a piece is told by the page that needs it, and what nothing needs is thrown away', async ({
  page,
}) => {
  // The proof makes the cuts of the page's pictures; one that nobody waits for any more is not made.
  await signIn(page, 'Mara', '/pages/demo-page-1/proof');
  const first = page.frameLocator('iframe').first().getByRole('img').first();
  await expect.poll(() => first.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0);
  await page.goto('/pages/demo-page-1');
  await figures(page).first().click();
  await page.getByRole('link', { name: 'Prepare it', exact: true }).click();
  const row = rowOf(page, 'Made');
  await expect(row.getByText(/^\d+ files?, [\d.]+ [kM]B, for /)).toBeVisible();
  await row.getByRole('button', { name: 'Show each file' }).click();
  await expect(row.getByRole('listitem').first()).toHaveText(/^\d+ px (AVIF|WEBP|JPEG), /);
  await rowOf(page, 'Turn').getByRole('button', { name: 'Mirror' }).click();
  await expect(row.getByText('No file yet. They are made when a page needs them.')).toBeVisible();
  await row.getByRole('button', { name: 'Throw those away' }).click();
  await expect(page.getByText(/thrown away\. One that is needed again is made again\.$/)).toBeVisible();
  await expect(row.getByRole('button', { name: 'Throw those away' })).toHaveCount(0);
  await rowOf(page, 'Turn').getByRole('button', { name: 'Mirror' }).click();
});

test('what is done to one piece is done to others, and one undo takes all of it back', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf?words=heron');
  const pieces = page.getByRole('option');
  await pieces.nth(0).click();
  await page.getByRole('link', { name: 'Prepare it' }).click();
  const saved = page.waitForResponse((answer) => answer.request().method() === 'PATCH');
  await rowOf(page, 'Tone').getByRole('checkbox', { name: 'Black and white' }).check();
  await saved;
  await page.goto('/shelf?words=heron');
  const views = () =>
    pieces.locator('img').evaluateAll((all) => all.map((image) => image.getAttribute('src')));
  await expect(pieces.nth(2)).toBeVisible();
  const before = await views();
  for (const at of [0, 1, 2]) await pieces.nth(at).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Prepare all like...' }).click();
  await page.getByRole('menuitem').first().click();
  await expect(page.getByText(/^2 pieces prepared like .*: Toned: in black and white\.$/)).toBeVisible();
  // Each is drawn anew when its answer is there.
  await expect.poll(async () => (await views())[1]).not.toBe(before[1]);
  await expect.poll(async () => (await views())[2]).not.toBe(before[2]);
  expect((await views())[0]).toBe(before[0]);
  await page.keyboard.press('Control+z');
  await expect.poll(views).toEqual(before);
});

test('a piece whose licence forbids changes says so at the bench', async ({ page }) => {
  await signIn(page, 'Mara', '/gather?words=mist');
  await page.getByRole('region', { name: 'Commonfield' }).getByRole('button', { name: 'Open them' }).click();
  await page.getByRole('option', { name: /^Boardwalk into the mist/ }).click();
  await page.getByRole('button', { name: 'To the shelf' }).click();
  await expect(page.getByText(/^(Taken in|Held already)/)).toBeVisible();
  await page.goto('/shelf?words=boardwalk+into+mist');
  await page.getByRole('option', { name: /Boardwalk into the mist/ }).click();
  await page.getByRole('link', { name: 'Prepare it' }).click();
  await openCut(page, /^Square/);
  await expect(
    rowOf(page, 'Rights').getByText('CC BY-ND 4.0 forbids changes, and it is cropped here. Show it whole.'),
  ).toBeVisible();
  await openCut(page, /^Teaser/);
  // Only its source says so yet: somebody has to look, and keep it.
  await expect(
    rowOf(page, 'Rights').getByText(/^May be used here once somebody has kept its licence\./),
  ).toBeVisible();
});

test('the bench by keyboard alone', async ({ page }) => {
  await openBench(page);
  await cut(page, /^Card/).focus();
  await page.keyboard.press('Enter');
  await frame(page).focus();
  const before = await frame(page).getAttribute('aria-label');
  await page.keyboard.press('Shift+ArrowRight');
  await expect.poll(() => frame(page).getAttribute('aria-label')).not.toBe(before);
  await page.keyboard.press('-');
  await page.getByRole('button', { name: /^Focal point/ }).focus();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'Undo the focal point' })).toBeVisible();
  for (let press = 0; press < 3; press += 1) await page.keyboard.press('Control+z');
  await expect(rowOf(page, 'Frame').getByText('It follows the focal point.')).toBeVisible();
});

test('the smallest file that looks the same is found, chosen by a slider, looked at, and taken back', async ({
  page,
}) => {
  await openBench(page);
  await openCut(page, /^Square/);
  await page.getByRole('button', { name: 'Weigh it' }).click();
  const panel = page.getByRole('region', { name: 'Smallest file that looks the same' });
  const says = panel.getByRole('status');
  await expect(says).toContainText(
    /^AVIF at \d+: [\d.]+ kB, likeness 0\.98\d\. The house rules ask for 0\.985\./,
    WHEN_MADE,
  );
  await panel.getByRole('button', { name: 'JPEG' }).click();
  const quality = panel.getByRole('slider', { name: 'Quality' });
  const found = Number(await quality.getAttribute('aria-valuenow'));
  await expect(says).toContainText(`JPEG at ${found}: `);
  await quality.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(says).toContainText(
    new RegExp(`^JPEG at ${found - 1}: \\d.*By the house rules it is ${found}`),
  );
  await expect(page.getByRole('button', { name: 'Undo its quality as JPEG' })).toBeVisible();
  await panel.getByRole('button', { name: 'Look where it is least alike' }).click();
  const place = page.getByRole('region', { name: 'Where it is least alike' });
  await expect(place.getByRole('img', { name: 'As written, 1 to 1' })).toBeVisible();
  await place.getByRole('button', { name: '2:1' }).click();
  await expect(place.getByRole('img', { name: 'Untouched, 2 to 1' })).toBeVisible();
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Back to the picture' }).click();
  await page.reload();
  await page.getByRole('button', { name: 'Weigh it' }).click();
  await panel.getByRole('button', { name: 'Follow the house rules' }).click();
  await expect(says).toContainText(/The house rules ask for 0\.985/);
});
