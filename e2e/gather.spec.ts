import { expect, type Page } from '@playwright/test';
import {
  beginPage,
  choose,
  dropFiles,
  label,
  largeFiles,
  row,
  saved,
  sheet,
  signIn,
  tray,
  WHEN_MADE,
  world,
} from './hands.ts';
import { test } from './test.ts';
import { OUTSIDE_PORT } from './world.ts';

/** Gathering from each place, end to end to the tray. */

const results = (page: Page, source: string) => page.getByRole('region', { name: source, exact: true });
const result = (page: Page, name: RegExp) => page.getByRole('option', { name }).first();
const coming = (page: Page) => page.getByRole('region', { name: 'Coming in' });
const anysite = (path: string) => `http://anysite.localhost:${OUTSIDE_PORT}${path}`;

async function ask(page: Page, words: string): Promise<void> {
  await page.getByRole('button', { name: /^Words: / }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill(words);
  await page.keyboard.press('Enter');
}

test('a want is the question already, and what is taken for it stands on the page with its rights', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/pages/demo-page-1?want=want-3');
  await page.getByRole('link', { name: 'Gather for “Portrait of the warden”' }).click();
  await expect(page.getByRole('button', { name: 'Words: warden' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Shape: portrait' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Use: may be used commercially' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Least width: 800 px' })).toBeVisible();
  await result(page, /^The warden with a glass/).click();
  await expect(row(page, 'Fit').getByText(/Fills the want/)).toBeVisible();
  await expect(
    row(page, 'Rights').getByText('CC BY 4.0. May be used here. The credit is owed.'),
  ).toBeVisible();
  await expect(row(page, 'Credit').getByText('Photo: Osric Penhale, Commonfield, CC BY 4.0.')).toBeVisible();
  await expect(row(page, 'Source').getByText('Its page says the same licence.')).toBeVisible();
  await page.getByRole('button', { name: 'Take it for this want' }).click();
  await expect(coming(page).getByText('Taken in: the-warden-with-a-glass.jpg.')).toBeVisible();
  await expect(label(page).getByText('Filled: Portrait of the warden')).toBeVisible();
  await page.getByRole('link', { name: 'Bitterns are booming again' }).click();
  await expect(page.getByRole('button', { name: /Wanted 3 of 3/ })).toBeVisible();
  await tray(page)
    .getByRole('button', { name: /The warden with a glass/ })
    .click();
  await expect(row(page, 'Rights').getByText(/is only claimed, by Commonfield\./)).toBeVisible();
  await row(page, 'Rights').getByRole('button', { name: 'Keep this licence' }).click();
  await expect(row(page, 'Rights').getByText('May be used here. The credit is owed.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo keeping its licence' }).click();
  await expect(row(page, 'Rights').getByText(/is only claimed, by Commonfield\./)).toBeVisible();
  await expect(
    row(page, 'Source').getByText(/Gathered by Mara Oduya on .*, from Commonfield\./),
  ).toBeVisible();
  // One undo takes it off the tray and throws it away.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo gathering a picture' }).click();
  await expect(tray(page).getByRole('button', { name: /The warden with a glass/ })).toBeHidden();
});

test('results that cannot be used here are folded away with the reason, and can be opened', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/gather?page=demo-page-2&words=boardwalk');
  const commonfield = results(page, 'Commonfield');
  await expect(
    commonfield.getByText('2 more do not fit: 1 forbids commercial use, 1 forbids changes.'),
  ).toBeVisible();
  await expect(commonfield.getByRole('option', { name: /Two on the boardwalk/ })).toBeHidden();
  await commonfield.getByRole('button', { name: 'Open them' }).click();
  await commonfield.getByRole('option', { name: /Two on the boardwalk/ }).click();
  await expect(row(page, 'Rights').getByText(/CC BY-NC 4.0 forbids commercial use/)).toBeVisible();
  await page.getByRole('button', { name: 'Use: may be used commercially' }).click();
  await page.getByRole('menuitemradio', { name: 'may be used at all' }).click();
  await expect(commonfield.getByText('1 more does not fit: 1 forbids changes.')).toBeVisible();
});

test('a licence on which the places disagree asks for a decision, and keeps it', async ({ page }) => {
  await signIn(page, 'Mara', '/gather?words=rail');
  await result(page, /^Boardwalk rail, evening/).click();
  await expect(row(page, 'Rights').getByText(/What is said of its licence disagrees/)).toBeVisible();
  await choose(
    row(page, 'Rights').getByRole('combobox', { name: 'Which holds?' }),
    'Creative Commons BY-NC 4.0',
  );
  await page.getByRole('button', { name: 'To the shelf' }).click();
  await expect(coming(page).getByText('Taken in: boardwalk-rail-evening.jpg.')).toBeVisible();
  await page.goto('/shelf?words=boardwalk+rail');
  await page.getByRole('option', { name: /Boardwalk rail, evening/ }).click();
  await expect(row(page, 'Rights').getByText(/CC BY-NC 4.0 forbids commercial use/)).toBeVisible();
  await expect(row(page, 'Source').getByText('What was said then')).toBeVisible();
});

test('a comp goes from the agency to the tray, and is marked as a comp', async ({ page }) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'Laid out with a comp');
  await tray(page).getByRole('link', { name: 'Gather...' }).click();
  await ask(page, 'telescope');
  await result(page, /^The man with the telescope/).click();
  await expect(row(page, 'Price').getByText('39.00 EUR for one year, one site.')).toBeVisible();
  await page.getByRole('button', { name: 'To the tray' }).click();
  await expect(coming(page).getByText(/^Taken in: /)).toBeVisible();
  await page.getByRole('link', { name: 'Laid out with a comp' }).click();
  await expect(tray(page).getByText('comp, not bought')).toBeVisible();
  await tray(page)
    .getByRole('button', { name: /telescope/ })
    .press('Enter');
  await saved(page);
  await page.getByRole('button', { name: 'Proof' }).click();
  await expect(page.getByRole('heading', { name: 'The man with the telescope is a comp.' })).toBeVisible();
});

