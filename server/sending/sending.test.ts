import { createHash, createPublicKey, verify } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { unzipSync } from 'fflate';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AssetSchema } from '#api/assets.ts';
import { DeliveriesSchema, type Delivery, DeliverySchema, TokenSetSchema } from '#api/deliveries.ts';
import { DeskSchema } from '#api/desk.ts';
import { JobSchema } from '#api/jobs.ts';
import { TargetSchema } from '#api/targets.ts';
import type { Sending } from '#core/deliver/sending.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { audit, credentials, deliveries, jobs, sentFiles } from '../db/schema.ts';
import { MAKE_FILM } from '../films/kinds.ts';
import { filmOf } from '../films/testing-films.ts';
import { workOne } from '../jobs/worker.ts';
import { arrivedOf, detailOf, heldHeron, startTestServer, type TestServer, type Who } from '../testing.ts';
import { tokenOf } from './credentials.ts';
import { wayOf } from './door.ts';
import { EVIDENCE } from './evidence.ts';
import { lookAgain } from './look-again.ts';
import { followPlans } from './plans.ts';
import { SEND } from './send.ts';

const TOKEN = 'saltmere-reserve-site';
let server: TestServer;
let assetId: string;

beforeAll(async () => {
  server = await startTestServer('sending', { outside: true });
  assetId = await heldHeron(server);
});
afterAll(() => server.close());

const docOf = (title: string): PageDoc => ({
  ...emptyPage(title),
  summary: 'Boats and booms.',
  blocks: [
    {
      type: 'paragraph',
      attrs: { id: 'first' },
      content: [{ type: 'text', text: 'You hear them long before you see one.' }],
    },
    { type: 'heading', attrs: { id: 'head', level: 2 }, content: [{ type: 'text', text: 'In the reeds' }] },
    { type: 'placement', attrs: newPlacement('one', assetId, 'beside-left') },
    { type: 'paragraph', attrs: { id: 'last' }, content: [{ type: 'text', text: 'They stand still.' }] },
  ],
});

async function pageCalled(title: string): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId: 'reserve', wants: [] },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc: docOf(title) }, version: 1 });
  return id;
}

/** Says how pages come to the target, as the site owner does in House rules. */
async function sendingBy(host: string, token: string, change: Partial<Sending> = {}): Promise<void> {
  const { rules, version } = v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body);
  const sending = { by: 'micropub', address: '', captions: 'figcaption', sides: 'figure', ...change };
  const body = { ...rules, siteAddress: server.at(host, '/'), sending };
  const saved = await server.ask('/api/targets/reserve', { as: 'sunniva', method: 'PUT', version, body });
  expect(saved.status).toBe(200);
  await server.ask('/api/targets/reserve/token', { as: 'sunniva', method: 'PUT', body: { token } });
}

const rulesNow = async () => v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body).rules;

const order = (pageId: string, as: Who = 'mara') =>
  server.ask(`/api/pages/${pageId}/deliveries`, { as, method: 'POST', body: {} });
const read = async (id: string) => v.parse(DeliverySchema, (await server.ask(`/api/deliveries/${id}`)).body);

/** Orders the sending of a page and works it to its end. */
async function sent(pageId: string): Promise<Delivery> {
  const ordered = await order(pageId);
  expect(ordered.status).toBe(202);
  await workOne(server.context, [SEND]);
  return read(v.parse(DeliverySchema, ordered.body).id);
}

/** What an address of the world outside answers. */
async function page(address: string | null): Promise<{ readonly status: number; readonly html: string }> {
  const wish = { limits: { bytes: 1_000_000, millis: 10_000 } };
  const { status, bytes } = await server.context.outbound.probe(address ?? '', wish);
  return { status, html: String(bytes) };
}
const stateOf = async ({ jobId }: Delivery) =>
  v.parse(JobSchema, (await server.ask(`/api/jobs/${jobId}`)).body);
const codesOf = ({ differences }: Delivery) => differences.map(({ code }) => code);

