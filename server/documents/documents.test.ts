import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Asset, AssetListSchema, LookalikesSchema } from '#api/assets.ts';
import { PageSchema } from '#api/pages.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { fileHref } from '#core/page/page-address.ts';
import { documents, perceptualHashes } from '../db/schema.ts';
import { writeBundle } from '../deliver/bundle.ts';
import { readPage } from '../pages/store.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';
import { docxOf, odsOf, pdfOf } from './testing-documents.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('documents');
});
afterAll(() => server.close());

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const take = async (bytes: Uint8Array, name: string) =>
  arrivedOf(await server.handIn(Buffer.from(bytes), name)).asset;
const documentOf = (asset: Asset) => (asset.kind === 'document' ? asset.document : null);
const shelf = async (query: string) =>
  v
    .parse(AssetListSchema, (await server.ask(`/api/assets?${query}`)).body)
    .assets.map(({ stem }) => stem)
    .sort();

describe('a document that is handed in', () => {
  it('is read for its format, pages, title and author, and named by its title', async () => {
    const asset = await take(
      pdfOf({ title: 'Tide table 2027', author: 'Ines Okonjo', pages: 12 }),
      'scan0004.pdf',
    );
    expect(asset).toMatchObject({ kind: 'document', stem: 'tide-table-2027', extension: 'pdf', folder: '' });
    expect(documentOf(asset)).toMatchObject({ format: 'pdf', pages: 12 });
    expect(asset.label).toMatchObject({
      title: 'Tide table 2027',
      creator: 'Ines Okonjo',
      licence: 'unknown',
      alt: { kind: 'decorative' },
    });
    expect([...asset.drafted].sort()).toEqual(['creator', 'title']);
  });

  it('is shown by its first page, upright and in its shape', async () => {
    const asset = await take(pdfOf({ title: 'First page', pages: 2 }), 'first.pdf');
    expect(asset.width / asset.height).toBeCloseTo(595 / 842, 2);
    const thumb = await fetch(asset.thumb);
    const { channels } = await sharp(Buffer.from(await thumb.arrayBuffer())).stats();
    // White paper with some ink on it.
    expect(channels[0]?.mean).toBeGreaterThan(235);
    expect(channels[0]?.min).toBeLessThan(80);
  });

  it.each([
    ['a text', 'notes.docx', docxOf('Warden’s notes', ['It booms at dawn.', 'Twice on Sunday.']), 'docx', 2],
    ['a sheet', 'counts.ods', odsOf('Counts'), 'ods', null],
    ['plain text', 'read-me.txt', strToU8('Hide 3 is shut.\nBring boots.'), 'txt', null],
    ['a table', 'tides.csv', strToU8('Day,High\nMon,4.1'), 'csv', null],
    ['rich text', 'letter.rtf', strToU8('{\\rtf1\\ansi Dear reader\\par Bring boots.}'), 'rtf', null],
  ] as const)('may be %s', async (_what, name, bytes, format, pages) => {
    const asset = await take(bytes, name);
    expect(documentOf(asset)).toEqual({ format, pages, bytes: bytes.length });
    expect(asset.extension).toBe(format);
    expect((await fetch(asset.thumb)).headers.get('content-type')).toBe('image/webp');
  });

  it('is what its bytes say, whatever its name says', async () => {
    expect(documentOf(await take(pdfOf({ title: 'Not a picture' }), 'heron.jpg'))?.format).toBe('pdf');
    expect(documentOf(await take(docxOf('Not plain', ['x']), 'plain.txt'))?.format).toBe('docx');
  });

  it('is held once, and by its own file', async () => {
    const bytes = pdfOf({ title: 'Twice' });
    const first = await take(bytes, 'twice.pdf');
    const again = arrivedOf(await server.handIn(bytes, 'again.pdf'));
    expect(again).toMatchObject({ isNew: false, asset: { id: first.id } });
    const [row] = await server.context.db.select().from(documents).where(eq(documents.assetId, first.id));
    expect(row?.sha256).toBe(sha256(bytes));
  });

  it('has no lookalikes: two tables look the same, and say something else', async () => {
    const [one, other] = [
      await take(pdfOf({ title: 'Alike one' }), 'one.pdf'),
      await take(pdfOf({ title: 'Alike two' }), 'two.pdf'),
    ];
    expect(
      await server.context.db.select().from(perceptualHashes).where(eq(perceptualHashes.assetId, one.id)),
    ).toEqual([]);
    const alike = await server.ask(`/api/assets/${other.id}/lookalikes`);
    expect(v.parse(LookalikesSchema, alike.body)).toEqual([]);
  });

  it.each([
    ['broken.pdf', Buffer.from('%PDF-1.4\nnothing of a document'), 'is a PDF that cannot be read'],
    ['archive.zip', Buffer.from(zipSync({ 'a.txt': strToU8('x') })), 'is a ZIP file'],
    ['page.txt', Buffer.from('<!DOCTYPE html><script>alert(1)</script>'), 'is not a picture'],
    ['bytes.txt', Buffer.from([1, 2, 3, 0, 5, 6]), 'is not a picture'],
    ['note.dat', Buffer.from('only words'), 'is not a picture'],
  ])('%s is refused in a sentence that says why', async (name, bytes, says) => {
    const answer = await server.handIn(bytes, name);
    expect(answer.status).toBe(415);
    expect(detailOf(answer)).toContain(says);
  });
});

