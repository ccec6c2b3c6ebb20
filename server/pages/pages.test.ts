import { and, eq, inArray } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import {
  FragmentSchema,
  MOST_PAGES_LISTED,
  PageClashSchema,
  PageListSchema,
  PageSchema,
  PreviewSchema,
} from '#api/pages.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { fromStored, STORED } from '#core/stored.ts';
import { activity, audit, pages, placements } from '../db/schema.ts';
import { signedAddress } from '../media/addresses.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';
import { everyPage } from './store.ts';

let server: TestServer;
let assetId: string;
let pageId: string;

beforeAll(async () => {
  server = await startTestServer('pages');
  const bytes = await sharp({ create: { width: 1600, height: 1000, channels: 3, background: '#597' } })
    .jpeg()
    .toBuffer();
  assetId = arrivedOf(await server.handIn(bytes, 'marsh.jpg')).asset.id;
});
afterAll(() => server.close());

beforeEach(async () => {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'Bitterns', targetId: 'reserve', wants: [] },
  });
  pageId = v.parse(v.object({ id: v.string() }), made.body).id;
});

const docWith = (words: string): PageDoc => ({
  ...emptyPage('Bitterns'),
  blocks: [
    { type: 'paragraph', attrs: { id: 'first' }, content: [{ type: 'text', text: words }] },
    { type: 'placement', attrs: newPlacement('one', assetId) },
  ],
});
const save = (doc: unknown, version: number, as: 'mara' | 'piet' | 'joss' = 'mara') =>
  server.ask(`/api/pages/${pageId}`, { as, method: 'PUT', body: { doc }, version });
const list = async (words = '') =>
  v.parse(PageListSchema, (await server.ask(`/api/pages?words=${encodeURIComponent(words)}`)).body);
const read = async () => v.parse(PageSchema, (await server.ask(`/api/pages/${pageId}`)).body);

describe('saving a page', () => {
  it('keeps it with its index of placements and its history', async () => {
    expect((await save(docWith('One'), 1)).body).toMatchObject({ version: 2 });
    expect((await read()).doc).toEqual(docWith('One'));
    const rows = await server.context.db.select().from(placements).where(eq(placements.pageId, pageId));
    expect(rows).toMatchObject([{ placementId: 'one', assetId }]);
    await save(docWith('Two'), 2);
    const steps = await server.context.db
      .select()
      .from(activity)
      .where(and(eq(activity.subjectId, pageId), eq(activity.what, 'worked on the page')));
    expect(steps).toHaveLength(1);
    expect(fromStored(STORED.page, steps[0]?.after)).toEqual(docWith('Two'));
    expect(fromStored(STORED.page, steps[0]?.before)).toEqual(emptyPage('Bitterns'));
  });

  it('on an old version writes nothing and answers what stands', async () => {
    await save(docWith('Mara'), 1);
    const second = await save(docWith('Piet'), 1, 'piet');
    expect(second.status).toBe(412);
    const { current, detail } = v.parse(PageClashSchema, second.body);
    expect(current).toMatchObject({ version: 2, doc: docWith('Mara'), updatedBy: 'mara' });
    expect(detail).toContain('Nothing of either is lost');
    expect((await read()).doc).toEqual(docWith('Mara'));
  });

  it('sent again after a lost line is answered as the first time, and is no clash with oneself', async () => {
    const first = await save(docWith('Sent twice'), 1);
    const again = await save(docWith('Sent twice'), 1);
    expect(again).toMatchObject({ status: 200, body: first.body });
    expect((await save(docWith('Something else'), 1)).status).toBe(412);
    expect((await save(docWith('Sent twice'), 1, 'piet')).status).toBe(412);
  });

  it('on an old version forty times at once is answered each time, and stops nobody', async () => {
    await save(docWith('First'), 1);
    const stale = await Promise.all(Array.from({ length: 40 }, (_, at) => save(docWith(`Late ${at}`), 1)));
    expect(stale.map(({ status }) => status)).toEqual(Array.from({ length: 40 }, () => 412));
    expect((await read()).doc).toEqual(docWith('First'));
  });

  it('with lists that go deeper than can be stored is refused in words', async () => {
    const nested = (depth: number, own: object = {}): unknown => ({
      type: 'bulletList',
      ...own,
      content: [
        {
          type: 'listItem',
          content: [{ type: 'paragraph' }, ...(depth > 1 ? [nested(depth - 1)] : [])],
        },
      ],
    });
    const deep = (depth: number) => ({
      ...emptyPage('Deep'),
      blocks: [nested(depth, { attrs: { id: 'list' } })],
    });
    const answer = await save(deep(8), 1);
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain('Lists go at most 5 deep');
    expect((await save(deep(5), 1)).status).toBe(200);
  });

  it('without a version is refused', async () => {
    expect(
      (await server.ask(`/api/pages/${pageId}`, { method: 'PUT', body: { doc: docWith('x') } })).status,
    ).toBe(428);
  });

  it.each([
    [
      'a script in a link',
      {
        ...emptyPage('x'),
        blocks: [
          {
            type: 'paragraph',
            attrs: { id: 'first' },
            content: [
              { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] },
            ],
          },
        ],
      },
    ],
    ['an unknown block', { ...emptyPage('x'), blocks: [{ type: 'html' }] }],
    ['a block without an ID', { ...emptyPage('x'), blocks: [{ type: 'paragraph' }] }],
    [
      'two blocks of one ID',
      { ...emptyPage('x'), blocks: [...emptyPage('x').blocks, ...emptyPage('x').blocks] },
    ],
    ['nothing', null],
    ['words', 'words'],
  ])('with %s in place of a document is refused, and nothing changes', async (_what, doc) => {
    const answer = await save(doc, 1);
    expect(answer.status).toBe(422);
    expect(answer.headers.get('content-type')).toContain('application/problem+json');
    expect(detailOf(answer)).toContain('Nothing was changed.');
    expect((await read()).version).toBe(1);
  });

  it('that does not fit its schema any more is not shown as if it did', async () => {
    await server.context.db
      .update(pages)
      .set({ doc: JSON.parse('{"title":"x"}') })
      .where(eq(pages.id, pageId));
    const answer = await server.ask(`/api/pages/${pageId}`);
    expect(answer.status).toBe(500);
    expect(detailOf(answer)).toContain('It is kept as it stands');
    await server.context.db.delete(pages).where(eq(pages.id, pageId));
  });

  it('by a contributor is refused', async () => {
    const answer = await save(docWith('x'), 1, 'joss');
    expect(answer.status).toBe(403);
    expect(detailOf(answer)).toContain('change pages');
  });
});

