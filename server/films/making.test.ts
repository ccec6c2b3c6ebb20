import { readdir } from 'node:fs/promises';
import { eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Asset, AssetSchema } from '#api/assets.ts';
import { FilmWorkSchema } from '#api/films.ts';
import { type FilmRecipe, WHOLE_FILM } from '#core/film/recipe.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { films, removals } from '../db/schema.ts';
import { runProgram } from '../foreign/program.ts';
import { workOne } from '../jobs/worker.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';
import { sweepStrays } from '../tidy/strays.ts';
import { workFolders } from '../work-folder.ts';
import { MAKE_FILM } from './kinds.ts';
import { allMade, madeKey } from './made-store.ts';
import { filmOf } from './testing-films.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('making');
});
afterAll(() => server.close());

type FilmAsset = Extract<Asset, { kind: 'film' }>;

async function assetOf(id: string): Promise<FilmAsset> {
  const asset = v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body);
  if (asset.kind !== 'film') throw new Error(`It is taken for a ${asset.kind}.`);
  return asset;
}

async function comesIn(wish: Parameters<typeof filmOf>[0]): Promise<string> {
  return arrivedOf(await server.handIn(await filmOf(wish), wish.name)).asset.id;
}

const work = () => workOne(server.context, [MAKE_FILM]);
const state = async (id: string) =>
  v.parse(FilmWorkSchema, (await server.ask(`/api/assets/${id}/film`)).body);

async function change(id: string, recipe: Partial<FilmRecipe>): Promise<FilmAsset> {
  const before = await assetOf(id);
  await server.ask(`/api/assets/${id}`, {
    method: 'PATCH',
    version: before.version,
    body: { recipe: { ...before.recipe, ...recipe } },
  });
  return assetOf(id);
}

interface Probed {
  readonly format: { readonly duration: string; readonly format_name: string };
  readonly streams: readonly {
    readonly codec_name: string;
    readonly width?: number;
    readonly height?: number;
  }[];
}

/** What ffprobe says of a file that was made. */
async function probe(assetId: string, at: number): Promise<Probed> {
  const [row] = await server.context.db.select().from(films).where(eq(films.assetId, assetId));
  const file = allMade(row ?? {})[at];
  if (!row || !file) throw new Error('It is not made.');
  return server.context.storage.withFile(madeKey(row.sha256, file), async (path) =>
    JSON.parse(
      await runProgram(
        'ffprobe',
        ['-v', 'error', '-print_format', 'json', '-show_format', '-show_streams', path],
        {
          millis: 10_000,
          bytes: 2_000_000_000,
          answerBytes: 100_000,
        },
      ),
    ),
  );
}

async function pageOf(id: string): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'The eel pass', targetId: 'reserve', wants: [] },
  });
  const page = v.parse(v.object({ id: v.string() }), made.body);
  const blocks = [{ type: 'placement', attrs: newPlacement('p0', id) }];
  const doc = { ...emptyPage('The eel pass'), tray: [id], blocks };
  await server.ask(`/api/pages/${page.id}`, { method: 'PUT', version: 1, body: { doc } });
  return page.id;
}

async function previewOf(pageId: string): Promise<string> {
  const { body } = await server.ask(`/api/pages/${pageId}/preview`);
  return (await fetch(v.parse(v.looseObject({ address: v.string() }), body).address)).text();
}

