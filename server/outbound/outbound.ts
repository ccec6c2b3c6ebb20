import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import {
  request as askHttp,
  Agent as HttpAgent,
  type IncomingHttpHeaders,
  type IncomingMessage,
} from 'node:http';
import { request as askHttps, Agent as HttpsAgent } from 'node:https';
import type { LookupFunction } from 'node:net';
import { PassThrough, type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import { isNoSpace } from '../problem.ts';
import { addressToConnect, portOf, type Resolve, type StandIns, systemResolve, webAddress } from './guard.ts';
import { OutboundProblem } from './problem.ts';

/** What a fetch may cost. */
interface Limits {
  /** Most bytes of the answer, after unpacking. */
  readonly bytes: number;
  /** From the first question to the last byte, in milliseconds. */
  readonly millis: number;
}

interface Wish {
  readonly limits: Limits;
  /** The page on which the address was found, told as `Referer` as a browser would. */
  readonly referrer?: string;
  readonly accept?: string;
  readonly signal?: AbortSignal;
}

/** What is told to the other side. */
interface Told {
  readonly method: 'GET' | 'PUT' | 'POST' | 'DELETE' | 'MKCOL';
  readonly type?: string;
  readonly body?: Buffer;
  /** More of the head, by names in small letters. */
  readonly headers?: Readonly<Record<string, string>>;
  /** The token of the house there (RFC 6750, 2.1), for this one place alone. */
  readonly token?: string;
  /** The name and password of the house there (RFC 7617), for this one place alone. */
  readonly login?: { readonly user: string; readonly password: string };
}

interface Answer {
  readonly status: number;
  /** Whether it was sent on to where it came from, and each time for good (RFC 9110, 15.4.2 and 15.4.9). */
  readonly hasMoved: boolean;
  readonly every: (name: string) => readonly string[];
  /** Where it came from in the end, after redirects. */
  readonly address: string;
  readonly headers: IncomingHttpHeaders;
  readonly body: Readable;
}

/** The one way out: every fetch of a foreign address goes through here. */
export interface Outbound {
  /** The bytes of an address in memory. Throws OutboundProblem. */
  readonly read: (address: string, wish: Wish) => Promise<Fetched>;
  /** The first bytes of an address, at most `limits.bytes`; that there are more is no fault. Throws OutboundProblem. */
  readonly peek: (address: string, wish: Wish) => Promise<Fetched>;
  /** What an address answers whatever its status, with the first bytes of it. Throws OutboundProblem. */
  readonly probe: (address: string, wish: Wish) => Promise<Probed>;
  /**
   * Puts JSON at an address, and answers what comes back whatever its status. No redirect is followed: what was told is not
   * told to another place. Throws OutboundProblem.
   */
  readonly put: (address: string, json: unknown, wish: Wish) => Promise<Probed>;
  /** Tells a place that knows the house by a token something, or asks it; otherwise as `put`. Throws OutboundProblem. */
  readonly tell: (address: string, told: Told, wish: Wish) => Promise<Probed>;
  /** The numeric address at which a host may be reached by another protocol than HTTP, checked as every other. Throws OutboundProblem. */
  readonly reach: (host: string, port: number) => Promise<string>;
  /** The bytes of an address into a file, which is not there afterwards unless all came. Throws OutboundProblem. */
  readonly save: (address: string, path: string, wish: Wish) => Promise<Omit<Fetched, 'bytes'>>;
}

interface Fetched {
  readonly address: string;
  readonly headers: IncomingHttpHeaders;
  readonly bytes: Buffer;
}

/** An answer as it came, good or bad. */
export interface Probed extends Fetched {
  readonly status: number;
  /** Whether the address has moved for good to the one that answered. */
  readonly hasMoved: boolean;
  /** Every value of a header by its name in small letters, as often as it came. */
  readonly every: (name: string) => readonly string[];
}

const REDIRECT_LIMIT = 5;
const REDIRECTS = new Set([301, 302, 303, 307, 308]);
const AGENT = 'Placard';

export function makeOutbound(standIns: StandIns, resolve: Resolve = systemResolve): Outbound {
  const openAny = (address: string, wish: Wish, signal: AbortSignal) =>
    follow(webAddress(address), wish, signal, (url) => addressToConnect(url, standIns, resolve));
  const open = async (address: string, wish: Wish, signal: AbortSignal) => {
    const answer = await openAny(address, wish, signal);
    if (answer.status === 200) return answer;
    answer.body.destroy();
    throw problemOfStatus(answer.status, answer.headers, new URL(answer.address).hostname);
  };
  const tell: Outbound['tell'] = (address, told, wish) =>
    within(wish, address, async (signal) => {
      const url = webAddress(address);
      const to = await addressToConnect(url, standIns, resolve);
      const response = await askOnce(url, to, wish, signal, told);
      const body = limited(unpacked(response), wish.limits.bytes, url);
      return {
        status: response.statusCode ?? 0,
        hasMoved: false,
        every: (name) => response.headersDistinct[name] ?? [],
        headers: response.headers,
        address: url.href,
        bytes: await startOf(body, Number.POSITIVE_INFINITY),
      };
    });
  return {
    read: (address, wish) =>
      within(wish, address, async (signal) => {
        const answer = await open(address, wish, signal);
        const parts: Buffer[] = [];
        for await (const part of answer.body) parts.push(Buffer.from(part));
        return { address: answer.address, headers: answer.headers, bytes: Buffer.concat(parts) };
      }),
    peek: (address, wish) =>
      within(wish, address, async (signal) => {
        const answer = await open(address, roomy(wish), signal);
        return {
          address: answer.address,
          headers: answer.headers,
          bytes: await startOf(answer.body, wish.limits.bytes),
        };
      }),
    probe: (address, wish) =>
      within(wish, address, async (signal) => {
        const { body, ...answer } = await openAny(address, roomy(wish), signal);
        return { ...answer, bytes: await startOf(body, wish.limits.bytes) };
      }),
    // By PUT, so that the same once more does no more (RFC 9110, 9.2.2).
    put: (address, json, wish) =>
      tell(
        address,
        { method: 'PUT', type: 'application/json', body: Buffer.from(JSON.stringify(json)) },
        wish,
      ),
    tell,
    reach: (host, port) => addressToConnect(new URL(`https://${host}:${port}`), standIns, resolve),
    save: (address, path, wish) =>
      within(wish, address, async (signal) => {
        const answer = await open(address, wish, signal);
        try {
          await pipeline(answer.body, createWriteStream(path), { signal });
        } catch (error) {
          await rm(path, { force: true });
          throw error;
        }
        return { address: answer.address, headers: answer.headers };
      }),
  };
}

/** A wish of which only the start is read, so that there being more is no fault. */
function roomy(wish: Wish): Wish {
  return { ...wish, limits: { ...wish.limits, bytes: Number.POSITIVE_INFINITY } };
}

async function startOf(body: Readable, most: number): Promise<Buffer> {
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of body) {
    parts.push(Buffer.from(part));
    bytes += parts.at(-1)?.length ?? 0;
    if (bytes >= most) break;
  }
  return Buffer.concat(parts).subarray(0, most);
}

