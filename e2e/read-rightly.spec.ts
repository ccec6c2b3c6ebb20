import { expect, type Page } from '@playwright/test';
import sharp from 'sharp';
import {
  beginPage,
  blocksOf,
  dropFiles,
  dropText,
  expectAccessible,
  htmlOf,
  pasteHtml,
  placed,
  row,
  saved,
  sheet,
  signIn,
  tray,
} from './hands.ts';
import { test } from './test.ts';
import { OUTSIDE_PORT } from './world.ts';

/** What editors bring most, in the shapes in which it comes: by its address, by code, by a page, by a file. */

const at = (host: string, path: string) => `http://${host}.localhost:${OUTSIDE_PORT}${path}`;
const pasted = (page: Page) => page.getByRole('textbox', { name: 'An address, or embed code' });
const statements = (page: Page) => page.getByRole('region', { name: 'What it is' }).getByRole('listitem');
const code = (page: Page) => page.getByRole('textbox', { name: 'The code' });
const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });
const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((words) => navigator.clipboard.writeText(words), text);
  await page.keyboard.press('Control+v');
}

/** Pasted under Embeds, with nothing of before in the field. */
async function pasteUnderEmbeds(page: Page, text: string): Promise<void> {
  await page.goto('/embeds');
  await pasted(page).fill(text);
}

test('a film by the address of its page comes with the start it was copied at, however that is written', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/embeds');
  for (const start of ['?t=1m20s', '?start=80', '#t=80']) {
    await pasteUnderEmbeds(page, at('lanternreel', `/watch/eel-pass-71${start}`));
    await expect(field(page, 'Start at')).toHaveValue('1:20');
    await expect(code(page)).toHaveValue(/\/play\/eel-pass-71\?start=80/);
  }
});

test('a map stays at its place, and says what each of its settings is', async ({ page }) => {
  await signIn(page, 'Mara', '/embeds');
  await pasteUnderEmbeds(
    page,
    `<iframe src="${at('fathomchart', '/frame/saltmere-bar')}?ll=54.1,-3.2&z=14&odd=1" width="640" height="480"></iframe>`,
  );
  await expect(
    page.getByRole('checkbox', { name: 'Keep ll=54.1,-3.2: place on the map (ll)' }),
  ).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /Keep odd=1, of which nobody knows/ })).not.toBeChecked();
  await expect(code(page)).toHaveValue(/\?tools=1&amp;ll=54\.1,-3\.2&amp;z=14"/);
});

test('a place, a start and what is asked of a host that nobody described are settings with names', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/embeds');
  await pasteUnderEmbeds(
    page,
    `<iframe src="${at('anysite', '/recording/player')}?start=80&rel=0&pace=2" allowfullscreen></iframe>`,
  );
  await expect(field(page, 'Start at')).toHaveValue('1:20');
  await expect(page.getByRole('checkbox', { name: 'More of its things at the end' })).not.toBeChecked();
  await field(page, 'Start at').fill('2:00');
  await page.keyboard.press('Enter');
  await expect(statements(page).first()).toContainText('from 2:00');
});

test('two frames in one paste are two things, each with its own shape', async ({ page }) => {
  await signIn(page, 'Mara', '/embeds');
  await pasteUnderEmbeds(
    page,
    `<div style="padding-bottom:75%"><iframe src="${at('fathomchart', '/frame/saltmere-bar')}"></iframe></div><iframe src="${at('lanternreel', '/play/eel-pass-71')}"></iframe>`,
  );
  await expect(page.getByRole('heading', { name: '2 things are in this text' })).toBeVisible();
  await expect(field(page, 'Shape, or height')).toHaveValue('4 : 3');
  await page.getByRole('radio', { name: /eel-pass-71/ }).check();
  await expect(field(page, 'Shape, or height')).toHaveValue('16 : 9');
});

test('code in a paragraph of an article, escaped, becomes its frame on the sheet', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'From an article');
  await sheet(page).click();
  await page.keyboard.type('As they write:');
  const frame = `<iframe src="${at('fathomchart', '/frame/saltmere-bar')}" width="640" height="480"></iframe>`;
  await paste(page, `<p>Put this on your page: <code>${escaped(frame)}</code></p>`);
  await expect(placed(page, 'Tides at Saltmere Bar')).toContainText('A frame that is there at once');
  await saved(page);
});

