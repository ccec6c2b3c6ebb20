import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Asset } from '#api/assets.ts';
import { type LikenessCurve, LikenessCurveSchema } from '#api/likeness.ts';
import { WHOLE } from '#core/media/recipe.ts';
import { QUALITY_RANGE } from '#core/media/smallest.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../../testing.ts';
import { ensureCut } from '../cut-store.ts';
import { measureCurve } from './curve.ts';

let server: TestServer;
let asset: Asset;
beforeAll(async () => {
  server = await startTestServer('likeness');
  asset = arrivedOf(await server.handIn(await grainyPicture(), 'heron.jpg')).asset;
});
afterAll(() => server.close());

/** Water, a sun and reeds with the grain of a photograph, so that formats differ as they do on one. */
async function grainyPicture(): Promise<Buffer> {
  const reeds = Array.from(
    { length: 60 },
    (_, at) =>
      `<path d="M${at * 20} 800q${(at % 7) - 3} -200 ${(at % 5) * 6} -${220 + (at % 9) * 25}" stroke="#2d4a2f" stroke-width="4" fill="none"/>`,
  ).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="800"><defs><linearGradient id="sky" x2="0" y2="1"><stop stop-color="#27506e"/><stop offset="1" stop-color="#e8c18f"/></linearGradient></defs><rect width="1200" height="800" fill="url(#sky)"/><circle cx="800" cy="260" r="70" fill="#fff3c8"/>${reeds}</svg>`;
  const grain = await sharp({
    create: {
      width: 1200,
      height: 800,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 24 },
    },
  })
    .png()
    .toBuffer();
  return sharp(Buffer.from(svg))
    .composite([{ input: grain, blend: 'soft-light' }])
    .jpeg({ quality: 92 })
    .toBuffer();
}

const about = (width: number) => `recipe=whole&target=reserve&width=${width}`;
const curveOf = async (width = 480): Promise<LikenessCurve> =>
  v.parse(LikenessCurveSchema, (await server.ask(`/api/assets/${asset.id}/likeness?${about(width)}`)).body);

describe('the curve of bytes against likeness', () => {
  it('finds for each format the smallest file that is alike enough, with all that was tried', async () => {
    const curve = await curveOf();
    expect(curve).toMatchObject({ width: 480, height: 320, wanted: 0.985 });
    expect(curve.formats.map(({ format }) => format)).toEqual(['avif', 'webp', 'jpeg']);
    for (const { samples, best } of curve.formats) {
      const chosen = samples.find(({ quality }) => quality === best);
      const alike = samples.filter(({ likeness }) => likeness >= curve.wanted);
      if (alike.length > 0) expect(chosen?.likeness).toBeGreaterThanOrEqual(curve.wanted);
      else expect(samples.map(({ quality }) => quality)).toContain(QUALITY_RANGE.most);
      expect(Math.min(...alike.map(({ bytes }) => bytes), chosen?.bytes ?? 0)).toBe(chosen?.bytes);
    }
  });

  it.each([
    ['far better than it', 95, 20],
    ['far worse than it', 20, 60],
  ])('is found also where the quickest format looks %s at its first quality', async (_, jpeg, avif) => {
    const folder = await mkdtemp(join(tmpdir(), 'placard-curve-'));
    const path = join(folder, 'reeds.jpg');
    await writeFile(path, await grainyPicture());
    const formats = await measureCurve({
      path,
      original: { width: 1200, height: 800 },
      recipe: WHOLE,
      width: 480,
      wanted: 0.985,
      formats: [
        { format: 'avif', first: avif, isSearched: true },
        { format: 'jpeg', first: jpeg, isSearched: true },
      ],
    });
    await rm(folder, { recursive: true });
    for (const { samples } of formats) {
      const isFound = samples.some(({ likeness }) => likeness >= 0.985);
      if (!isFound) expect(samples.map(({ quality }) => quality)).toContain(QUALITY_RANGE.most);
      expect(samples.length).toBeLessThanOrEqual(5);
    }
    expect(formats[0]?.samples.some(({ likeness }) => likeness >= 0.985)).toBe(true);
  });

  it('says of each sample just what the file weighs that is made at that quality', async () => {
    const { formats } = await curveOf();
    const [row] = await server.context.db.query.assets.findMany();
    if (!row) throw new Error('no piece');
    for (const { format, samples } of formats) {
      const [sample] = samples;
      const cut = await ensureCut(server.context, row, WHOLE, 480, format, sample?.quality ?? 0);
      expect(cut.bytes).toBe(sample?.bytes);
    }
  });

  it('is measured once, and has one more sample when a person asks for it', async () => {
    const began = performance.now();
    const before = await curveOf();
    expect(performance.now() - began).toBeLessThan(1000);
    const body = { recipe: 'whole', target: 'reserve', width: 480, format: 'webp', quality: 33 };
    const asked = await server.ask(`/api/assets/${asset.id}/likeness`, { method: 'POST', body });
    const after = v.parse(LikenessCurveSchema, asked.body);
    const webp = (curve: LikenessCurve) =>
      curve.formats.find(({ format }) => format === 'webp')?.samples ?? [];
    expect(webp(after)).toHaveLength(webp(before).length + 1);
    expect(webp(after).some(({ quality }) => quality === 33)).toBe(true);
    expect(webp(await curveOf())).toEqual(webp(after));
  });

  it('shows the place that looks least alike, written and untouched, at its own pixels', async () => {
    const { formats } = await curveOf();
    const [sample] = formats[2]?.samples ?? [];
    const fetched = async (address: string) => {
      const answer = await fetch(address);
      expect(answer.headers.get('content-type')).toBe('image/png');
      return sharp(Buffer.from(await answer.arrayBuffer())).metadata();
    };
    expect(await fetched(sample?.detail ?? '')).toMatchObject({ width: 340, height: 230, format: 'png' });
    expect(await fetched(sample?.untouched ?? '')).toMatchObject({ width: 340, height: 230 });
  });

  it.each([
    ['a cut wider than the picture', about(5000), 'is 1 to 1200 px wide'],
    ['a recipe that is none', 'recipe=x&target=reserve&width=480', 'cannot be read'],
  ])('is refused for %s', async (_what, query, sentence) => {
    const answer = await server.ask(`/api/assets/${asset.id}/likeness?${query}`);
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain(sentence);
  });

  it('is not measured for a picture that moves', async () => {
    const frame = (grey: number) =>
      sharp({ create: { width: 60, height: 40, channels: 3, background: { r: grey, g: 90, b: 80 } } })
        .png()
        .toBuffer();
    const moving = await sharp([await frame(10), await frame(200)], { join: { animated: true } })
      .gif()
      .toBuffer();
    const { id } = arrivedOf(await server.handIn(moving, 'gull.gif')).asset;
    const answer = await server.ask(`/api/assets/${id}/likeness?${about(40)}`);
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain('moves');
  });
});
