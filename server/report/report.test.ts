import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { DeliverySchema } from '#api/deliveries.ts';
import { ReportSchema } from '#api/report.ts';
import { TargetSchema } from '#api/targets.ts';
import { NOT_SENT } from '#core/deliver/sending.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { reportDays } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { SEND } from '../sending/send.ts';
import { arrivedOf, heldHeron, startTestServer, type TestServer } from '../testing.ts';
import { keepReport } from './today.ts';

let server: TestServer;

beforeAll(async () => {
  server = await startTestServer('report', { outside: true });
});
afterAll(() => server.close());

const report = async () => {
  const answer = await server.ask('/api/report', { as: 'sunniva' });
  expect(answer.status).toBe(200);
  return v.parse(ReportSchema, answer.body);
};

async function pageWith(title: string, asset: string): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId: 'reserve', wants: [] },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  const doc = {
    ...emptyPage(title),
    blocks: [{ type: 'placement', attrs: newPlacement('one', asset, 'centred') }],
  };
  await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
  return id;
}

it('says how every page stands today, what is out and how heavy it is, and keeps that for the days to come', async () => {
  const heron = await heldHeron(server);
  const whole = await pageWith('Bitterns boom', heron);
  const pixels = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#a97' } })
    .png()
    .toBuffer();
  const { asset } = arrivedOf(await server.handIn(pixels, 'unsaid.png'));
  const broken = await pageWith('Nothing is said of it', asset.id);
  const before = await report();
  const named = (id: string, { pages } = before) => pages.find((page) => page.id === id);
  expect(named(whole)).toMatchObject({ stops: 0, rights: 0, isOut: false, bytes: null, targetId: 'reserve' });
  const unsaid = named(broken);
  expect(unsaid?.stops).toBeGreaterThan(0);
  expect([(unsaid?.words ?? 0) > 0, (unsaid?.rights ?? 0) > 0]).toEqual([true, true]);
  const [today] = before.days;
  expect(before.days).toHaveLength(1);
  expect(today).toMatchObject({ targetId: 'reserve', pages: before.pages.length, out: 0, sent: 0 });
  expect(today?.stops).toBe(before.pages.reduce((all, { stops }) => all + stops, 0));

  const { rules, version } = v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body);
  const body = {
    ...rules,
    sending: { ...NOT_SENT, by: 'micropub', address: server.at('reserve', '/micropub') },
  };
  await server.ask('/api/targets/reserve', { as: 'sunniva', method: 'PUT', version, body });
  const token = { token: 'saltmere-reserve-site' };
  await server.ask('/api/targets/reserve/token', { as: 'sunniva', method: 'PUT', body: token });
  const ordered = await server.ask(`/api/pages/${whole}/deliveries`, { method: 'POST', body: {} });
  await workOne(server.context, [SEND]);
  const { id } = v.parse(DeliverySchema, ordered.body);
  const out = v.parse(DeliverySchema, (await server.ask(`/api/deliveries/${id}`)).body);
  const after = await report();
  expect(named(whole, after)).toMatchObject({ isOut: true, lost: 0, bytes: out.foundBytes });
  expect(out.foundBytes).toBeGreaterThan(1000);
  expect(after.days).toMatchObject([{ out: 1, sent: 1, bytes: out.foundBytes }]);

  // Another day is another row; the same day only one, however often it is kept.
  const tomorrow = new Date(Date.now() + 24 * 60 * 60 * 1000);
  await keepReport(server.context, tomorrow);
  await keepReport(server.context, tomorrow);
  const rows = await server.context.db.select().from(reportDays).where(eq(reportDays.targetId, 'reserve'));
  expect(rows.map(({ sent }) => sent).sort()).toEqual([0, 1]);
});

it('is for the site owner alone', async () => {
  for (const as of ['mara', 'piet'] as const)
    expect((await server.ask('/api/report', { as })).status).toBe(403);
});
