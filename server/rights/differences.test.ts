import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import { DeskSchema } from '#api/desk.ts';
import { GatheringSchema, SourceAnswerSchema } from '#api/gather.ts';
import { SaidDifferencesSchema } from '#api/rights.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { provenance, sourceAsks } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { arrivedOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { askSources } from './ask-sources.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('differences', { outside: true });
});
afterAll(() => server.close());

async function pageWith(title: string, assetId: string): Promise<void> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId: 'reserve', wants: [], due: null },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const doc = {
    ...emptyPage(title),
    tray: [assetId],
    blocks: [{ type: 'placement' as const, attrs: newPlacement('one', assetId) }],
  };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', version: 1, body: { doc } });
}

const look = async (id: string) => v.parse(AssetSchema, (await server.ask(`/api/assets/${id}`)).body);

async function say(id: string, label: object): Promise<void> {
  const { version } = await look(id);
  const answer = await server.ask(`/api/assets/${id}`, { method: 'PATCH', version, body: { label } });
  expect(answer.status).toBe(200);
}

const differences = async (id: string) =>
  v
    .parse(SaidDifferencesSchema, (await server.ask(`/api/assets/${id}/differences`)).body)
    .map(({ by, about, says }) => ({ by, about, says }));

const errands = async (as: Who = 'mara') =>
  v
    .parse(DeskSchema, (await server.ask('/api/desk', { as })).body)
    .errands.filter(({ id }) => id.startsWith('otherwise-'))
    .map(({ subject, after, detail }) => [subject, after, detail]);

const keep = (id: string, one: object, isKept = true, as: Who = 'mara') =>
  server.ask(`/api/assets/${id}/differences`, { as, method: 'PUT', body: { ...one, isKept } });

describe('a credit that contradicts its file', () => {
  it('waits for somebody on the Desk, and is taken over or left', async () => {
    const bytes = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#345' } })
      .withExif({ IFD0: { Artist: 'Ines Okonjo', Copyright: '© Ines Okonjo' } })
      .jpeg()
      .toBuffer();
    const { id } = arrivedOf(await server.handIn(bytes, 'heron.jpg')).asset;
    await pageWith('Herons', id);
    expect(await differences(id)).toEqual([]);
    await say(id, { creator: 'Tomas Reill', title: 'Heron' });
    const maker = { by: 'file', about: 'maker', says: 'Ines Okonjo' };
    expect(await differences(id)).toEqual([maker]);
    expect(await errands()).toEqual([
      ['Herons', 'contradicts its file.', 'Heron: The file says of its maker: Ines Okonjo.'],
    ]);
    expect((await keep(id, maker, true, 'joss')).status).toBe(403);
    expect((await keep(id, maker)).status).toBe(204);
    expect([await differences(id), await errands()]).toEqual([[], []]);
    // Another change of the label leaves what was decided decided.
    await say(id, { copyrightNotice: '© Ines Okonjo, Saltmere' });
    expect(await differences(id)).toEqual([{ by: 'file', about: 'notice', says: '(C) Ines Okonjo' }]);
    await keep(id, maker, false);
    expect(await differences(id)).toHaveLength(2);
    await say(id, { creator: 'Ines Okonjo', copyrightNotice: '' });
    expect([await differences(id), await errands()]).toEqual([[], []]);
  });
});

describe('a source that says otherwise by now', () => {
  it('is asked once a week for pieces in use, and waits on the Desk', async () => {
    const found = await server.ask('/api/sources/wayside/pictures?words=boardwalk');
    const { pictures } = v.parse(SourceAnswerSchema, found.body);
    const seals = pictures.slice(0, 1).map(({ seal }) => seal);
    const begun = await server.ask('/api/gatherings', {
      method: 'POST',
      body: { seals, pageId: null, wantId: null, folder: '', licence: null },
    });
    const { jobId } = v.parse(GatheringSchema, begun.body);
    while (await workOne(server.context));
    const done = v.parse(GatheringSchema, (await server.ask(`/api/gatherings/${jobId}`)).body);
    const id = done.takings[0]?.asset?.id ?? '';
    const inDays = (days: number) => new Date(Date.now() + days * 86_400_000);
    // On no page it is nobody's concern.
    expect(await askSources(server.context, inDays(8))).toBe(0);
    await pageWith('Old plates', id);
    expect(await askSources(server.context, inDays(1))).toBe(0);
    expect(await askSources(server.context, inDays(8))).toBe(1);
    expect(await askSources(server.context, inDays(9))).toBe(0);
    expect(await differences(id)).toEqual([]);
    // When it came, its page said another thing, and so does the label.
    const [row] = await server.context.db.select().from(provenance).where(eq(provenance.assetId, id));
    await server.context.db.update(sourceAsks).set({
      before: (row?.said ?? []).map((one) => (one.about === 'licence' ? { ...one, value: 'CC0 1.0' } : one)),
    });
    await say(id, { licence: 'cc0' });
    expect(await askSources(server.context, inDays(16))).toBe(1);
    const now = { by: 'source', about: 'licence', says: 'no known copyright' };
    expect(await differences(id)).toEqual([now]);
    expect(await errands()).toEqual([
      ['Old plates', 'is not what the source says by now.', expect.stringContaining('no known copyright')],
    ]);
    await say(id, { licence: 'no-known-copyright' });
    expect([await differences(id), await errands()]).toEqual([[], []]);
  });
});
