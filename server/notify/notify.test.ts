import { createHash, createHmac } from 'node:crypto';
import { eq, like } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HookSecretSchema, type OwnMessages, OwnMessagesSchema } from '#api/notify.ts';
import { TOLD_NOTHING } from '#core/notify/choices.ts';
import { jobs, messageChoices, messages, people } from '../db/schema.ts';
import { detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { keyIdOf } from './hook.ts';
import { lookForNews, tellDue } from './tell.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('notify', { outside: true });
});
afterAll(() => server.close());

const HOUR_MILLIS = 3_600_000;
const later = (hours: number) => new Date(Date.now() + hours * HOUR_MILLIS);

const MailsSchema = v.array(
  v.object({ to: v.array(v.string()), subject: v.string(), messageId: v.string(), text: v.string() }),
);
const HeardSchema = v.array(v.object({ headers: v.record(v.string(), v.string()), body: v.string() }));

const LIMITS = { bytes: 1_000_000, millis: 10_000 };
const outsideJson = async (host: string, path: string): Promise<unknown> => {
  const { bytes } = await server.context.outbound.read(server.at(host, path), { limits: LIMITS });
  return JSON.parse(bytes.toString('utf8'));
};
const mailsTo = async (who: Who) =>
  v
    .parse(MailsSchema, await outsideJson('post', '/mails.json'))
    .filter(({ to }) => to.includes(`${who}@saltmere.example`));
const heard = async () => v.parse(HeardSchema, await outsideJson('bell', '/heard.json'));
const mood = (host: string, name: string) =>
  server.context.outbound.probe(server.at(host, `/-/misbehave/${name}`), { limits: LIMITS });

async function choose(
  who: Who,
  {
    mail = {},
    hook = {},
  }: { mail?: Partial<OwnMessages['choices']['mail']>; hook?: Partial<OwnMessages['choices']['hook']> },
): Promise<OwnMessages> {
  const body = { mail: { ...TOLD_NOTHING.mail, ...mail }, hook: { ...TOLD_NOTHING.hook, ...hook } };
  const answer = await server.ask('/api/me/messages', { as: who, method: 'PUT', body });
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
  return v.parse(OwnMessagesSchema, answer.body);
}

const own = async (who: Who) =>
  v.parse(OwnMessagesSchema, (await server.ask('/api/me/messages', { as: who })).body);

async function tell(now: Date): Promise<void> {
  await lookForNews(server.context, now);
  await tellDue(server.context, now);
}

/** Work of a person's that came to nothing. */
async function fail(who: Who, title: string): Promise<string> {
  const id = crypto.randomUUID();
  const at = new Date();
  await server.context.db.insert(jobs).values({
    id,
    kind: 'gather',
    title,
    input: {},
    state: 'failed',
    words: 'The line was cut.',
    createdBy: who,
    createdAt: at,
  });
  return id;
}

async function pageWithoutPicture(title: string): Promise<string> {
  const want = { id: 'w', purpose: 'The warden', shape: 'portrait', leastWidth: 800, filledBy: null };
  const body = { title, targetId: 'reserve', wants: [want] };
  const made = await server.ask('/api/pages', { method: 'POST', body });
  return v.parse(v.object({ id: v.string() }), made.body).id;
}

