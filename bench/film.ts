import { spawn } from 'node:child_process';
import { createReadStream } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import { withText } from '#core/film/edit-cues.ts';
import { judgeCue, mendCues } from '#core/film/judge-cues.ts';
import { WHOLE_FILM } from '#core/film/recipe.ts';
import { encodeArgs } from '../server/films/encode.ts';
import { readFilm } from '../server/films/films.ts';
import { runLong } from '../server/films/long-program.ts';
import { runProgram } from '../server/foreign/program.ts';
import { sendInRanges } from '../server/storage/send-in-ranges.ts';
import { median, millis, say, times } from './measure.ts';

const SECONDS = 4;
const RUNS = 3;
const LINES = 2000;

/** A film of 1080p made for the web, its first still, its parts as they are asked for, and captions of 2,000 lines. */
export async function benchFilm(): Promise<void> {
  captions();
  const folder = await mkdtemp(join(tmpdir(), 'placard-bench-film-'));
  try {
    const path = await grainedFilm(folder);
    await making(path, folder);
    await firstStill(path, folder);
    await ranges(path);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function grainedFilm(folder: string): Promise<string> {
  const path = join(folder, 'marsh.mp4');
  await runProgram(
    'ffmpeg',
    [
      ...[
        '-nostdin',
        '-v',
        'error',
        '-f',
        'lavfi',
        '-i',
        `testsrc2=size=1920x1080:rate=25,noise=alls=12:allf=t`,
      ],
      ...['-f', 'lavfi', '-i', 'sine=frequency=440', '-t', String(SECONDS), '-pix_fmt', 'yuv420p'],
      ...[
        '-c:v',
        'libx264',
        '-preset',
        'ultrafast',
        '-crf',
        '16',
        '-c:a',
        'aac',
        '-movflags',
        '+faststart',
        '-y',
        path,
      ],
    ],
    { millis: 120_000, bytes: 8_000_000_000, answerBytes: 100_000 },
  );
  return path;
}

async function making(path: string, folder: string): Promise<void> {
  const film = await readFilm({ dataFolder: folder }, { path, name: 'marsh.mp4' });
  if (!film) throw new Error('It is no film.');
  const source = { path, film: film.facts, recipe: WHOLE_FILM };
  const encoding = { format: 'mp4', size: { width: 1920, height: 1080 }, crf: 24, level: [] } as const;
  const to = join(folder, 'made.mp4');
  const args = encodeArgs(source, encoding, to);
  const { signal } = new AbortController();
  const ours = await median(
    () =>
      runLong({
        program: 'ffmpeg',
        args,
        bytes: 12_000_000_000,
        seconds: 3600,
        signal,
        onOut: () => undefined,
      }),
    RUNS,
  );
  const bare = await median(() => plain(args), RUNS);
  say(
    'an MP4 of 1080p made (aim: at most 1.05)',
    `${times(ours, bare)} bare ffmpeg at the same settings, ${millis(ours)}`,
  );
}

const plain = (args: readonly string[]): Promise<void> =>
  new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', [...args], { stdio: 'ignore' });
    child.on('error', reject);
    child.on('close', (code) => (code === 0 ? resolve() : reject(new Error(`ffmpeg ended with ${code}.`))));
  });

async function firstStill(path: string, folder: string): Promise<void> {
  const took = await median(async () => {
    const film = await readFilm({ dataFolder: folder }, { path, name: 'marsh.mp4' });
    await film?.still();
  }, RUNS);
  say('facts and first still of a film (aim: within 1 s)', millis(took));
}

const PART = 2_000_000;

/** Parts of a file as the product sends them, against a bare server of files. */
async function ranges(path: string): Promise<void> {
  const { size } = await stat(path);
  const starts = Array.from({ length: 20 }, (_, at) => Math.floor((at * (size - PART)) / 20));
  const app = express().get('/film', (_request, response) => sendInRanges(response, path));
  const bareServer = createServer((request, response) => {
    const [, from = '0', to = ''] = /bytes=(\d+)-(\d+)/.exec(request.headers.range ?? '') ?? [];
    response.writeHead(206, { 'Content-Length': Number(to) - Number(from) + 1 });
    createReadStream(path, { start: Number(from), end: Number(to) }).pipe(response);
  });
  const servers = [app.listen(0, '127.0.0.1'), bareServer.listen(0, '127.0.0.1')];
  const asked = async (at: number) => {
    const address = servers[at]?.address();
    const port = typeof address === 'object' && address ? address.port : 0;
    for (const from of starts) {
      const answer = await fetch(`http://127.0.0.1:${port}/film`, {
        headers: { range: `bytes=${from}-${from + PART - 1}` },
      });
      await answer.arrayBuffer();
    }
  };
  await asked(0);
  await asked(1);
  const ours = await median(() => asked(0), 5);
  const bare = await median(() => asked(1), 5);
  say('20 parts of a film asked for (aim: at most 2)', `${times(ours, bare)} a bare server, ${millis(ours)}`);
  for (const server of servers) server.close();
}

function captions(): void {
  const cues = Array.from({ length: LINES }, (_, at) => ({
    from: at * 3000,
    to: at * 3000 + 2400,
    text: 'What they can do is climb,\nif there is something wet and rough.',
  }));
  const began = performance.now();
  const { cues: changed } = withText(cues, 1000, 'Eels cannot jump.');
  for (let at = 0; at < changed.length; at += 1) judgeCue(changed, at);
  mendCues(changed);
  say(
    `a caption of ${LINES} changed, all judged and mended (aim: within 16 ms)`,
    millis(performance.now() - began),
  );
}
