import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { pdfOf } from '../server/documents/testing-documents.ts';
import {
  beginPage,
  choose,
  dropFiles,
  expectAccessible,
  figures,
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
