import { expect, type Page } from '@playwright/test';
import { choose, expectAccessible, figures, label, row, signIn, WHEN_MADE } from './hands.ts';
import { test } from './test.ts';

test('the shelf answers its sentence, and its label is written once for every page', async ({ page }) => {
  await signIn(page, 'Mara');
  await page.getByRole('link', { name: 'Shelf' }).click();
  const count = page.getByRole('status').filter({ hasText: 'pieces' });
  await expect(count).toHaveText(/^6\d of 6\d pieces$/);
  await page.getByRole('button', { name: 'Licence: under any licence' }).click();
  await page.getByRole('menuitemradio', { name: 'comps only' }).click();
  await expect(page.getByRole('option')).toHaveCount(1);
  await expect(page).toHaveURL(/licence=comp/);
  await page.getByRole('button', { name: 'Licence: comps only' }).click();
  await page.getByRole('menuitemradio', { name: 'under any licence' }).click();
  await page.getByRole('button', { name: 'Words: anything' }).click();
  await page.getByRole('textbox', { name: 'Words' }).fill('slack water');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option')).toHaveCount(1);
  await page.getByRole('option', { name: /Main channel at slack water/ }).click();
  await row(page, 'Alt text and caption')
    .getByRole('button', { name: 'Change alt text and caption' })
    .click();
  await row(page, 'Alt text and caption')
    .getByRole('textbox', { name: 'Alt text' })
    .fill('Flat bright water between two stands of reed.');
  await row(page, 'Alt text and caption').getByRole('button', { name: 'Save words' }).click();
  await expect(
    row(page, 'Alt text and caption').getByText('“Flat bright water between two stands of reed.”'),
  ).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(
    row(page, 'Alt text and caption').getByText(
      '“The main channel lies flat and bright between two stands of reed.”',
    ),
  ).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect(
    row(page, 'Alt text and caption').getByText('“Flat bright water between two stands of reed.”'),
  ).toBeVisible();
});

test('a name that is taken is refused with the next free one', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf?words=slack');
  await page.getByRole('option').first().click();
  await row(page, 'Name').getByRole('button', { name: 'Change name or folder' }).click();
  await row(page, 'Name').getByRole('textbox', { name: 'Name' }).fill('sluice-eel-pass');
  await row(page, 'Name').getByRole('button', { name: 'Save name' }).click();
  await expect(row(page, 'Name').getByRole('alert')).toContainText('sluice-eel-pass-2 is free');
});

test('several chosen pieces are moved at once, and say what they share', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf?words=heron');
  const pieces = page.getByRole('option');
  await pieces.nth(0).click({ modifiers: ['Control'] });
  await pieces.nth(1).click({ modifiers: ['Control'] });
  await expect(page.getByRole('toolbar').getByText('2 chosen')).toBeVisible();
  await expect(page.getByRole('article', { name: '2 chosen pieces' })).toBeVisible();
  await page.getByRole('button', { name: 'Folder...', exact: true }).click();
  await page.getByRole('menuitem', { name: 'hides' }).click();
  const told = page.getByRole('listitem').filter({ hasText: '2 pieces moved to hides.' });
  await expect(told).toBeVisible();
  await told.hover();
  await told.focus();
  await page.keyboard.press('Shift+Tab');
  await expect(told).not.toBeFocused();
  await page.keyboard.press('Tab');
  await expect(told).toBeFocused();
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Placard, to the Desk' })).toBeFocused();
});

