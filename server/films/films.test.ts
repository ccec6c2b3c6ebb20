import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Asset, AssetSchema } from '#api/assets.ts';
import { JobSchema } from '#api/jobs.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { films } from '../db/schema.ts';
import { TAKE_AWAY } from '../deliver/take-away.ts';
import { workOne } from '../jobs/worker.ts';
import { emptyBin } from '../shelf/put-away.ts';
import { originalKey } from '../storage/storage.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { sweepStrays } from '../tidy/strays.ts';
import { readFilm } from './films.ts';
import { filmOf } from './testing-films.ts';

let server: TestServer;
let film: Extract<Asset, { kind: 'film' }>;
let bytes: Buffer;

beforeAll(async () => {
  server = await startTestServer('films');
  bytes = await filmOf({
    name: 'eels.mp4',
    title: 'How the eel pass works',
    more: ['-movflags', '+faststart'],
  });
  film = filmIn(arrivedOf(await server.handIn(bytes, 'IMG_0471.MP4')).asset);
});
afterAll(() => server.close());

function filmIn(asset: Asset) {
  if (asset.kind !== 'film') throw new Error(`It is taken for a ${asset.kind}.`);
  return asset;
}

async function pageOf(ids: readonly string[]): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'The eel pass', targetId: 'reserve', wants: [] },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const blocks = ids.map((asset, at) => ({ type: 'placement', attrs: newPlacement(`p${at}`, asset) }));
  const doc = { ...emptyPage('The eel pass'), tray: ids, blocks };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', version: 1, body: { doc } });
  return id;
}

async function previewOf(pageId: string): Promise<string> {
  const { body } = await server.ask(`/api/pages/${pageId}/preview`);
  return (await fetch(v.parse(v.looseObject({ address: v.string() }), body).address)).text();
}

describe('a film that comes in', () => {
  it('is held with what its file says, by a name, and shown by a still', async () => {
    expect(film.film).toMatchObject({
      format: 'mp4',
      picture: { width: 320, height: 180, rate: 25, codec: 'h264' },
      sound: { codec: 'aac' },
    });
    expect(film.film.seconds).toBeCloseTo(2, 0);
    expect(film.label.title).toBe('How the eel pass works');
    expect(film.extension).toBe('mp4');
    expect([film.width, film.height]).toEqual([320, 180]);
    const still = await sharp(Buffer.from(await (await fetch(film.thumb)).arrayBuffer())).stats();
    expect(still.channels.some(({ stdev }) => stdev > 20)).toBe(true);
  });

  it('is the same one when it comes again', async () => {
    const again = arrivedOf(await server.handIn(bytes, 'other.mp4'));
    expect(again.asset.id).toBe(film.id);
  });

  it('plays from anywhere in it', async () => {
    const whole = await fetch(film.file);
    expect(whole.headers.get('content-type')).toBe('video/mp4');
    expect(whole.headers.get('accept-ranges')).toBe('bytes');
    expect(Buffer.from(await whole.arrayBuffer())).toEqual(bytes);
    const part = await fetch(film.file, { headers: { range: 'bytes=100-199' } });
    expect(part.status).toBe(206);
    expect(Buffer.from(await part.arrayBuffer())).toEqual(bytes.subarray(100, 200));
    expect((await fetch(film.file, { headers: { range: `bytes=${bytes.length}-` } })).status).toBe(416);
    expect((await fetch(film.file.replace('/file/', '/file/x'))).status).toBe(404);
  });

  it('is found by the shelf’s sentence', async () => {
    const found = await server.ask('/api/assets?kind=film');
    expect(JSON.stringify(found.body)).toContain(film.id);
    expect(JSON.stringify((await server.ask('/api/assets?kind=document')).body)).not.toContain(film.id);
  });

  it.each([
    ['tune.mp3', { picture: null, sound: { codec: 'mp3', channels: 1 } }, 'mp3'],
    ['tune.flac', { picture: null, sound: { codec: 'flac', channels: 1 } }, 'flac'],
    ['tune.wav', { picture: null, sound: { codec: 'pcm_s16le', channels: 1 } }, 'wav'],
  ])('%s is a recording, shown by how loud it is', async (name, facts, extension) => {
    const sound = filmIn(arrivedOf(await server.handIn(await filmOf({ name, size: null }), name)).asset);
    expect(sound.film).toMatchObject(facts);
    expect(sound.extension).toBe(extension);
    const drawn = await sharp(Buffer.from(await (await fetch(sound.thumb)).arrayBuffer())).stats();
    expect(drawn.isOpaque).toBe(true);
    expect(drawn.channels[0]?.stdev).toBeGreaterThan(5);
  });

  it.each(['film.webm', 'film.mkv', 'film.mov'])('%s is a film', async (name) => {
    const more = name === 'film.webm' ? ['-c:v', 'libvpx', '-c:a', 'libvorbis'] : [];
    const held = filmIn(arrivedOf(await server.handIn(await filmOf({ name, seconds: 1, more }), name)).asset);
    expect(held.film.picture).toMatchObject({ width: 320, height: 180 });
  });

  it('is turned as its camera was held', async () => {
    const turned = await filmOf({ name: 'up.mp4', turned: 90 });
    const { film: facts, width, height } = filmIn(arrivedOf(await server.handIn(turned, 'up.mp4')).asset);
    expect(facts.picture).toMatchObject({ width: 180, height: 320 });
    expect([width, height]).toEqual([180, 320]);
  });
});

