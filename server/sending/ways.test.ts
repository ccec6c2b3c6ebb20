import { fork } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm, symlink, writeFile } from 'node:fs/promises';
import { get, type IncomingHttpHeaders } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { and, eq } from 'drizzle-orm';
import sharp from 'sharp';
import * as v from 'valibot';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Delivery, DeliverySchema, SentCodeSchema } from '#api/deliveries.ts';
import { TargetSchema } from '#api/targets.ts';
import { NOT_SENT, type Sending } from '#core/deliver/sending.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { emptyPage } from '#core/page/model.ts';
import { credentials, deliveries, jobs, sentFiles } from '../db/schema.ts';
import { workOne } from '../jobs/worker.ts';
import { arrivedOf, detailOf, heldHeron, startTestServer, type TestServer } from '../testing.ts';
import { carryOutRemovals } from '../tidy/removals.ts';
import { SEND } from './send.ts';
import {
  bucketHost,
  freePort,
  readersOf,
  type SshHost,
  sshHost,
  type TestHost,
  webdavHost,
} from './testing-hosts.ts';

const LOGIN = { user: 'saltmere', password: 'reed and water' };
const KEY = { id: 'S3RVER', secret: 'S3RVER' };

let server: TestServer;
let folder: string;
let assetId: string;
let ssh: SshHost;
let dav: TestHost;
let store: TestHost;
let readers: TestHost;
const hosts: TestHost[] = [];

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'placard-ways-'));
  const [davPort, sshPort, storePort, readersPort] = await Promise.all([
    freePort(),
    freePort(),
    freePort(),
    freePort(),
  ]);
  readers = await readersOf(folder, readersPort);
  dav = await webdavHost(folder, davPort, LOGIN);
  ssh = await sshHost(join(folder, '.ssh-host'), sshPort);
  store = await bucketHost(join(folder, '.store'), storePort, 'saltmere');
  hosts.push(readers, dav, ssh, store);
  server = await startTestServer('ways', {
    outside: true,
    env: {
      PLACARD_NEAR_HOSTS: [davPort, sshPort, storePort, readersPort]
        .map((port) => `127.0.0.1:${port}`)
        .join(' '),
      PLACARD_SITES: join(folder, 'sites'),
    },
  });
  assetId = await heldHeron(server);
});
afterAll(async () => {
  await server.close();
  for (const host of hosts) await host.end();
  await rm(folder, { recursive: true, force: true });
});

async function pageCalled(title: string): Promise<string> {
  const made = await server.ask('/api/pages', {
    method: 'POST',
    body: { title, targetId: 'reserve', wants: [] },
  });
  const { id } = v.parse(v.object({ id: v.string() }), made.body);
  await write(id, title, 'You hear them long before you see one.', 1);
  return id;
}

async function write(id: string, title: string, text: string, version: number): Promise<void> {
  const doc = {
    ...emptyPage(title),
    summary: 'Boats and booms.',
    blocks: [
      { type: 'paragraph', attrs: { id: 'first' }, content: [{ type: 'text', text }] },
      { type: 'placement', attrs: newPlacement('one', assetId, 'beside-left') },
    ],
  };
  const saved = await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version });
  expect(saved.status).toBe(200);
}

async function sendingBy(change: Partial<Sending>, secret: string | null): Promise<void> {
  const { rules, version } = v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body);
  const body = { ...rules, sending: { ...NOT_SENT, ...change } };
  const saved = await server.ask('/api/targets/reserve', { as: 'sunniva', method: 'PUT', version, body });
  expect(saved.status).toBe(200);
  await server.context.db.delete(credentials);
  if (secret === null) return;
  const body2 = { token: secret };
  await server.ask('/api/targets/reserve/token', { as: 'sunniva', method: 'PUT', body: body2 });
}

async function sent(pageId: string): Promise<Delivery> {
  const ordered = await server.ask(`/api/pages/${pageId}/deliveries`, { method: 'POST', body: {} });
  expect(ordered.status).toBe(202);
  await workOne(server.context, [SEND]);
  const { id } = v.parse(DeliverySchema, ordered.body);
  return v.parse(DeliverySchema, (await server.ask(`/api/deliveries/${id}`)).body);
}

const got = async (address: string | null) => {
  const answer = await fetch(address ?? '');
  return { status: answer.status, html: await answer.text() };
};
const at = (path: string) => `http://127.0.0.1:${readers.port}/${path}`;