describe('a page that is sent', () => {
  it('is refused while nobody has said how, or the target has no token', async () => {
    const id = await pageCalled('Not yet');
    expect(detailOf(await order(id))).toContain('Nobody has said how pages come to');
    await sendingBy('reserve', TOKEN);
    await server.ask('/api/targets/reserve/token', { as: 'sunniva', method: 'DELETE' });
    expect(detailOf(await order(id))).toContain('has no token yet');
    const { isPossible, why } = v.parse(
      DeliveriesSchema,
      (await server.ask(`/api/pages/${id}/deliveries`)).body,
    );
    expect([isPossible, why]).toEqual([false, expect.stringContaining('no token')]);
  });

  it('stands there as it was sent, with its files, alt text and credit', async () => {
    await sendingBy('reserve', TOKEN);
    const delivery = await sent(await pageCalled('Bitterns boom'));
    expect(delivery).toMatchObject({ state: 'out', words: '', answered: '1 of 1', differences: [] });
    expect(delivery.address).toMatch(/\/pages\/bitterns-boom$/);
    const { html } = await page(delivery.address);
    expect(html).toContain('alt="A heron in the reeds."');
    expect(html).toContain('Ines Okonjo');
    expect((await stateOf(delivery)).words).toBe('It is out. Everything came through.');
    const listing = (await page(server.at('reserve', '/'))).html;
    expect(listing).toContain('Boats and booms.');
    // Named, the listing is held against what was sent for it.
    await sendingBy('reserve', TOKEN, { listing: server.at('reserve', '/') });
    expect((await sent(await pageCalled('In the listing'))).differences).toEqual([]);
    await sendingBy('reserve', TOKEN, { listing: server.at('reserve', '/pages/bitterns-boom') });
    expect(codesOf(await sent(await pageCalled('Not in it')))).toEqual(['listing-missing']);
    const [line] = await server.context.db.select().from(audit).where(eq(audit.subject, 'Bitterns boom'));
    expect(line).toMatchObject({ what: 'sent-out', detail: expect.stringMatching(/^to the /) });
  });

  it('plays its film there, its captions with it, and says what of that does not answer', async () => {
    await sendingBy('reserve', TOKEN);
    const film = await filmOf({ name: 'ramp.mp4', seconds: 1, title: 'The ramp' });
    const own = arrivedOf(await server.handIn(film, 'ramp.mp4')).asset;
    await server.ask(`/api/assets/${own.id}`, {
      method: 'PATCH',
      version: own.version,
      body: { label: { licence: 'own' } },
    });
    await server.ask(`/api/assets/${own.id}/tracks/captions/en`, {
      method: 'PUT',
      version: 0,
      body: { cues: [{ from: 0, to: 1000, text: 'Eels cannot jump.' }] },
    });
    await workOne(server.context, [MAKE_FILM]);
    const id = await pageCalled('The ramp');
    const blocks = [{ type: 'placement', attrs: newPlacement('film', own.id) }] as PageDoc['blocks'];
    await server.ask(`/api/pages/${id}`, {
      method: 'PUT',
      body: { doc: { ...docOf('The ramp'), blocks } },
      version: 2,
    });
    const delivery = await sent(id);
    expect([delivery.state, codesOf(delivery)]).toEqual(['out', []]);
    const { html } = await page(delivery.address);
    const [first = ''] = [...html.matchAll(/<source[^>]* src="([^"]+)"/g)].map(([, src]) => src ?? '');
    expect((await page(new URL(first, delivery.address ?? '').href)).status).toBe(200);
    expect(html).toMatch(/<track[^>]*srclang="en"/);
  }, 60_000);

  it('again takes its own place there, and sends no file twice', async () => {
    await sendingBy('reserve', TOKEN);
    const id = await pageCalled('Once more');
    const first = await sent(id);
    const files = await server.context.db.select().from(sentFiles);
    const doc = { ...docOf('Once more'), blocks: docOf('').blocks.slice(0, 3) };
    await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 2 });
    const second = await sent(id);
    expect(second.address).toBe(first.address);
    expect((await page(second.address)).html).not.toContain('They stand still.');
    expect(await server.context.db.select().from(sentFiles)).toEqual(files);
  });

  it('is not sent by two at once, nor by whoever only hands pieces in', async () => {
    await sendingBy('reserve', TOKEN);
    const id = await pageCalled('Two at once');
    expect((await order(id, 'joss')).status).toBe(403);
    expect((await order(id)).status).toBe(202);
    const other = await order(id, 'piet');
    expect([other.status, detailOf(other)]).toEqual([
      409,
      expect.stringContaining('mara is sending this page'),
    ]);
    await workOne(server.context, [SEND]);
    expect((await order(id, 'piet')).status).toBe(202);
    await workOne(server.context, [SEND]);
  });

  it.each(['goes on', 'is sent anew'])(
    'and whose answer got lost is not there twice, when it %s',
    async (how) => {
      await sendingBy('reserve', TOKEN, { address: server.at('reserve', '/micropub') });
      await sent(await pageCalled('Brings the file'));
      const title = `Unheard, and ${how}`;
      const id = await pageCalled(title);
      const ordered = v.parse(DeliverySchema, (await order(id)).body);
      await page(server.at('reserve', '/-/misbehave/unheard'));
      await workOne(server.context, [SEND]);
      await page(server.at('reserve', '/-/misbehave/well'));
      expect((await read(ordered.id)).state).toBe('handing');
      expect((await stateOf(ordered)).state).toBe('failed');
      if (how === 'goes on') {
        await server.ask(`/api/jobs/${ordered.jobId}/go-on`, { method: 'POST' });
        await workOne(server.context, [SEND]);
        expect(await read(ordered.id)).toMatchObject({ state: 'out', differences: [] });
      } else expect(await sent(id)).toMatchObject({ state: 'out', differences: [] });
      const listing = (await page(server.at('reserve', '/'))).html;
      expect(listing.match(new RegExp(`>${title}<`, 'g'))).toHaveLength(1);
    },
  );

  it('goes out by the hands of those alone whom House rules name, by whatever way', async () => {
    await sendingBy('reserve', TOKEN, { senders: 'site-owner' });
    const id = await pageCalled('By whom');
    const startAt = new Date(Date.now() + 3_600_000).toISOString();
    const asks: readonly (readonly [string, object])[] = [
      [`/api/pages/${id}/deliveries`, { method: 'POST', body: {} }],
      [`/api/pages/${id}/take-away`, { method: 'POST', body: {} }],
      [`/api/pages/${id}/fragment`, {}],
      [`/api/pages/${id}/plan`, { method: 'PUT', body: { startAt, endAt: null } }],
    ];
    for (const [path, asked] of asks)
      for (const as of ['mara', 'piet'] as const) {
        const answer = await server.ask(path, { as, ...asked });
        expect([path, answer.status, detailOf(answer)]).toEqual([
          path,
          403,
          expect.stringContaining('are sent by site owners alone'),
        ]);
      }
    const out = await order(id, 'sunniva');
    expect(out.status).toBe(202);
    await workOne(server.context, [SEND]);
    const delivery = v.parse(DeliverySchema, out.body);
    const down = `/api/deliveries/${delivery.id}/take-down`;
    expect((await server.ask(down, { method: 'POST', body: {} })).status).toBe(403);
    await sendingBy('reserve', TOKEN, { senders: 'rights-keeper' });
    expect((await server.ask(down, { as: 'mara', method: 'POST', body: {} })).status).toBe(403);
    expect((await server.ask(down, { as: 'piet', method: 'POST', body: {} })).status).toBe(200);
  });

  it('is kept in words where the token is not taken, and goes on with another', async () => {
    await sendingBy('reserve', 'of-somebody-else');
    const delivery = await sent(await pageCalled('Not let in'));
    expect(delivery.state).not.toBe('out');
    expect(delivery.words).toContain('does not take the token of the house');
    await sendingBy('reserve', TOKEN);
    await server.ask(`/api/jobs/${delivery.jobId}/go-on`, { method: 'POST' });
    await workOne(server.context, [SEND]);
    expect(await read(delivery.id)).toMatchObject({ state: 'out', words: '' });
  });

  it('is taken down, and sent again is there again', async () => {
    await sendingBy('reserve', TOKEN);
    const id = await pageCalled('Up and down');
    const delivery = await sent(id);
    const down = await server.ask(`/api/deliveries/${delivery.id}/take-down`, { method: 'POST' });
    expect(v.parse(DeliverySchema, down.body).state).toBe('down');
    expect((await page(delivery.address)).status).toBe(404);
    expect((await page((await sent(id)).address)).status).toBe(200);
  });
});

