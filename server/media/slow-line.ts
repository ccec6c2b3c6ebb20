import { request as ask } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';
import { type Request, type RequestHandler, type Response, Router } from 'express';
import { LRUCache } from 'lru-cache';
import { SLOW_LINE } from '#core/proof/slow-line.ts';
import type { Config } from '../config.ts';
import { notFound } from '../problem.ts';

/** What a line carries at once, so that what comes by it beside each other shares it as on a line of that width. */
const PART_BYTES = 4_000;
/** A name is looked for, a line opened and closed to others: three times there and back (RFC 9293, RFC 8446). */
const FIRST_ROUNDS = 3;
/** Runs whose line is remembered. */
const MOST_RUNS = 200;
const RUN = /^[a-z0-9]{8}$/;

/** One line: when it is free again, and whether it was opened. */
interface Line {
  freeAt: number;
  isOpen: boolean;
}

/** The path below which everything comes as by a slow line; each run has a line of its own, so that nothing of an earlier one is known. */
export const slowPath = (run: string): string => `/slow/${run}`;

export const isRun = (text: unknown): text is string => typeof text === 'string' && RUN.test(text);

/** What this very origin answers, by a slow line. */
export function slowLine({ port, mediaOrigin }: Pick<Config, 'port' | 'mediaOrigin'>): Router {
  const lines = new LRUCache<string, Line>({ max: MOST_RUNS });
  const router = Router();
  const handle: RequestHandler = async (request, response) => {
    const { run } = request.params;
    // A line through a line, and so on, would be a thousand questions for one.
    if (!isRun(run) || pathBehind(request).startsWith('/slow/')) throw notFound('This line');
    const line = lines.get(run) ?? { freeAt: 0, isOpen: false };
    lines.set(run, line);
    const rounds = line.isOpen ? 1 : FIRST_ROUNDS;
    line.isOpen = true;
    await wait(SLOW_LINE.roundMillis * rounds);
    await pass(request, response, line, { port, host: new URL(mediaOrigin).host });
  };
  router.get('/slow/:run/*path', handle);
  return router;
}

/** What is asked for by the line. */
const pathBehind = ({ originalUrl, params }: Request): string =>
  originalUrl.slice(slowPath(String(params.run)).length);

function pass(
  request: Request,
  response: Response,
  line: Line,
  { port, host }: { readonly port: number; readonly host: string },
): Promise<void> {
  const path = pathBehind(request);
  return new Promise((resolve, reject) => {
    const asked = ask({ host: '127.0.0.1', port, path, headers: { host } }, (answer) => {
      // What was kept from an earlier look would come at once.
      response.writeHead(answer.statusCode ?? 502, {
        ...answer.headers,
        'cache-control': 'no-store',
      });
      carry(answer, response, line).then(resolve, reject);
    });
    response.on('close', () => asked.destroy());
    asked.on('error', (error) => (response.destroyed ? resolve() : reject(error)));
    asked.end();
  });
}

async function carry(answer: AsyncIterable<Buffer>, response: Response, line: Line): Promise<void> {
  for await (const bytes of answer)
    for (let from = 0; from < bytes.length; from += PART_BYTES) {
      const part = bytes.subarray(from, from + PART_BYTES);
      const millis = (part.length / SLOW_LINE.bytesPerSecond) * 1000;
      line.freeAt = Math.max(line.freeAt, Date.now()) + millis;
      await wait(line.freeAt - Date.now());
      if (response.destroyed) return;
      response.write(part);
    }
  response.end();
}
