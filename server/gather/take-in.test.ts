import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { count } from 'drizzle-orm';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { metadataOfLabel } from '#core/formats/metadata.ts';
import { sayCondition } from '#core/media/condition.ts';
import { EMPTY_LABEL, withPatch } from '#core/rights/label.ts';
import { assets } from '../db/schema.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('take_in', { uploadLimitMb: 3 });
});
afterAll(() => server.close());

const picture = (width: number, height: number, colour = '#7a9') =>
  sharp({ create: { width, height, channels: 3, background: colour } });

async function noisy(width: number, height: number): Promise<Buffer> {
  const pixels = Buffer.alloc(width * height * 3);
  for (let at = 0; at < pixels.length; at += 1) pixels[at] = (at * 7919 + (at >> 5) * 104_729) % 256;
  return sharp(pixels, { raw: { width, height, channels: 3 } })
    .jpeg()
    .toBuffer();
}

async function held(): Promise<number> {
  const [row] = await server.context.db.select({ n: count() }).from(assets);
  return row?.n ?? 0;
}

describe('a picture that is handed in', () => {
  it('is held with its size as seen, named by the house pattern', async () => {
    const { asset, isNew } = arrivedOf(
      await server.handIn(await picture(900, 600).jpeg().toBuffer(), 'Heron at Dawn (1).JPG'),
    );
    expect(isNew).toBe(true);
    expect(asset).toMatchObject({
      width: 900,
      height: 600,
      stem: 'heron-at-dawn',
      extension: 'jpg',
      format: 'jpeg',
    });
  });

  it('is upright when the camera was turned', async () => {
    const turned = await picture(900, 600, '#123').withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const { asset } = arrivedOf(await server.handIn(turned, 'turned.jpg'));
    expect(asset).toMatchObject({ width: 600, height: 900 });
    expect(asset.conditions).toContainEqual({ code: 'turned' });
    const thumb = await fetch(asset.thumb);
    expect(await sharp(Buffer.from(await thumb.arrayBuffer())).metadata()).toMatchObject({
      width: 480,
      height: 720,
    });
  });

  it('drafts its label from what its file says', async () => {
    const path = join(server.folder, 'labelled.jpg');
    await writeFile(path, await picture(800, 500, '#456').jpeg().toBuffer());
    const said = withPatch(EMPTY_LABEL, {
      title: 'Bittern in the reeds',
      creator: 'Ines Okonjo',
      licence: 'cc-by-4.0',
      dateCreated: '2026-03-12',
    });
    await server.context.metadata.write(path, { ...metadataOfLabel(said, ''), 'GPS:GPSLatitude': '52.1' });
    const { asset } = arrivedOf(await server.handIn(await readFile(path), 'IMG_0612.JPG'));
    expect(asset.label).toMatchObject({
      title: 'Bittern in the reeds',
      creator: 'Ines Okonjo',
      licence: 'cc-by-4.0',
      dateCreated: '2026-03-12',
    });
    expect([...asset.drafted].sort()).toEqual(['creator', 'dateCreated', 'licence', 'title']);
    expect(asset.stem).toBe('bittern-in-the-reeds');
    expect(asset.conditions).toContainEqual({ code: 'place-of-taking' });
  });

  it('is the one already held when the very same file comes again', async () => {
    const bytes = await picture(700, 400, '#abc').jpeg().toBuffer();
    const first = arrivedOf(await server.handIn(bytes, 'one.jpg'));
    const before = await held();
    const second = arrivedOf(await server.handIn(bytes, 'two.jpg', 'joss'));
    expect(second.isNew).toBe(false);
    expect(second.asset.id).toBe(first.asset.id);
    expect(await held()).toBe(before);
  });

  it('gets the next free name on a clash, and overwrites nothing', async () => {
    const stems = [];
    for (const colour of ['#111', '#222', '#333']) {
      stems.push(
        arrivedOf(await server.handIn(await picture(300, 200, colour).png().toBuffer(), 'sluice.png')).asset
          .stem,
      );
    }
    expect(stems).toEqual(['sluice', 'sluice-2', 'sluice-3']);
  });

  it.each([
    ['CMYK', () => picture(300, 200, '#c33').toColourspace('cmyk').jpeg().toBuffer(), 'print (CMYK)'],
    [
      'animated',
      async () =>
        sharp(
          [await picture(60, 40, '#900').png().toBuffer(), await picture(60, 40, '#090').png().toBuffer()],
          { join: { animated: true } },
        )
          .gif()
          .toBuffer(),
      'It moves: 2',
    ],
  ])('says so when it is %s', async (_kind, make, words) => {
    const { asset } = arrivedOf(await server.handIn(await make(), 'odd.bin'));
    expect(asset.conditions.map(sayCondition).join()).toContain(words);
    expect((await fetch(asset.thumb)).status).toBe(200);
  });

  it.each([
    ['../../../etc/passwd.jpg', 'passwd'],
    ['a\u0000b\u202e\u0007c.jpg', 'a-b-c'],
    ['芦苇丛.jpg', 'lu-wei-cong'],
    [`${'reed '.repeat(80)}.jpg`, /^reed(-reed){15}$/],
  ])('named %j is held under a safe name', async (name, stem) => {
    const colour = `#${(Math.abs(hash(name)) % 0xffffff).toString(16).padStart(6, '0')}`;
    const { asset } = arrivedOf(await server.handIn(await picture(310, 210, colour).jpeg().toBuffer(), name));
    expect(asset.stem).toMatch(stem);
    expect(asset.stem).toMatch(/^[a-z0-9-]{1,80}$/);
  });
});

