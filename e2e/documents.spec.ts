import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { pdfOf } from '../server/documents/testing-documents.ts';
import {
  beginPage,
  choose,
  dropFiles,
  expectAccessible,
  figures,
  htmlOf,
  label,
  row,
  saved,
  sheet,
  signIn,
  tray,
} from './hands.ts';
import { test } from './test.ts';

const TABLE = { title: 'Tide table for Saltmere 2027', author: 'Ines Okonjo', pages: 12 };
const option = (page: Page) => tray(page).getByRole('button', { name: /Tide table for Saltmere/ });

test('a document is handed in, read on its label, placed by its first page, proofed and taken away', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'The tides of the coming year');
  await dropFiles(page, tray(page), [
    { name: 'scan 0004.pdf', mimeType: 'application/pdf', buffer: pdfOf(TABLE) },
  ]);
  await option(page).click();
  await expect(row(page, 'File')).toContainText('PDF, 12 pages');
  // Nothing is asked of it that only pictures have.
  await expect(row(page, 'Cut')).toHaveCount(0);
  await expect(label(page)).not.toContainText('alt text');
  await expect(row(page, 'Name')).toContainText('tide-table-for-saltmere-2027.pdf');
  await expectAccessible(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    row(page, 'File').getByRole('link', { name: 'Download it' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('tide-table-for-saltmere-2027.pdf');
  expect(await readFile(await download.path())).toEqual(pdfOf(TABLE));

  await row(page, 'Rights').getByRole('button').first().click();
  await choose(row(page, 'Rights').getByRole('combobox', { name: 'Licence' }), 'Our own work');
  await row(page, 'Rights').getByRole('button', { name: 'Save rights' }).click();
  await option(page).press('Enter');
  await expect(figures(page)).toContainText(`${TABLE.title} (PDF, 12 pages, 4 kB)`);
  await sheet(page).press('ArrowDown');
  await saved(page);

  await page.getByRole('button', { name: 'Take away...' }).click();
  await page.getByRole('menuitem', { name: 'The HTML, to paste elsewhere' }).click();
  await expect(page.getByRole('textbox', { name: 'HTML' })).toHaveValue(
    /<a href="[^"]*tide-table-for-saltmere-2027\.pdf" type="application\/pdf">/,
  );
  await page.getByRole('button', { name: 'Done' }).click();

  await page.goto('/shelf?kind=document');
  await expect(page.getByRole('option', { name: /Tide table for Saltmere/ })).toContainText('PDF, 12 pages');
});

test('words lead to the file of a document, say what it is, and hold when another takes its place', async ({
  page,
}) => {
  await signIn(page, 'Mara');
  await beginPage(page, 'A file to read');
  await sheet(page).click();
  await page.keyboard.type('Print the ');
  await dropFiles(page, tray(page), [
    {
      name: 'hides.pdf',
      mimeType: 'application/pdf',
      buffer: pdfOf({ title: 'Map of the hides', author: 'Ines Okonjo', pages: 2 }),
    },
  ]);
  await tray(page)
    .getByRole('button', { name: /Map of the hides/ })
    .click();
  await label(page).getByRole('button', { name: 'Link to its file' }).press('Enter');
  await page.keyboard.type(' and bring it.');
  const link = sheet(page).getByRole('link', { name: 'Map of the hides' });
  await expect(link).toHaveAttribute('href', /^file:/);
  await expect(sheet(page)).toContainText('Print the Map of the hides and bring it.');
  await saved(page);
  await expect
    .poll(() => htmlOf(page))
    .toMatch(
      /Print the <a href="[^"]*map-of-the-hides\.pdf" type="application\/pdf">Map of the hides<span class="link-says"> \(PDF, 2 pages, \d+ k?B\)<\/span><\/a> and bring it\./,
    );
  // Chosen words lead there too.
  await page.keyboard.press('Shift+Home');
  await expect(row(page, 'Link').getByRole('combobox', { name: 'A document of the tray' })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Proof', exact: true }).click();
  await expect(page.getByText('The licence of Map of the hides is not known.')).toBeVisible();
});