describe('the preview', () => {
  it('is what would go out, on another origin, with nothing of the app', async () => {
    await save(docWith('You hear them long before you see one.'), 1);
    const { address } = v.parse(PreviewSchema, (await server.ask(`/api/pages/${pageId}/preview`)).body);
    expect(new URL(address).origin).not.toBe(server.origin);
    const response = await fetch(address);
    const html = await response.text();
    expect(html).toContain('You hear them long before you see one.');
    expect(response.headers.get('content-security-policy')).toMatch(
      /default-src 'none'.*sandbox allow-scripts/,
    );
    expect(response.headers.get('x-content-type-options')).toBe('nosniff');
    const [, image = ''] = /src="([^"]+\.jpg\?s=[^"]+)"/.exec(html) ?? [];
    const cut = await fetch(image.replaceAll('&amp;', '&'));
    expect(cut.headers.get('content-type')).toBe('image/jpeg');
    expect(await sharp(Buffer.from(await cut.arrayBuffer())).metadata()).toMatchObject({
      width: 720,
      height: 450,
    });
  });

  it('ends, does not follow the page to what is written later, and signs its style sheet too', async () => {
    await save(docWith('First state.'), 1);
    const { address } = v.parse(PreviewSchema, (await server.ask(`/api/pages/${pageId}/preview`)).body);
    const html = await (await fetch(address)).text();
    const sheet = /href="([^"]+style\.css[^"]*)"/.exec(html)?.[1]?.replaceAll('&amp;', '&') ?? '';
    expect((await fetch(sheet)).headers.get('content-type')).toContain('text/css');
    expect((await fetch(sheet.replace(/\?.*/, ''))).status).toBe(404);
    const { pathname } = new URL(address);
    const over = signedAddress(server.context, pathname, 'look', Date.now() - 48 * 60 * 60 * 1000);
    expect((await fetch(over)).status).toBe(404);
    await save(docWith('Second state.'), 2);
    expect((await fetch(address)).status).toBe(410);
  });

  it('is seen as others get it, by the rules that it goes out with', async () => {
    await save(docWith('Seen otherwise.'), 1);
    const { address } = v.parse(PreviewSchema, (await server.ask(`/api/pages/${pageId}/preview`)).body);
    const look = async (as: string) => {
      const response = await fetch(`${address}&as=${as}`);
      const html = await response.text();
      const sheet = /href="([^"]+style\.css[^"]*)"/.exec(html)?.[1]?.replaceAll('&amp;', '&') ?? '';
      const policy = response.headers.get('content-security-policy') ?? '';
      return { policy, html, css: await (await fetch(sheet)).text() };
    };
    expect((await look('no-pictures')).policy).toContain("img-src 'none';");
    expect((await look('printed')).css).not.toContain('@media print');
    expect((await look('spaced')).css).toContain('word-spacing: 0.16em !important');
    const usual = await look('usual');
    expect(usual.css).toContain('@media print');
    expect(await look('"><script>x()</script>')).toEqual({
      ...usual,
      html: expect.not.stringContaining('x()'),
    });
  });

  it('cannot be reached by an address that somebody made up', async () => {
    const { address } = v.parse(PreviewSchema, (await server.ask(`/api/pages/${pageId}/preview`)).body);
    expect((await fetch(address.replace(/s=.*/, 's=aaaaaaaaaaaaaaaaaaaaaa'))).status).toBe(404);
    const asset = v.parse(AssetSchema, (await server.ask(`/api/assets/${assetId}`)).body);
    expect((await fetch(asset.thumb.replace('/480.webp', '/481.webp'))).status).toBe(404);
  });
});