describe('a document on the shelf', () => {
  it('is asked for as documents are, and is none of the pictures', async () => {
    await take(pdfOf({ title: 'Asked for' }), 'asked.pdf');
    const all = await shelf('kind=document');
    expect(all).toContain('asked-for');
    for (const kind of ['photo', 'drawing', 'animated', 'transparent', 'embed'])
      expect(await shelf(`kind=${kind}`)).not.toContain('asked-for');
    expect(await shelf('words=asked')).toContain('asked-for');
    expect(await shelf('missing=alt')).not.toContain('asked-for');
  });

  it('is downloaded from the other origin, with its name, its type and its bytes, and never opened there', async () => {
    const bytes = pdfOf({ title: 'To be read' });
    const asset = await take(bytes, 'read.pdf');
    if (asset.kind !== 'document') throw new Error('no document');
    expect(new URL(asset.file).origin).toBe(server.context.config.mediaOrigin);
    const answer = await fetch(asset.file);
    expect(Object.fromEntries(answer.headers)).toMatchObject({
      'content-type': 'application/pdf',
      'content-disposition': 'attachment; filename="to-be-read.pdf"',
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'; sandbox",
    });
    expect(sha256(new Uint8Array(await answer.arrayBuffer()))).toBe(sha256(bytes));
    const forged = new URL(asset.file);
    forged.searchParams.set('s', 'x'.repeat(43));
    expect((await fetch(forged)).status).toBe(404);
    const picture = arrivedOf(
      await server.handIn(
        await sharp({ create: { width: 80, height: 60, channels: 3, background: '#456' } })
          .png()
          .toBuffer(),
        'no-document.png',
      ),
    ).asset;
    expect(picture.kind).toBe('picture');
  });

  it('thrown away and removed takes both its files along, and leaves what others use', async () => {
    const asset = await take(pdfOf({ title: 'Short lived' }), 'short.pdf');
    const [row] = await server.context.db.select().from(documents).where(eq(documents.assetId, asset.id));
    await server.ask(`/api/assets/${asset.id}`, { method: 'DELETE' });
    const { emptyBin } = await import('../shelf/put-away.ts');
    await emptyBin(server.context, new Date(Date.now() + 400 * 24 * 60 * 60 * 1000));
    const { originalKey } = await import('../storage/storage.ts');
    expect(await server.context.storage.has(originalKey(row?.sha256 ?? ''))).toBe(false);
  });
});

describe('a document on a page', () => {
  it('goes out as its first page that leads to its file, with its format, pages and weight in the link', async () => {
    const bytes = pdfOf({ title: 'Count of 2026', pages: 3 });
    const asset = await take(bytes, 'count.pdf');
    await server.ask(`/api/assets/${asset.id}`, {
      method: 'PATCH',
      version: asset.version,
      body: { label: { licence: 'own' } },
    });
    const linked = await take(pdfOf({ title: 'Map of the hides', pages: 1 }), 'map.pdf');
    const made = await server.ask('/api/pages', {
      method: 'POST',
      body: { title: 'The count', targetId: 'reserve', wants: [], due: null },
    });
    const { id } = v.parse(v.object({ id: v.string() }), made.body);
    const page = v.parse(PageSchema, (await server.ask(`/api/pages/${id}`)).body);
    const link = { type: 'link' as const, attrs: { href: fileHref(linked.id) } };
    const blocks = [
      { type: 'placement' as const, attrs: newPlacement('one', asset.id, 'beside-left') },
      {
        type: 'paragraph' as const,
        attrs: { id: 'led' },
        content: [{ type: 'text' as const, text: 'The map', marks: [link] }],
      },
    ];
    const saved = await server.ask(`/api/pages/${id}`, {
      method: 'PUT',
      version: page.version,
      body: { doc: { ...page.doc, blocks } },
    });
    expect(saved.status).toBe(200);
    const findings = await server.ask(`/api/pages/${id}/findings`);
    expect(JSON.stringify(findings.body)).not.toContain('alt-');
    // A file that words lead to goes out as what stands on the page does, and is judged and found as such.
    expect(JSON.stringify(findings.body)).toContain('"blockId":"led"');
    expect(JSON.stringify(findings.body)).toContain('licence-missing');
    const held = await server.ask(`/api/assets/${linked.id}`);
    expect(JSON.stringify(held.body)).toContain(id);
    const folder = await mkdtemp(join(tmpdir(), 'placard-bundle-'));
    try {
      const files = await writeBundle(
        server.context,
        await readPage(server.context, id, 'house'),
        folder,
        async () => undefined,
      );
      expect(files).toContain('files/count-of-2026.pdf');
      expect(sha256(await readFile(join(folder, 'files/count-of-2026.pdf')))).toBe(sha256(bytes));
      const html = await readFile(join(folder, 'index.html'), 'utf8');
      expect(html).toContain('<a href="files/count-of-2026.pdf" type="application/pdf">');
      expect(files).toContain('files/map-of-the-hides.pdf');
      expect(html).toMatch(
        /<a href="files\/map-of-the-hides\.pdf" type="application\/pdf">The map<span class="link-says"> \(PDF, 1 page, \d+ k?B\)<\/span><\/a>/,
      );
      expect(html).toMatch(/<span class="file">Count of 2026 \(PDF, 3 pages, \d+ k?B\)<\/span>/);
      expect(html).toMatch(/<img src="media\/count-of-2026--\d+\.\w+"[^>]* alt=""/);
    } finally {
      await rm(folder, { recursive: true });
    }
  });
});