describe('what a person is told by e-mail', () => {
  it('is nothing that they did not ask for', async () => {
    await fail('mara', 'Before anybody asked');
    await tell(new Date());
    expect(await mailsTo('mara')).toEqual([]);
    expect(await own('mara')).toMatchObject({ choices: TOLD_NOTHING, canMail: true, recent: [] });
  });

  it('is what came since they asked, once, in one mail', async () => {
    await choose('mara', { mail: { matters: ['failure'] } });
    await tell(new Date());
    expect(await mailsTo('mara')).toEqual([]);
    await fail('mara', 'Gathering five pictures');
    await fail('mara', 'Gathering one picture');
    await tell(new Date());
    await tell(later(1));
    const mails = await mailsTo('mara');
    expect(mails).toHaveLength(1);
    expect(mails[0]?.subject).toBe('2 things wait for you');
    expect(mails[0]?.text).toMatch(/“Gathering five pictures” failed\.\s+The line was cut\./);
    expect(mails[0]?.text).toContain(`${server.origin}/gather`);
    expect((await own('mara')).recent.map(({ state }) => state)).toEqual(['sent', 'sent']);
  });

  it('is an errand that was given to them, with the note, and to nobody else', async () => {
    const pageId = await pageWithoutPicture('Terns — the “little” ones');
    await choose('piet', { mail: { matters: ['given'] } });
    await choose('sunniva', { mail: { matters: ['given'] } });
    await server.ask(`/api/desk/errands/want-${pageId}`, {
      method: 'PUT',
      body: { to: 'piet', note: 'Before Friday.' },
    });
    await tell(new Date());
    const [mail] = await mailsTo('piet');
    expect(mail?.subject).toBe('mara gives you an errand: “Terns — the “little” ones” still wants a…');
    expect(mail?.text).toContain('mara writes: “Before Friday.”');
    expect(await mailsTo('sunniva')).toEqual([]);
  });

  it('is what waits on the Desk only once it has stayed, and not when it is done by then', async () => {
    await choose('sunniva', { mail: { matters: ['errand'] } });
    const [goes, stays] = [await pageWithoutPicture('Goes'), await pageWithoutPicture('Stays')];
    await tell(new Date());
    expect(await mailsTo('sunniva')).toEqual([]);
    const page = await server.ask(`/api/pages/${goes}`);
    const { version, doc } = v.parse(
      v.looseObject({ version: v.number(), doc: v.looseObject({}) }),
      page.body,
    );
    await server.ask(`/api/pages/${goes}`, { method: 'PUT', version, body: { doc: { ...doc, wants: [] } } });
    await tell(later(1));
    const mails = await mailsTo('sunniva');
    expect(mails).toHaveLength(1);
    expect(mails[0]?.text).toContain('“Stays”');
    expect(mails[0]?.text).not.toContain('“Goes” still wants');
    expect(stays).not.toBe(goes);
  });

  it('waits for the morning where they chose so', async () => {
    await choose('joss', { mail: { matters: ['failure'], when: 'morning', zone: 'Asia/Tokyo' } });
    await fail('joss', 'Handing in');
    await tell(new Date());
    expect(await mailsTo('joss')).toEqual([]);
    const [{ at } = { at: '' }] = (await own('joss')).recent;
    expect(new Date(at).toISOString()).toMatch(/T22:00:00/);
    await tell(new Date(at));
    expect(await mailsTo('joss')).toHaveLength(1);
  });

  it('is tried again where the mail host is busy, and not where it takes no mail for them', async () => {
    await mood('post', 'busy');
    await choose('joss', { mail: { matters: ['failure'] } });
    await fail('joss', 'While it is busy');
    await tell(new Date());
    const waiting = (await own('joss')).recent.find(({ state }) => state === 'waiting');
    expect(waiting?.words).toBe('The mail host did not take it. It says: “451 Come back later”');
    await mood('post', 'well');
    await tell(later(1));
    expect((await mailsTo('joss'))[0]?.subject).toBe('“While it is busy” failed.');

    await mood('post', 'forbidden');
    await fail('joss', 'To nobody');
    await tell(later(2));
    await mood('post', 'well');
    expect((await own('joss')).recent).toContainEqual(
      expect.objectContaining({
        state: 'failed',
        words: expect.stringContaining('takes no mail for joss@saltmere.example'),
      }),
    );
  });

  it('is known again by its ID where a process was killed before it was written down', async () => {
    const before = (await mailsTo('joss')).length;
    await fail('joss', 'Twice told');
    await tell(later(2.5));
    const unsent = { state: 'waiting', leaseUntil: new Date(0) };
    await server.context.db.update(messages).set(unsent).where(like(messages.notification, '%Twice told%'));
    await fail('joss', 'Come meanwhile');
    await tell(later(2.6));
    const all = await mailsTo('joss');
    const twice = all.slice(0, all.length - before).filter(({ text }) => text.includes('Twice told'));
    expect(twice).toHaveLength(2);
    expect(new Set(twice.map(({ messageId }) => messageId)).size).toBe(1);
    expect(twice.some(({ text }) => text.includes('Come meanwhile'))).toBe(false);
  });

  it('is told by one of two processes that come to it at once', async () => {
    const before = (await mailsTo('joss')).length;
    await fail('joss', 'For one of two');
    const now = later(3);
    await Promise.all([lookForNews(server.context, now), lookForNews(server.context, now)]);
    await Promise.all([tellDue(server.context, now), tellDue(server.context, now)]);
    expect((await mailsTo('joss')).length).toBe(before + 1);
  });

  it('is not told to somebody who left', async () => {
    const before = (await mailsTo('joss')).length;
    await fail('joss', 'After leaving');
    await lookForNews(server.context, new Date());
    await server.context.db.update(people).set({ leftAt: new Date() }).where(eq(people.id, 'joss'));
    await tellDue(server.context, new Date());
    expect((await mailsTo('joss')).length).toBe(before);
    await server.context.db.update(people).set({ leftAt: null }).where(eq(people.id, 'joss'));
  });
});

