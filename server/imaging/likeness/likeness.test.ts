import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Asset } from '#api/assets.ts';
import { type LikenessCurve, LikenessCurveSchema } from '#api/likeness.ts';
import { WHOLE } from '#core/media/recipe.ts';
import { held, likenessCurves } from '../../db/schema.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../../testing.ts';
import { ensureCut } from '../cut-store.ts';
import { imageOf } from '../pixels.ts';
import { grainyReeds } from '../testing-pictures.ts';

let server: TestServer;
let asset: Asset;
beforeAll(async () => {
  server = await startTestServer('likeness');
  asset = arrivedOf(await server.handIn(await grainyPicture(), 'heron.jpg')).asset;
});
afterAll(() => server.close());

const grainyPicture = async () =>
  imageOf(await grainyReeds(1200, 24))
    .jpeg({ quality: 92 })
    .toBuffer();

const about = (width: number) => `recipe=whole&target=reserve&width=${width}`;
const curveOf = async (width = 480): Promise<LikenessCurve> =>
  v.parse(LikenessCurveSchema, (await server.ask(`/api/assets/${asset.id}/likeness?${about(width)}`)).body);

describe('the curve of bytes against likeness', () => {
  it('has for each format the file that goes out, as alike as is wanted, and what others are thought to come to', async () => {
    const curve = await curveOf();
    expect(curve).toMatchObject({ width: 480, height: 320, wanted: 0.985 });
    expect(curve.formats.map(({ format }) => format)).toEqual(['avif', 'webp', 'jpeg']);
    for (const { samples, found } of curve.formats) {
      const chosen = samples.find(({ quality }) => quality === found);
      expect(chosen?.written).not.toBeNull();
      expect(Math.abs((chosen?.likeness ?? 0) - curve.wanted)).toBeLessThanOrEqual(0.0045);
      expect(samples.length).toBeGreaterThan(2);
      expect(samples.filter(({ written }) => written)).toEqual([chosen]);
      const byQuality = [...samples].sort((one, other) => one.quality - other.quality);
      expect(byQuality).toEqual(samples);
    }
  });

  it('says of what was found just what the file weighs that goes out', async () => {
    const { formats } = await curveOf();
    const [row] = await server.context.db.select().from(held);
    if (!row) throw new Error('no piece');
    for (const { format, samples, found } of formats) {
      const sample = samples.find(({ quality }) => quality === found);
      // What is found for a JPEG may lie between two qualities, neither of which weighs the same.
      for (const quality of format === 'jpeg' ? [985] : [found, 985]) {
        const cut = await ensureCut(server.context, row, WHOLE, 480, format, quality);
        expect(cut.bytes).toBe(sample?.bytes);
      }
    }
  });

  it('is measured once, and has one more sample when a person asks for it', async () => {
    const before = await curveOf();
    // What was kept is what is answered: nothing measures it anew.
    const [kept] = await server.context.db.select().from(likenessCurves);
    if (!kept) throw new Error('nothing was kept');
    await server.context.db
      .update(likenessCurves)
      .set({ curves: kept.curves.map((curve) => ({ ...curve, found: 7 })) });
    expect(new Set((await curveOf()).formats.map(({ found }) => found))).toEqual(new Set([7]));
    await server.context.db.update(likenessCurves).set({ curves: kept.curves });
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
    const sample = formats[2]?.samples.find(({ written }) => written)?.written;
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