describe('what a site does to a page', () => {
  it('does not hide where its links lead: to nothing any more, or to what has moved', async () => {
    await sendingBy('reserve', TOKEN);
    const there = server.at('reserve', '/old/sitemap.xml');
    const gone = server.at('reserve', '/pages/never-was');
    const elsewhere = server.at('reserve', '/old/tide.htm');
    const id = await pageCalled('With links');
    const linked = (href: string, text: string) => ({
      type: 'text',
      text,
      marks: [{ type: 'link', attrs: { href } }],
    });
    const doc = {
      ...docOf('With links'),
      blocks: [
        {
          type: 'paragraph',
          attrs: { id: 'links' },
          content: [
            linked(there, 'the old pages'),
            { type: 'text', text: ' and ' },
            linked(gone, 'the new ones'),
            { type: 'text', text: ' and ' },
            linked(elsewhere, 'the tides'),
          ],
        },
      ],
    };
    const saved = await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 2 });
    expect(saved.status).toBe(200);
    const { differences } = await sent(id);
    expect(differences.map(({ sentence, why }) => [sentence, why])).toEqual([
      ['The link “the new ones” leads to nothing.', `There is nothing at ${gone}.`],
      [
        'What the link “the tides” leads to has moved.',
        `It is at ${server.at('reserve', '/old/tides.htm')} for good.`,
      ],
    ]);
  });

  it('is found by reading it back, and mended by writing it otherwise', async () => {
    await sendingBy('bulletin', 'saltmere-bulletin');
    const id = await pageCalled('In the bulletin');
    const delivery = await sent(id);
    expect(codesOf(delivery)).toEqual(['caption-lost', 'beside-lost', 'sizes-lost']);
    expect(delivery.differences[0]).toMatchObject({
      isLost: true,
      why: expect.stringContaining('Ines Okonjo'),
      spot: { kind: 'picture', sent: 0, found: 0 },
    });
    await sendingBy('bulletin', 'saltmere-bulletin', { captions: 'plain' });
    const mended = await sent(id);
    expect(codesOf(mended)).toEqual(['beside-lost', 'sizes-lost']);
    expect((await page(mended.address)).html).toContain('Ines Okonjo');
    await sendingBy('bulletin', 'saltmere-bulletin', { captions: 'plain', sides: 'picture' });
    expect(codesOf(await sent(id))).toEqual(['sizes-lost']);
  });

  it('is looked at beside what was sent, and runs nothing', async () => {
    const [row] = await server.context.db
      .select()
      .from(deliveries)
      .where(eq(deliveries.state, 'out'))
      .limit(1);
    if (!row) throw new Error('Nothing is out.');
    const hostile = `<!DOCTYPE html><html><head><meta http-equiv="refresh" content="0;url=//evil.example"><base href="//evil.example"></head><body onload="x()"><script>x()</script><h1>There</h1><img src="a.jpg" onerror="x()" data-block="mine"></body></html>`;
    await server.context.db.update(deliveries).set({ found: hostile }).where(eq(deliveries.id, row.id));
    const { frames } = await read(row.id);
    const shown = await fetch(frames.found ?? '');
    const html = await shown.text();
    expect(html).not.toMatch(/evil|x\(\)|"mine"/);
    expect(html).toContain('data-block="picture 0"');
    expect(html).toContain(`<base href="${row.address}">`);
    expect(shown.headers.get('content-security-policy')).toContain('sandbox allow-scripts');
    const sentFrame = await (await fetch(frames.sent ?? '')).text();
    expect(sentFrame).toContain('data-block="heading 0"');
    expect((await fetch((frames.sent ?? '').replace('/sent?', '/found?'))).status).toBe(404);
  });
});

