import { expect, type Page } from '@playwright/test';
import { filmOf } from '../server/films/testing-films.ts';
import { beginPage, dropFiles, expectAccessible, row, saved, signIn, tray } from './hands.ts';
import { test } from './test.ts';

/** A film that was handed in, at work. */
async function atWork(page: Page, title: string): Promise<void> {
  const film = await filmOf({
    name: 'ramp.webm',
    seconds: 8,
    title,
    more: ['-c:v', 'libvpx', '-b:v', '300k', '-c:a', 'libvorbis'],
  });
  await beginPage(page, title);
  await dropFiles(page, tray(page), [{ name: 'ramp.webm', mimeType: 'video/webm', buffer: film }]);
  await tray(page)
    .getByRole('button', { name: new RegExp(title) })
    .press('Enter');
  await saved(page);
  await expect(row(page, 'Film').getByRole('list', { name: 'Files for the web' })).toContainText('WebM', {
    timeout: 60_000,
  });
  await row(page, 'Film').getByRole('link', { name: 'Caption, trim and level it' }).click();
  await expect(captions(page)).toContainText('None yet.');
}

const captions = (page: Page) => page.getByRole('complementary', { name: 'Captions' });
const line = (page: Page, at: number) =>
  captions(page).getByRole('textbox', { name: `Caption ${at}`, exact: true });
const begins = (page: Page, at: number) =>
  captions(page).getByRole('textbox', { name: `Caption ${at} begins` });
const ends = (page: Page, at: number) => captions(page).getByRole('textbox', { name: `Caption ${at} ends` });

test('a film is captioned by keyboard alone, while it plays and as it stands', async ({ page }) => {
  await signIn(page, 'Mara');
  await atWork(page, 'Building the ramp');
  await expect(captions(page)).toContainText('None yet.');
  await expect
    .poll(() => page.locator('video').evaluate((one) => (one as HTMLVideoElement).readyState))
    .toBeGreaterThan(2);
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('0:01.0 of')).toBeVisible();
  // Begun where it is, ended two seconds on: then its words are written.
  await page.keyboard.press('Enter');
  await expect(begins(page, 1)).toHaveValue('0:01.0');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(ends(page, 1)).toHaveValue('0:03.0');
  await expect(line(page, 1)).toBeFocused();
  await page.keyboard.type(
    'So we built them a ramp of brushes, in two thousand and four, out of what was in the shed.',
  );
  await page.keyboard.press('Alt+ArrowRight');
  await expect(begins(page, 1)).toHaveValue('0:01.1');
  await page.keyboard.press('Alt+Shift+ArrowLeft');
  await expect(ends(page, 1)).toHaveValue('0:02.9');
  await page.keyboard.press('Escape');
  await expect(captions(page)).toContainText('letters a second: nobody reads that.');
  await expectAccessible(page);

  // It plays by Space, and its captions are seen over it.
  await page.keyboard.press('Tab');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();

  await captions(page).getByRole('button', { name: 'Part it in two' }).press('Enter');
  await expect(line(page, 2)).toHaveValue(/thousand and four/);
  await captions(page).getByRole('button', { name: 'Mend all that is safe' }).press('Enter');
  await expect(captions(page)).toContainText(/2 lines(, one asks for a look)?/);
  await page.getByRole('button', { name: 'Undo mending captions' }).press('Enter');
  await page.getByRole('button', { name: 'Undo parting a caption' }).press('Enter');
  await expect(line(page, 2)).toHaveCount(0);

  await captions(page).getByRole('button', { name: 'Move all...' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Later by seconds' }).fill('1.5');
  await expect(dialog.getByRole('status')).toContainText('begins at 0:02.6');
  await dialog.getByRole('button', { name: 'Move them' }).press('Enter');
  await expect(begins(page, 1)).toHaveValue('0:02.6');
  await begins(page, 1).fill('0:02.0');
  await begins(page, 1).press('Enter');

  // What was written is there after a reload.
  await page.waitForResponse(
    (answer) => answer.url().includes('/tracks/captions/') && answer.status() === 200,
  );
  await page.reload();
  await expect(begins(page, 1)).toHaveValue('0:02.0');
  await expect(line(page, 1)).toHaveValue(/^So we built them/);
});

test('a film is trimmed, turned and levelled, has chapters and a transcript, and goes out so', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await atWork(page, 'The box in May');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(begins(page, 1)).toHaveValue('0:01.0');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await page.keyboard.type('By May the box is full.');

  await page.getByRole('button', { name: 'Chapters' }).click();
  const chapters = page.getByRole('complementary', { name: 'Chapters' });
  await chapters.getByRole('button', { name: 'Begin a chapter here' }).click();
  await chapters.getByRole('textbox', { name: 'Chapter 1', exact: true }).fill('The count');
  await page.getByRole('button', { name: 'Transcript' }).click();
  const transcript = page.getByRole('complementary', { name: 'Transcript' });
  await transcript.getByRole('button', { name: 'Make it from the captions' }).click();
  await expect(transcript.getByRole('textbox', { name: 'Transcript' })).toHaveValue(
    'By May the box is full.',
  );
  await transcript
    .getByRole('textbox', { name: 'Transcript' })
    .fill('By May the box is full.\n\nWe count them.');
  await page.getByRole('button', { name: 'Trim and still' }).click();
  await expect(transcript).toHaveCount(0);

  const trim = page.getByRole('complementary', { name: 'Trim and still' });
  await expect(trim.getByRole('region', { name: 'Loudness' })).toContainText(/−\d+\.\d LUFS/);
  await expectAccessible(page);
  await page.getByRole('list', { name: 'Captions over time' }).getByRole('button').click();
  await page.getByRole('button', { name: 'Trim and still' }).click();
  await trim.getByRole('button', { name: 'Begin here, 0:01.0' }).click();
  await expect(trim.getByRole('region', { name: 'Length' })).toContainText('0:07 of 0:08 stay.');
  await trim.getByRole('checkbox', { name: /Bring it to −16 LUFS/ }).click();
  await expect(trim.getByRole('list', { name: 'Files for the web' })).toContainText('WebM', {
    timeout: 60_000,
  });
  await page.getByRole('button', { name: 'Undo the loudness' }).click();
  await expect(trim.getByRole('checkbox', { name: /Bring it to −16 LUFS/ })).not.toBeChecked();
  await expect(trim.getByRole('list', { name: 'Files for the web' })).toContainText('WebM', {
    timeout: 60_000,
  });
});