describe('beginning a page', () => {
  it('twice under one key, as after a lost line, begins one', async () => {
    const wish = { title: 'Begun once', targetId: 'reserve', wants: [] };
    const begin = (key: string, as: 'mara' | 'piet' = 'mara') =>
      server.ask('/api/pages', { as, method: 'POST', body: wish, headers: { 'idempotency-key': key } });
    const [one, again] = await Promise.all([begin('one press of it'), begin('one press of it')]);
    expect(again.body).toEqual(one.body);
    expect((await begin('another press')).body).not.toEqual(one.body);
    expect((await begin('one press of it', 'piet')).body).not.toEqual(one.body);
    const rows = await server.context.db.select().from(pages).where(eq(pages.title, 'Begun once'));
    expect(rows).toHaveLength(3);
  });
});

describe('the code of a page', () => {
  const code = (query = '') => server.ask(`/api/pages/${pageId}/fragment${query}`);

  it('that cannot go out is not handed out as if it could', async () => {
    await save(docWith('Not cleared.'), 1);
    const answer = await code();
    expect(answer.status).toBe(409);
    expect(detailOf(answer)).toContain('This page cannot go out yet');
  });

  it('is marked as unfinished for who asks for it as such, which is written down', async () => {
    await save(docWith('Not cleared.'), 1);
    const { html, stops } = v.parse(FragmentSchema, (await code('?unfinished=yes')).body);
    expect(html).toMatch(/^<!-- UNFINISHED/);
    expect(stops.length).toBeGreaterThan(0);
    const [entry] = await server.context.db.select().from(audit).where(eq(audit.what, 'code-seen'));
    expect(entry).toMatchObject({ who: 'mara', subject: 'Bitterns' });
  });

  it('that may go out comes as it is', async () => {
    await save({ ...emptyPage('Words alone'), blocks: docWith('Only words.').blocks.slice(0, 1) }, 1);
    const { html, stops } = v.parse(FragmentSchema, (await code()).body);
    expect(stops).toEqual([]);
    expect(html).not.toContain('UNFINISHED');
  });

  it.each([
    ['https://files.example/spring', 'https://files.example/spring/'],
    ['/media', '/media/'],
  ])('asks for its files where they will live: %s', async (files, stands) => {
    await save(docWith('A heron.'), 1);
    const query = new URLSearchParams({ unfinished: 'yes', files, inline: 'yes', untitled: 'yes' });
    const { html } = v.parse(FragmentSchema, (await code(`?${query}`)).body);
    expect(html).toContain(`src="${stands}`);
    expect(html).not.toContain('<h1>');
    expect(html).not.toContain('--w:');
  });

  it.each(['javascript:alert(1)', 'https://a.example/"onload=', 'data:text/html,x'])(
    'is not written for files at %s',
    async (files) => {
      await save(docWith('A heron.'), 1);
      const answer = await code(`?${new URLSearchParams({ unfinished: 'yes', files })}`);
      expect(answer.status).toBe(422);
      expect(detailOf(answer)).toContain('https://');
    },
  );

  it('comes as one file too, with its pictures in it and nothing that is asked for elsewhere', async () => {
    await save(docWith('A heron.'), 1);
    const response = await server.ask(`/api/pages/${pageId}/one-file`);
    expect(response.headers.get('content-disposition')).toMatch(
      /^attachment; filename="?[a-z0-9-]+\.html"?$/,
    );
    const html = String(response.body);
    expect(html).toMatch(/^<!DOCTYPE html>/);
    expect(html).toMatch(/<img src="data:image\/(jpeg|webp);base64,/);
    expect(
      html.match(/(?:src|srcset|href)="(?!data:|#|https:\/\/creativecommons|https:\/\/licence)[^"]*"/g) ?? [],
    ).toEqual([]);
  });
});

describe('a page whose document does not fit any more', () => {
  it('is listed as such, and takes neither the others nor the Desk with it', async () => {
    await server.context.db
      .update(pages)
      .set({ doc: JSON.parse('{"title":"Broken"}') })
      .where(eq(pages.id, pageId));
    const listed = (await list()).pages;
    expect(listed.find(({ id }) => id === pageId)?.fault).toContain('It is kept as it stands');
    expect(listed.filter(({ fault }) => fault === null).length).toBeGreaterThan(0);
    expect((await server.ask('/api/desk')).status).toBe(200);
    await server.context.db.delete(pages).where(eq(pages.id, pageId));
  });
});

describe('more pages than are listed', () => {
  const MANY = MOST_PAGES_LISTED + 30;
  const added = Array.from({ length: MANY }, (_, at) => `many-${String(at).padStart(4, '0')}`);
  const titleOf = (at: number) => (at === 0 ? 'The Éel pass, 100% open' : `Tide table ${at}`);
  beforeAll(async () => {
    const [like] = await server.context.db.select().from(pages).limit(1);
    if (!like) throw new Error('There is no page.');
    const rows = added.map((id, at) => ({
      ...like,
      id,
      title: titleOf(at),
      doc: at === 1 ? JSON.parse('{"title":"Broken"}') : emptyPage(titleOf(at)),
      // Changed long ago, the first of them longest.
      updatedAt: new Date(Date.UTC(2020, 0, 1) + at * 60_000),
    }));
    await server.context.db.insert(pages).values(rows);
  });
  afterAll(async () => void (await server.context.db.delete(pages).where(inArray(pages.id, added))));

  it('are listed with how many there are, the last changed first', async () => {
    const { pages: listed, count } = await list();
    expect(listed).toHaveLength(MOST_PAGES_LISTED);
    expect(count).toBeGreaterThanOrEqual(MANY);
    expect(listed.some(({ id }) => id === added[0])).toBe(false);
    const times = listed.map(({ updatedAt }) => updatedAt);
    expect(times).toEqual([...times].sort().reverse());
  });

  it.each([
    ['eel pass', [added[0]], 1],
    ['open the', [added[0]], 1],
    ['100%', [added[0]], 1],
    ['0% open', [added[0]], 1],
    ['_el', [], 0],
    ['tide eel', [], 0],
  ])('are found by words of their titles: %s', async (words, ids, count) => {
    const found = await list(words);
    expect([found.pages.map(({ id }) => id), found.count]).toEqual([ids, count]);
  });

  it('say how many of them hold the words, where those are too many to list too', async () => {
    const { pages: listed, count } = await list('tide table');
    expect([listed.length, count]).toEqual([MOST_PAGES_LISTED, MANY - 1]);
  });

  it('are all gone through by what takes every page, each once, with those that cannot be read', async () => {
    const seen: string[] = [];
    const unread: string[] = [];
    for await (const { wholes, broken } of everyPage(server.context)) {
      seen.push(...wholes.map(({ row }) => row.id));
      unread.push(...broken.map(({ row }) => row.id));
    }
    expect(seen.filter((id) => id.startsWith('many-'))).toEqual(added.filter((_, at) => at !== 1));
    expect(unread).toEqual([added[1]]);
    expect(new Set(seen).size).toBe(seen.length);
  });
});

describe('who only hands pieces in', () => {
  it.each(['', '/ID', '/ID/findings', '/ID/preview', '/ID/fragment'])('reads no pages (%s)', async (path) => {
    const answer = await server.ask(`/api/pages${path.replace('ID', pageId)}`, { as: 'joss' });
    expect(answer.status).toBe(403);
  });
});

describe('findings of a page', () => {
  it('are those of its text, its pieces and its target', async () => {
    await save(docWith('x'), 1);
    const { body } = await server.ask(`/api/pages/${pageId}/findings`);
    const codes = v.parse(v.array(v.looseObject({ code: v.string() })), body).map(({ code }) => code);
    expect(codes).toEqual(expect.arrayContaining(['alt-missing', 'licence-missing']));
  });
});