describe('what was sent', () => {
  it('is looked at again after a day, and what was lost since waits on the Desk', async () => {
    await sendingBy('reserve', TOKEN);
    const id = await pageCalled('Lost later');
    const delivery = await sent(id);
    const errand = async () => {
      const { errands } = v.parse(DeskSchema, (await server.ask('/api/desk')).body);
      return errands.find((one) => one.id === `sent-${id}`);
    };
    expect(await errand()).toBeUndefined();
    await (await wayOf(server.context, 'reserve', await rulesNow(), new AbortController().signal)).takeDown(
      delivery.address ?? '',
    );
    const { db } = server.context;
    const yesterday = new Date(Date.now() - 25 * 60 * 60 * 1000);
    expect(await lookAgain(server.context, new Date())).toBe(0);
    const old = { at: yesterday, askedAt: yesterday };
    await db.update(deliveries).set(old).where(eq(deliveries.id, delivery.id));
    expect(await lookAgain(server.context, new Date())).toBe(1);
    expect(await errand()).toMatchObject({
      kind: 'sent',
      after: 'could not be read back.',
      address: `/pages/${id}/sent`,
    });
    // It was asked today: nobody asks again at the next hour.
    expect(await lookAgain(server.context, new Date())).toBe(0);
    expect(await sent(id)).toMatchObject({ state: 'out', differences: [] });
    expect(await errand()).toBeUndefined();
  });
});