test('the archive’s plate comes with its rights statement, and its border is left out', async ({ page }) => {
  await signIn(page, 'Mara', '/gather?words=larch');
  await result(page, /^The old boardwalk, 1931/).click();
  await expect(row(page, 'Rights').getByText(/no known copyright\. May be used here\./)).toBeVisible();
  await page.getByRole('button', { name: 'To the shelf' }).click();
  await expect(coming(page).getByText('Taken in: the-old-boardwalk-1931.jpg.')).toBeVisible();
  await page.goto('/shelf?words=old+boardwalk+1931');
  await page.getByRole('option', { name: /The old boardwalk, 1931/ }).click();
  await row(page, 'Cut').getByRole('button', { name: 'Leave it out' }).click();
  await expect(
    row(page, 'Cut').getByText('A border was part of the picture, and is left out.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Undo trimming its border' }).click();
  await expect(row(page, 'Cut').getByText('A border is part of the picture.')).toBeVisible();
});

test('an album of the drive is taken whole, and not fetched again while it is unchanged', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/gather?from=loftdrive');
  const drive = results(page, 'Loftdrive');
  await drive.getByRole('button', { name: 'Open Boardwalk works' }).click();
  await drive.getByRole('button', { name: 'Take all 3' }).click();
  await expect(coming(page).getByText('3 of 3 pictures')).toBeVisible();
  await expect(drive.getByText('3 files, all held already')).toBeVisible();
  await drive.getByRole('button', { name: 'Take all again' }).click();
  await expect(
    coming(page)
      .getByText(/was not fetched again/)
      .first(),
  ).toBeVisible();
});

test('any address is read: a page shows its pictures, a picture is taken, a bad one says why', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/gather');
  const give = async (address: string) => {
    await page.getByRole('button', { name: 'Give any address' }).click();
    await page.getByRole('textbox', { name: /^Address of a picture/ }).fill(address);
    await page.getByRole('button', { name: 'Read it', exact: true }).click();
  };
  await give(anysite('/page/article'));
  await expect(page.getByText('2 pictures on this page of anysite.localhost, largest first')).toBeVisible();
  await result(page, /^Morning on the flats/).click();
  await expect(row(page, 'Credit').getByText(/Osric Penhale/)).toBeVisible();
  await page.getByRole('button', { name: 'To the shelf' }).click();
  await expect(coming(page).getByText('Taken in: morning-on-the-flats.jpg.')).toBeVisible();
  await page.getByRole('button', { name: 'Ask all sources instead' }).click();
  await give('ftp://anysite.localhost/a.jpg');
  await expect(
    page.getByText('Only addresses that begin with https:// or http:// are fetched.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Ask all sources instead' }).click();
  await give(anysite('/page/nowhere'));
  await expect(page.getByText('anysite.localhost has nothing at this address any more.')).toBeVisible();
});

