import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { ArrivedSchema, type Asset } from '#api/assets.ts';
import { WHOLE } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { SLOW_LINE } from '#core/proof/slow-line.ts';
import { startTestServer, type TestServer } from '../testing.ts';
import { cutPath, detailPath, signedAddress, thumbPath } from './addresses.ts';

let server: TestServer;
let asset: Asset;

beforeAll(async () => {
  server = await startTestServer('media');
  const bytes = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#7a8b6f' } })
    .jpeg()
    .toBuffer();
  asset = v.parse(ArrivedSchema, (await server.handIn(bytes, 'sluice.jpg')).body).asset;
});

afterAll(() => server.close());

const signed = (path: string) => signedAddress(server.context, path);
const WHOLE_KEY = recipeKey(WHOLE);
const cut = (width: number, file = 'sluice.webp', recipe = WHOLE_KEY, quality = 78) =>
  cutPath(asset.id, recipe, width, quality, file);

describe('pictures on the other origin', () => {
  it('go out to whoever has their address, as they were asked for', async () => {
    const response = await fetch(signed(cut(300)));
    expect(response.status).toBe(200);
    expect(response.headers.get('content-type')).toBe('image/webp');
    const { width, height, format } = await sharp(Buffer.from(await response.arrayBuffer())).metadata();
    expect({ width, height, format }).toEqual({ width: 300, height: 200, format: 'webp' });
  });

  it('are the same bytes the second time, and may be kept for ever', async () => {
    const [one, other] = [await fetch(signed(cut(240))), await fetch(signed(cut(240)))];
    expect(other.headers.get('cache-control')).toContain('immutable');
    expect(Buffer.from(await other.arrayBuffer())).toEqual(Buffer.from(await one.arrayBuffer()));
  });

  it('run nothing and are taken for nothing else, whoever opens them', async () => {
    for (const response of [
      await fetch(signed(cut(120))),
      await fetch(signed(thumbPath(asset.id, WHOLE_KEY, 480))),
    ]) {
      expect(response.headers.get('x-content-type-options')).toBe('nosniff');
      expect(response.headers.get('content-security-policy')).toBe("default-src 'none'; sandbox");
      expect(response.headers.get('set-cookie')).toBeNull();
    }
  });

  it('are there for no address that was made up', async () => {
    const path = cut(300);
    const address = new URL(signed(path));
    const without = `${address.origin}${path}`;
    const elsewhere = new URL(address);
    elsewhere.pathname = cut(301);
    const twice = `${without}?s=${address.searchParams.get('s')}&s=x`;
    const guessed = `${without}?s=${'A'.repeat(address.searchParams.get('s')?.length ?? 0)}`;
    for (const wrong of [without, String(elsewhere), `${without}?s=`, twice, guessed])
      expect((await fetch(wrong)).status).toBe(404);
  });

  it.each([
    ['wider than the original', () => cut(901)],
    ['of no width', () => cut(0)],
    ['of a negative width', () => cut(-300)],
    ['of a width that is none', () => cutPath(asset.id, WHOLE_KEY, Number.NaN, 78, 'sluice.webp')],
    ['in a format that no cut has', () => cut(300, 'sluice.svg')],
    ['in a format of the machine', () => cut(300, 'sluice.constructor')],
    ['by a recipe that is none', () => cut(300, 'sluice.webp', 'w1-nonsense')],
    ['of a piece that is not there', () => cutPath('nothing', WHOLE_KEY, 300, 78, 'sluice.webp')],
  ])('are not made %s, even where it is signed', async (_what, path) => {
    const response = await fetch(signed(path()));
    expect(response.status).toBe(404);
    expect(response.headers.get('content-type')).toContain('application/problem+json');
  });

  it('that are still to be searched for are shown as drafts at once, and as themselves when they are there', async () => {
    const address = signed(cut(320, 'sluice.avif', WHOLE_KEY, 985));
    const draft = await fetch(address);
    expect(draft.headers.get('cache-control')).toBe('no-store');
    expect(draft.headers.get('content-type')).toBe('image/jpeg');
    const { width, height } = await sharp(Buffer.from(await draft.arrayBuffer())).metadata();
    expect({ width, height }).toEqual({ width: 320, height: 213 });
    await vi.waitFor(
      async () => {
        const response = await fetch(address);
        expect(response.headers.get('content-type')).toBe('image/avif');
        expect(response.headers.get('cache-control')).toContain('immutable');
        await response.arrayBuffer();
      },
      { timeout: 10_000, interval: 100 },
    );
  });

  it('of a part are that part, at the pixels of the cut', async () => {
    const path = detailPath(asset.id, WHOLE_KEY, 600, 78, { x: 0.5, y: 0.5, file: 'sluice.webp' });
    const response = await fetch(signed(path));
    expect(response.headers.get('content-type')).toBe('image/png');
    const { width = 0 } = await sharp(Buffer.from(await response.arrayBuffer())).metadata();
    expect(width).toBeGreaterThan(0);
    expect(width).toBeLessThanOrEqual(600);
  });
});