it.each([
  'The free days of the reserve.',
  'Now skip to the end.',
  'ID3 is what a tag is called.',
  'Its mdat is lost.',
])('a text is no film, however it begins: %s', async (text) => {
  const answer = await server.handIn(Buffer.from(text), 'words.txt');
  expect(arrivedOf(answer).asset.kind).toBe('document');
});

describe('what cannot be taken', () => {
  it.each([
    ['a film that was cut off', 'cut.mp4', async () => (await filmOf({ name: 'cut.mp4' })).subarray(0, 9000)],
    [
      'a list that names a file of this machine',
      'list.mp4',
      async () => Buffer.from('\0\0\0\x20ftypconcat\nffconcat version 1.0\nfile /etc/passwd\n'),
    ],
    [
      'noise under the mark of Matroska',
      'noise.mkv',
      async () => Buffer.from([0x1a, 0x45, 0xdf, 0xa3, ...Array<number>(900).fill(7)]),
    ],
    [
      'noise under the mark of MP3',
      'noise.mp3',
      async () => Buffer.concat([Buffer.from('ID3\x03'), Buffer.alloc(900, 3)]),
    ],
  ])('%s is refused in a sentence', async (_what, name, make) => {
    const answer = await server.handIn(await make(), name);
    expect([415, 422]).toContain(answer.status);
    expect(detailOf(answer)).toContain(name);
    expect(detailOf(answer)).toContain('Nothing was kept of it');
  });
});