interface Way {
  readonly name: string;
  readonly sending: () => Partial<Sending>;
  readonly secret: () => string | null;
  /** What opens nothing; null for a way that nothing has to open. */
  readonly wrong: { readonly sending?: Partial<Sending>; readonly secret: string } | null;
}

const WAYS: readonly Way[] = [
  {
    name: 'a folder of this machine',
    sending: () => ({ by: 'folder', folder: 'hides', publicAddress: at('sites/hides') }),
    secret: () => null,
    wrong: null,
  },
  {
    name: 'WebDAV',
    sending: () => ({
      by: 'webdav',
      address: `http://127.0.0.1:${dav.port}/by-dav`,
      user: LOGIN.user,
      publicAddress: at('by-dav'),
    }),
    secret: () => LOGIN.password,
    wrong: { secret: 'another word' },
  },
  {
    name: 'SFTP',
    sending: () => ({
      by: 'sftp',
      host: `127.0.0.1:${ssh.port}`,
      user: ssh.user,
      hostKey: ssh.hostKey,
      folder: join(folder, 'by-sftp'),
      publicAddress: at('by-sftp'),
    }),
    secret: () => ssh.privateKey,
    wrong: { secret: 'another word' },
  },
  {
    name: 'a bucket',
    sending: () => ({
      by: 'bucket',
      address: `http://127.0.0.1:${store.port}`,
      bucket: 'saltmere',
      user: KEY.id,
      folder: 'site',
      publicAddress: `http://127.0.0.1:${store.port}/saltmere/site`,
    }),
    secret: () => KEY.secret,
    // This store knows its keys by their IDs alone.
    wrong: { sending: { user: 'NOBODY' }, secret: 'another word' },
  },
];

describe.each(WAYS)('by $name', ({ sending, secret, wrong }) => {
  it('a page stands there as it was sent, is sent again in its place, and is taken down', async () => {
    await sendingBy(sending(), secret());
    const id = await pageCalled('Bitterns boom');
    const delivery = await sent(id);
    expect(delivery).toMatchObject({ state: 'out', words: '', answered: '1 of 1', differences: [] });
    expect(delivery.address).toMatch(/\/pages\/bitterns-boom\.html$/);
    const { html } = await got(delivery.address);
    expect(html).toContain('alt="A heron in the reeds."');
    expect(html).toContain('<html lang="en-GB">');
    const files = await server.context.db.select().from(sentFiles);
    await write(id, 'Bitterns boom again', 'They are back.', 2);
    const again = await sent(id);
    expect(again.address).toBe(delivery.address);
    expect((await got(again.address)).html).toContain('They are back.');
    expect(await server.context.db.select().from(sentFiles)).toHaveLength(files.length);
    const down = await server.ask(`/api/deliveries/${again.id}/take-down`, { method: 'POST', body: {} });
    expect(v.parse(DeliverySchema, down.body).state).toBe('down');
    expect((await got(again.address)).status).toBe(404);
  });

  it('two pages of one title stand beside each other, and one that was not heard of is put in its own place', async () => {
    await sendingBy(sending(), secret());
    const [one, other] = [await pageCalled('Tides'), await pageCalled('Tides')];
    expect((await sent(one)).address).toMatch(/\/tides\.html$/);
    expect((await sent(other)).address).toMatch(/\/tides-2\.html$/);
    // As if nobody had heard where it stands.
    await server.context.db.update(deliveries).set({ address: null, state: 'handing' });
    expect((await sent(one)).address).toMatch(/\/tides\.html$/);
  });

  it('what opens nothing is said, and nothing is out', async () => {
    if (wrong === null) return;
    await sendingBy({ ...sending(), ...wrong.sending }, wrong.secret);
    const failed = await sent(await pageCalled('Closed'));
    expect(failed.address).toBeNull();
    expect(failed.state).not.toBe('out');
    expect(failed.words).toMatch(/does not take the (?:name|key)/);
    expect(failed.words).not.toContain(wrong.secret);
  });
});

/** What everybody gets of an address of ours, asked for under the name that readers know. */
function asReader(address: string): Promise<{
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly bytes: Buffer;
}> {
  const { host, pathname } = new URL(address);
  const { port } = new URL(server.context.config.appOrigin);
  return new Promise((resolve, reject) => {
    get({ host: '127.0.0.1', port, path: pathname, headers: { host } }, (answer) => {
      const chunks: Buffer[] = [];
      answer.on('data', (chunk: Buffer) => chunks.push(chunk));
      answer.on('end', () =>
        resolve({ status: answer.statusCode ?? 0, headers: answer.headers, bytes: Buffer.concat(chunks) }),
      );
    }).on('error', reject);
  });
}