describe('a film that came in', () => {
  it('is made for the web by itself, listened to, and goes out in what was made', async () => {
    const id = await comesIn({ name: 'eels.mp4', seconds: 3, size: '640x360', title: 'Eels' });
    expect((await state(id)).job).toMatchObject({ state: 'waiting' });
    const page = await pageOf(id);
    expect(await previewOf(page)).toMatch(/<source src="[^"]*\/eels\.mp4\?[^"]*" type="video\/mp4">/);
    await work();
    const made = await assetOf(id);
    expect(made.made.map(({ format, width, height }) => [format, width, height])).toEqual([
      ['mp4', 640, 360],
      ['webm', 640, 360],
    ]);
    expect(made.made.map(({ codecs }) => codecs)).toEqual([
      expect.stringMatching(/^avc1\.6400\w\w, mp4a\.40\.2$/),
      expect.stringMatching(/^av01\.0\.\d\dM\.08, opus$/),
    ]);
    const { heard, wave, job } = await state(id);
    expect(job).toMatchObject({ state: 'done', words: 'It is made for the web: 2 files.' });
    expect(heard?.lufs).toBeLessThan(-10);
    expect(wave.length).toBeGreaterThanOrEqual(60);
    const html = await previewOf(page);
    expect(html.match(/<source /g)).toHaveLength(2);
    expect(html).toMatch(/\/eels--640\.mp4\?/);
    const address =
      /<source src="([^"]*eels--640\.webm[^"]*)"/.exec(html)?.[1]?.replaceAll('&amp;', '&') ?? '';
    const answer = await fetch(address, { headers: { range: 'bytes=0-3' } });
    expect([answer.status, answer.headers.get('content-type')]).toEqual([206, 'video/webm']);
    expect(Buffer.from(await answer.arrayBuffer()).toString('hex')).toBe('1a45dfa3');
  }, 60_000);

  it('gives the very same bytes for the same recipe', async () => {
    const id = await comesIn({ name: 'same.mp4', seconds: 2, title: 'Same' });
    await work();
    const bytes = async () => {
      const [row] = await server.context.db.select().from(films).where(eq(films.assetId, id));
      return Promise.all(
        allMade(row ?? {}).map((one) => server.context.storage.read(madeKey(row?.sha256 ?? '', one))),
      );
    };
    const first = await bytes();
    await server.context.db.update(films).set({ made: null }).where(eq(films.assetId, id));
    await server.ask(`/api/assets/${id}/film/make`, { method: 'POST' });
    await work();
    expect((await bytes()).map((one, at) => one.equals(first[at] ?? Buffer.alloc(0)))).toEqual([true, true]);
  }, 60_000);

  it('is trimmed, cut, turned and cropped as its recipe says, its captions with it, and does not go out before', async () => {
    const id = await comesIn({ name: 'trim.mp4', seconds: 6, size: '640x360', title: 'Trim' });
    await work();
    const cues = [
      { from: 0, to: 900, text: 'put down' },
      { from: 1500, to: 2500, text: 'stays' },
      { from: 5000, to: 5900, text: 'later' },
    ];
    await server.ask(`/api/assets/${id}/tracks/captions/en`, { method: 'PUT', version: 0, body: { cues } });
    const page = await pageOf(id);
    const crop = { left: 0, top: 0, width: 1, height: 0.5 };
    const waiting = await change(id, {
      from: 1000,
      leftOut: [{ from: 3000, to: 4000 }],
      turn: 90,
      crop,
      still: 2000,
    });
    expect(waiting.made).toEqual([]);
    expect(await previewOf(page)).not.toContain('<source');
    await work();
    const made = await assetOf(id);
    expect(made.made[0]).toMatchObject({ format: 'mp4', width: 360, height: 320 });
    // The still that shows it is turned and cropped with it.
    expect(made.original).toEqual({ width: 360, height: 320 });
    expect(await sharp(Buffer.from(await (await fetch(made.view)).arrayBuffer())).metadata()).toMatchObject({
      width: 360,
      height: 320,
    });
    const [row] = await server.context.db.select().from(films).where(eq(films.assetId, id));
    const at = allMade(row ?? {}).findIndex(({ width }) => width === 360);
    const { format, streams } = await probe(id, at);
    expect(Number(format.duration)).toBeCloseTo(4, 1);
    expect(streams[0]).toMatchObject({ codec_name: 'h264', width: 360, height: 320 });
    const html = await previewOf(page);
    const track = /<track [^>]*src="([^"]*)"/.exec(html)?.[1]?.replaceAll('&amp;', '&') ?? '';
    const vtt = await (await fetch(track)).text();
    expect(vtt).toContain('00:00:00.500 --> 00:00:01.500\nstays');
    expect(vtt).toContain('00:00:03.000 --> 00:00:03.900\nlater');
    expect(vtt).not.toContain('put down');
    // The label shows all of it.
    expect(await (await fetch(made.tracks[0] ?? '')).text()).toContain('put down');
    // What was made before is there at once when it is taken back.
    const back = await change(id, WHOLE_FILM);
    expect(back.made.map(({ width }) => width)).toEqual([640, 640]);
  }, 60_000);

  it('is brought to the loudness of the web where that is asked', async () => {
    const id = await comesIn({
      name: 'quiet.wav',
      seconds: 4,
      size: null,
      title: 'Quiet',
      more: ['-af', 'volume=-20dB'],
    });
    await change(id, { isLevelled: true });
    // The order that came with the film is stopped by the newer one.
    while (await work());
    const made = await assetOf(id);
    expect(made.made.map(({ format, width }) => [format, width])).toEqual([
      ['m4a', 0],
      ['webm', 0],
    ]);
    const [row] = await server.context.db.select().from(films).where(eq(films.assetId, id));
    const [file] = allMade(row ?? {});
    const said = await server.context.storage.withFile(madeKey(row?.sha256 ?? '', file ?? never()), (path) =>
      runProgram(
        'sh',
        ['-c', `ffmpeg -hide_banner -nostats -i "$1" -af ebur128 -f null - 2>&1`, 'sh', path],
        {
          millis: 20_000,
          bytes: 4_000_000_000,
          answerBytes: 1_000_000,
        },
      ),
    );
    const loudness = [...said.matchAll(/I:\s+(-?[\d.]+) LUFS/g)].at(-1)?.[1];
    expect(Math.abs(Number(loudness) + 16)).toBeLessThan(1);
  }, 60_000);

  it('goes on from what is made when it was stopped or its worker died', async () => {
    const id = await comesIn({ name: 'stopped.mp4', seconds: 3, title: 'Stopped' });
    const working = work();
    await expect.poll(async () => (await assetOf(id)).made.length, { timeout: 20_000 }).toBeGreaterThan(0);
    await server.ask(`/api/assets/${id}/film/stop`, { method: 'POST' });
    await working;
    const { job } = await state(id);
    expect(['stopped', 'done']).toContain(job?.state);
    await server.ask(`/api/assets/${id}/film/make`, { method: 'POST' });
    await work();
    expect((await assetOf(id)).made).toHaveLength(2);
    expect((await state(id)).job?.state).toBe('done');
  }, 60_000);

  it('that breaks off is told in a sentence, and nothing half-made stays', async () => {
    const whole = await filmOf({
      name: 'off.mp4',
      seconds: 4,
      size: '640x360',
      title: 'Off',
      more: ['-movflags', '+faststart'],
    });
    const id = arrivedOf(await server.handIn(whole.subarray(0, whole.length / 2), 'off.mp4')).asset.id;
    await work();
    const { job } = await state(id);
    // ffmpeg plays what is there of it, as a browser does.
    if (job?.state === 'failed') expect(job.words).toContain('could not be read to the end');
    else expect((await assetOf(id)).made).toHaveLength(2);
    expect(await readdir(workFolders(server.context)).catch(() => [])).toEqual([]);
  }, 60_000);

  it('has what was made of it swept where nobody names it any more', async () => {
    const id = await comesIn({ name: 'swept.mp4', seconds: 1, title: 'Swept' });
    await work();
    const [row] = await server.context.db.select().from(films).where(eq(films.assetId, id));
    const keys = allMade(row ?? {}).map((one) => madeKey(row?.sha256 ?? '', one));
    const far = new Date(Date.now() + 86_400_000);
    await sweepStrays(server.context, far, far);
    const ordered = async () => (await server.context.db.select().from(removals)).map(({ key }) => key);
    expect((await ordered()).filter((key) => keys.includes(key))).toEqual([]);
    await server.context.db.update(films).set({ made: null }).where(eq(films.assetId, id));
    await sweepStrays(server.context, far, far);
    expect(await ordered()).toEqual(expect.arrayContaining(keys));
  }, 60_000);

  it('goes with its files where one piece is taken along alone', async () => {
    const id = await comesIn({ name: 'alone.mp4', seconds: 1, title: 'Alone' });
    await work();
    await server.ask(`/api/assets/${id}`, {
      method: 'PATCH',
      version: (await assetOf(id)).version,
      body: { label: { licence: 'own' } },
    });
    const answer = await server.listen(`/api/assets/${id}/figure.zip?target=reserve&position=column`);
    expect(Object.keys(unzipSync(new Uint8Array(await answer.arrayBuffer())))).toEqual(
      expect.arrayContaining(['media/alone--320.mp4', 'media/alone--320.webm']),
    );
  }, 60_000);
});

