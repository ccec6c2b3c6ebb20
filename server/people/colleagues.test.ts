import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ColleagueSchema, MadePasswordSchema } from '#api/people.ts';
import { TargetSchema } from '#api/targets.ts';
import { pages, people, settings, targets } from '../db/schema.ts';
import { detailOf, PASSWORD, startTestServer, type TestServer } from '../testing.ts';
import { beginningCode } from './beginning.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('colleagues');
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

describe('people', () => {
  const wish = { name: 'Ines Okonjo', email: 'Ines@Saltmere.example', role: 'contributor' };

  it('are added with a password that is shown once and signs in', async () => {
    const answer = await owner('/api/people', 'POST', wish);
    const { person, password } = v.parse(MadePasswordSchema, answer.body);
    expect(person).toMatchObject({ email: 'ines@saltmere.example', role: 'contributor', left: false });
    expect(password).toMatch(/^([a-z2-9]{4}-){3}[a-z2-9]{4}$/);
    expect((await signIn('INES@saltmere.example', password)).status).toBe(200);
    const again = await owner('/api/people', 'POST', { ...wish, name: 'Another' });
    expect(again.status).toBe(409);
    expect(detailOf(again)).toContain('Nobody was added');
    const listed = v.parse(v.array(ColleagueSchema), (await owner('/api/people')).body);
    expect(listed.filter(({ email }) => email === person.email)).toHaveLength(1);
  });

  it.each([
    [{ ...wish, email: 'nobody' }, 'has an @ in it'],
    [{ ...wish, name: '  ' }, 'Say the name'],
    [{ ...wish, role: 'king' }, ''],
  ])('%j are refused', async (body, sentence) => {
    const answer = await owner('/api/people', 'POST', body);
    expect(answer.status).toBe(422);
    expect(detailOf(answer)).toContain(sentence);
  });

  it('are settled by the site owner alone', async () => {
    for (const as of ['mara', 'piet', 'joss'] as const) {
      expect((await server.ask('/api/people', { as })).status).toBe(403);
      expect((await server.ask('/api/people', { as, method: 'POST', body: wish })).status).toBe(403);
    }
  });

  it('who leave are out at once, and in again when they come back', async () => {
    expect((await server.ask('/api/me', { as: 'piet' })).status).toBe(200);
    expect((await owner('/api/people/piet', 'PATCH', { left: true })).status).toBe(200);
    expect((await server.ask('/api/me', { as: 'piet' })).status).toBe(401);
    expect((await signIn('piet@saltmere.example', PASSWORD)).status).toBe(401);
    await owner('/api/people/piet', 'PATCH', { left: false });
    expect((await signIn('piet@saltmere.example', PASSWORD)).status).toBe(200);
  });

  it('keep a site owner, whoever leaves or changes', async () => {
    for (const change of [{ role: 'editor' }, { left: true }]) {
      const answer = await owner('/api/people/sunniva', 'PATCH', change);
      expect(answer.status).toBe(409);
      expect(detailOf(answer)).toContain('the only site owner');
    }
    await owner('/api/people/mara', 'PATCH', { role: 'site-owner' });
    expect((await owner('/api/people/sunniva', 'PATCH', { role: 'site-owner' })).status).toBe(200);
    await owner('/api/people/mara', 'PATCH', { role: 'editor' });
  });

  it('who forgot their password get another, which ends their sign-ins', async () => {
    expect((await server.ask('/api/me', { as: 'joss' })).status).toBe(200);
    const { password } = v.parse(MadePasswordSchema, (await owner('/api/people/joss/password', 'POST')).body);
    expect((await server.ask('/api/me', { as: 'joss' })).status).toBe(401);
    expect((await signIn('joss@saltmere.example', PASSWORD)).status).toBe(401);
    expect((await signIn('joss@saltmere.example', password)).status).toBe(200);
  });
});

