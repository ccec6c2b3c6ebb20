import { createHash, randomBytes, randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { plainOrder } from '#core/run/order.ts';

/** What was acknowledged, to be found again at the end. */
export interface Acknowledged {
  /** SHA-256 of the bytes by the ID of the piece. */
  readonly uploads: Map<string, string>;
  /** By page, the last text that was saved, and how many saves were acknowledged. */
  readonly pages: Map<string, { words: string; saves: number }>;
  /** By piece, the last title that was saved, and how many were. */
  readonly labels: Map<string, { title: string; saves: number }>;
  /** Jobs that were ordered. */
  readonly jobs: Set<string>;
  /** Titles under which a page was begun. */
  readonly begun: Set<string>;
  /** Answers that say that something went wrong here, which no kill may cause. */
  readonly faults: string[];
}

export interface Hands {
  readonly origin: () => string;
  readonly cookie: string;
  /** False when no more is to be begun. */
  readonly goesOn: () => boolean;
  /** Told of every answer that is a fault of Placard. */
  readonly onFault: (words: string) => void;
}

interface Answer {
  readonly status: number;
  readonly body: Record<string, unknown>;
  readonly headers: Headers;
}

const AGAIN_MILLIS = 150;
const PATIENCE_MILLIS = 90_000;

/** Asks until it is answered by something other than that it cannot just now, as a window does. */
async function ask(
  hands: Hands,
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Answer> {
  const key = randomUUID();
  for (const until = Date.now() + PATIENCE_MILLIS; ; ) {
    try {
      const response = await fetch(`${hands.origin()}${path}`, {
        method,
        headers: {
          cookie: hands.cookie,
          'idempotency-key': key,
          ...(body === undefined || body instanceof Uint8Array ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        ...(body === undefined
          ? {}
          : { body: body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body) }),
        signal: AbortSignal.timeout(30_000),
      });
      const text = await response.text();
      if (response.status === 500) hands.onFault(`${method} ${path}: ${text.slice(0, 200)}`);
      if (response.status < 500 && response.status !== 429 && response.status !== 423)
        return { status: response.status, body: parsed(text), headers: response.headers };
      if (Date.now() > until)
        throw new Error(`${method} ${path} is not answered: ${response.status} ${text.slice(0, 200)}`);
    } catch (error) {
      if (Date.now() > until) throw error;
    }
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MILLIS));
  }
}

function parsed(text: string): Record<string, unknown> {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : {};
  } catch {
    return {};
  }
}

async function freshPicture(): Promise<Buffer> {
  const small = sharp(randomBytes(24 * 16 * 3), { raw: { width: 24, height: 16, channels: 3 } });
  return small.resize(480, 320).jpeg({ quality: 85 }).toBuffer();
}

/** Hands pictures in, in three parts each, and goes on where the line was cut. */
export async function uploader(hands: Hands, done: Acknowledged): Promise<void> {
  while (hands.goesOn()) {
    const bytes = await freshPicture();
    const id = await send(hands, bytes);
    if (!id) continue;
    const answer = await ask(hands, 'POST', '/api/arrivals', { uploadId: id });
    const asset = answer.body.asset as { id?: string } | undefined;
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    if (answer.status === 200 && asset?.id) done.uploads.set(asset.id, sha256);
  }
}

async function send(hands: Hands, bytes: Buffer): Promise<string | null> {
  const tus = { 'tus-resumable': '1.0.0' };
  const begun = await ask(hands, 'POST', '/api/uploads', undefined, {
    ...tus,
    'upload-length': String(bytes.length),
    'upload-metadata': `filename ${Buffer.from('soaked.jpg').toString('base64')}`,
  });
  const path = begun.headers.get('location');
  if (begun.status !== 201 || !path) return null;
  for (let offset = 0; offset < bytes.length; ) {
    const part = bytes.subarray(offset, offset + Math.ceil(bytes.length / 3));
    const sent = await ask(hands, 'PATCH', path, part, {
      ...tus,
      'upload-offset': String(offset),
      'content-type': 'application/offset+octet-stream',
    });
    if (sent.status === 204) offset = Number(sent.headers.get('upload-offset'));
    else {
      const head = await ask(hands, 'HEAD', path, undefined, tus);
      if (head.status !== 200) return null;
      offset = Number(head.headers.get('upload-offset'));
    }
  }
  return path.split('/').at(-1) ?? null;
}

/** Begins a page, and saves it again and again on the version that it knows. */
export async function saver(hands: Hands, done: Acknowledged, name: string): Promise<void> {
  const title = `Page of ${name}`;
  const made = await ask(hands, 'POST', '/api/pages', { title, targetId: 'reserve', wants: [] });
  const id = String(made.body.id);
  done.begun.add(title);
  let version = 1;
  for (let count = 1; hands.goesOn(); count += 1) {
    const words = `Save ${count} of ${name}`;
    const doc = {
      title,
      wants: [],
      tray: [],
      blocks: [{ type: 'paragraph', attrs: { id: 'first' }, content: [{ type: 'text', text: words }] }],
    };
    const saved = await ask(hands, 'PUT', `/api/pages/${id}`, { doc }, { 'if-match': `"${version}"` });
    if (saved.status !== 200)
      throw new Error(`A save of one's own page was refused: ${JSON.stringify(saved.body)}`);
    version = Number(saved.body.version);
    done.pages.set(id, { words, saves: count });
  }
}

