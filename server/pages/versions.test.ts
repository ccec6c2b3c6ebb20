import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { AtPageSchema, KeptStateSchema, PageVersionListSchema, PageVersionSchema } from '#api/pages.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { pages, pageVersions } from '../db/schema.ts';
import { detailOf, startTestServer, type TestServer } from '../testing.ts';

let server: TestServer;
let pageId: string;
let version: number;

beforeAll(async () => {
  server = await startTestServer('versions');
});
afterAll(() => server.close());

beforeEach(async () => {
  const body = { title: 'Bitterns', targetId: 'reserve', wants: [] };
  const made = await server.ask('/api/pages', { method: 'POST', body });
  pageId = v.parse(v.object({ id: v.string() }), made.body).id;
  version = 1;
  await save('One');
});

const docWith = (words: string): PageDoc => ({
  ...emptyPage('Bitterns'),
  blocks: [{ type: 'paragraph', attrs: { id: 'first' }, content: [{ type: 'text', text: words }] }],
});

async function save(words: string) {
  const { status } = await server.ask(`/api/pages/${pageId}`, {
    method: 'PUT',
    body: { doc: docWith(words) },
    version,
  });
  expect(status).toBe(200);
  version += 1;
}

const name = (called: unknown, on = version) =>
  server.ask(`/api/pages/${pageId}/versions`, { method: 'POST', body: { name: called }, version: on });
const send = () => server.ask(`/api/pages/${pageId}/fragment`);
const list = async () =>
  v.parse(PageVersionListSchema, (await server.ask(`/api/pages/${pageId}/versions`)).body).versions;

describe('versions of a page', () => {
  it('are kept when a person names one, with who and when, and read with what they show', async () => {
    const made = await name('Before the second walk');
    expect(made.status).toBe(201);
    const { id } = v.parse(PageVersionSchema, made.body);
    await save('Two');
    expect(await list()).toMatchObject([
      { id, name: 'Before the second walk', sent: null, sentAt: null, keptBy: 'mara' },
    ]);
    const read = v.parse(KeptStateSchema, (await server.ask(`/api/pages/${pageId}/versions/${id}`)).body);
    expect(read).toMatchObject({ doc: docWith('One'), pieces: [], ownViews: {} });
  });

  it('are kept by themselves when the page goes out, once for each state', async () => {
    await send();
    await send();
    expect(await list()).toMatchObject([{ name: '', sent: 'as code' }]);
    await save('Two');
    await send();
    await name('The second one');
    expect(await list()).toMatchObject([{ name: 'The second one', sent: 'as code' }, { name: '' }]);
  });

  it('of one state are two where they have two names', async () => {
    await name('One');
    await name('One');
    await name('Still one');
    expect((await list()).map((one) => one.name)).toEqual(['Still one', 'One']);
  });

  it('are not named where the page was saved meanwhile, nor without a name', async () => {
    const late = await name('Late', version - 1);
    expect(late.status).toBe(412);
    expect(detailOf(late)).toContain('Nothing was named');
    expect((await name('   ')).status).toBe(422);
    expect(await list()).toEqual([]);
  });

  it('belong to their page, and to nobody who may not edit pages', async () => {
    const { id } = v.parse(PageVersionSchema, (await name('One')).body);
    expect((await server.ask(`/api/pages/other/versions/${id}`)).status).toBe(404);
    expect((await server.ask(`/api/pages/${pageId}/versions`, { as: 'joss' })).status).toBe(403);
  });

  it('that a newer Placard wrote are kept and not shown', async () => {
    const { id } = v.parse(PageVersionSchema, (await name('One')).body);
    const newer = { ...docWith('One'), later: true };
    await server.context.db.update(pageVersions).set({ doc: newer }).where(eq(pageVersions.id, id));
    const read = await server.ask(`/api/pages/${pageId}/versions/${id}`);
    expect([read.status, detailOf(read)]).toEqual([500, expect.stringContaining('kept as it stands')]);
    expect(await list()).toHaveLength(1);
  });

  it('go with their page', async () => {
    await name('One');
    await server.context.db.delete(pages).where(eq(pages.id, pageId));
    expect(
      await server.context.db.select().from(pageVersions).where(eq(pageVersions.pageId, pageId)),
    ).toEqual([]);
  });
});

describe('who is on a page', () => {
  const sit = async (as: 'mara' | 'piet', id: string, block: string | null, left = false) =>
    v.parse(
      AtPageSchema,
      (await server.ask(`/api/pages/${pageId}/sittings`, { as, method: 'POST', body: { id, block, left } }))
        .body,
    );
  const [A, B] = ['6f1c0a52-8a53-4c40-9d8e-0b5c6a1b7e01', '6f1c0a52-8a53-4c40-9d8e-0b5c6a1b7e02'];

  it('is said to the others, with where they are and the version that stands, until they leave', async () => {
    expect(await sit('mara', A, 'first')).toEqual({ version, others: [] });
    const seen = await sit('piet', B, null);
    expect(seen).toMatchObject({ version, others: [{ id: A, name: 'mara', block: 'first' }] });
    await sit('mara', A, 'second');
    expect((await sit('piet', B, null)).others).toMatchObject([{ block: 'second' }]);
    await sit('mara', A, null, true);
    expect((await sit('piet', B, null)).others).toEqual([]);
    await sit('piet', B, null, true);
  });

  it('does not move the window of another', async () => {
    await sit('mara', A, 'first');
    await sit('piet', A, 'second', true);
    expect((await sit('piet', B, null)).others).toMatchObject([{ block: 'first' }]);
  });
});
