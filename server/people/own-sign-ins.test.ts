import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { AuditListSchema } from '#api/audit.ts';
import { MadePasswordSchema, OwnSessionsSchema } from '#api/people.ts';
import { audit } from '../db/schema.ts';
import { PASSWORD, startTestServer, type TestServer } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('own_sign_ins');
});
afterAll(() => server.close());

const signIn = (email: string, password: string) =>
  fetch(`${server.origin}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
const owner = (path: string, method = 'GET', body?: unknown) =>
  server.ask(path, { as: 'sunniva', method, ...(body === undefined ? {} : { body }) });
const cookieOf = (response: Response) => response.headers.get('set-cookie')?.split(';')[0] ?? '';

/** Signs in as somebody, and asks as them. */
async function as(email: string, password = PASSWORD) {
  const answer = await signIn(email, password);
  await answer.text();
  const cookie = cookieOf(answer);
  return (path: string, method = 'GET', body?: unknown) =>
    fetch(`${server.origin}/api${path}`, {
      method,
      headers: { cookie, ...(body ? { 'content-type': 'application/json' } : {}) },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
}

describe('a password that was handed over', () => {
  it('opens nothing until one’s own is taken', async () => {
    const wish = { name: 'Orla Finch', email: 'orla@saltmere.example', role: 'editor' };
    const { password } = v.parse(MadePasswordSchema, (await owner('/api/people', 'POST', wish)).body);
    const orla = await as(wish.email, password);
    expect(await (await orla('/me')).json()).toMatchObject({ mustChange: true });
    const refused = await orla('/assets');
    expect(refused.status).toBe(403);
    expect((await refused.json()).detail).toContain('Take one of your own first');
    const change = (next: string) => orla('/me/password', 'PUT', { now: password, next });
    expect((await change(password)).status).toBe(422);
    const taken = await change('curlew over mudflats');
    expect(taken.status).toBe(204);
    const cookie = cookieOf(taken);
    expect((await fetch(`${server.origin}/api/assets`, { headers: { cookie } })).status).toBe(200);
  });

  it.each([
    'password1234',
    'Password-2026!',
    'qwertyuiop12',
    'aaaaaaaaaaaaaa',
    '123456789012',
    'abcabcabcabc',
    'letmein letmein',
    'mara@saltmere.example',
    'Mara-Saltmere-1',
    'placardplacard',
  ])('is never %s, which is among the first that are guessed', async (next) => {
    const mara = await as('mara@saltmere.example');
    const answer = await mara('/me/password', 'PUT', { now: PASSWORD, next });
    expect([next, answer.status]).toEqual([next, 422]);
  });
});

describe('one’s own sign-ins', () => {
  it('are listed and ended, and nobody else’s', async () => {
    const [here, there] = [await as('piet@saltmere.example'), await as('piet@saltmere.example')];
    const list = async () => v.parse(OwnSessionsSchema, await (await here('/me/sessions')).json());
    const before = await list();
    expect(before.filter(({ isThis }) => isThis)).toHaveLength(1);
    const others = before.filter(({ isThis }) => !isThis);
    expect(others.length).toBeGreaterThan(0);
    const path = (key = '') => `/me/sessions/${key}`;
    expect((await (await as('mara@saltmere.example'))(path(others[0]?.key), 'DELETE')).status).toBe(404);
    for (const { key } of others) expect((await here(path(key), 'DELETE')).status).toBe(204);
    expect((await there('/me')).status).toBe(401);
    expect(await list()).toHaveLength(1);
  });

  it('end with leaving for good: neither they nor a clipper come back with the person', async () => {
    const piet = await as('piet@saltmere.example');
    const made = await (await piet('/clippers', 'POST', {})).json();
    const code = decodeURI(v.parse(v.object({ code: v.string() }), made).code);
    const token = /t:"([^"]+)"/.exec(code)?.[1] ?? '';
    const clip = () =>
      fetch(`${server.origin}/api/clips`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ token, address: 'https://saltmere.example/reeds', selection: '' }),
      });
    const handed = await clip();
    expect(handed.status).toBe(201);
    // The very same once more is one.
    expect(await (await clip()).json()).toEqual(await handed.json());
    await owner('/api/people/piet', 'PATCH', { left: true });
    await owner('/api/people/piet', 'PATCH', { left: false });
    expect((await piet('/me')).status).toBe(401);
    expect((await clip()).status).toBe(403);
  });

  it('of a clipper are five for each person: the oldest gives way', async () => {
    const mara = await as('mara@saltmere.example');
    for (let count = 0; count < 7; count += 1) await mara('/clippers', 'POST', {});
    expect(await (await mara('/clippers')).json()).toHaveLength(5);
  });
});

describe('guessing at one account', () => {
  it('is slowed down from however many places it comes', async () => {
    const { db } = server.context;
    const now = new Date();
    const rows = Array.from({ length: 30 }, (_, at) => ({
      at: now,
      who: 'Placard',
      what: 'sign-in-refused',
      subject: 'joss@saltmere.example',
      address: `192.0.2.${at}`,
    }));
    await db.insert(audit).values(rows);
    const answer = await signIn('joss@saltmere.example', PASSWORD);
    expect(answer.status).toBe(429);
    expect(answer.headers.get('retry-after')).toBe('900');
    expect((await signIn('mara@saltmere.example', PASSWORD)).status).toBe(200);
    await db.delete(audit).where(eq(audit.subject, 'joss@saltmere.example'));
  });
});

describe('the log', () => {
  const lines = async (query: string) =>
    v.parse(AuditListSchema, (await owner(`/api/audit?${query}`)).body).lines;

  it('holds sign-ins, refused ones too, roles and passwords, for the site owner alone', async () => {
    await signIn('mara@saltmere.example', 'not this one');
    expect((await lines('what=sign-in-refused&words=mara'))[0]).toMatchObject({
      subject: 'mara@saltmere.example',
      address: expect.stringContaining('127.0.0.1'),
    });
    await owner('/api/people/piet', 'PATCH', { role: 'editor' });
    expect((await lines('what=person'))[0]).toMatchObject({
      who: 'sunniva',
      detail: 'from Rights keeper to Editor',
    });
    expect((await server.ask('/api/audit', { as: 'mara' })).status).toBe(403);
    expect((await owner('/api/audit?what=everything')).status).toBe(422);
    expect(await lines('to=2020-01-01')).toEqual([]);
  });

  it('is taken away as CSV that no spreadsheet runs, which is written down too', async () => {
    await signIn('=cmd@saltmere.example', 'x');
    const answer = await owner('/api/audit.csv?what=sign-in-refused');
    expect(answer.headers.get('content-type')).toContain('text/csv');
    expect(String(answer.body)).toContain('was not let in');
    expect(String(answer.body)).not.toMatch(/(^|,)=/m);
    expect((await lines('what=audit-taken'))[0]?.who).toBe('sunniva');
  });
});
