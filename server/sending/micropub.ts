import * as v from 'valibot';
import { isWebAddress } from '#core/rights/web-address.ts';
import type { Outbound, Probed } from '../outbound/outbound.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { type FileToSend, type PageToSend, SendProblem, type Way } from './way.ts';

interface Door {
  readonly outbound: Outbound;
  /** The Micropub endpoint. */
  readonly address: string;
  readonly token: string;
  readonly signal: AbortSignal;
}

const LIMITS = { bytes: 1_000_000, millis: 30_000 };
/** A file of 150 MB over a line of 10 Mbit/s takes two minutes. */
const FILE_LIMITS = { bytes: 1_000_000, millis: 180_000 };

const ConfigSchema = v.object({ 'media-endpoint': v.pipe(v.string(), v.check(isWebAddress)) });
const ListSchema = v.object({
  items: v.array(
    v.object({
      properties: v.object({
        uid: v.optional(v.array(v.string()), []),
        url: v.optional(v.array(v.string()), []),
      }),
    }),
  ),
});
const RefusalSchema = v.object({
  error: v.optional(v.string(), ''),
  error_description: v.optional(v.string(), ''),
});

/** Sending by Micropub (W3C Recommendation, 23 May 2017) with its media endpoint; tokens as RFC 6750 has them. */
export function micropub({ outbound, address, token, signal }: Door): Way {
  const ask = (query: Readonly<Record<string, string>>) => {
    const url = new URL(address);
    for (const [name, value] of Object.entries(query)) url.searchParams.set(name, value);
    return outbound.tell(
      url.href,
      { method: 'GET', token },
      { limits: LIMITS, accept: 'application/json', signal },
    );
  };
  const tell = (what: object) =>
    outbound.tell(
      address,
      { method: 'POST', token, type: 'application/json', body: Buffer.from(JSON.stringify(what)) },
      { limits: LIMITS, accept: 'application/json', signal },
    );
  let mediaEndpoint: Promise<string> | null = null;
  /** 3.7.1: the configuration names the media endpoint. */
  const readMediaEndpoint = async () => {
    const answer = await ask({ q: 'config' });
    assertTaken(answer, 'The configuration could not be read');
    const read = v.safeParse(ConfigSchema, maybeJson(answer.bytes));
    if (!read.success)
      throw new SendProblem(
        `${new URL(address).host} names no place for files (a media endpoint), so no pictures can be sent to it. Nothing was sent.`,
      );
    return read.output['media-endpoint'];
  };

  return {
    /** 3.6: one file as the part "file" of multipart/form-data; answered with its address. */
    async putFile({ name, type, bytes }: FileToSend) {
      mediaEndpoint ??= readMediaEndpoint();
      const form = new FormData();
      form.set('file', new Blob([new Uint8Array(bytes)], { type }), name);
      const packed = new Response(form);
      const answer = await outbound.tell(
        await mediaEndpoint,
        {
          method: 'POST',
          token,
          type: packed.headers.get('content-type') ?? '',
          body: Buffer.from(await packed.arrayBuffer()),
        },
        { limits: FILE_LIMITS, signal },
      );
      assertTaken(answer, `“${name}” was not taken`);
      return locationOf(answer, `“${name}” was taken, and nobody was told where it is`);
    },

    /** 3.3 creates it, 3.4 replaces what it says. */
    async putPage(page, standsAt) {
      const properties = propertiesOf(page);
      if (standsAt !== null) {
        const answer = await tell({ action: 'update', url: standsAt, replace: properties });
        // Somebody took it down there: it is put up anew.
        if (!isGone(answer)) {
          assertTaken(answer, 'The page was not taken');
          return answer.headers.location ? locationOf(answer, '') : standsAt;
        }
      }
      const answer = await tell({ type: ['h-entry'], properties });
      assertTaken(answer, 'The page was not taken');
      return locationOf(answer, 'The page was taken, and nobody was told where it stands');
    },

    /** The list of what stands there is an extension; a place that does not know it answers something else. */
    async find(uid) {
      const answer = await ask({ q: 'source', limit: '20' });
      const read = v.safeParse(ListSchema, answer.status === 200 ? maybeJson(answer.bytes) : null);
      if (!read.success) return null;
      const found = read.output.items.find(({ properties }) => properties.uid.includes(uid));
      const url = found?.properties.url[0];
      return url !== undefined && isWebAddress(url) ? url : null;
    },

    /** 3.5. One that is gone already is down. */
    async takeDown(standsAt) {
      const answer = await tell({ action: 'delete', url: standsAt });
      if (!isGone(answer)) assertTaken(answer, 'The page was not taken down');
    },
  };
}

const isGone = ({ status }: Probed): boolean => status === 404 || status === 410;

function propertiesOf({ uid, title, html, summary, photo }: PageToSend) {
  return {
    uid: [uid],
    name: [title],
    content: [{ html }],
    ...(summary === '' ? {} : { summary: [summary] }),
    ...(photo ? { photo: [{ value: photo.address, alt: photo.alt }] } : {}),
  };
}

/** 3.3.1: what was made is named by `Location`, which may be relative (RFC 9110, 10.2.2). */
function locationOf({ headers, address }: Probed, what: string): string {
  const { location = '' } = headers;
  const at = location !== '' && URL.canParse(location, address) ? new URL(location, address).href : '';
  if (isWebAddress(at)) return at;
  throw new SendProblem(`${what}. ${new URL(address).host} does not keep to Micropub there.`);
}

/** 3.8: what went wrong is said by the status, and in words by the body. */
function assertTaken({ status, bytes, address, headers }: Probed, what: string): void {
  if (status >= 200 && status < 300) return;
  const { host } = new URL(address);
  if (status === 429 || status >= 500) {
    const seconds = Number(headers['retry-after']);
    const waitMillis = Number.isFinite(seconds) && seconds > 0 ? seconds * 1000 : null;
    throw new OutboundProblem(status === 429 ? 'busy' : 'server-error', host, { waitMillis });
  }
  if (status === 401 || status === 403)
    throw new SendProblem(
      `${what}: ${host} does not take the token of the house. The site owner sets another in House rules; what is sent already is not sent again.`,
    );
  if (status === 413)
    throw new SendProblem(
      `${what}: it is larger than ${host} takes. What is sent already is not sent again.`,
    );
  const read = v.safeParse(RefusalSchema, maybeJson(bytes));
  const said = read.success ? (read.output.error_description || read.output.error).slice(0, 200).trim() : '';
  throw new SendProblem(
    `${what}: ${host} answered with ${status}${said ? ` and “${said.replace(/\.$/, '')}”` : ''}. What is sent already is not sent again.`,
  );
}

function maybeJson(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8')) as unknown;
  } catch {
    return undefined;
  }
}
