import { expect, type Page } from '@playwright/test';
import { CHROMIUM } from '../scripts/lib/browser.mjs';
import { beginPage, expectAccessible, row, signIn, tray } from './hands.ts';
import { test } from './test.ts';

/** A browser with a camera and a microphone that are made up: a moving picture and a beep. */
test.use({
  launchOptions: {
    ...CHROMIUM,
    args: [...CHROMIUM.args, '--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
  },
});

const dialog = (page: Page) => page.getByRole('dialog', { name: 'Record' });

async function gather(page: Page): Promise<void> {
  await tray(page).getByRole('link', { name: 'Gather...' }).click();
  await page.getByRole('button', { name: 'Record...' }).click();
}

test('a film is recorded, paused, taken again and kept, and comes onto the tray as any file does', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'The box this morning');
  await gather(page);
  await expectAccessible(page);
  await dialog(page).getByRole('button', { name: 'Begin' }).click();
  await expect(dialog(page).getByLabel('What is recorded now')).toBeVisible();
  await expect(dialog(page).getByRole('status')).toContainText(/Records 0:0[2-9]/);
  await dialog(page).getByRole('button', { name: 'Pause' }).click();
  await expect(dialog(page).getByRole('status')).toContainText('Paused at');
  await expectAccessible(page);
  await dialog(page).getByRole('button', { name: 'Go on' }).click();
  await dialog(page).getByRole('button', { name: 'Stop' }).click();
  await expect(dialog(page).getByLabel('The recording')).toBeVisible();
  await dialog(page).getByRole('button', { name: 'Record it again' }).click();
  await dialog(page).getByRole('button', { name: 'Begin' }).press('Enter');
  await expect(dialog(page).getByRole('status')).toContainText(/Records 0:0[3-9]/);
  await dialog(page).getByRole('button', { name: 'Stop' }).press('Enter');
  await dialog(page).getByRole('textbox', { name: 'What it shows or says' }).fill('The box in May');
  await dialog(page).getByRole('button', { name: 'Keep it' }).press('Enter');
  await expect(page.getByText(/the-box-in-may\.webm/).first()).toBeVisible();
  await page
    .getByRole('link', { name: /The box this morning/ })
    .first()
    .click();
  await tray(page)
    .getByRole('button', { name: /the-box-in-may/i })
    .click();
  await expect(row(page, 'Film')).toContainText(/WebM, 0:0[3-9]/);
});

test('a recording whose tab was closed is there again, and sound alone is recorded too', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'The first boom');
  await gather(page);
  await dialog(page).getByRole('radio', { name: 'sound alone' }).press('Space');
  await dialog(page).getByRole('button', { name: 'Begin' }).click();
  await expect(dialog(page).getByRole('status')).toContainText(/Records 0:0[5-9]/, { timeout: 15_000 });
  await page.reload();
  await page.getByRole('button', { name: 'Record...' }).click();
  await expect(dialog(page)).toContainText(/A recording of 0:0[3-9] was left unfinished\./);
  await dialog(page).getByRole('button', { name: 'Look at it' }).click();
  await dialog(page).getByRole('textbox', { name: 'What it shows or says' }).fill('First boom');
  await dialog(page).getByRole('button', { name: 'Keep it' }).click();
  await page
    .getByRole('link', { name: /The first boom/ })
    .first()
    .click();
  await tray(page)
    .getByRole('button', { name: /first-boom/i })
    .click();
  await expect(row(page, 'Sound')).toContainText(/WebM, 0:0[3-9]/);
});

test('a microphone that is refused is said in a sentence', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Nothing heard');
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.reload();
  await gather(page);
  await dialog(page).getByRole('button', { name: 'Begin' }).click();
  await expect(dialog(page).getByRole('alert')).toContainText(
    'The browser does not let Placard use the camera and the microphone.',
  );
});
