import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from '@playwright/test';
import { createConnection } from 'mysql2/promise';
import { startServices } from '../scripts/lib/services.mjs';
import { beginPage, choose, expectAccessible, row, sheet, tabTo, tray } from './hands.ts';
import { test } from './test.ts';

/** Off the ports of the worlds in which the other tests run. */
const PORT = 4506;
const ORIGIN = `http://localhost:${PORT}`;
const DATABASE = 'placard_empty';
const databaseServer = process.env.TEST_DATABASE_SERVER ?? '';

let services: ReturnType<typeof startServices>;
let folder: string;

test.beforeEach(async () => {
  const connection = await createConnection(databaseServer);
  await connection.query(`DROP DATABASE IF EXISTS ${DATABASE}`);
  await connection.query(`CREATE DATABASE ${DATABASE} CHARACTER SET utf8mb4`);
  await connection.end();
  folder = await mkdtemp(join(tmpdir(), 'placard-empty-'));
  const env = {
    ...process.env,
    DATABASE_URL: `${databaseServer}/${DATABASE}`,
    PLACARD_DATA: folder,
    PLACARD_DEMO: '0',
    PORT: String(PORT),
    LOG_LEVEL: 'error',
  };
  services = startServices({ env, port: PORT });
  await services.listening;
  await services.whole;
});
test.afterEach(async () => {
  await services.stop();
  await rm(folder, { recursive: true, force: true });
});

/** The code that is printed where Placard is started. */
async function printedCode(): Promise<string> {
  const connection = await createConnection(`${databaseServer}/${DATABASE}`);
  const [rows] = await connection.query("SELECT value FROM settings WHERE name = 'beginning'");
  await connection.end();
  return Array.isArray(rows) && rows[0] && 'value' in rows[0] ? String(rows[0].value) : '';
}

test('an empty house is begun, says who works there, and a day’s work goes on from nothing', async ({
  page,
}) => {
  let password = '';

  await test.step('the first person begins with the code', async () => {
    await page.goto(`${ORIGIN}/?code=wrong`);
    await expect(page.getByText('Nobody works here yet.')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('textbox', { name: 'Your name' }).fill('Sunniva Brandt');
    await page.getByRole('textbox', { name: 'E-mail address' }).fill('sunniva@reserve.example');
    await page.getByLabel('Password').fill('reeds');
    await page.getByRole('textbox', { name: 'Site that the pages are for' }).fill('Reserve site');
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByRole('alert')).toContainText('at least 12 letters');
    await page.getByLabel('Password').fill('reeds and water');
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByRole('alert')).toContainText('This is not the code');
    await page.getByRole('textbox', { name: 'Code' }).fill(await printedCode());
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect(page.getByRole('heading', { name: 'Nothing waits for you, Sunniva' })).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('says who else works here, and whose frames may stand on pages', async () => {
    await page.getByRole('link', { name: 'House rules' }).last().click();
    const people = page.getByRole('region', { name: 'People' });
    const form = people.getByRole('form', { name: 'Add a person' });
    await form.getByRole('textbox', { name: 'Name' }).fill('Mara Oduya');
    await form.getByRole('textbox', { name: 'E-mail address' }).fill('mara@reserve.example');
    await form.getByRole('button', { name: 'Add' }).click();
    password = (await people.getByRole('status').locator('b').textContent()) ?? '';
    await people.getByRole('button', { name: 'Done' }).click();
    await choose(people.getByRole('combobox', { name: 'Role of Sunniva Brandt' }), 'Editor');
    await expect(people.getByRole('alert')).toContainText('This is the only site owner');
    const hosts = page.getByRole('region', { name: 'Trusted hosts' });
    await expect(hosts).toContainText('No host is trusted yet');
    await hosts.getByRole('button', { name: 'Write an entry...' }).click();
    await hosts.getByRole('button', { name: 'Save the entry' }).click();
    await expect(hosts.getByRole('button', { name: 'Open the entry of A film host' })).toBeVisible();
    await expectAccessible(page);
  });

  await test.step('makes another target like the first, which can be taken back', async () => {
    const targets = page.getByRole('combobox', { name: 'Target' });
    await page.getByRole('button', { name: 'Targets...' }).click();
    await page.getByRole('textbox', { name: 'Another target' }).fill('Members’ bulletin');
    await page.getByRole('button', { name: 'Make it' }).click();
    await expect(targets).toContainText('Members’ bulletin');
    await page.getByRole('button', { name: 'Undo the making of Members’ bulletin' }).click();
    await expect(targets).not.toContainText('Members’ bulletin');
    await page.getByRole('button', { name: 'Redo the making of Members’ bulletin' }).click();
    await expect(targets).toContainText('Members’ bulletin');
    await page.getByRole('button', { name: /your menu/ }).click();
    await page.getByRole('menuitem', { name: 'Sign out' }).click();
  });

  await test.step('the editor signs in with what was handed over, and takes a password of her own', async () => {
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await page.getByRole('textbox', { name: 'E-mail address' }).fill('mara@reserve.example');
    await page.getByLabel('Password').fill(password);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('heading', { name: 'Choose your own password' })).toBeVisible();
    await expectAccessible(page);
    await page.getByLabel('Password now').fill(password);
    await page.getByLabel('New password').fill('mara@reserve.example');
    await page.getByRole('button', { name: 'Change password' }).click();
    await expect(page.getByText('This password is your own name or address.')).toBeVisible();
    await page.getByLabel('New password').fill('wind over the reeds');
    await page.getByRole('button', { name: 'Change password' }).click();
    await page.getByRole('button', { name: /your menu/ }).click();
    await page.getByRole('menuitem', { name: 'Your password' }).click();
    await expect(page.getByRole('region', { name: 'Where you are signed in' })).toContainText('Here, now');
    await expectAccessible(page);
  });

  await test.step('begins a page; embed code of a host that cannot be reached stands as a link', async () => {
    await page.getByRole('link', { name: 'Placard, to the Desk' }).click();
    await beginPage(page, 'How the eel pass works');
    await sheet(page).click();
    await page.evaluate(() =>
      navigator.clipboard.writeText('<iframe src="https://films.invalid/play/eel" onload="x()"></iframe>'),
    );
    await page.keyboard.press('Control+v');
    await expect(tray(page).getByText('1 piece')).toBeVisible();
    await expect(row(page, 'Embed')).toContainText('films.invalid');
    await expect(row(page, 'Embed').getByRole('combobox', { name: 'Stands here as' })).toHaveText(
      'A poster that links to it',
    );
    await expect(row(page, 'Rights')).toContainText('nothing of it is copied');
    await expect(sheet(page)).not.toContainText('iframe');
  });
});

