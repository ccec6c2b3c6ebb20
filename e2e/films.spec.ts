import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import { filmOf } from '../server/films/testing-films.ts';
import {
  beginPage,
  choose,
  dropFiles,
  expectAccessible,
  figures,
  htmlOf,
  row,
  saved,
  sheet,
  signIn,
  tray,
} from './hands.ts';
import { test } from './test.ts';

const option = (page: Page) => tray(page).getByRole('button', { name: /How the eel pass works/ });

const CAPTIONS = `WEBVTT

00:00.100 --> 00:00.400
So we built them a ramp of brushes, out of what was left in the shed.

00:00.900 --> nonsense
Lost words.

00:05.000 --> 00:06.500
By May the box is full.
`;

test('a film of the house’s own is handed in, captioned, placed, proofed with its captions and taken away', async ({
  page,
}) => {
  const film = await filmOf({
    name: 'eels.webm',
    seconds: 8,
    title: 'How the eel pass works',
    more: ['-c:v', 'libvpx', '-b:v', '300k', '-c:a', 'libvorbis'],
  });
  await signIn(page, 'Mara');
  await beginPage(page, 'The eel pass');
  await dropFiles(page, tray(page), [{ name: 'IMG_0471.webm', mimeType: 'video/webm', buffer: film }]);
  await option(page).click();
  await expect(row(page, 'Film')).toContainText('WebM, 0:08, 320 × 180, 25 pictures a second, mono');
  await expect(row(page, 'Film').getByLabel('How the eel pass works')).toBeVisible();
  await expect(row(page, 'Captions')).toContainText('None yet.');
  await expectAccessible(page);
  await row(page, 'Rights').getByRole('button').first().click();
  await choose(row(page, 'Rights').getByRole('combobox', { name: 'Licence' }), 'Our own work');
  await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
  await option(page).press('Enter');
  await expect(figures(page)).toContainText('How the eel pass works (WebM, 0:08');
  await saved(page);
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  const findings = page.getByRole('complementary', { name: 'Findings' });
  await expect(findings).toContainText('How the eel pass works has no captions.');
  await page.getByRole('link', { name: 'Back to the sheet' }).click();

  await figures(page).first().click();
  const take = async (name: string, text: string) => {
    const choosing = page.waitForEvent('filechooser');
    await row(page, 'Captions').getByRole('button', { name: 'Take in captions...' }).click();
    await (await choosing).setFiles({ name, mimeType: 'text/vtt', buffer: Buffer.from(text) });
  };
  await take('notes.srt', 'Only words.');
  await expect(row(page, 'Captions')).toContainText('notes.srt has no captions in it that can be read');
  await take('eel-pass.cy.vtt', CAPTIONS);
  const panel = page.getByRole('dialog');
  await expect(panel).toContainText('2 captions, the last until 0:06.5.');
  await expect(panel.getByRole('textbox', { name: 'Language' })).toHaveValue('cy');
  await expect(panel.getByRole('list', { name: 'What was wrong with the file' })).toContainText(
    'Line 6: A time cannot be read. This caption was left out.',
  );
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Keep them' }).click();
  await row(page, 'Captions').getByRole('button', { name: 'Look at the captions in Welsh' }).click();
  await expect(panel).toContainText('2 captions, one asks for a look.');
  await expect(panel).toContainText('letters a second: nobody reads that.');
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Mend all that is safe' }).click();
  await expect(panel).toContainText('2 captions, none asks for a look.');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    panel.getByRole('link', { name: 'Take them away as WebVTT' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/^how-the-eel-pass-works(-\d+)?\.cy\.vtt$/);
  await panel.getByRole('button', { name: 'Done' }).click();
  const onLabel = row(page, 'Film').locator('track');
  await expect(onLabel).toHaveAttribute('srclang', 'cy');
  await page.getByRole('button', { name: 'Undo mending captions' }).click();
  await row(page, 'Captions').getByRole('button', { name: 'Look at the captions in Welsh' }).click();
  await expect(panel).toContainText('2 captions, one asks for a look.');
  await panel.getByRole('button', { name: 'Done' }).click();

  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await expect(findings).not.toContainText('has no captions');
  const video = page.frameLocator('iframe[title="The page at 1280 px"]').locator('video');
  // It plays in the proof, and its captions are those that were taken in.
  await expect.poll(() => video.evaluate((one) => (one as HTMLVideoElement).readyState)).toBeGreaterThan(0);
  const shown = () =>
    video.evaluate((one) => {
      const [track] = (one as HTMLVideoElement).textTracks;
      if (!track) return 'no track';
      track.mode = 'showing';
      return [...(track.cues ?? [])].map((cue) => (cue as VTTCue).text).join(' | ');
    });
  await expect.poll(shown).toContain('By May the box is full.');
  await page.getByRole('link', { name: 'Back to the sheet' }).click();
  await sheet(page).press('ArrowDown');
  expect(await htmlOf(page)).toMatch(
    /<track kind="captions" src="[^"]*how-the-eel-pass-works(-\d+)?\.cy\.vtt" srclang="cy" label="Cymraeg">/,
  );
});

test('a recording plays on its label, and stands on a page as one', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'The first boom');
  const tune = await filmOf({
    name: 'boom.mp3',
    seconds: 3,
    size: null,
    title: 'The first boom of the year',
  });
  await dropFiles(page, tray(page), [{ name: 'boom.mp3', mimeType: 'audio/mpeg', buffer: tune }]);
  const piece = tray(page).getByRole('button', { name: /The first boom of the year/ });
  await piece.click();
  await expect(row(page, 'Sound')).toContainText('MP3, 0:03, mono');
  await piece.press('Enter');
  await saved(page);
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  const audio = page.frameLocator('iframe[title="The page at 1280 px"]').locator('audio');
  await expect(audio).toHaveAttribute('aria-label', 'The first boom of the year');
  await expect.poll(() => audio.evaluate((one) => Math.round((one as HTMLAudioElement).duration))).toBe(3);

  await page.goto('/shelf?kind=film');
  await expect(page.getByText(/^sound 0:03/)).toBeVisible();
});

test('an animated picture becomes a film, and the film takes its place on its page', async ({ page }) => {
  const frames = await Promise.all(
    ['#7d8f6a', '#6a7d8f', '#8f6a7d'].map((background) =>
      sharp({ create: { width: 640, height: 400, channels: 3, background } })
        .png()
        .toBuffer(),
    ),
  );
  const buffer = await sharp(frames, { join: { animated: true } })
    .gif({ delay: [300, 300, 300] })
    .toBuffer();
  await signIn(page, 'Mara');
  await beginPage(page, 'The tide in three pictures');
  await dropFiles(page, tray(page), [{ name: 'tide moves.gif', mimeType: 'image/gif', buffer }]);
  const piece = tray(page).getByRole('button', { name: /tide-moves/ });
  await piece.press('Enter');
  await saved(page);
  await row(page, 'Moves').getByRole('button', { name: 'Make a film of it' }).press('Enter');
  await expect(row(page, 'Moves')).toContainText(/As a film it is .+, and readers can stop it\./);
  await expectAccessible(page);
  await row(page, 'Moves').getByRole('button', { name: 'Put the film in its place...' }).press('Enter');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: /^Replace/ }).press('Enter');
  await expect(dialog).toHaveCount(0);
  await expect(sheet(page)).toContainText(/\(MP4, 0:01/);
});
