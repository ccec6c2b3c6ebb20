import { mkdtemp, rm } from 'node:fs/promises';
import { createServer, type Server } from 'node:http';
import type { Server as NetServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import sharp from 'sharp';
import * as v from 'valibot';
import { type Arrived, ArrivedSchema } from '#api/assets.ts';
import { PROGRESS_LINES } from '#api/progress.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { makeOutside } from '../outside/outside.ts';
import { mailHost } from '../outside/post.ts';
import { makeApp } from './app.ts';
import { readConfig } from './config.ts';
import { type Context, closeContext, openContext } from './context.ts';
import { people, targets } from './db/schema.ts';
import { hashPassword } from './people/passwords.ts';

export const PASSWORD = 'reeds-and-water';
const WHO = { mara: 'editor', piet: 'rights-keeper', sunniva: 'site-owner', joss: 'contributor' } as const;
export type Who = keyof typeof WHO;

export interface Answer {
  readonly status: number;
  readonly body: unknown;
  readonly headers: Headers;
}

interface Asked {
  readonly as?: Who;
  readonly method?: string;
  readonly body?: unknown;
  readonly version?: number;
  readonly headers?: Readonly<Record<string, string>>;
}

/** A real server on a database and a folder of its own. */
export interface TestServer {
  readonly context: Context;
  readonly origin: string;
  readonly folder: string;
  /** The address of a stand-in's path; only where the wish asked for the outside. */
  readonly at: (host: string, path: string) => string;
  readonly ask: (path: string, asked?: Asked) => Promise<Answer>;
  /** An answer that comes bit by bit, to be read as it comes. */
  readonly listen: (path: string, as?: Who) => Promise<Response>;
  /** Uploads bytes as a browser does (tus), without taking them in; answers the upload's ID. */
  readonly upload: (bytes: Uint8Array, name: string, as?: Who) => Promise<string>;
  /** Uploads bytes as a browser does (tus), and takes them in. */
  readonly handIn: (bytes: Uint8Array, name: string, as?: Who) => Promise<Answer>;
  readonly close: () => Promise<void>;
}

interface Wish {
  /** Where files are kept, when not in a fresh folder. */
  readonly dataFolder?: string;
  readonly databaseUrl?: (real: string) => string;
  readonly uploadLimitMb?: number;
  /** More of the environment that it is started in. */
  readonly env?: Readonly<Record<string, string>>;
  /** The world outside, in small, at a port of its own. */
  readonly outside?: boolean;
}

export async function startTestServer(name: string, wish: Wish = {}): Promise<TestServer> {
  const databaseServer = process.env.TEST_DATABASE_SERVER;
  if (!databaseServer) throw new Error('Server tests run by `npm test`, which starts their database.');
  const database = `placard_${name}`;
  await freshDatabase(databaseServer, database);
  const folder = wish.dataFolder ?? (await mkdtemp(join(tmpdir(), `placard-${name}-`)));
  const http = createServer();
  // A test may hold the process up for longer than a connection is kept by itself, and then ask on one that was closed.
  http.keepAliveTimeout = 120_000;
  const port = await listen(http);
  const realUrl = `${databaseServer}/${database}`;
  const outside = wish.outside ? makeOutside(0).listen(0, '127.0.0.1') : null;
  const outsidePort = outside ? await portOf(outside) : 0;
  const mail = outside ? mailHost() : null;
  const mailPort = mail ? await portOf(mail.listen(0, '127.0.0.1')) : 0;
  const config = readConfig({
    DATABASE_URL: wish.databaseUrl?.(realUrl) ?? realUrl,
    PLACARD_DATA: folder,
    PORT: String(port),
    ...(outside
      ? { OUTSIDE_PORT: String(outsidePort), OUTSIDE_MAIL_PORT: String(mailPort) }
      : { PLACARD_DEMO: '0' }),
    ...(wish.uploadLimitMb ? { PLACARD_UPLOAD_LIMIT_MB: String(wish.uploadLimitMb) } : {}),
    ...wish.env,
  });
  const context = await openContext(config);
  await seed(context);
  http.on('request', makeApp(context));
  const cookies = new Map<Who, string>();
  const origin = config.appOrigin;

  const ask = async (
    path: string,
    { as = 'mara', method = 'GET', body, version, headers = {} }: Asked = {},
  ): Promise<Answer> => {
    const cookie = cookies.get(as) ?? (await signIn(origin, as));
    cookies.set(as, cookie);
    const response = await fetch(`${origin}${path}`, {
      method,
      headers: {
        cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(version === undefined ? {} : { 'if-match': `"${version}"` }),
        ...headers,
      },
      ...(body === undefined
        ? {}
        : { body: body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body) }),
    });
    return { status: response.status, body: await bodyOf(response), headers: response.headers };
  };
  const listenTo = async (path: string, as: Who = 'mara'): Promise<Response> => {
    const cookie = cookies.get(as) ?? (await signIn(origin, as));
    cookies.set(as, cookie);
    return fetch(`${origin}${path}`, { headers: { cookie } });
  };
  const handIn = async (bytes: Uint8Array, fileName: string, as: Who = 'mara'): Promise<Answer> => {
    const begun = await ask('/api/uploads', {
      as,
      method: 'POST',
      headers: tusHeaders(bytes.length, fileName),
    });
    if (begun.status !== 201) return begun;
    const location = begun.headers.get('location') ?? '';
    const sent = await ask(new URL(location, origin).pathname, {
      as,
      method: 'PATCH',
      body: bytes,
      headers: {
        'tus-resumable': '1.0.0',
        'upload-offset': '0',
        'content-type': 'application/offset+octet-stream',
      },
    });
    if (sent.status !== 204) return sent;
    return ask('/api/arrivals', { as, method: 'POST', body: { uploadId: location.split('/').at(-1) } });
  };
  const upload = async (bytes: Uint8Array, fileName: string, as: Who = 'mara'): Promise<string> => {
    const begun = await ask('/api/uploads', {
      as,
      method: 'POST',
      headers: tusHeaders(bytes.length, fileName),
    });
    const location = begun.headers.get('location') ?? '';
    const headers = {
      'tus-resumable': '1.0.0',
      'upload-offset': '0',
      'content-type': 'application/offset+octet-stream',
    };
    await ask(new URL(location, origin).pathname, { as, method: 'PATCH', body: bytes, headers });
    return location.split('/').at(-1) ?? '';
  };
  const close = async () => {
    http.closeAllConnections();
    outside?.closeAllConnections();
    outside?.close();
    mail?.close();
    await new Promise((resolve) => http.close(resolve));
    await closeContext(context);
    if (!wish.dataFolder) await rm(folder, { recursive: true, force: true });
  };
  const at = (host: string, path: string) => `http://${host}.localhost:${outsidePort}${path}`;
  return { context, origin, folder, at, ask, listen: listenTo, upload, handIn, close };
}