describe('a film on a page', () => {
  it('stands in the reader’s own player, with its still, its size and a link to its file', async () => {
    const html = await previewOf(await pageOf([film.id]));
    expect(html).toMatch(
      /<video controls preload="metadata" aria-label="How the eel pass works" width="\d+" height="\d+" poster="[^"]+"[^>]*><source src="[^"]+\.mp4[^"]*" type="video\/mp4"><a href="[^"]+">How the eel pass works \(MP4, 0:02, [\d.]+ kB\)<\/a><\/video>/,
    );
    expect(html).not.toContain('autoplay');
  });

  it('asks for captions before it goes out, where it has sound', async () => {
    const pageId = await pageOf([film.id]);
    const { body } = await server.ask(`/api/pages/${pageId}/findings`);
    expect(JSON.stringify(body)).toContain('captions-missing');
    const silent = await filmOf({ name: 'silent.mp4', hasSound: false });
    const { id } = arrivedOf(await server.handIn(silent, 'silent.mp4')).asset;
    const other = await server.ask(`/api/pages/${await pageOf([id])}/findings`);
    expect(JSON.stringify(other.body)).not.toContain('captions-missing');
  });

  it('has captions in each language, kept on their version, on its page and beside it', async () => {
    const cues = [{ from: 200, to: 1800, text: 'Eels <cannot> jump.' }];
    const put = (language: string, version: number, body: object, as: Who = 'mara') =>
      server.ask(`/api/assets/${film.id}/tracks/captions/${language}`, { as, method: 'PUT', version, body });
    expect((await put('cy', 0, { cues })).status).toBe(200);
    expect((await put('en', 0, { cues })).status).toBe(200);
    expect((await put('en', 0, { cues: [] })).status).toBe(422);
    const old = await put('en', 0, { cues });
    expect(old.status).toBe(412);
    expect(detailOf(old)).toContain('Nothing of theirs was written over');
    expect((await put('en', 1, { cues: [{ ...cues[0], to: 100 }] })).status).toBe(422);
    expect((await put('english', 0, { cues })).status).toBe(422);
    expect((await put('en', 1, { cues }, 'joss')).status).toBe(403);
    const html = await previewOf(await pageOf([film.id]));
    const [, address = ''] =
      /<track kind="captions" src="([^"]+)" srclang="cy" label="Cymraeg">/.exec(html) ?? [];
    expect(html).toMatch(/<video controls preload="metadata" crossorigin="anonymous"/);
    const file = await fetch(address.replaceAll('&amp;', '&'));
    expect(file.headers.get('content-type')).toContain('text/vtt');
    expect(file.headers.get('access-control-allow-origin')).toBe('*');
    expect(await file.text()).toBe('WEBVTT\n\n00:00:00.200 --> 00:00:01.800\nEels &lt;cannot&gt; jump.\n');
    const found = await server.ask(`/api/pages/${await pageOf([film.id])}/findings`);
    expect(JSON.stringify(found.body)).not.toContain('captions-missing');
    await server.ask(`/api/assets/${film.id}/tracks/captions/cy`, { method: 'DELETE' });
    expect(JSON.stringify((await server.ask(`/api/assets/${film.id}`)).body)).toContain('"captions":["en"]');
    expect((await fetch(address.replaceAll('&amp;', '&'))).status).toBe(404);
  });

  it('goes along with its page', async () => {
    const label = { licence: 'own', title: 'How the eel pass works' };
    const put = (kind: string, cues: readonly object[]) =>
      server.ask(`/api/assets/${film.id}/tracks/${kind}/en`, { method: 'PUT', version: 0, body: { cues } });
    await put('chapters', [{ from: 1000, to: 2000, text: 'The <ramp>' }]);
    await put('transcript', [
      { from: 0, to: 900, text: 'Eels cannot jump.' },
      { from: 900, to: 2000, text: 'They climb.' },
    ]);
    const { version } = v.parse(AssetSchema, (await server.ask(`/api/assets/${film.id}`)).body);
    await server.ask(`/api/assets/${film.id}`, { method: 'PATCH', version, body: { label } });
    const pageId = await pageOf([film.id]);
    const ordered = await server.ask(`/api/pages/${pageId}/take-away`, { method: 'POST', body: {} });
    expect(ordered.status, JSON.stringify(ordered.body)).toBe(202);
    await workOne(server.context, [TAKE_AWAY]);
    const { id } = v.parse(JobSchema, ordered.body);
    const job = v.parse(JobSchema, (await server.ask(`/api/jobs/${id}`)).body);
    const zip = unzipSync(new Uint8Array((await server.ask(job.file ?? '')).body as Buffer));
    const name = Object.keys(zip).find((one) => one.endsWith('.mp4'));
    // Its label lies in it as XMP, and it plays as before.
    const taken = join(server.context.config.dataFolder, 'taken.mp4');
    await writeFile(taken, zip[name ?? ''] ?? new Uint8Array());
    const said = await server.context.metadata.read(taken);
    expect(JSON.stringify(said)).toContain('How the eel pass works');
    expect((await readFilm(server.context.config, { path: taken, name: 'taken.mp4' }))?.facts.seconds).toBe(
      film.film.seconds,
    );
    const media = JSON.parse(Buffer.from(zip['media.jsonld'] ?? []).toString('utf8'));
    expect(media['@graph']).toMatchObject([
      {
        '@type': 'VideoObject',
        contentUrl: name,
        encodingFormat: 'video/mp4',
        duration: 'PT2S',
        name: 'How the eel pass works',
        caption: [{ '@type': 'MediaObject', encodingFormat: 'text/vtt', inLanguage: 'en' }],
        transcript: 'Eels cannot jump.\n\nThey climb.',
      },
    ]);
    expect(Object.keys(zip)).toContain('files/how-the-eel-pass-works.en.chapters.vtt');
    const html = Buffer.from(zip['index.html'] ?? []).toString('utf8');
    expect(html).toContain(`<source src="${name}" type="video/mp4">`);
    expect(html).toMatch(/poster="media\/[^"]+"/);
    const captions = Object.keys(zip).find((one) => one.endsWith('.en.vtt'));
    expect(html).toContain(`<track kind="captions" src="${captions}" srclang="en" label="English">`);
    expect(html).not.toContain('crossorigin');
    expect(html).toContain('<summary>Transcript</summary>');
    expect(html).toContain('<p>Eels cannot jump.</p>\n<p>They climb.</p>');
    // A chapter leads to its moment without any script.
    expect(html).toContain(`<li><a href="${name}#t=1">The &lt;ramp&gt;</a> 0:01</li>`);
    expect(html).toContain('<track kind="chapters"');
  });
});