test('a pasted article keeps its table, what is framed as an embed, and what is left out is said', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'An article of before');
  await sheet(page).click();
  const html = `<h1>Tides</h1><p>Seen <b>daily</b>.</p><table><tr><th>Day</th><th>m</th></tr><tr><td>Mon</td><td>4.1</td></tr></table><iframe src="${at('fathomchart', '/frame/saltmere-bar')}" width="640" height="480"></iframe><hr><svg></svg><p>Mind the mud.</p>`;
  await pasteHtml(page, html, 'Tides Seen daily. Day m Mon 4.1 Mind the mud.');
  await expect(page.getByText(/^A drawing was left out \(after “.*”\)\.$/)).toBeVisible();
  await expect(sheet(page).getByRole('heading', { level: 2, name: 'Tides' })).toBeVisible();
  await expect(sheet(page).getByRole('row')).toHaveText(['Daym', 'Mon4.1']);
  await expect(sheet(page).getByText('Mind the mud.')).toBeVisible();
  await expect(placed(page, 'Tides at Saltmere Bar')).toContainText('A frame that is there at once');
  // Where it stood: behind the table, before what came after it.
  await expect.poll(() => blocksOf(page)).toMatch(/^H2 P DIV piece HR P/);
  await saved(page);
});

test('a link keeps its own words and its whole address', async ({ page }) => {
  await signIn(page, 'Mara', '/embeds');
  const address = at('anysite', '/page/plain?v=ab12&list=marsh');
  await pasteUnderEmbeds(page, `<a href="${escaped(address)}">How the <b>eel pass</b> works</a>`);
  await expect(field(page, 'Title for screen readers')).toHaveValue('How the eel pass works');
  await expect(code(page)).toHaveValue(/\?v=ab12&amp;list=marsh"/);
});

test('code that was cut off, or whose quote was never closed, is read to its address', async ({ page }) => {
  await signIn(page, 'Mara', '/embeds');
  const chart = at('fathomchart', '/frame/saltmere-bar');
  for (const broken of [
    `<iframe width="640" height="480" src="${chart}"`,
    `<iframe src="${chart} width="640" height="480"></iframe>`,
  ]) {
    await pasteUnderEmbeds(page, broken);
    await expect(statements(page).first()).toContainText('Shows “Tides at Saltmere Bar”');
    await expect(field(page, 'Shape, or height')).toHaveValue('4 : 3');
  }
});

test('a frame in a figure brings its caption along, for this page where the piece has other words', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'With a caption');
  const figure = `<figure><iframe src="${at('fathomchart', '/frame/saltmere-bar')}"></iframe><figcaption>Spring tides are the ones to watch.</figcaption></figure>`;
  await sheet(page).click();
  await page.keyboard.type('The tides:');
  await paste(page, figure);
  const chart = placed(page, 'Tides at Saltmere Bar');
  await expect(chart).toContainText('Spring tides are the ones to watch.');
  await chart.click();
  await expect(row(page, 'Title and caption')).toContainText('Spring tides are the ones to watch.');
  await saved(page);
  await dropText(page, tray(page), figure.replace('Spring', 'Neap'));
  await expect(page.getByText('It came with the caption “Neap tides are the ones to watch.”')).toBeVisible();
});

test('a film in several files is one, and starts where its address says', async ({ page }) => {
  await signIn(page, 'Mara', '/embeds');
  const file = at('anysite', '/films/pass');
  await pasteUnderEmbeds(
    page,
    `<video controls title="The pass"><source src="${file}.webm"><source src="${file}.mp4#t=80"><track src="${file}.vtt"></video>`,
  );
  await expect(page.getByText('2 things are in this text')).toBeHidden();
  await expect(field(page, 'Start at')).toHaveValue('1:20');
  await expect(field(page, 'Title for screen readers')).toHaveValue('The pass');
});

test('a page with late pictures gives them with their words, and no furniture of the page', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/gather');
  await page.getByRole('button', { name: 'Give any address' }).click();
  await page.getByRole('textbox', { name: /^Address of a picture/ }).fill(at('anysite', '/page/late'));
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByText('5 pictures on this page of anysite.localhost, largest first')).toBeVisible();
  await page.getByRole('option', { name: /^The flats at low water/ }).click();
  // The licence at the foot of the page is that of its words.
  await expect(row(page, 'Rights')).toContainText('A licence link of the page, which names no picture');
  await page.getByRole('option', { name: /^A sketch of the pool/ }).click();
  await page.getByRole('button', { name: 'To the shelf' }).click();
  await expect(
    page.getByRole('region', { name: 'Coming in' }).getByText(/^Taken in: .+\.png\.$/),
  ).toBeVisible();
});

