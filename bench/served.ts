import { stat } from 'node:fs/promises';
import { Agent, get } from 'node:http';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import sharp from 'sharp';
import { median, say } from './measure.ts';
import { type BenchWorld, ORIGIN } from './world.ts';

const REQUESTS = 1500;
const AT_ONCE = 16;
/** A bare static server on a thread of its own, as the real one has a process of its own. */
const BARE = `
  const { workerData, parentPort } = require('node:worker_threads');
  const express = require('express');
  const app = express();
  app.use(express.static(workerData));
  const server = app.listen(0, '127.0.0.1', () => parentPort.postMessage(server.address().port));
`;

/** Cuts that are already made, from a Placard that runs at PLACARD_ORIGIN, against a bare static server. */
export async function benchServed({ folder }: Pick<BenchWorld, 'folder'>): Promise<void> {
  const address = await madeAddress();
  const cut = Buffer.from(await (await fetch(address)).arrayBuffer());
  await sharp(cut).toFile(join(folder, 'cut.webp'));
  const { size } = await stat(join(folder, 'cut.webp'));
  const bare = new Worker(BARE, { eval: true, workerData: folder });
  const port = await new Promise<number>((resolve) => bare.once('message', resolve));
  try {
    const byBare = await median(() => ask(`http://127.0.0.1:${port}/cut.webp`), 3);
    const byUs = await median(() => ask(address), 3);
    const rate = (millis: number) => Math.round((REQUESTS * 1000) / millis);
    say(
      `cuts already made, of ${Math.round(size / 1000)} kB, against a bare static server (aim: at least 0.50)`,
      `${(byBare / byUs).toFixed(2)} of it (${rate(byUs)} a second against ${rate(byBare)})`,
    );
  } finally {
    await bare.terminate();
  }
}

/** The large picture of a piece, asked for once so that it is made. */
async function madeAddress(): Promise<string> {
  const sent = { 'content-type': 'application/json', origin: ORIGIN };
  const signed = await fetch(`${ORIGIN}/api/session`, {
    method: 'POST',
    headers: sent,
    body: JSON.stringify({ email: 'mara@saltmere.example', password: 'saltmere-2026' }),
  });
  const cookie = signed.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');
  const answer = await fetch(`${ORIGIN}/api/assets?kind=photo&limit=1`, { headers: { cookie } });
  const { assets } = await answer.json();
  await fetch(assets[0].view);
  return assets[0].view;
}

async function ask(address: string): Promise<void> {
  const agent = new Agent({ keepAlive: true, maxSockets: AT_ONCE });
  let left = REQUESTS;
  const one = () =>
    new Promise<void>((resolve, reject) => {
      get(address, { agent }, (response) => {
        if (response.statusCode !== 200) reject(new Error(`${response.statusCode} from ${address}`));
        response.resume().on('end', resolve);
      }).on('error', reject);
    });
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (left > 0) {
        left -= 1;
        await one();
      }
    }),
  );
  agent.destroy();
}