describe('what a web hook is told', () => {
  const hook = () => ({ address: server.at('bell', '/hook'), matters: ['failure' as const] });

  it('is signed, so that whoever listens can tell that it is from here', async () => {
    const made = await server.ask('/api/me/messages/secret', { as: 'piet', method: 'POST', body: {} });
    const { secret } = v.parse(HookSecretSchema, made.body);
    await choose('piet', { hook: hook() });
    const id = await fail('piet', 'Packing evidence');
    await tell(new Date());
    const [rung] = await heard();
    const { headers, body } = rung ?? { headers: {}, body: '' };
    const { id: messageId, ...told } = v.parse(v.looseObject({ id: v.string() }), JSON.parse(body));
    expect(told).toMatchObject({
      version: 1,
      matter: 'failure',
      sentence: '“Packing evidence” failed.',
      detail: 'The line was cut.',
      address: `${server.origin}/gather`,
    });
    expect(id).not.toBe(messageId);

    // As whoever listens does it, from the text of the standard alone (RFC 9421, 3.2).
    const [, params = ''] = /^placard=(.*)$/.exec(headers['signature-input'] ?? '') ?? [];
    const [, signature = ''] = /^placard=:(.*):$/.exec(headers.signature ?? '') ?? [];
    const digest = `sha-256=:${createHash('sha256').update(body).digest('base64')}:`;
    expect(headers['content-digest']).toBe(digest);
    expect(params).toMatch(
      /^\("@method" "@target-uri" "content-digest" "content-type"\);created=\d+;keyid="/,
    );
    expect(params).toContain(`keyid="${keyIdOf(secret)}"`);
    const base = [
      '"@method": POST',
      `"@target-uri": ${server.at('bell', '/hook')}`,
      `"content-digest": ${digest}`,
      '"content-type": application/json',
      `"@signature-params": ${params}`,
    ].join('\n');
    expect(createHmac('sha256', Buffer.from(secret, 'base64')).update(base).digest('base64')).toBe(signature);
  });

  it('has a secret that is shown once, is kept sealed, and is another when it is made anew', async () => {
    const make = async () =>
      v.parse(
        HookSecretSchema,
        (await server.ask('/api/me/messages/secret', { as: 'piet', method: 'POST', body: {} })).body,
      ).secret;
    const [one, other] = [await make(), await make()];
    expect(other).not.toBe(one);
    const [row] = await server.context.db
      .select()
      .from(messageChoices)
      .where(eq(messageChoices.personId, 'piet'));
    expect(JSON.stringify(row)).not.toContain(other);
    expect(JSON.stringify((await server.ask('/api/me/messages', { as: 'piet' })).body)).not.toContain(other);
    expect((await own('piet')).choices.hook).toEqual(hook());
  });

  it('is tried again in order, and nothing is told twice', async () => {
    await mood('bell', 'broken');
    const before = (await heard().catch(() => [])).length;
    await fail('piet', 'First');
    await fail('piet', 'Second');
    await tell(new Date());
    expect((await own('piet')).recent.filter(({ state }) => state === 'waiting')).toHaveLength(2);
    await mood('bell', 'well');
    await tell(later(1));
    await tell(later(2));
    const all = (await heard()).slice(0, (await heard()).length - before);
    expect(all.filter(({ body }) => body.includes('First') || body.includes('Second'))).toHaveLength(2);
  });

  it.each([
    ['http://127.0.0.1:1/', 'is not a public place on the web'],
    ['http://10.0.0.7/hook', 'is not a public place on the web'],
    ['http://[::1]/', 'is not a public place on the web'],
  ])('never goes to %s', async (address, words) => {
    await choose('piet', { hook: { address, matters: ['failure'] } });
    const answer = await server.ask('/api/me/messages/trial', {
      as: 'piet',
      method: 'POST',
      body: { way: 'hook' },
    });
    expect(answer.status).toBe(409);
    expect(detailOf(answer)).toContain(words);
  });

  it('is tried at once by whoever asks, who hears what stands in the way', async () => {
    const trial = (way: string, as: Who = 'piet') =>
      server.ask('/api/me/messages/trial', { as, method: 'POST', body: { way } });
    await choose('piet', { hook: { address: server.at('bell', '/nowhere'), matters: ['failure'] } });
    expect(detailOf(await trial('hook'))).toBe('bell.localhost answered 404 to the web hook.');
    await choose('piet', {
      hook: { address: server.at('bell', '/hook?misbehave=loop'), matters: ['failure'] },
    });
    expect(detailOf(await trial('hook'))).toContain('sends web hooks on to another address');
    await choose('piet', { hook: hook() });
    expect((await trial('hook')).status).toBe(204);
    expect((await trial('mail')).status).toBe(204);
    expect(detailOf(await trial('hook', 'sunniva'))).toContain('No address for web hooks');
  });
});

it('what waits is dropped where it was not asked for by the time it is due', async () => {
  await choose('mara', { mail: { matters: ['failure'], when: 'morning' } });
  await fail('mara', 'Not to be told');
  await lookForNews(server.context, new Date());
  expect((await own('mara')).recent.some(({ state }) => state === 'waiting')).toBe(true);
  await choose('mara', {});
  expect((await own('mara')).recent.some(({ state }) => state === 'waiting')).toBe(false);
});