test('several chosen pieces get key words, a maker and names at once, and one undo takes each back', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf?words=heron');
  await page.getByRole('option').nth(0).click();
  await page
    .getByRole('option')
    .nth(1)
    .click({ modifiers: ['Control'] });
  const bar = page.getByRole('toolbar', { name: 'With the chosen pieces' });
  await bar.getByRole('button', { name: 'Key words...' }).click();
  await page.getByRole('combobox', { name: 'Add key words' }).fill('ebb stream, spring tide');
  await page.keyboard.press('Enter');
  const words = page.getByRole('group', { name: 'Key words of the chosen pieces' });
  await expect(words.getByRole('button', { name: 'ebb stream', pressed: true })).toBeVisible();
  await expectAccessible(page);
  await words.getByRole('button', { name: 'spring tide', pressed: true }).click();
  await expect(words.getByRole('button', { name: 'spring tide' })).toHaveCount(0);
  await page.keyboard.press('Escape');
  await bar.getByRole('button', { name: 'Credit...' }).click();
  const credit = page.getByRole('form', { name: 'Maker and credit' });
  await credit.getByRole('textbox', { name: 'Copyright notice' }).fill('© Saltmere Trust');
  await expectAccessible(page);
  await credit.getByRole('button', { name: 'Save for all 2' }).click();
  await expect(page.getByText('Changed: maker and credit of 2 pieces.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo maker and credit of 2 pieces' }).click();
  await expect(page.getByRole('button', { name: 'Undo key words of 2 pieces' })).toBeVisible();
  await bar.getByRole('button', { name: 'Name...' }).click();
  await expect(page.getByRole('region', { name: 'The run' })).toContainText('Rename 2 pictures');
});

test('two people on one label: the second sees what the first saved, and keeps what was typed', async ({
  page,
  browser,
}) => {
  await signIn(page, 'Mara', '/shelf?words=marsh+map');
  await page.getByRole('option').first().click();
  await label(page).getByRole('button', { name: 'Change title and date' }).click();
  await label(page).getByRole('textbox', { name: 'Title' }).fill('Mara’s map');
  const context = await browser.newContext();
  const other = await context.newPage();
  await signIn(other, 'Piet', '/shelf?words=marsh+map');
  await other.getByRole('option').first().click();
  await label(other).getByRole('button', { name: 'Change title and date' }).click();
  await label(other).getByRole('textbox', { name: 'Title' }).fill('Piet’s map');
  await label(other).getByRole('button', { name: 'Save', exact: true }).click();
  await expect(label(other).getByRole('heading', { name: 'Piet’s map' })).toBeVisible();
  await context.close();
  await label(page).getByRole('button', { name: 'Save', exact: true }).click();
  await expect(label(page).getByText('Somebody changed this label meanwhile.')).toBeVisible();
  await expect(label(page).getByRole('heading', { name: 'Piet’s map' })).toBeVisible();
  await expect(label(page).getByRole('textbox', { name: 'Title' })).toHaveValue('Mara’s map');
});

test('what it means for readers is said before a fault that shuts them out is no longer looked for', async ({
  page,
}) => {
  await signIn(page, 'Sunniva', '/rules');
  const finding = page.getByRole('combobox', { name: 'A picture without words for those who cannot see it' });
  await choose(finding, 'is not looked for');
  const asked = page.getByRole('alertdialog', { name: 'Not look for it any more?' });
  await expect(asked).toContainText('nothing in their place');
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(finding).toHaveText('stops sending');
  await choose(finding, 'is not looked for');
  await asked.getByRole('button', { name: 'Switch it off' }).click();
  await expect(finding).toHaveText('is not looked for');
});

test('house rules hold for every page, and only the site owner sets them', async ({ page }) => {
  await signIn(page, 'Sunniva');
  await page.getByRole('link', { name: 'House rules' }).click();
  await page.getByRole('textbox', { name: 'Column (px)' }).fill('640');
  await choose(page.getByRole('combobox', { name: 'A want without a piece' }), 'stops sending');
  await page.getByRole('button', { name: 'Leave out place' }).click();
  await expect(page.getByText('heron-below-hide-no-3.jpg')).toBeVisible();
  await page.getByRole('button', { name: 'Save rules' }).click();
  await expect(page.getByText('House rules saved.')).toBeVisible();
  await page.goto('/pages/demo-page-1');
  await expect(page.getByText('for the Reserve site · column 640 px')).toBeVisible();
  await page.getByRole('button', { name: 'Proof' }).click();
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: '“Portrait of the warden” is still wanted.' })
      .getByText('Stops sending.'),
  ).toBeVisible();
  await page.getByRole('link', { name: 'House rules' }).click();
  await page.getByRole('textbox', { name: 'Column (px)' }).fill('20');
  await expect(page.getByRole('alert')).toContainText('column');
  await expect(page.getByRole('button', { name: 'Save rules' })).toBeDisabled();
  // As it was, for the tests that come after.
  await page.getByRole('textbox', { name: 'Column (px)' }).fill('720');
  await choose(page.getByRole('combobox', { name: 'A want without a piece' }), 'should be mended');
  await page.getByRole('button', { name: 'Save rules' }).click();
  await expect(page.getByText('House rules saved.').first()).toBeVisible();
});

