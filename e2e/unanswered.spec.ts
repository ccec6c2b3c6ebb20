import { expect } from '@playwright/test';
import { expectAccessible, signIn } from './hands.ts';
import { test } from './test.ts';

/** Each screen, and what it asks that it cannot do without. */
const SCREENS: readonly (readonly [name: string, path: string, asked: RegExp])[] = [
  ['Desk', '/', /\/api\/desk$/],
  ['Pages', '/pages', /\/api\/pages$/],
  ['a page', '/pages/demo-page-1', /\/api\/pages\/demo-page-1$/],
  ['Proof', '/pages/demo-page-1/proof', /\/api\/pages\/demo-page-1$/],
  ['the frames of Proof', '/pages/demo-page-1/proof', /\/preview/],
  ['Begin a page', '/pages/new', /\/api\/targets$/],
  ['the pieces of the Shelf', '/shelf', /\/api\/assets(?:\?|$)/],
  ['the folders of the Shelf', '/shelf', /\/api\/folders$/],
  ['Gather', '/gather', /\/api\/sources$/],
  ['Embeds', '/embeds', /\/api\/embeds\/hosts$/],
  ['the held embeds', '/embeds', /\/api\/assets\?.*kind=embed/],
  ['Runs', '/shelf/runs', /\/api\/runs$/],
  ['House rules', '/rules', /\/api\/targets$/],
  ['the hosts of House rules', '/rules', /\/api\/embeds\/hosts$/],
  ['what is one’s own', '/me', /\/api\/me\/sessions$/],
];

for (const [name, path, asked] of SCREENS)
  test(`${name}: a question that fails says so where its answer would stand, and is asked again`, async ({
    page,
  }) => {
    await page.route(asked, (route) =>
      route.request().method() === 'GET'
        ? route.fulfill({
            status: 418,
            contentType: 'application/problem+json',
            body: JSON.stringify({
              type: 'about:blank',
              title: 'Shut',
              status: 418,
              detail: 'The sluice is shut. Nothing was changed.',
            }),
          })
        : route.continue(),
    );
    await signIn(page, 'Sunniva', path);
    const said = page.getByRole('main').getByRole('alert').filter({ hasText: 'The sluice is shut.' });
    await expect(said.first()).toBeVisible();
    await expectAccessible(page);
    await page.unroute(asked);
    await said.first().getByRole('button', { name: 'Ask again' }).click();
    await expect(said).toHaveCount(0);
  });

test('pieces that answered the last question are not shown as the answer of one that fails', async ({
  page,
}) => {
  await signIn(page, 'Mara', '/shelf');
  await expect(page.getByRole('option').first()).toBeVisible();
  await page.route(/\/api\/assets(\/count)?\?.*folder=birds/, (route) =>
    route.fulfill({ status: 500, body: '' }),
  );
  await page
    .getByRole('navigation', { name: 'Folders' })
    .getByRole('button', { name: /^birds/ })
    .click();
  await expect(page.getByRole('main').getByRole('alert')).toBeVisible();
  await expect(page.getByRole('option')).toHaveCount(0);
  await expect(page.getByText(/of \d+ pieces/)).toBeHidden();
});
