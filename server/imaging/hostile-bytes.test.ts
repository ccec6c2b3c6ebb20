import { writeFile } from 'node:fs/promises';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { WHOLE } from '#core/media/recipe.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('hostile_bytes');
});
afterAll(() => server.close());

/** A drawing of under 3 kB that takes hours: blurs over blurs, over an area that each makes larger. */
function heavyDrawing(seed: number): Buffer {
  const blurs = Array.from(
    { length: 24 },
    (_, at) =>
      `<feGaussianBlur stdDeviation="${900 + seed + at}"/><feMorphology operator="dilate" radius="${400 + at}"/>`,
  ).join('');
  return Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="4000" height="4000"><filter id="f" x="-5" y="-5" width="11" height="11">${blurs}</filter><g filter="url(#f)"><rect width="4000" height="4000" fill="#597"/></g></svg>`,
  );
}

function chunk(type: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  sum.writeUInt32BE(checksum(body));
  return Buffer.concat([length, body, sum]);
}

/** CRC-32 as PNG has it (ISO/IEC 15948, annex D). */
function checksum(bytes: Buffer): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit += 1) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}

/** A sound PNG with a compressed text in it, in a chunk that begins with `head`. */
async function holding(type: 'zTXt' | 'iTXt', head: string, text: Buffer): Promise<Buffer> {
  const png = await sharp({ create: { width: 64, height: 64, channels: 3, background: '#597' } })
    .png()
    .toBuffer();
  const packed = deflateSync(text, { level: 9 });
  const words = chunk(type, Buffer.concat([Buffer.from(head, 'latin1'), packed]));
  return Buffer.concat([png.subarray(0, 33), words, png.subarray(33)]);
}

const textBomb = (megabytes: number) =>
  holding('zTXt', 'Comment\0\0', Buffer.alloc(megabytes * 1_000_000, 'reeds '));

/** A PNG that says this of itself, in XMP. */
const saying = (properties: string) =>
  holding(
    'iTXt',
    'XML:com.adobe.xmp\0\u0001\0\0\0',
    Buffer.from(
      `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description xmlns:dc="http://purl.org/dc/elements/1.1/">${properties}</rdf:Description></rdf:RDF></x:xmpmeta>`,
    ),
  );
const item = (words: string) => `<rdf:li xml:lang="x-default">${words}</rdf:li>`;

/** A GIF of so many pictures, each another. */
async function moving(count: number, edge: number): Promise<Buffer> {
  const still = (at: number) =>
    sharp({
      create: {
        width: edge,
        height: edge,
        channels: 3,
        background: { r: at % 256, g: (at >> 3) % 256, b: (at * 7) % 256 },
      },
    })
      .png({ compressionLevel: 1 })
      .toBuffer();
  const frames = await Promise.all(Array.from({ length: count }, (_, at) => still(at)));
  return sharp(frames, { join: { animated: true } })
    .gif({ effort: 1, keepDuplicateFrames: true })
    .toBuffer();
}

const millisOf = async (work: () => Promise<unknown>) => {
  const start = performance.now();
  await work();
  return performance.now() - start;
};

describe('bytes that were made to exhaust the machine', () => {
  it('are given up, each with a sentence, and nobody else waits for them', async () => {
    const who: readonly Who[] = ['joss', 'joss'];
    const heavy = Promise.all(who.map((as, at) => server.handIn(heavyDrawing(at), `heavy ${at}.svg`, as)));
    await new Promise((resolve) => setTimeout(resolve, 500));
    // Whoever works meanwhile is answered, and brings in a picture of their own.
    const longest: number[] = [];
    for (let asked = 0; asked < 20; asked += 1)
      longest.push(await millisOf(() => server.ask('/api/assets?limit=5', { as: 'mara' })));
    expect(Math.max(...longest)).toBeLessThan(2000);
    const bytes = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#246' } })
      .jpeg()
      .toBuffer();
    expect(arrivedOf(await server.handIn(bytes, 'plain.jpg', 'piet')).isNew).toBe(true);
    const answers = await heavy;
    for (const answer of answers) {
      expect(answer.status).toBe(413);
      expect(detailOf(answer)).toMatch(
        /^heavy \d\.svg takes (longer|more memory) to be read than is given to one file/,
      );
    }
  }, 120_000);

  it.each([
    ['packed in a comment', () => textBomb(900)],
    ['as a title', () => saying(`<dc:title><rdf:Alt>${item('reeds '.repeat(5e6))}</rdf:Alt></dc:title>`)],
    ['as words', () => saying(`<dc:subject><rdf:Bag>${item('a').repeat(6e5)}</rdf:Bag></dc:subject>`)],
  ])(
    'in the words of a file, %s, leave its picture what it is, and say so',
    async (_where, make) => {
      const answer = await server.handIn(await make(), 'words.png');
      expect(arrivedOf(answer).asset).toMatchObject({
        format: 'png',
        width: 64,
        label: { title: '', keywords: [] },
        conditions: expect.arrayContaining([{ code: 'metadata-unread' }]),
      });
    },
    60_000,
  );

  it('leave nothing behind: the next file is read as any', async () => {
    const sound = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#a52' } })
      .withExif({ IFD0: { Artist: 'Ines Okonjo' } })
      .jpeg()
      .toBuffer();
    expect(arrivedOf(await server.handIn(sound, 'after.jpg')).asset.label.creator).toBe('Ines Okonjo');
  });

  it('that move in thousands of pictures are refused before one is looked at', async () => {
    const gif = await moving(1600, 4);
    const answer = await server.handIn(gif, 'flicker.gif');
    expect(answer.status).toBe(413);
    expect(detailOf(answer)).toContain('better off as a film');
  }, 60_000);
});

describe('a drawing that shows what is not in it', () => {
  const drawing = (inside: string, head = '') =>
    Buffer.from(
      `${head}<svg xmlns="http://www.w3.org/2000/svg" xmlns:x="http://www.w3.org/1999/xlink" width="40" height="40">${inside}</svg>`,
    );

  it.each([
    [
      'another upload beside it',
      '<image href="0123456789abcdef0123456789abcdef" width="40" height="40"/>',
      '',
    ],
    ['a file of the machine', '<image x:href="file:///etc/passwd"/>', ''],
    ['an address', '<use href="https://saltmere.example/a.svg#b"/>', ''],
    ['an address in a style', '<rect style="fill:url(https://saltmere.example/a)"/>', ''],
    ['a style sheet', '<style>@import "a.css";</style>', ''],
    ['a style sheet of its own file', '<rect/>', '<?xml-stylesheet href="a.css"?>'],
    ['a drawing within, as data', '<image href="data:image/svg+xml;base64,PHN2Zy8+"/>', ''],
    ['letters that are hidden by their encoding', '<rect/>', '<?xml version="1.0" encoding="UTF-7"?>'],
  ])('%s is refused in a sentence', async (_what, inside, head) => {
    const answer = await server.handIn(drawing(inside, head), 'drawing.svg', 'joss');
    expect(answer.status).toBe(415);
    expect(detailOf(answer)).toContain('shows other files or addresses');
  });

  it('is taken where all that it shows is its own', async () => {
    const own =
      '<defs><linearGradient id="g"><stop stop-color="#597"/></linearGradient></defs><rect width="40" height="40" fill="url(#g)"/><use href="#g"/><a href="https://saltmere.example"><rect width="4" height="4"/></a>';
    expect(arrivedOf(await server.handIn(drawing(own), 'own.svg')).isNew).toBe(true);
  });
});

describe('work on a picture', () => {
  it('ends when nobody waits for it any more', async () => {
    const gif = await moving(600, 200);
    const path = `${server.folder}/moving.gif`;
    await writeFile(path, gif);
    const left = new AbortController();
    const order = {
      original: { width: 200, height: 200 },
      recipe: { ...WHOLE, mirror: true },
      width: 200,
      format: 'webp' as const,
      quality: 80,
      animated: true,
    };
    const work = server.context.pictures.cut(path, order, left.signal);
    setTimeout(() => left.abort(), 300);
    const start = performance.now();
    await expect(work).rejects.toMatchObject({ fault: 'stopped' });
    expect(performance.now() - start).toBeLessThan(3000);
    // The process that was killed is followed by another.
    expect((await server.context.pictures.size(gif)).width).toBe(200);
  }, 60_000);
});