/** Runs `work` within the time of the wish, and turns whatever goes wrong on the line into an OutboundProblem. */
async function within<T>(wish: Wish, address: string, work: (signal: AbortSignal) => Promise<T>): Promise<T> {
  const inTime = AbortSignal.timeout(wish.limits.millis);
  const signal = wish.signal ? AbortSignal.any([wish.signal, inTime]) : inTime;
  try {
    return await work(signal);
  } catch (error) {
    // A disk that is full here is no fault of the other side.
    if (error instanceof OutboundProblem || isOwnFault(error)) throw error;
    const host = URL.canParse(address) ? new URL(address).hostname : '';
    if (wish.signal?.aborted) throw new OutboundProblem('stopped', host, { cause: error });
    if (inTime.aborted) throw new OutboundProblem('too-slow', host, { cause: error });
    throw new OutboundProblem(faultOf(error), host, { cause: error });
  }
}

function isOwnFault(error: unknown): boolean {
  return (
    isNoSpace(error) ||
    (error instanceof Error && 'code' in error && /^E(ACCES|ROFS|NOENT|MFILE|IO)$/.test(String(error.code)))
  );
}

const CERTIFICATE_CODE = /CERT|SELF_SIGNED|UNABLE_TO_VERIFY|ERR_TLS|EPROTO|SSL/;

function faultOf(error: unknown): 'broken-certificate' | 'broken-off' | 'bad-encoding' | 'unreachable' {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  if (CERTIFICATE_CODE.test(code)) return 'broken-certificate';
  if (/^Z_|ERR__?ERROR_FORMAT|BROTLI/i.test(code)) return 'bad-encoding';
  if (/ECONNRESET|EPIPE|ERR_STREAM_PREMATURE_CLOSE|ABORTED/i.test(code) || /aborted/i.test(String(error)))
    return 'broken-off';
  return 'unreachable';
}

async function follow(
  start: URL,
  wish: Wish,
  signal: AbortSignal,
  check: (url: URL) => Promise<string>,
): Promise<Answer> {
  let address = start;
  let isForGood = true;
  for (let redirects = 0; redirects <= REDIRECT_LIMIT; redirects += 1) {
    // Checked anew for each hop: a public place may point to a private one.
    const response = await askOnce(address, await check(address), wish, signal);
    const { statusCode = 0, headers } = response;
    if (REDIRECTS.has(statusCode) && headers.location !== undefined) {
      response.destroy();
      isForGood &&= statusCode === 301 || statusCode === 308;
      address = webAddress(absolute(headers.location, address));
      continue;
    }
    return {
      status: statusCode,
      hasMoved: redirects > 0 && isForGood,
      every: (name) => response.headersDistinct[name] ?? [],
      address: address.href,
      headers,
      body: limited(unpacked(response), wish.limits.bytes, address),
    };
  }
  throw new OutboundProblem('too-many-redirects', start.hostname);
}