test('the clipper hands a page of another origin to Gather, until it is called back', async ({
  page,
  context,
}) => {
  await signIn(page, 'Mara', '/gather');
  await page.getByRole('button', { name: /^Make (a clipper|another)$/ }).click();
  const clipper = page.getByRole('link', { name: 'Hand to Placard' });
  await expect(clipper).toHaveAttribute('href', /^javascript:/);
  const code = await clipper.getAttribute('href');
  const elsewhere = await context.newPage();
  await elsewhere.goto(anysite('/page/article'));
  await elsewhere.getByText('We went out at six.').selectText();
  const press = async () => {
    const [popup] = await Promise.all([
      context.waitForEvent('page'),
      // As the browser does with a bookmark whose address is a program.
      elsewhere.addScriptTag({ content: decodeURIComponent((code ?? '').replace(/^javascript:/, '')) }),
    ]);
    return popup;
  };
  const popup = await press();
  await expect(popup.getByRole('heading', { name: 'Handed in from anysite.localhost' })).toBeVisible();
  expect(popup.url()).not.toContain('t=');
  await popup.getByRole('link', { name: 'See its pictures' }).click();
  await expect(popup.getByText('We went out at six.')).toBeVisible();
  await expect(result(popup, /^Morning on the flats/)).toBeVisible();
  await page.getByRole('button', { name: 'Revoke it' }).click();
  await expect(page.getByRole('link', { name: 'Hand to Placard' })).toBeHidden();
  const refused = await press();
  await expect(refused.getByText('This clipper no longer works')).toBeVisible();
  await refused.goto('/clip');
  await expect(refused.getByText('There is no page to hand in')).toBeVisible();
});

test('a source that is dead says so, and the others answer', async ({ page, request }) => {
  const wayside = { headers: { host: `wayside.localhost:${OUTSIDE_PORT}` } };
  const tell = (mood: string) => request.get(`http://127.0.0.1:${OUTSIDE_PORT}/-/misbehave/${mood}`, wayside);
  await tell('broken');
  await signIn(page, 'Mara', '/gather?words=boardwalk');
  await expect(results(page, 'Wayside Archive').getByText(/has a fault of its own just now/)).toBeVisible();
  await expect(results(page, 'Commonfield').getByRole('option').first()).toBeVisible();
  await expect(page.getByText('3 of 4 sources answered')).toBeVisible();
  await tell('well');
  await results(page, 'Wayside Archive').getByRole('button', { name: 'Ask now' }).click();
  await expect(page.getByText('4 of 4 sources answered')).toBeVisible();
});

test('lookalikes are shown side by side, and one takes the other’s place on every page', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf?words=north+reed+neck');
  const pieces = page.getByRole('option');
  await pieces.first().click();
  await row(page, 'Source').getByRole('button', { name: 'Compare' }).click();
  const panel = page.getByRole('dialog', { name: 'Do these show the same?' });
  await expect(panel.getByText(/is larger|px wide/)).toBeVisible();
  await panel.getByRole('button', { name: /^Fold / }).click();
  await expect(panel).toBeHidden();
  await expect(pieces).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo folding a lookalike' }).click();
  await expect(pieces).toHaveCount(2);
});

test('a piece is kept at hand, thrown away with its use shown first, and brought back', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf?words=slack');
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: 'Pin', exact: true }).click();
  await page.getByRole('button', { name: 'Pinned', exact: true }).click();
  await expect(page.getByRole('option')).toHaveCount(1);
  await page.getByRole('option').first().click();
  await page.getByRole('button', { name: 'Throw it away' }).click();
  const asked = page.getByRole('alertdialog', { name: 'It is in use' });
  await expect(asked.getByRole('listitem').first()).toBeVisible();
  await asked.getByRole('button', { name: 'Throw away all the same' }).click();
  await page.getByRole('button', { name: 'Thrown away', exact: true }).click();
  await page.getByRole('option', { name: /slack water/ }).click();
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(page.getByRole('option', { name: /slack water/ })).toBeHidden();
  await page.goto('/shelf?words=slack');
  await expect(page.getByRole('option')).toHaveCount(1);
});

test('an upload goes on after a reload, and after the server was killed in the middle', async ({ page }) => {
  const [plain] = await largeFiles();
  await signIn(page, 'Mara');
  await beginPage(page, 'Interrupted');
  // Slow enough to be met in the middle.
  const session = await page.context().newCDPSession(page);
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 5,
    downloadThroughput: -1,
    uploadThroughput: 900_000,
  });
  await dropFiles(page, tray(page), [plain]);
  await expect(coming(page).getByText(/of .* MB/)).toBeVisible();
  await coming(page)
    .getByRole('button', { name: /^Pause / })
    .click();
  await expect(coming(page).getByText('Paused')).toBeVisible();
  await coming(page)
    .getByRole('button', { name: /^Go on with / })
    .click();
  await page.waitForTimeout(700);
  await page.reload();
  await expect(
    coming(page)
      .getByText(/^4 of|of .* MB|Goes on/)
      .first(),
  ).toBeVisible();
  await world('kill');
  // Before it can go on: what is sent slowly stays slow to its end.
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  });
  await world('start');
  await expect(coming(page).getByText(/^(Taken in as|Already on the shelf as)/)).toBeVisible(WHEN_MADE);
  await expect(tray(page).getByText('1 piece,')).toBeVisible();
  await expect(sheet(page)).toBeVisible();
});