describe('one’s own password', () => {
  const change = (cookie: string, body: unknown) =>
    fetch(`${server.origin}/api/me/password`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    });
  const me = (cookie: string) => fetch(`${server.origin}/api/me`, { headers: { cookie } });
  const cookieOf = (response: Response) => response.headers.get('set-cookie')?.split(';')[0] ?? '';

  it('is changed on the one that is right, and every other sign-in ends', async () => {
    const [here, elsewhere] = [
      cookieOf(await signIn('mara@saltmere.example', PASSWORD)),
      cookieOf(await signIn('mara@saltmere.example', PASSWORD)),
    ];
    const wrong = await change(here, { now: 'guess', next: 'wind over the reeds' });
    expect(wrong.status).toBe(422);
    const short = await change(here, { now: PASSWORD, next: 'reeds' });
    expect((await short.json()).detail).toContain('at least 12 letters');
    const right = await change(here, { now: PASSWORD, next: 'wind over the reeds' });
    expect(right.status).toBe(204);
    expect((await me(cookieOf(right))).status).toBe(200);
    expect((await me(elsewhere)).status).toBe(401);
    expect((await me(here)).status).toBe(401);
    expect((await signIn('mara@saltmere.example', 'wind over the reeds')).status).toBe(200);
  });
});

describe('targets', () => {
  it('are made like another one, and removed while no page is for them', async () => {
    const wish = { name: 'Hide screens', siteAddress: '', commercial: false };
    const made = await owner('/api/targets', 'POST', { ...wish, like: 'reserve' });
    expect(v.parse(TargetSchema, made.body)).toMatchObject({
      id: 'hide-screens',
      rules: { name: 'Hide screens', severities: { 'alt-missing': 'stops' } },
    });
    const again = v.parse(TargetSchema, (await owner('/api/targets', 'POST', wish)).body);
    expect(again.id).toBe('hide-screens-2');
    expect((await owner('/api/targets', 'POST', { ...wish, like: 'nothing' })).status).toBe(404);
    expect((await owner('/api/targets/hide-screens-2', 'DELETE')).status).toBe(204);
    const back = await owner('/api/targets/hide-screens-2/back', 'POST');
    expect(v.parse(TargetSchema, back.body)).toEqual({ ...again, version: again.version + 1 });
    expect((await owner('/api/targets/hide-screens-2/back', 'POST')).status).toBe(404);
    expect((await owner('/api/targets/hide-screens-2', 'DELETE')).status).toBe(204);
    const page = { title: 'For the hide', targetId: 'hide-screens', wants: [], due: null };
    expect((await owner('/api/pages', 'POST', page)).status).toBe(201);
    const used = await owner('/api/targets/hide-screens', 'DELETE');
    expect(used.status).toBe(409);
    expect(detailOf(used)).toContain('Pages are made for this target');
  });
});

// Last, since it empties the house.
describe('an empty house', () => {
  const wish = {
    name: 'Sunniva Brandt',
    email: 'sunniva@reserve.example',
    password: 'reeds and water',
    target: { name: 'Reserve site', siteAddress: 'https://reserve.example', commercial: true },
  };
  const begin = (body: unknown) =>
    fetch(`${server.origin}/api/beginning`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const isOpen = async () => (await (await fetch(`${server.origin}/api/beginning`)).json()).isOpen;

  it('is begun once, by whoever has the code, with its first target', async () => {
    expect(await isOpen()).toBe(false);
    expect((await begin({ ...wish, code: 'x' })).status).toBe(409);
    await server.context.db.delete(people);
    await server.context.db.delete(pages);
    await server.context.db.delete(targets);
    expect(await isOpen()).toBe(true);
    const code = await beginningCode(server.context);
    expect(code).toBe(await beginningCode(server.context));
    const guessed = await begin({ ...wish, code: 'guess' });
    expect(guessed.status).toBe(403);
    expect(await isOpen()).toBe(true);
    const both = await Promise.all([
      begin({ ...wish, code }),
      begin({ ...wish, code, email: 'b@reserve.example' }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    expect(await server.context.db.select().from(people)).toHaveLength(1);
    const [target] = await server.context.db.select().from(targets);
    expect(target).toMatchObject({ id: 'reserve-site', rules: { name: 'Reserve site', commercial: true } });
    expect(await isOpen()).toBe(false);
    expect(await beginningCode(server.context)).toBeNull();
    const kept = await server.context.db.select().from(settings);
    expect(kept.map(({ name }) => name)).not.toContain('beginning');
  });
});