test('a German name is spelt as its readers do, and words said in German go out, on a target in German', async ({
  page,
}) => {
  await signIn(page, 'Sunniva');
  const made = await page.request.post('/api/targets', {
    data: { name: 'Deutsche Seiten', siteAddress: '', commercial: false },
  });
  const { id, version, rules } = (await made.json()) as { id: string; version: number; rules: object };
  const changed = await page.request.put(`/api/targets/${id}`, {
    headers: { 'If-Match': `"${version}"` },
    data: { ...rules, language: 'de' },
  });
  expect(changed.ok()).toBe(true);
  try {
    await page.goto('/pages');
    await page.getByRole('link', { name: 'Begin a page' }).first().click();
    await page.getByRole('textbox', { name: 'Title' }).fill('Am Fluß');
    await page.getByRole('combobox', { name: 'For' }).click();
    await page.getByRole('option', { name: /^Deutsche Seiten/ }).click();
    await page.getByRole('button', { name: 'Begin', exact: true }).click();
    const buffer = await sharp({
      create: { width: 900, height: 600, channels: 3, background: '#7d8f6a' },
    })
      .jpeg()
      .toBuffer();
    await dropFiles(page, tray(page), [{ name: 'Möwe über dem Fluß.jpg', mimeType: 'image/jpeg', buffer }]);
    await expect(tray(page).getByRole('button', { name: /^moewe-ueber-dem-fluss/ })).toBeVisible();
    await tray(page)
      .getByRole('button', { name: /^moewe/ })
      .click();
    await row(page, 'Name').getByRole('button', { name: 'Change name or folder' }).click();
    await field(page, 'Name').fill('something-else');
    await expect(page.getByRole('button', { name: 'Use moewe-ueber-dem-fluss' })).toBeVisible();
    await page.keyboard.press('Escape');
    const words = row(page, 'Alt text and caption');
    await words.getByRole('button', { name: 'Write alt text' }).click();
    await words.getByRole('textbox', { name: 'Alt text' }).fill('A gull over the river.');
    await words.getByRole('button', { name: 'Save words' }).click();
    await words.getByRole('button', { name: 'Add another language' }).click();
    await expect(words.getByRole('combobox', { name: 'Language' })).toHaveText('German');
    await words.getByRole('textbox', { name: 'Alt text' }).fill('Eine Möwe über dem Fluß.');
    await words.getByRole('button', { name: 'Save words' }).click();
    await expect(words.getByRole('button', { name: 'Add another language' })).toBeFocused();
    await expect(words.getByRole('button', { name: 'Change the German words' })).toBeVisible();
    await expect(words).toContainText('“A gull over the river.”');
    await expectAccessible(page);
    await tray(page)
      .getByRole('button', { name: /^moewe/ })
      .press('Enter');
    await expect(words).toContainText('“Eine Möwe über dem Fluß.”');
    await expect(words).toContainText('Said on the piece in German, as this page is.');
    await saved(page);
    expect(await htmlOf(page)).toContain('alt="Eine Möwe über dem Fluß."');
  } finally {
    await page.request.delete(`/api/targets/${id}`);
  }
});

test('a quotation stands on the sheet, goes out with whose words it is, and comes back from there by paste', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Booming');
  await sheet(page).click();
  await page.keyboard.type('> It is a note like breath across a bottle.');
  await expect(page.getByRole('heading', { name: 'A quotation' })).toBeVisible();
  await field(page, 'Whose words').fill('Ines Okonjo, warden');
  await field(page, 'Where they can be read').fill('somewhere');
  await row(page, 'Source').getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('An address begins with https:// or http://.')).toBeVisible();
  await field(page, 'Where they can be read').fill('https://tidewatch.example/booming');
  await row(page, 'Source').getByRole('button', { name: 'Keep' }).click();
  await expect(sheet(page).getByRole('figure')).toContainText('Ines Okonjo, warden');
  await saved(page);

  await page.getByRole('button', { name: 'Take away...' }).click();
  await page.getByRole('menuitem', { name: 'The HTML, to paste elsewhere' }).click();
  await page.getByRole('button', { name: 'Copy the HTML' }).click();
  await expect(page.getByText('The HTML is copied.')).toBeVisible();
  const html = await page.evaluate(() => navigator.clipboard.readText());
  expect(html).toContain('<blockquote cite="https://tidewatch.example/booming">');
  expect(html).toContain('<a href="https://tidewatch.example/booming">Ines Okonjo, warden</a>');
  await page.getByRole('button', { name: 'Done' }).click();

  await beginPage(page, 'Once more');
  await sheet(page).click();
  await pasteHtml(page, html);
  await expect(sheet(page).getByRole('blockquote')).toHaveText('It is a note like breath across a bottle.');
  await expect(sheet(page).getByRole('figure')).toContainText('Ines Okonjo, warden');
  await saved(page);
});