function hash(text: string): number {
  return [...text].reduce((sum, letter) => (sum * 31 + (letter.codePointAt(0) ?? 0)) | 0, 7);
}

describe('what cannot be taken', () => {
  const huge = async () => {
    // A header that says 30,000 x 30,000 over hardly any data: only its header is ever read.
    const small = await picture(8, 8).png().toBuffer();
    small.writeUInt32BE(30_000, 16);
    small.writeUInt32BE(30_000, 20);
    small.writeUInt32BE(crcOf(small.subarray(12, 29)), 29);
    return small;
  };
  it.each([
    ['zero bytes', async () => Buffer.alloc(0), 'empty.jpg', 'it has no bytes'],
    ['text named .jpg', async () => Buffer.from('These are only words.'), 'words.jpg', 'not a picture'],
    ['a truncated JPEG', async () => (await noisy(900, 700)).subarray(0, 60_000), 'half.jpg', 'breaks off'],
    ['a PNG of 30,000 x 30,000 px', huge, 'huge.png', '30,000 × 30,000 px'],
    [
      'a drawing with a script',
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'),
      'logo.svg',
      'a program in it',
    ],
    [
      'a drawing with a handler',
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="x()"></svg>'),
      'logo.svg',
      'a program in it',
    ],
    [
      'a page named .png',
      async () => Buffer.from('<!DOCTYPE html><title>x</title>'),
      'page.png',
      'not a picture',
    ],
  ])('%s gets a plain sentence and leaves nothing behind', async (_kind, make, name, words) => {
    const before = await held();
    const answer = await server.handIn(await make(), name);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(detailOf(answer)).toContain(words);
    expect(await held()).toBe(before);
    expect(await readdir(join(server.folder, 'uploads'))).toEqual([]);
  });

  it('a file over the limit is refused before it is sent', async () => {
    const answer = await server.ask('/api/uploads', {
      method: 'POST',
      headers: { 'tus-resumable': '1.0.0', 'upload-length': '200000000' },
    });
    expect(answer.status).toBe(413);
    expect(String(answer.body)).toContain('3.0 MB');
  });

  it('an upload that has not come through is told so, and goes on', async () => {
    const bytes = await picture(420, 300, '#987').jpeg().toBuffer();
    const begun = await server.ask('/api/uploads', {
      method: 'POST',
      headers: {
        'tus-resumable': '1.0.0',
        'upload-length': String(bytes.length),
        'upload-metadata': `filename ${btoa('late.jpg')}`,
      },
    });
    const path = new URL(begun.headers.get('location') ?? '', server.origin).pathname;
    const uploadId = path.split('/').at(-1);
    const part = (from: number, to: number) =>
      server.ask(path, {
        method: 'PATCH',
        body: bytes.subarray(from, to),
        headers: {
          'tus-resumable': '1.0.0',
          'upload-offset': String(from),
          'content-type': 'application/offset+octet-stream',
        },
      });
    await part(0, 500);
    const early = await server.ask('/api/arrivals', { method: 'POST', body: { uploadId } });
    expect(early.status).toBe(409);
    await part(500, bytes.length);
    const [one, two] = await Promise.all(
      [1, 2].map(() => server.ask('/api/arrivals', { method: 'POST', body: { uploadId } })),
    );
    expect(one?.status).toBe(200);
    expect(two?.body).toEqual(one?.body);
    const later = await server.ask('/api/arrivals', { method: 'POST', body: { uploadId } });
    expect(later.body).toEqual(one?.body);
  });
});

/** CRC-32 as PNG uses it (ISO 3309). */
function crcOf(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit += 1) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}