function absolute(location: string, base: URL): string {
  return URL.canParse(location, base.href) ? new URL(location, base.href).href : location;
}

/** One question to one numeric address. No cookies are ever sent, and a token only to the place that it is for. */
/** What may be told once more without harm (RFC 9110, 9.2.2): a line that was closed meanwhile loses nothing. */
const REPEATABLE: ReadonlySet<string> = new Set(['PUT']);
/** A line is kept for files that follow at once: to open one for each takes as long as a small file. */
const KEPT = { keepAlive: true, timeout: 2000, maxFreeSockets: 6 };
const LINES: Readonly<Record<string, HttpAgent>> = {
  'http:': new HttpAgent(KEPT),
  'https:': new HttpsAgent(KEPT),
};

function askOnce(
  address: URL,
  connectTo: string,
  wish: Wish,
  signal: AbortSignal,
  told: Told = { method: 'GET' },
): Promise<IncomingMessage> {
  const { method, type, body, headers, token, login } = told;
  const ask = address.protocol === 'https:' ? askHttps : askHttp;
  const family = connectTo.includes(':') ? 6 : 4;
  const toChecked: LookupFunction = (_host, options, done) => {
    if (options.all) done(null, [{ address: connectTo, family }]);
    else done(null, connectTo, family);
  };
  return new Promise((resolve, reject) => {
    const request = ask(
      {
        protocol: address.protocol,
        hostname: address.hostname.replace(/^\[|\]$/g, ''),
        port: portOf(address),
        path: `${address.pathname}${address.search}`,
        method,
        agent: REPEATABLE.has(method) && told.body !== undefined ? LINES[address.protocol] : false,
        lookup: toChecked,
        signal,
        headers: {
          host: address.host,
          'user-agent': AGENT,
          accept: wish.accept ?? '*/*',
          'accept-encoding': 'gzip, deflate, br',
          ...(wish.referrer ? { referer: wish.referrer } : {}),
          ...(token ? { authorization: `Bearer ${token}` } : {}),
          ...(login ? { authorization: basic(login) } : {}),
          ...headers,
          ...(type ? { 'content-type': type } : {}),
          ...(body ? { 'content-length': String(body.length) } : {}),
        },
      },
      resolve,
    );
    request.on('error', reject);
    request.end(body);
  });
}

const basic = ({ user, password }: { readonly user: string; readonly password: string }): string =>
  `Basic ${Buffer.from(`${user}:${password}`, 'utf8').toString('base64')}`;

function problemOfStatus(status: number, headers: IncomingHttpHeaders, host: string): OutboundProblem {
  if (status === 404 || status === 410) return new OutboundProblem('not-found', host);
  if (status === 401 || status === 403 || status === 451) return new OutboundProblem('refused', host);
  if (status === 429) return new OutboundProblem('busy', host, { waitMillis: waitOf(headers) });
  if (status >= 500) return new OutboundProblem('server-error', host, { waitMillis: waitOf(headers) });
  return new OutboundProblem('odd-status', host);
}

/** `Retry-After` in seconds (RFC 9110, 10.2.3); its date form is passed over. */
function waitOf(headers: IncomingHttpHeaders): number | null {
  const seconds = Number(headers['retry-after']);
  return Number.isFinite(seconds) && seconds > 0 ? seconds * 1000 : null;
}

function unpacked(response: IncomingMessage): Readable {
  const decoder = decoderOf(response.headers['content-encoding']);
  const out = decoder ?? new PassThrough();
  // A line that breaks is an error of what is read, not an early end of it.
  response.on('aborted', () => out.destroy(Object.assign(new Error('aborted'), { code: 'ECONNRESET' })));
  response.on('error', (error) => out.destroy(error));
  out.on('close', () => response.destroy());
  return response.pipe(out);
}

function decoderOf(encoding: string | undefined): Transform | undefined {
  switch (encoding?.trim().toLowerCase()) {
    case 'gzip':
    case 'x-gzip':
      return createGunzip();
    case 'deflate':
      return createInflate();
    case 'br':
      return createBrotliDecompress();
    default:
      return undefined;
  }
}

/** Counts what has been unpacked, so that neither an endless body nor a packed bomb gets past the limit. */
function limited(body: Readable, most: number, address: URL): Readable {
  let bytes = 0;
  const counter = new Transform({
    transform(part: Buffer, _encoding, done) {
      bytes += part.length;
      if (bytes > most) done(new OutboundProblem('too-large', address.hostname));
      else done(null, part);
    },
  });
  body.on('error', (error) => counter.destroy(error));
  counter.on('close', () => body.destroy());
  return body.pipe(counter);
}