test('an edge of a caption is drawn with the mouse, and put back by one undo', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf?words=eel+ramp');
  await page
    .getByRole('option', { name: /Building the eel ramp/ })
    .first()
    .click();
  await row(page, 'Film').getByRole('link', { name: 'Caption, trim and level it' }).click();
  const mark = page.getByRole('button', { name: /^Caption 2, 0:03\.4 to 0:06\.7/ });
  const box = await mark.boundingBox();
  if (!box) throw new Error('It is not drawn.');
  await page.mouse.move(box.x + box.width, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 20, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(ends(page, 2)).toHaveValue('0:06.2');
  await page.getByRole('button', { name: 'Undo moving a caption' }).click();
  await expect(ends(page, 2)).toHaveValue('0:06.7');
});

test('a film is moved to the film host by the site owner, and plays there in its place', async ({ page }) => {
  await signIn(page, 'Sunniva');
  const film = await filmOf({ name: 'count.webm', seconds: 3, title: 'The count', more: ['-c:v', 'libvpx'] });
  await beginPage(page, 'The count in May');
  await dropFiles(page, tray(page), [{ name: 'count.webm', mimeType: 'video/webm', buffer: film }]);
  const piece = tray(page).getByRole('button', { name: /The count/ });
  await piece.press('Enter');
  await saved(page);
  await expect(row(page, 'Film').getByRole('list', { name: 'Files for the web' })).toContainText('MP4', {
    timeout: 60_000,
  });
  await row(page, 'Film').getByRole('button', { name: 'Move it to Lanternreel...' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await expectAccessible(page);
  await dialog.getByLabel('Token of the house at Lanternreel').fill('saltmere-lanternreel');
  await dialog.getByRole('button', { name: 'Keep the token' }).press('Enter');
  await dialog.getByRole('radio', { name: 'those who have its address' }).press('Space');
  await dialog.getByRole('button', { name: 'Move it' }).press('Enter');
  await expect(page.getByText('It plays at Lanternreel now, on one page.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('img', { name: /Placed piece/ }).first()).toBeVisible();
  await expect(tray(page)).toContainText(/the-count/);
  await tray(page)
    .getByRole('button', { name: /The count/ })
    .click();
  await expect(row(page, 'Film')).toHaveCount(0);
});