test('where a host, a licence and what somebody brought in are used is said where each is settled', async ({
  page,
}) => {
  await signIn(page, 'Sunniva');
  await page.goto('/rules');
  const panel = page.getByRole('dialog');
  await page.getByRole('button', { name: 'Where used: Lanternreel' }).press('Enter');
  await expect(panel).toContainText(/pieces? on the shelf, on \w+ pages?\./);
  await expect(panel.getByRole('listitem').first()).toContainText('Reserve site');
  await expectAccessible(page);
  await panel.getByRole('button', { name: 'Done' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Where used: Lanternreel' })).toBeFocused();
  await page.getByRole('button', { name: 'Where used: Mara Oduya' }).click();
  await expect(panel).toContainText('Where what Mara Oduya brought in is used');
  await page.goto('/rights');
  await page.getByRole('button', { name: /^Licences/ }).click();
  await page.getByRole('button', { name: 'Where those of the catalogue are used' }).click();
  await page.getByRole('button', { name: 'Where used: Our own work' }).click();
  await expect(
    page.getByRole('dialog', { name: 'Where Our own work is used' }).getByRole('listitem').first(),
  ).toBeVisible();
  await page.getByRole('dialog', { name: 'Where Our own work is used' }).getByRole('link').first().click();
  await expect(page).toHaveURL(/\/pages\//);
});

test('a page that may not go out says what stops it, and where it is mended', async ({ page }) => {
  await signIn(page, 'Mara', '/pages/demo-page-1');
  await page.getByRole('button', { name: 'Take away...' }).click();
  await page.getByRole('menuitem', { name: 'Everything as a ZIP' }).click();
  await expect(
    page.getByRole('alert').getByText('This page cannot go out yet: Dusk over Saltmere is a comp'),
  ).toBeVisible();
  await page.getByRole('link', { name: 'See the proof' }).click();
  const words = page
    .getByRole('listitem')
    .filter({ hasText: 'Boardwalk at noon, June has no alt text yet.' });
  await words.getByRole('button', { name: 'Write alt text' }).click();
  await words.getByRole('textbox', { name: 'Alt text' }).fill('New planks run straight out into the marsh.');
  await words.getByRole('button', { name: 'Save words' }).click();
  await expect(words).toHaveCount(0);
  const inFrame = page
    .frameLocator('iframe[title="The page at 1280 px"]')
    .getByRole('img', { name: 'New planks run straight out into the marsh.' });
  await expect(inFrame).toBeVisible(WHEN_MADE);
  // The frames follow each edit of a label, also one that takes another back.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(words).toHaveCount(1);
  await expect(inFrame).toHaveCount(0);
});

for (const id of ['demo-page-2', 'demo-page-3']) {
  test(`the sheet shows each block where the proof shows it, on ${id}`, async ({ page }) => {
    await page.setViewportSize({ width: 1920, height: 1080 });
    await signIn(page, 'Mara', `/pages/${id}`);
    const onSheet = await page.getByRole('region', { name: 'Sheet' }).evaluate(async (root) => {
      await document.fonts.ready;
      const title = root.querySelector('textarea')?.getBoundingClientRect();
      const blocks = [...root.querySelectorAll('[contenteditable="true"] > :not(:empty):not(.sheet-teaser)')];
      // A teaser stands before the article, and moves all of it down.
      const [first, teaser] = [blocks[0], root.querySelector('.sheet-teaser')].map((element) =>
        element?.getBoundingClientRect(),
      );
      const down = teaser ? (first?.top ?? 0) - teaser.top : 0;
      return blocks.map((block) => {
        const box = block.getBoundingClientRect();
        return {
          top: box.top - down - (title?.top ?? 0),
          left: box.left - (title?.left ?? 0),
          width: box.width,
        };
      });
    });
    await page.getByRole('button', { name: 'Proof' }).click();
    const frame = page.frameLocator('iframe[title="The page at 1280 px"]');
    await expect(frame.locator('figure img').first()).toBeVisible(WHEN_MADE);
    const inProof = await frame
      .getByRole('heading', { level: 1 })
      .locator('..')
      .evaluate(async (root) => {
        await document.fonts.ready;
        const title = root.querySelector('h1')?.getBoundingClientRect();
        return [...root.querySelectorAll(':scope > :not(h1)')].map((block) => {
          const box = block.getBoundingClientRect();
          return { top: box.top - (title?.top ?? 0), left: box.left - (title?.left ?? 0), width: box.width };
        });
      });
    expect(onSheet.length).toBeGreaterThanOrEqual(inProof.length);
    for (const [at, block] of inProof.entries()) {
      for (const side of ['top', 'left', 'width'] as const) {
        expect(Math.abs((onSheet[at]?.[side] ?? 0) - block[side]), `${side} of block ${at + 1}`).toBeLessThan(
          1.5,
        );
      }
    }
  });
}

const VIEWS: readonly (readonly [name: string, path: string, open: (page: Page) => Promise<void>])[] = [
  ['Desk', '/', async (page) => expect(page.getByRole('heading', { name: /for you/ })).toBeVisible()],
  [
    'Pages',
    '/pages',
    async (page) => {
      await expect(page.getByRole('heading', { level: 1, name: 'Pages' })).toBeVisible();
    },
  ],
  [
    'a new page',
    '/pages/new',
    async (page) => {
      await expect(page.getByRole('heading', { name: 'Begin a page' })).toBeVisible();
    },
  ],
  [
    'a page at work',
    '/pages/demo-page-2',
    async (page) => {
      await figures(page).first().click();
      await row(page, 'Fit').getByRole('button', { name: 'Move it, link it' }).click();
    },
  ],
  [
    'a page with its rights open',
    '/pages/demo-page-2',
    async (page) => {
      await figures(page).first().click();
      await row(page, 'Rights').getByRole('button').first().click();
    },
  ],
  [
    'the wants',
    '/pages/demo-page-1?want=want-3',
    async (page) => {
      await expect(page.getByRole('heading', { name: 'What this page wants' })).toBeVisible();
    },
  ],
  [
    'Shelf',
    '/shelf',
    async (page) => {
      await page.getByRole('option').first().click();
      await row(page, 'Alt text and caption').getByRole('button').first().click();
    },
  ],
  [
    'the shelf with chosen pieces',
    '/shelf',
    async (page) => {
      await page
        .getByRole('option')
        .nth(0)
        .click({ modifiers: ['Control'] });
      await page
        .getByRole('option')
        .nth(1)
        .click({ modifiers: ['Control'] });
    },
  ],
  [
    'a run',
    '/shelf?words=hide',
    async (page) => {
      for (const at of [0, 1, 2])
        await page
          .getByRole('option')
          .nth(at)
          .click({ modifiers: ['Control'] });
      await page.getByRole('button', { name: 'Run...' }).click();
      await choose(page.getByRole('combobox', { name: 'Names' }), 'Search and replace');
      await expect(page.getByRole('table')).toBeVisible();
    },
  ],
  [
    'earlier runs',
    '/shelf/runs',
    async (page) => {
      await expect(page.getByRole('heading', { level: 1, name: 'Runs' })).toBeVisible();
    },
  ],
  [
    'Gather with a result open',
    '/gather?page=demo-page-2&words=boardwalk',
    async (page) => {
      await page.getByRole('option', { name: /^Boardwalk rail, evening/ }).click();
      await page.getByText('What is said of its licence disagrees').waitFor();
      await page.getByText('All that is said').click();
    },
  ],
  [
    'Gather with an album and the clipper',
    '/gather?from=loftdrive&album=reed-days',
    async (page) => {
      await page.getByRole('button', { name: /^Make (a clipper|another)$/ }).click();
      await expect(page.getByRole('link', { name: 'Hand to Placard' })).toBeVisible();
      await page.getByRole('option').first().waitFor();
    },
  ],
  [
    'the Bench',
    '/shelf?words=sluice+eel+pass',
    async (page) => {
      await page.getByRole('option', { name: /sluice with the eel pass/ }).click();
      await page.getByRole('link', { name: 'Prepare it' }).click();
      await page
        .getByRole('navigation', { name: 'Cuts' })
        .getByRole('button', { name: /^Square/ })
        .click();
      await expect(page.getByRole('button', { name: /^Frame: / })).toBeVisible();
    },
  ],
  [
    'two that look alike',
    '/shelf?words=north+reed+neck',
    async (page) => {
      await page.getByRole('option').first().click();
      await row(page, 'Source').getByRole('button', { name: 'Compare' }).click();
      await expect(page.getByRole('dialog', { name: 'Do these show the same?' })).toBeVisible();
    },
  ],
  [
    'Proof',
    '/pages/demo-page-1/proof',
    async (page) => {
      await expect(page.getByRole('button', { name: 'Finding 1 at 390 px' })).toBeVisible(WHEN_MADE);
    },
  ],
  [
    'House rules',
    '/rules',
    async (page) => {
      await expect(page.getByRole('heading', { name: 'What stops sending' })).toBeVisible();
    },
  ],
  [
    'an address with nothing',
    '/nowhere',
    async (page) =>
      expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible(),
  ],
  [
    'find or do',
    '/',
    async (page) => {
      await page.keyboard.press('Control+k');
      await page.keyboard.type('heron');
      await expect(page.getByRole('option').first()).toBeVisible();
    },
  ],
  [
    'the keys',
    '/',
    async (page) => {
      await page.keyboard.press('?');
      await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
    },
  ],
];

for (const [name, path, open] of VIEWS) {
  test(`axe finds nothing on ${name}, in either theme`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    await signIn(page, 'Mara', path);
    await open(page);
    await expectAccessibleInBoth(page);
  });
}

test('axe finds nothing on the sign-in, in either theme', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'light' });
  await page.goto('/');
  await expect(page.getByRole('button', { name: /^Mara/ })).toBeVisible();
  await expectAccessibleInBoth(page);
});