describe('what else is there', () => {
  it('is the way to Placard, for whoever comes without an address', async () => {
    const response = await fetch(new URL('/', signed('/')), { redirect: 'manual' });
    expect(response.status).toBe(302);
    expect(response.headers.get('location')).toBe(server.origin);
  });

  it.each(['/fonts/..%2f..%2fpackage.json', '/fonts/nothing.woff2'])('is no other file: %s', async (path) => {
    expect((await fetch(new URL(path, signed('/')))).status).toBe(404);
  });

  it('is nothing of the program itself', async () => {
    for (const path of ['/api/me', '/api/assets', '/assets/index.js'])
      expect((await fetch(new URL(path, signed('/')))).status).toBe(404);
  });
});

describe('a page looked at as by a slow line', () => {
  const page = async () => {
    const body = { title: 'Slowly', targetId: 'reserve', wants: [] };
    const made = await server.ask('/api/pages', { method: 'POST', body });
    const { id } = v.parse(v.object({ id: v.string() }), made.body);
    const doc = {
      ...emptyPage('Slowly'),
      tray: [asset.id],
      blocks: [{ type: 'placement', attrs: newPlacement('one', asset.id) }],
    };
    await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
    const preview = await server.ask(`/api/pages/${id}/preview`);
    return new URL(v.parse(v.looseObject({ address: v.string() }), preview.body).address);
  };
  const slowly = (address: URL, run: string) =>
    `${address.origin}/slow/${run}${address.pathname}${address.search}&line=${run}`;

  it('names all that it loads by that line', async () => {
    const html = await (await fetch(slowly(await page(), 'abcd1234'))).text();
    expect(html).toContain(`${server.context.config.mediaOrigin}/slow/abcd1234/cut/`);
    expect(html).not.toContain(`${server.context.config.mediaOrigin}/cut/`);
    const [, css = ''] = /href="([^"]+style\.css[^"]*)"/.exec(html) ?? [];
    const style = await (await fetch(css.replaceAll('&amp;', '&'))).text();
    expect(style).toContain('/slow/abcd1234/fonts/');
  });

  it('carries the same bytes, so many a second, and none of them is kept', async () => {
    const noise = await sharp({
      create: {
        width: 700,
        height: 700,
        channels: 3,
        background: '#888',
        noise: { type: 'gaussian', mean: 128, sigma: 60 },
      },
    })
      .jpeg({ quality: 95 })
      .toBuffer();
    const held = v.parse(ArrivedSchema, (await server.handIn(noise, 'noise.jpg')).body).asset;
    const quick = new URL(signed(cutPath(held.id, WHOLE_KEY, 700, 90, 'noise.jpg')));
    const whole = Buffer.from(await (await fetch(quick)).arrayBuffer());
    const begun = performance.now();
    const response = await fetch(slowly(quick, 'wxyz9876'));
    const bytes = Buffer.from(await response.arrayBuffer());
    expect(bytes).toEqual(whole);
    expect(response.headers.get('cache-control')).toBe('no-store');
    // It cannot be quicker than its line; how much slower, a machine with other work says.
    const least = (bytes.length / SLOW_LINE.bytesPerSecond) * 1000 + SLOW_LINE.roundMillis;
    expect(bytes.length).toBeGreaterThan(50_000);
    expect(performance.now() - begun).toBeGreaterThan(least * 0.95);
  });

  it('opens nothing that is not signed, and nothing elsewhere', async () => {
    const { mediaOrigin } = server.context.config;
    expect((await fetch(`${mediaOrigin}/slow/abcd1234${cut(300)}`)).status).toBe(404);
    expect((await fetch(`${mediaOrigin}/slow/../api/me`)).status).toBe(404);
    expect((await fetch(`${mediaOrigin}/slow/abcd1234/api/me`)).status).toBe(404);
    expect((await fetch(`${mediaOrigin}/slow/ABCD/measure.js`)).status).toBe(404);
    expect((await fetch(`${mediaOrigin}/slow/abcd1234/measure.js`)).status).toBe(200);
    expect((await fetch(`${mediaOrigin}/slow/abcd1234/slow/abcd1235/measure.js`)).status).toBe(404);
  });

  it('is shown without the pictures that have not come, and with the files of a sharper screen', async () => {
    const address = await page();
    const styleOf = async (more: string) => {
      const html = await (await fetch(`${address.href}${more}`)).text();
      const [, css = ''] = /href="([^"]+style\.css[^"]*)"/.exec(html) ?? [];
      return { html, style: await (await fetch(css.replaceAll('&amp;', '&'))).text() };
    };
    expect((await styleOf('&late=one')).style).toContain('[data-block="one"] img { visibility: hidden');
    expect((await styleOf('&late=one"]{}*')).style).not.toContain('{}*');
    expect((await styleOf('&screen=3')).html).toContain('calc(3 * ');
    expect((await styleOf('&screen=3;x')).html).not.toContain('calc(3');
  });
});