describe('an animated picture', () => {
  it('becomes a film with its words and rights, once, and a still picture does not', async () => {
    const frames = await Promise.all(
      ['#7d8f6a', '#6a7d8f', '#8f6a7d'].map((background) =>
        sharp({ create: { width: 201, height: 133, channels: 3, background } })
          .png()
          .toBuffer(),
      ),
    );
    const gif = await sharp(frames, { join: { animated: true } })
      .gif({ delay: [200, 200, 200] })
      .toBuffer();
    const picture = arrivedOf(await server.handIn(gif, 'tides.gif')).asset;
    await server.ask(`/api/assets/${picture.id}`, {
      method: 'PATCH',
      version: picture.version,
      body: { label: { title: 'The tide comes in', licence: 'own' } },
    });
    const make = () => server.ask(`/api/assets/${picture.id}/film-of-it`, { method: 'POST' });
    const made = await make();
    expect(made.status, JSON.stringify(made.body)).toBe(201);
    const film = v.parse(AssetSchema, made.body);
    expect(film).toMatchObject({
      kind: 'film',
      label: { title: 'The tide comes in', licence: 'own' },
      film: { format: 'mp4', picture: { width: 200, height: 132 }, sound: null },
    });
    expect(v.parse(AssetSchema, (await make()).body).id).toBe(film.id);
    const still = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#123456' } })
      .png()
      .toBuffer();
    const other = arrivedOf(await server.handIn(still, 'still.png')).asset;
    const refused = await server.ask(`/api/assets/${other.id}/film-of-it`, { method: 'POST' });
    expect([refused.status, detailOf(refused)]).toEqual([
      422,
      'This picture does not move, so no film is made of it.',
    ]);
  }, 60_000);
});

function never(): never {
  throw new Error('It is not made.');
}
