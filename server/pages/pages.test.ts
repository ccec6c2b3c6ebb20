import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import { PageClashSchema, PageSchema, PreviewSchema } from '#api/pages.ts';
import { emptyPage, newPlacement, type PageDoc } from '#core/page/model.ts';
import { fromStored, STORED } from '#core/stored.ts';
import { activity, pages, placements } from '../db/schema.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer } from '../testing.ts';

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
    { type: 'paragraph', content: [{ type: 'text', text: words }] },
    { type: 'placement', attrs: newPlacement('one', assetId) },
  ],
});
const save = (doc: unknown, version: number, as: 'mara' | 'piet' | 'joss' = 'mara') =>
  server.ask(`/api/pages/${pageId}`, { as, method: 'PUT', body: { doc }, version });
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
            content: [
              { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] },
            ],
          },
        ],
      },
    ],
    ['an unknown block', { ...emptyPage('x'), blocks: [{ type: 'html' }] }],
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

  it('cannot be reached by an address that somebody made up', async () => {
    const { address } = v.parse(PreviewSchema, (await server.ask(`/api/pages/${pageId}/preview`)).body);
    expect((await fetch(address.replace(/s=.*/, 's=aaaaaaaaaaaaaaaaaaaaaa'))).status).toBe(404);
    const asset = v.parse(AssetSchema, (await server.ask(`/api/assets/${assetId}`)).body);
    expect((await fetch(asset.thumb.replace('/480.webp', '/481.webp'))).status).toBe(404);
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