describe('a page that is pasted by hand', () => {
  const codeOf = async (id: string) =>
    v.parse(SentCodeSchema, (await server.ask(`/api/deliveries/${id}/code`)).body).html;
  const filesIn = (html: string) => [
    ...new Set([...html.matchAll(/http:\/\/files\.localhost[^\s"]+/g)].map(([address]) => address)),
  ];
  const said = (id: string, address: string) =>
    server.ask(`/api/deliveries/${id}/address`, { method: 'PUT', body: { address } });

  it('has files that answer everybody for good, is read back from where it was pasted, and is taken away', async () => {
    await sendingBy({ by: 'paste' }, null);
    const pageId = await pageCalled('Pasted by hand');
    const ready = await sent(pageId);
    expect([ready.state, ready.address, ready.words]).toEqual(['ready', null, '']);
    const html = await codeOf(ready.id);
    const files = filesIn(html);
    expect(files.length).toBeGreaterThan(2);
    for (const address of files) {
      const answer = await asReader(address);
      expect(answer.status).toBe(200);
      expect(answer.headers).toMatchObject({
        'cache-control': 'public, max-age=31536000, immutable',
        'accept-ranges': 'bytes',
        'access-control-allow-origin': '*',
        'x-content-type-options': 'nosniff',
      });
      expect(answer.headers['content-type']).toMatch(/^image\/(jpeg|webp|avif)$/);
      expect(answer.headers['content-length']).toBe(String(answer.bytes.length));
    }
    // Nothing else of this house is at the address that readers know, and nobody is signed in there.
    const { origin } = new URL(files[0] ?? '');
    for (const path of ['/', '/api/me', '/out/000000000000000000000000/heron.jpg', '/fonts/archivo.woff2'])
      expect((await asReader(`${origin}${path}`)).status).toBe(404);

    expect((await said(ready.id, 'bulletin, page 4')).status).toBe(422);
    await writeFile(
      join(folder, 'pasted.html'),
      `<!doctype html><html lang="en-GB"><title>Pasted by hand</title><h1>Pasted by hand</h1>${html.replaceAll(/<(\/?)figcaption/g, '<$1!')}`,
    );
    const there = await said(ready.id, `http://127.0.0.1:${readers.port}/pasted.html`);
    const out = v.parse(DeliverySchema, there.body);
    expect(out.state).toBe('out');
    expect(out.foundAt).not.toBeNull();
    expect(out.differences.map(({ code }) => code)).toEqual(['caption-loose']);

    // Another file than was sent, and a page that weighs more than House rules say, are found out as well.
    const [small, wide] = await Promise.all(
      [
        [90, 60],
        [1000, 200],
      ].map(([width = 1, height = 1]) =>
        sharp({ create: { width, height, channels: 3, background: '#7a9' } })
          .png()
          .toBuffer(),
      ),
    );
    await writeFile(join(folder, 'small.png'), small ?? '');
    await writeFile(
      join(folder, 'wide.png'),
      Buffer.concat([wide ?? Buffer.alloc(0), Buffer.alloc(51_000_000)]),
    );
    const withFile = async (file: string) => {
      const page = html.replace(/(<img[^>]* src=")[^"]*/, `$1http://127.0.0.1:${readers.port}/${file}`);
      await writeFile(join(folder, `${file}.html`), `<h1>Pasted by hand</h1>${page}`);
      const answer = await said(ready.id, `http://127.0.0.1:${readers.port}/${file}.html`);
      return v.parse(DeliverySchema, answer.body);
    };
    const smaller = await withFile('small.png');
    expect(smaller.differences.map(({ sentence }) => sentence)).toContain(
      'The file of “A heron in the reeds” is smaller there.',
    );
    const reshaped = await withFile('wide.png');
    expect(reshaped.foundBytes).toBeGreaterThan(51_000_000);
    expect(reshaped.differences.map(({ code }) => code)).toEqual(
      expect.arrayContaining(['picture-reshaped', 'page-heavy']),
    );

    const other = await sent(await pageCalled('Also pasted'));
    const shared = filesIn(await codeOf(other.id));
    expect(shared).toEqual(files);
    const down = await server.ask(`/api/deliveries/${ready.id}/take-down`, { method: 'POST', body: {} });
    expect(v.parse(DeliverySchema, down.body).state).toBe('down');
    // Another page shows them still.
    expect((await asReader(files[0] ?? '')).status).toBe(200);
    await server.ask(`/api/deliveries/${other.id}/take-down`, { method: 'POST', body: {} });
    for (const address of files) expect((await asReader(address)).status).toBe(410);
    await carryOutRemovals(server.context);
    for await (const { key } of server.context.storage.list('sent')) expect(key).toBe('none is left');

    const again = await sent(pageId);
    expect(again.state).toBe('ready');
    for (const address of filesIn(await codeOf(again.id))) expect((await asReader(address)).status).toBe(200);
  });

  it('can have its files at the target’s own store, and goes neither out nor down by itself', async () => {
    await sendingBy(
      {
        by: 'folder',
        folder: 'media-only',
        publicAddress: `http://127.0.0.1:${readers.port}/sites/media-only/`,
        pages: 'pasted',
      },
      null,
    );
    const pageId = await pageCalled('Files there, page by hand');
    const ready = await sent(pageId);
    expect(ready.state).toBe('ready');
    expect(await codeOf(ready.id)).toContain(`http://127.0.0.1:${readers.port}/sites/media-only/media/`);
    expect(await readdir(join(folder, 'sites', 'media-only'))).toEqual(['media']);
    const planned = await server.ask(`/api/pages/${pageId}/plan`, {
      method: 'PUT',
      body: { startAt: new Date(Date.now() + 3_600_000).toISOString(), endAt: null },
    });
    expect([planned.status, detailOf(planned)]).toEqual([
      409,
      expect.stringContaining('pasted there by hand'),
    ]);
  });
});

describe('a host of SFTP', () => {
  it('that nobody knows, or that shows another key, is told nothing', async () => {
    const sftp = WAYS[2];
    await sendingBy({ ...sftp?.sending(), hostKey: '' }, ssh.privateKey);
    const unknown = await sent(await pageCalled('Who is it'));
    expect(unknown.words).toContain(`It shows ${ssh.hostKey}`);
    await sendingBy({ ...sftp?.sending(), hostKey: 'SHA256:abc' }, ssh.privateKey);
    const changed = await sent(await pageCalled('Who is it now'));
    expect(changed.words).toMatch(/shows another key than the one that it is known by/);
  });
});

describe('a folder of this machine', () => {
  it('is never left, by a link in it neither', async () => {
    const { rules, version } = v.parse(TargetSchema, (await server.ask('/api/targets/reserve')).body);
    const climbing = { ...rules, sending: { ...NOT_SENT, by: 'folder', folder: '../out' } };
    const refused = await server.ask('/api/targets/reserve', {
      as: 'sunniva',
      method: 'PUT',
      version,
      body: climbing,
    });
    expect(refused.status).toBe(422);
    await writeFile(join(folder, 'secret.txt'), 'a');
    await symlink(folder, join(folder, 'sites', 'led-out'));
    await sendingBy({ by: 'folder', folder: 'led-out', publicAddress: at('') }, null);
    const led = await sent(await pageCalled('Led out'));
    expect(led.words).toMatch(/leads out of the one that this machine has for sites/);
  });

  it('keeps what somebody else put there', async () => {
    await sendingBy({ by: 'folder', folder: 'kept', publicAddress: at('sites/kept') }, null);
    await sent(await pageCalled('First'));
    const path = join(folder, 'sites', 'kept', 'pages', 'by-hand.html');
    await writeFile(path, '<p>By hand.</p>');
    expect((await sent(await pageCalled('By hand'))).address).toMatch(/\/by-hand-2\.html$/);
    expect(await readFile(path, 'utf8')).toBe('<p>By hand.</p>');
    expect(
      (await readdir(join(folder, 'sites', 'kept', 'pages'))).some((name) => name.endsWith('.part')),
    ).toBe(false);
  });
});

it('what is not said of a way is named before anything is sent', async () => {
  await sendingBy({ by: 'webdav', address: '', user: 'a' }, 'x');
  const id = await pageCalled('Unsaid');
  const answer = await server.ask(`/api/pages/${id}/deliveries`, { method: 'POST', body: {} });
  expect(answer.status).toBe(409);
  expect(detailOf(answer)).toMatch(/is sent by WebDAV, and the address is not said/);
  await sendingBy({ by: 'sftp', host: 'files.example', user: 'a', publicAddress: at('') }, null);
  const none = await server.ask(`/api/pages/${id}/deliveries`, { method: 'POST', body: {} });
  expect(detailOf(none)).toMatch(/has no password or private key yet/);
});

describe('a sending whose process is killed', () => {
  const KILLS = 10;
  const PICTURES = 8;

  it('at ten random instants goes on where it was: never half out, and each file there once', async () => {
    await sendingBy({ by: 'folder', folder: 'killed', publicAddress: at('sites/killed') }, null);
    const id = await pageOfPictures();
    const ordered = await server.ask(`/api/pages/${id}/deliveries`, { method: 'POST', body: {} });
    const { id: deliveryId, jobId } = v.parse(DeliverySchema, ordered.body);
    const stateNow = async () =>
      v.parse(DeliverySchema, (await server.ask(`/api/deliveries/${deliveryId}`)).body);
    for (let kill = 0; kill < KILLS; kill += 1) {
      const worker = fork('server/worker.ts', {
        env: workerEnv(),
        execArgv: ['--import', 'tsx'],
        stdio: 'ignore',
      });
      await new Promise((resolve) => worker.once('message', resolve));
      await new Promise((resolve) => setTimeout(resolve, 20 + Math.random() * 700));
      const gone = new Promise((resolve) => worker.once('exit', resolve));
      worker.kill('SIGKILL');
      await gone;
      await assertWhole();
      // As if the lease of whoever died had run out, and somebody had looked at it again.
      await server.context.db
        .update(jobs)
        .set({ leaseUntil: new Date(0), attempts: 0 })
        .where(and(eq(jobs.id, jobId), eq(jobs.state, 'running')));
    }
    while ((await stateNow()).state !== 'out' && (await workOne(server.context, [SEND])));
    expect(await stateNow()).toMatchObject({
      state: 'out',
      answered: `${PICTURES} of ${PICTURES}`,
      differences: [],
    });
    expect(await pagesThere()).toEqual(['many-pictures.html']);
  }, 120_000);

  const killed = () => join(folder, 'sites', 'killed');
  const pagesThere = () => readdir(join(killed(), 'pages')).catch(() => []);

  /** Whatever page is there has all that it names. */
  async function assertWhole(): Promise<void> {
    for (const name of (await pagesThere()).filter((one) => one.endsWith('.html'))) {
      const html = await readFile(join(killed(), 'pages', name), 'utf8');
      const files = [...html.matchAll(/media\/([a-z0-9-]+\.[a-z]+)/g)].map(([, file]) => file ?? '');
      expect(files.length).toBeGreaterThan(PICTURES);
      const there = new Set(await readdir(join(killed(), 'media')));
      expect(files.filter((file) => !there.has(file))).toEqual([]);
      expect(html.trimEnd().endsWith('</html>')).toBe(true);
    }
  }

  const workerEnv = () => ({
    ...process.env,
    DATABASE_URL: server.context.config.databaseUrl,
    PLACARD_DATA: server.folder,
    PLACARD_SITES: join(folder, 'sites'),
    PLACARD_NEAR_HOSTS: `127.0.0.1:${readers.port}`,
    OUTSIDE_PORT: '0',
  });

  async function pageOfPictures(): Promise<string> {
    const placed: string[] = [];
    for (let each = 0; each < PICTURES; each += 1) {
      const background = { r: 40 + each * 20, g: 120, b: 90 };
      const pixels = await sharp({ create: { width: 1400, height: 900 + each, channels: 3, background } })
        .jpeg()
        .toBuffer();
      const { asset } = arrivedOf(await server.handIn(pixels, `reed-${each}.jpg`));
      const label = { licence: 'own', alt: { kind: 'text', text: `Reeds, bed ${each} of the marsh.` } };
      await server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', body: { label }, version: 1 });
      placed.push(asset.id);
    }
    const made = await server.ask('/api/pages', {
      method: 'POST',
      body: { title: 'Many pictures', targetId: 'reserve', wants: [] },
    });
    const { id } = v.parse(v.object({ id: v.string() }), made.body);
    const blocks = placed.map((one, index) => ({ type: 'placement', attrs: newPlacement(`p${index}`, one) }));
    const doc = { ...emptyPage('Many pictures'), blocks };
    const saved = await server.ask(`/api/pages/${id}`, { method: 'PUT', body: { doc }, version: 1 });
    expect(saved.status).toBe(200);
    return id;
  }
});