describe('a page that is planned', () => {
  const plan = (id: string, body: object, as: Who = 'mara') =>
    server.ask(`/api/pages/${id}/plan`, { as, method: 'PUT', body });
  const planNow = async (id: string) =>
    v.parse(DeliveriesSchema, (await server.ask(`/api/pages/${id}/deliveries`)).body).plan;
  const soon = (minutes: number) => new Date(Date.now() + minutes * 60_000);

  it('goes out in time and is taken down in time, each once, however often that is looked at', async () => {
    await sendingBy('reserve', TOKEN);
    const id = await pageCalled('Open day');
    const body = { startAt: soon(60).toISOString(), endAt: soon(120).toISOString() };
    expect((await plan(id, body)).status).toBe(200);
    expect(await planNow(id)).toMatchObject({ state: 'waiting', words: '' });
    expect(await followPlans(server.context, soon(59))).toBe(0);
    await Promise.all([followPlans(server.context, soon(61)), followPlans(server.context, soon(61))]);
    while (await workOne(server.context, [SEND]));
    const { deliveries: sendings } = v.parse(
      DeliveriesSchema,
      (await server.ask(`/api/pages/${id}/deliveries`)).body,
    );
    expect(sendings.map(({ state }) => state)).toEqual(['out']);
    expect((await page(sendings[0]?.address ?? null)).status).toBe(200);
    expect(await followPlans(server.context, soon(119))).toBe(0);
    await followPlans(server.context, soon(121));
    expect(await planNow(id)).toMatchObject({ state: 'done' });
    expect((await page(sendings[0]?.address ?? null)).status).toBe(404);
    expect(await followPlans(server.context, soon(180))).toBe(0);
  });

  it('that something stops says so there and on the Desk, and is planned anew', async () => {
    await sendingBy('reserve', TOKEN);
    const id = await pageCalled('Late');
    await plan(id, { startAt: soon(60).toISOString(), endAt: null });
    await sendingBy('reserve', TOKEN, { by: 'none' });
    await followPlans(server.context, soon(61));
    expect(await planNow(id)).toMatchObject({
      state: 'failed',
      words: expect.stringContaining('how pages come'),
    });
    const { errands } = v.parse(DeskSchema, (await server.ask('/api/desk')).body);
    expect(errands.find((one) => one.id === `sent-${id}`)).toMatchObject({
      after: 'was not sent or taken down as planned.',
    });
    await plan(id, { startAt: soon(90).toISOString(), endAt: null });
    expect(await planNow(id)).toMatchObject({ state: 'waiting', words: '' });
    expect((await server.ask(`/api/pages/${id}/plan`, { method: 'DELETE' })).status).toBe(200);
    expect(await planNow(id)).toBeNull();
  });

  it('lies ahead, ends after it began, and is not for whoever only hands pieces in', async () => {
    const id = await pageCalled('Never');
    const told = async (startAt: Date | null, endAt: Date | null) =>
      detailOf(
        await plan(id, { startAt: startAt?.toISOString() ?? null, endAt: endAt?.toISOString() ?? null }),
      );
    expect(await told(soon(-1), null)).toMatch(/lies ahead/);
    expect(await told(soon(60), soon(30))).toMatch(/give a later moment/);
    expect(await told(null, null)).toMatch(/Say when it goes out/);
    expect((await plan(id, { startAt: soon(5).toISOString(), endAt: null }, 'joss')).status).toBe(403);
  });
});