test('an upload whose tab was closed goes on in another', async ({ page, context }) => {
  const [, turned] = await largeFiles();
  await signIn(page, 'Mara', '/gather');
  await expect(page.getByText('4 of 4 sources answered')).toBeVisible();
  const session = await context.newCDPSession(page);
  await session.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 5,
    downloadThroughput: -1,
    uploadThroughput: 900_000,
  });
  await dropFiles(page, page.getByRole('region', { name: 'Results' }), [turned]);
  await expect(coming(page).getByText(/of .* MB/)).toBeVisible();
  const other = await context.newPage();
  await other.goto('/shelf');
  await expect(other.getByRole('listbox', { name: 'Pieces' })).toBeVisible();
  // While the first tab sends it, the second leaves it alone.
  await expect(coming(other)).toBeHidden();
  await page.waitForTimeout(500);
  await page.close();
  await expect(coming(other).getByText(/^(Taken in as|Already on the shelf as)/)).toBeVisible(WHEN_MADE);
});

test('a batch from the drive goes on when the server is killed in the middle, and nothing comes twice', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/gather?from=loftdrive&album=reed-days');
  await results(page, 'Loftdrive').getByRole('button', { name: 'Take all 4' }).click();
  await expect(coming(page)).toBeVisible();
  await world('kill');
  await world('start');
  await expect(coming(page).getByText('4 of 4 pictures')).toBeVisible(WHEN_MADE);
  await page.goto('/shelf?words=bundles');
  await expect(page.getByRole('option', { name: /bundles-by-the-barge/ })).toHaveCount(1);
});

test('a whole folder comes in with its folders', async ({ page }) => {
  await signIn(page, 'Mara', '/gather');
  const picture = async (hue: number) => {
    const bytes = await page.evaluate(async (h) => {
      const canvas = new OffscreenCanvas(300, 200);
      const context = canvas.getContext('2d');
      if (context) {
        context.fillStyle = `hsl(${h} 60% 40%)`;
        context.fillRect(0, 0, 300, 200);
      }
      const blob = await canvas.convertToBlob({ type: 'image/png' });
      return [...new Uint8Array(await blob.arrayBuffer())];
    }, hue);
    return Buffer.from(bytes);
  };
  const { mkdtemp, mkdir, writeFile } = await import('node:fs/promises');
  const { join } = await import('node:path');
  const { tmpdir } = await import('node:os');
  const folder = join(await mkdtemp(join(tmpdir(), 'placard-folder-')), 'Hide work');
  await mkdir(join(folder, 'Roof 2026'), { recursive: true });
  await writeFile(join(folder, 'new steps.png'), await picture(12));
  await writeFile(join(folder, 'Roof 2026', 'reed roof.png'), await picture(77));
  await writeFile(join(folder, 'notes.txt'), 'Not a picture.');
  await page.getByLabel('A folder to gather').setInputFiles(folder);
  await expect(coming(page).getByText('2 of 2 files')).toBeVisible();
  await page.goto('/shelf?folder=hide-work');
  await expect(page.getByRole('option')).toHaveCount(2);
  await page.goto('/shelf?folder=hide-work%2Froof-2026');
  await expect(page.getByRole('option', { name: /reed-roof/ })).toHaveCount(1);
});

test('gathering by keyboard alone', async ({ page }) => {
  await signIn(page, 'Mara');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('geese');
  const offer = page.getByRole('option', { name: 'Gather pictures of geese' });
  // Pieces and pages that come later move it down; what has been chosen stays so.
  await expect(async () => {
    await page.keyboard.press('ArrowDown');
    await expect(offer).toHaveAttribute('aria-selected', 'true', { timeout: 300 });
  }).toPass({ intervals: [0] });
  await page.keyboard.press('Enter');
  const geese = result(page, /^Geese over the channel/);
  await expect(geese).toBeVisible();
  for (let presses = 0; presses < 60; presses += 1) {
    if (await geese.evaluate((element) => element === document.activeElement)) break;
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Enter');
  await expect(coming(page).getByText('Taken in: geese-over-the-channel.jpg.')).toBeVisible();
});
