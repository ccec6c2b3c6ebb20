import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { FragmentSchema, PageListSchema, PageSchema, SistersSchema } from '#api/pages.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { pages } from '../db/schema.ts';
import { detailOf, startTestServer, type TestServer } from '../testing.ts';
import { readPage } from './store.ts';
import { alternatesOf } from './translations.ts';

let server: TestServer;
let pageId: string;
const DOC: PageDoc = {
  ...emptyPage('Bitterns'),
  address: '/bitterns',
  blocks: [{ type: 'paragraph', attrs: { id: 'first' }, content: [{ type: 'text', text: 'Booming' }] }],
};

beforeAll(async () => {
  server = await startTestServer('translations');
});
afterAll(() => server.close());

beforeEach(async () => {
  const body = { title: 'Bitterns', targetId: 'reserve', wants: [] };
  const made = await server.ask('/api/pages', { method: 'POST', body });
  pageId = v.parse(v.object({ id: v.string() }), made.body).id;
  await save(pageId, DOC, 1);
});

const save = async (id: string, doc: PageDoc, version: number) =>
  expect((await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version })).status).toBe(200);
const begin = (id: string, language: string) =>
  server.ask(`/api/pages/${id}/translations`, { method: 'POST', body: { language } });
const begun = async (id: string, language: string) =>
  v.parse(v.object({ id: v.string() }), (await begin(id, language)).body).id;
const sisters = async (id: string) =>
  v.parse(SistersSchema, (await server.ask(`/api/pages/${id}/sisters`)).body);

describe('translations of a page', () => {
  it('are begun with its pieces and arrangement, in their language, and know the state they were begun from', async () => {
    const german = await begun(pageId, 'de');
    const { doc, target } = v.parse(PageSchema, (await server.ask(`/api/pages/${german}`)).body);
    expect(doc).toEqual({ title: 'Bitterns', language: 'de', wants: [], tray: [], blocks: DOC.blocks });
    expect(target.rules.language).toBe('de');
    expect(await sisters(german)).toMatchObject({
      language: 'de',
      sisters: [{ id: pageId, isOriginal: true }],
      translation: { version: 1, originalId: pageId, base: DOC, original: DOC },
    });
    expect(await sisters(pageId)).toMatchObject({
      sisters: [{ id: german, language: 'de', isOriginal: false }],
      translation: null,
    });
    const list = v.parse(PageListSchema, (await server.ask('/api/pages')).body);
    expect(list.pages.find(({ id }) => id === german)).toMatchObject({ language: 'de' });
  });

  it('go out in their own language', async () => {
    const german = await begun(pageId, 'de');
    const { html } = v.parse(FragmentSchema, (await server.ask(`/api/pages/${german}/fragment`)).body);
    expect(html).toContain('lang="de"');
  });

  it('are one family, whichever was translated from which, and name each other in the head', async () => {
    const german = await begun(pageId, 'de');
    const danish = await begun(german, 'da');
    expect((await sisters(danish)).sisters).toMatchObject([
      { id: pageId, isOriginal: true },
      { id: german, isOriginal: false },
    ]);
    expect((await sisters(danish)).translation).toMatchObject({ originalId: german, originalLanguage: 'de' });
    const { doc } = v.parse(PageSchema, (await server.ask(`/api/pages/${german}`)).body);
    await save(german, { ...doc, address: 'https://reserve.example/de' }, 1);
    const alternates = await alternatesOf(server.context, await readPage(server.context, danish, 'house'));
    expect(alternates.map(({ language, href }) => [language, href])).toEqual([
      ['da', ''],
      ['en-GB', ''],
      ['de', 'https://reserve.example/de'],
    ]);
    expect(
      await alternatesOf(server.context, await readPage(server.context, (await aloneId()) ?? '', 'house')),
    ).toEqual([]);
  });

  async function aloneId() {
    const body = { title: 'Alone', targetId: 'reserve', wants: [] };
    const made = await server.ask('/api/pages', { method: 'POST', body });
    return v.parse(v.object({ id: v.string() }), made.body).id;
  }

  it('are begun once in each language, and not in that of the page', async () => {
    await begun(pageId, 'de');
    const twice = await begin(pageId, 'de');
    expect([twice.status, detailOf(twice)]).toEqual([
      409,
      expect.stringContaining('There is a page in German already'),
    ]);
    const same = await begin(pageId, 'en');
    expect([same.status, detailOf(same)]).toEqual([422, expect.stringContaining('in English already')]);
    expect((await begin(pageId, 'German')).status).toBe(422);
  });

  it('say up to which state of the original they were brought, on the version that was looked at', async () => {
    const german = await begun(pageId, 'de');
    const base = { ...DOC, title: 'Bitterns boom' };
    const put = (version: number) =>
      server.ask(`/api/pages/${german}/translated`, { method: 'PUT', body: { base }, version });
    expect((await put(1)).body).toEqual({ version: 2 });
    expect((await put(1)).status).toBe(412);
    expect((await sisters(german)).translation).toMatchObject({
      version: 2,
      base: { title: 'Bitterns boom' },
    });
    const none = await server.ask(`/api/pages/${pageId}/translated`, {
      method: 'PUT',
      body: { base },
      version: 1,
    });
    expect(none.status).toBe(404);
  });

  it('lose their tie and stay where it goes with the original', async () => {
    const german = await begun(pageId, 'de');
    await server.context.db.delete(pages).where(eq(pages.id, pageId));
    expect(await sisters(german)).toMatchObject({ language: 'de', sisters: [], translation: null });
  });
});