describe('what was live', () => {
  it('is packed as it was then, with its terms of that day, and signed by the house', async () => {
    await sendingBy('reserve', TOKEN);
    const delivery = await sent(await pageCalled('In dispute'));
    const { version } = v.parse(AssetSchema, (await server.ask(`/api/assets/${assetId}`)).body);
    const change = { label: { creator: 'Somebody else' } };
    await server.ask(`/api/assets/${assetId}`, { method: 'PATCH', version, body: change });
    const ordered = await server.ask(`/api/deliveries/${delivery.id}/evidence`, { method: 'POST', body: {} });
    const { id } = v.parse(JobSchema, ordered.body);
    await workOne(server.context, [EVIDENCE]);
    expect(v.parse(JobSchema, (await server.ask(`/api/jobs/${id}`)).body)).toMatchObject({
      state: 'done',
      words: '7 files, signed',
    });
    const answer = await server.listen(`/api/jobs/${id}/file`);
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()));
    const text = (name: string) => Buffer.from(files[name] ?? []).toString('utf8');
    expect(text('page-as-sent.html')).toContain('alt="A heron in the reeds."');
    expect(text('page-as-found.html')).toContain('Saltmere Marsh Reserve');
    const [piece] = v.parse(
      v.array(
        v.object({ name: v.string(), sha256: v.string(), labelThen: v.object({ creator: v.string() }) }),
      ),
      JSON.parse(text('pieces.json')),
    );
    expect(piece?.labelThen.creator).toBe('Ines Okonjo');
    const { files: listed } = v.parse(
      v.object({ files: v.array(v.object({ name: v.string(), sha256: v.string() })) }),
      JSON.parse(text('manifest.json')),
    );
    for (const { name, sha256 } of listed)
      expect(
        createHash('sha256')
          .update(Buffer.from(files[name] ?? []))
          .digest('hex'),
      ).toBe(sha256);
    expect(listed.map(({ name }) => name)).toContain(`originals/${piece?.name}`);
    const key = createPublicKey(text('public-key.pem'));
    const manifest = Buffer.from(files['manifest.json'] ?? []);
    expect(verify(null, manifest, key, Buffer.from(files['manifest.sig'] ?? []))).toBe(true);
    expect(
      verify(
        null,
        Buffer.concat([manifest, Buffer.from(' ')]),
        key,
        Buffer.from(files['manifest.sig'] ?? []),
      ),
    ).toBe(false);
  });
});

describe('the token of a target', () => {
  it('is sealed, set by the site owner alone, and never answered', async () => {
    await sendingBy('reserve', TOKEN);
    for (const as of ['mara', 'piet', 'joss'] as const)
      expect(
        (await server.ask('/api/targets/reserve/token', { as, method: 'PUT', body: { token: 'x' } })).status,
      ).toBe(403);
    const [row] = await server.context.db.select().from(credentials);
    expect(row?.sealed).not.toContain(TOKEN);
    const answered = await server.ask('/api/targets/reserve/token');
    expect(v.parse(TokenSetSchema, answered.body).since).not.toBeNull();
    expect(JSON.stringify(answered.body)).not.toContain(TOKEN);
    const told = JSON.stringify([
      await server.context.db.select().from(audit),
      await server.context.db.select().from(jobs),
    ]);
    expect(told).not.toContain(TOKEN);
    expect(
      (
        await server.ask('/api/targets/reserve/token', {
          as: 'sunniva',
          method: 'PUT',
          body: { token: 'a b' },
        })
      ).status,
    ).toBe(422);
  });

  it('that was sealed by another secret, or for another place, opens nothing and is told to nobody', async () => {
    const page = await pageCalled('Moved house');
    await server.context.db.update(credentials).set({ sealed: Buffer.alloc(60).toString('base64') });
    expect(detailOf(await order(page))).toContain('has no token yet');
    await expect(tokenOf(server.context, 'reserve')).rejects.toThrow('Set it again in House rules');
    await sendingBy('reserve', TOKEN);
    expect(await tokenOf(server.context, 'reserve')).toBe(TOKEN);
    const { rules, version } = v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body);
    const elsewhere = {
      ...rules,
      sending: { ...rules.sending, address: server.at('bulletin', '/micropub') },
    };
    await server.ask('/api/targets/reserve', { as: 'sunniva', method: 'PUT', version, body: elsewhere });
    expect(detailOf(await order(page))).toContain('has no token yet');
    await expect(tokenOf(server.context, 'reserve')).rejects.toThrow('was set for another place');
  });
});