/** Takes a piece, and writes its title again and again on the version that it knows. */
export async function labeller(hands: Hands, done: Acknowledged, name: string): Promise<void> {
  const id = await send(hands, await freshPicture());
  if (!id) return labeller(hands, done, name);
  const came = await ask(hands, 'POST', '/api/arrivals', { uploadId: id });
  const asset = came.body.asset as { id: string; version: number };
  let { version } = asset;
  for (let count = 1; hands.goesOn(); count += 1) {
    const title = `Title ${count} of ${name}`;
    const changed = await ask(
      hands,
      'PATCH',
      `/api/assets/${asset.id}`,
      { label: { title } },
      { 'if-match': `"${version}"` },
    );
    // A run may have moved it meanwhile, which is shown as any clash is: looked at, and written again on what stands.
    const current = changed.body.current as { version: number } | undefined;
    if (changed.status === 412 && current) {
      version = current.version;
      count -= 1;
      continue;
    }
    if (changed.status !== 200)
      throw new Error(`An edit of one's own label was refused: ${JSON.stringify(changed.body)}`);
    version = Number(changed.body.version);
    done.labels.set(asset.id, { title, saves: count });
  }
}

/** Takes pages away as ZIPs, one after the other, and waits for each. */
export async function packer(hands: Hands, done: Acknowledged, name: string): Promise<void> {
  const title = `Packed by ${name}`;
  const made = await ask(hands, 'POST', '/api/pages', { title, targetId: 'reserve', wants: [] });
  done.begun.add(title);
  while (hands.goesOn()) {
    const job = await ask(hands, 'POST', `/api/pages/${made.body.id}/take-away`, {});
    if (job.status !== 202) throw new Error(`A ZIP was refused: ${JSON.stringify(job.body)}`);
    done.jobs.add(String(job.body.id));
    await ended(hands, `/api/jobs/${job.body.id}`);
  }
}

/** Runs over the newest pieces of the shelf: two sizes of each, and another folder. */
export async function runner(hands: Hands, done: Acknowledged): Promise<void> {
  for (let count = 0; hands.goesOn(); count += 1) {
    const shelf = await ask(hands, 'GET', '/api/assets?limit=4');
    const pieces = ((shelf.body.assets ?? []) as { id: string }[]).map(({ id }) => id);
    if (pieces.length === 0) continue;
    const order = {
      ...plainOrder('reserve', pieces),
      sizes: [{ by: 'share', percent: 30 + (count % 5) * 10 }],
      formats: ['webp'],
      folder: `soaked/${count % 3}`,
    };
    const preview = await ask(hands, 'POST', '/api/run-previews', order);
    if (preview.status !== 200)
      throw new Error(`A run is not settled: ${JSON.stringify(preview.body).slice(0, 300)}`);
    const begun = await ask(hands, 'POST', '/api/runs', { order, seen: preview.body.seen });
    if (begun.status === 409 || begun.status === 422) continue;
    if (begun.status !== 202) throw new Error(`A run was refused: ${JSON.stringify(begun.body)}`);
    done.jobs.add(String(begun.body.id));
    await ended(hands, `/api/runs/${begun.body.id}`);
  }
}

/** Gathers the pictures of a page outside, again and again. */
export async function gatherer(hands: Hands, done: Acknowledged, address: string): Promise<void> {
  while (hands.goesOn()) {
    const reading = await ask(hands, 'POST', '/api/readings', { address });
    const pictures = (reading.body.pictures ?? []) as { seal: string }[];
    if (reading.status !== 200 || pictures.length === 0) continue;
    const wish = {
      seals: pictures.slice(0, 4).map(({ seal }) => seal),
      pageId: null,
      wantId: null,
      folder: '',
      licence: null,
    };
    const ordered = await ask(hands, 'POST', '/api/gatherings', wish);
    if (ordered.status !== 202) throw new Error(`A gathering was refused: ${JSON.stringify(ordered.body)}`);
    done.jobs.add(String(ordered.body.jobId));
    await ended(hands, `/api/gatherings/${ordered.body.jobId}`);
  }
}

/** Waits until a job has ended, or as long as somebody would. */
async function ended(hands: Hands, path: string): Promise<void> {
  for (const until = Date.now() + PATIENCE_MILLIS; Date.now() < until; ) {
    const { body } = await ask(hands, 'GET', path);
    if (body.state !== 'waiting' && body.state !== 'running') return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}