test('an empty house is begun, and a person and a target are added, by keyboard alone', async ({ page }) => {
  const type = async (name: string, words: string) => {
    await tabTo(page.getByLabel(name, { exact: true }));
    await page.keyboard.type(words);
  };
  const press = async (name: string | RegExp) => {
    await tabTo(page.getByRole('button', { name }).last());
    await page.keyboard.press('Enter');
  };
  await page.goto(`${ORIGIN}/?code=${await printedCode()}`);
  await type('Your name', 'Sunniva Brandt');
  await type('E-mail address', 'sunniva@reserve.example');
  await type('Password', 'reeds and water');
  await type('Site that the pages are for', 'Reserve site');
  await tabTo(page.getByRole('checkbox', { name: 'It is a commercial site' }));
  await page.keyboard.press('Space');
  await press('Begin');
  await expect(page.getByRole('heading', { name: 'Nothing waits for you, Sunniva' })).toBeVisible();

  await tabTo(page.getByRole('link', { name: 'House rules' }).first());
  await page.keyboard.press('Enter');
  await press('Targets...');
  await type('Another target', 'Hide screens');
  await page.keyboard.press('Enter');
  const target = page.getByRole('combobox', { name: 'Target' });
  await expect(target).toHaveText('Hide screens');
  await tabTo(target);
  await page.keyboard.type('Reserve');
  await expect(target).toHaveText('Reserve site');
  const people = page.getByRole('region', { name: 'People' });
  await tabTo(people.getByRole('textbox', { name: 'Name' }));
  await page.keyboard.type('Joss Imrie');
  await type('E-mail address', 'joss@reserve.example');
  await tabTo(page.getByRole('combobox', { name: 'Role', exact: true }));
  await page.keyboard.type('Contributor');
  await press('Add');
  const password = (await people.getByRole('status').locator('b').textContent()) ?? '';
  await press('Done');
  await expect(people.getByRole('combobox', { name: 'Role of Joss Imrie' })).toHaveText('Contributor');

  await press(/your menu/);
  const signOut = page.getByRole('menuitem', { name: 'Sign out' });
  await expect(signOut).toBeVisible();
  await page.keyboard.type('Sign');
  await expect(signOut).toBeFocused();
  await page.keyboard.press('Enter');
  // House rules ask for an address as well, until one is out.
  await expect(people).toHaveCount(0);
  await type('E-mail address', 'joss@reserve.example');
  await type('Password', password);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Choose your own password' })).toBeVisible();
  await type('Password now', password);
  await type('New password', 'curlew over mudflats');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: /for you, Joss/ })).toBeVisible();
});
