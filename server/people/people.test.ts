import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { OPERATIONS } from '#api/operations.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { detailOf, PASSWORD, startTestServer, type TestServer, type Who } from '../testing.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('people');
});
afterAll(() => server.close());

const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${server.origin}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...headers },
    body: JSON.stringify(body),
  });

describe('signing in', () => {
  it('gives a cookie that scripts cannot read and other sites cannot send', async () => {
    const response = await post('/api/session', { email: 'mara@saltmere.example', password: PASSWORD });
    expect(response.status).toBe(200);
    expect(response.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Strict/i);
  });

  it('says the same of a wrong password and of nobody', async () => {
    const wrong = await (
      await post('/api/session', { email: 'mara@saltmere.example', password: 'guess' })
    ).json();
    const nobody = await (
      await post('/api/session', { email: 'nobody@saltmere.example', password: 'guess' })
    ).json();
    expect(wrong).toEqual(nobody);
    expect(wrong.status).toBe(401);
  });

  it('ends with signing out', async () => {
    expect((await server.ask('/api/me', { as: 'piet' })).status).toBe(200);
    await server.ask('/api/session', { as: 'piet', method: 'DELETE' });
    expect((await server.ask('/api/me', { as: 'piet' })).status).toBe(401);
  });

  it('is refused to a page of another site', async () => {
    const response = await post(
      '/api/session',
      { email: 'mara@saltmere.example', password: PASSWORD },
      { origin: 'http://evil.example' },
    );
    expect(response.status).toBe(403);
  });
});

describe('roles', () => {
  const deeds: readonly [string, string, unknown, readonly Who[]][] = [
    ['POST', '/api/pages', { title: 'x', targetId: 'reserve', wants: [] }, ['mara', 'sunniva']],
    ['POST', '/api/pages/none/take-away', {}, ['mara', 'sunniva']],
    ['GET', '/api/pages/none/fragment', undefined, ['mara', 'sunniva']],
    ['PUT', '/api/targets/reserve', PLAIN_RULES, ['sunniva']],
  ];
  it.each(deeds)('%s %s', async (method, path, body, allowed) => {
    for (const as of ['mara', 'sunniva', 'joss'] as const) {
      const answer = await server.ask(path, { as, method, body, version: 1 });
      expect(answer.status === 403, `${as}: ${answer.status}`).toBe(!allowed.includes(as));
    }
  });

  it('a contributor calling the API directly to send is refused in a sentence', async () => {
    const answer = await server.ask('/api/pages/none/take-away', { as: 'joss', method: 'POST', body: {} });
    expect(detailOf(answer)).toBe(
      'Your role does not let you take pages away or send them. Nothing was changed. Ask the site owner.',
    );
  });
});

describe('every operation', () => {
  const open = new Set([
    'post /session',
    'delete /session',
    'post /clips',
    'get /beginning',
    'get /demo-people',
    'post /beginning',
  ]);
  it.each(Object.keys(OPERATIONS).filter((key) => !open.has(key)))('%s asks who is there', async (key) => {
    const [method = '', path = ''] = key.split(' ');
    const response = await fetch(`${server.origin}/api${path.replace(/\{\w+\}/g, 'none')}`, {
      method: method.toUpperCase(),
    });
    expect(response.status).toBe(401);
  });

  // Signing out and changing passwords would end the sign-in that the others are asked with.
  const ends = new Set(['delete /session', 'put /me/password']);
  it.each(Object.keys(OPERATIONS).filter((key) => !ends.has(key)))('%s has a route', async (key) => {
    const [method = '', path = ''] = key.split(' ');
    const answer = await server.ask(`/api${path.replace(/\{\w+\}/g, 'none')}`, {
      as: 'sunniva',
      method: method.toUpperCase(),
      ...(method === 'get' ? {} : { body: {} }),
    });
    expect(JSON.stringify(answer.body)).not.toContain('This address is not here');
  });

  it('is described in OpenAPI', async () => {
    const described = await (await fetch(`${server.origin}/api/openapi.json`)).json();
    expect(Object.keys(described.paths)).toHaveLength(
      new Set(Object.keys(OPERATIONS).map((key) => key.split(' ')[1])).size,
    );
    expect(
      described.paths['/api/pages/{id}'].put.requestBody.content['application/json'].schema.properties.doc,
    ).toBeDefined();
  });

  it('an address that is nothing is a problem document', async () => {
    const answer = await server.ask('/api/nothing', { as: 'mara' });
    expect(answer.status).toBe(404);
    expect(detailOf(answer)).toContain('not here');
  });
});

// Last, since nobody can sign in from here afterwards.
describe('guessing', () => {
  it('is slowed down after many wrong tries', async () => {
    let last = 0;
    for (let tries = 0; tries < 105; tries += 1)
      last = (await post('/api/session', { email: `x${tries % 8}@saltmere.example`, password: 'guess' }))
        .status;
    expect(last).toBe(429);
  });
});