/** The page as it stands, in the light theme and then, as the system changes to it, in the dark one. */
async function expectAccessibleInBoth(page: Page): Promise<void> {
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light');
  await expectAccessible(page);
  await page.emulateMedia({ colorScheme: 'dark' });
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expectAccessible(page);
}

test('a pane is drawn wider by keys, and is as wide after a reload', async ({ page }) => {
  await signIn(page, 'Mara', '/shelf');
  const edge = page.getByRole('separator', { name: 'Size of the label' });
  const widthOfLabel = async () => (await label(page).boundingBox())?.width ?? 0;
  await expect.poll(widthOfLabel).toBeGreaterThan(300);
  const before = await widthOfLabel();
  await edge.focus();
  for (let press = 0; press < 3; press += 1) await page.keyboard.press('ArrowLeft');
  await expect.poll(widthOfLabel).toBeGreaterThan(before + 20);
  const drawn = await widthOfLabel();
  await page.reload();
  await expect.poll(async () => Math.abs((await widthOfLabel()) - drawn)).toBeLessThan(2);
  await page.setViewportSize({ width: 400, height: 800 });
  await expect(page.getByRole('listbox', { name: 'Pieces' })).toBeVisible();
  const places = page.getByRole('navigation', { name: 'Places of this screen' });
  await places.getByRole('button', { name: /^Label/ }).click();
  await expect(label(page)).toBeVisible();
});

test('what is typed right after the keys of "Find or do" is not lost, however slow the line', async ({
  page,
}) => {
  await page.route('**/assets/find-or-do*.js', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await signIn(page, 'Mara');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Begin a page');
  const found = page.getByRole('option', { name: 'Begin a page', exact: true });
  await expect(found).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Begin a page' })).toBeVisible();
});