it('offers the captions that lie inside it', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'placard-inside-'));
  const srt = join(folder, 'in.srt');
  await writeFile(srt, '1\n00:00:00,100 --> 00:00:01,900\nNi all llysywod neidio.\n');
  const withCaptions = await filmOf({
    name: 'inside.mkv',
    seconds: 2,
    more: [
      '-i',
      srt,
      '-map',
      '0',
      '-map',
      '1',
      '-map',
      '2',
      '-c:s',
      'srt',
      '-metadata:s:s:0',
      'language=wel',
    ],
  });
  await rm(folder, { recursive: true });
  const own = filmIn(arrivedOf(await server.handIn(withCaptions, 'inside.mkv')).asset);
  expect(own.film.inside).toEqual([{ at: 0, language: 'wel' }]);
  const { body } = await server.ask(`/api/assets/${own.id}/film/inside/0`);
  expect(body).toEqual({ text: expect.stringContaining('Ni all llysywod neidio.') });
  expect((await server.ask(`/api/assets/${own.id}/film/inside/7`)).status).toBe(404);
});

it('has a length though its file says none, as what a browser records', async () => {
  const recorded = await filmOf({
    name: 'live.webm',
    seconds: 3,
    more: ['-c:v', 'libvpx', '-c:a', 'libopus', '-live', '1'],
  });
  const own = filmIn(arrivedOf(await server.handIn(recorded, 'live.webm')).asset);
  expect(Math.round(own.film.seconds)).toBe(3);
});

it('is no stray, and is removed with its piece', async () => {
  const own = filmIn(
    arrivedOf(await server.handIn(await filmOf({ name: 'gone.mp4', seconds: 1 }), 'gone.mp4')).asset,
  );
  const [row] = await server.context.db.select().from(films).where(eq(films.assetId, own.id));
  const key = originalKey(row?.sha256 ?? '');
  await sweepStrays(server.context, new Date(Date.now() + 86_400_000), new Date());
  expect(await server.context.storage.has(key)).toBe(true);
  await server.ask(`/api/assets/${own.id}`, { method: 'DELETE', version: own.version });
  await emptyBin(server.context, new Date(Date.now() + 40 * 86_400_000));
  expect(await server.context.storage.has(key)).toBe(false);
});