function tusHeaders(length: number, fileName: string): Record<string, string> {
  return {
    'tus-resumable': '1.0.0',
    'upload-length': String(length),
    'upload-metadata': `filename ${Buffer.from(fileName).toString('base64')}`,
  };
}

async function freshDatabase(databaseServer: string, database: string): Promise<void> {
  const connection = await createConnection(databaseServer);
  await connection.query(`DROP DATABASE IF EXISTS ${database}`);
  await connection.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4`);
  await connection.end();
}

async function seed(context: Context): Promise<void> {
  const passwordHash = await hashPassword(PASSWORD);
  const rows = Object.entries(WHO).map(([id, role]) => ({
    id,
    name: id,
    role,
    email: `${id}@saltmere.example`,
    passwordHash,
  }));
  await context.db.insert(people).values(rows);
  await context.db.insert(targets).values({
    id: 'reserve',
    rules: { ...PLAIN_RULES, severities: { 'alt-missing': 'stops', 'use-not-allowed': 'stops' } },
  });
}

async function signIn(origin: string, as: Who): Promise<string> {
  const response = await fetch(`${origin}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: `${as}@saltmere.example`, password: PASSWORD }),
  });
  if (!response.ok) throw new Error(`${as} could not sign in: ${await response.text()}`);
  // To its end: the session is kept before the last byte comes.
  await response.text();
  return response.headers.get('set-cookie')?.split(';')[0] ?? '';
}

async function bodyOf(response: Response): Promise<unknown> {
  const type = response.headers.get('content-type') ?? '';
  if (type.startsWith(PROGRESS_LINES)) return response.text();
  if (type.includes('json')) return parsedJson(await response.text());
  return type.startsWith('text/') ? response.text() : Buffer.from(await response.arrayBuffer());
}

/** An answer to a question for its head alone has no body. */
const parsedJson = (text: string): unknown => (text === '' ? null : JSON.parse(text));

function listen(http: Server): Promise<number> {
  return portOf(http.listen(0, '127.0.0.1'));
}

function portOf(http: NetServer): Promise<number> {
  return new Promise((resolve, reject) => {
    const tell = () => {
      const address = http.address();
      if (address && typeof address === 'object') resolve(address.port);
      else reject(new Error('The test server has no port.'));
    };
    if (http.listening) tell();
    else http.once('listening', tell);
  });
}

const DetailSchema = v.looseObject({ detail: v.string() });

/** The sentence of a problem document. */
export function detailOf(answer: Answer): string {
  return v.parse(DetailSchema, answer.body).detail;
}

/** What a hand-in answered; throws with the answer when it was refused. */
export function arrivedOf(answer: Answer): Arrived {
  if (answer.status !== 200) throw new Error(`Not taken in: ${JSON.stringify(answer.body)}`);
  return v.parse(ArrivedSchema, answer.body);
}

/** A picture that may go out, with its words and its credit; answers its ID. */
export async function heldHeron(server: TestServer): Promise<string> {
  const pixels = await sharp({ create: { width: 1500, height: 1000, channels: 3, background: '#7a9' } })
    .jpeg()
    .toBuffer();
  const { asset } = arrivedOf(await server.handIn(pixels, 'heron.jpg'));
  const label = {
    title: 'Heron',
    creator: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    caption: 'At dawn.',
    alt: { kind: 'text', text: 'A heron in the reeds.' },
  };
  await server.ask(`/api/assets/${asset.id}`, { method: 'PATCH', body: { label }, version: 1 });
  return asset.id;
}
