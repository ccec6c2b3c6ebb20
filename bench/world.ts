import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import sharp from 'sharp';
import { seeded } from '../demo/painter/random.ts';
import { render } from '../demo/painter/render.ts';
import { paintScene } from '../demo/painter/scene.ts';
import { readConfig } from '../server/config.ts';
import { type Context, closeContext, openContext } from '../server/context.ts';

/** Where a Placard runs with its demo, for what is measured from outside. */
export const ORIGIN = process.env.PLACARD_ORIGIN ?? `http://localhost:${process.env.PORT ?? 4400}`;

/** A server's inside on a database and a folder of its own, and pictures to work on. */
export interface BenchWorld {
  readonly context: Context;
  readonly folder: string;
  readonly close: () => Promise<void>;
}

/** `env` is more of the environment that it is opened in. */
export async function openWorld(env: Readonly<Record<string, string>> = {}): Promise<BenchWorld> {
  const server = new URL(process.env.DATABASE_URL ?? '');
  const serverUrl = `${server.protocol}//${server.username}:${server.password}@${server.host}`;
  const connection = await createConnection(serverUrl);
  await connection.query('DROP DATABASE IF EXISTS placard_bench');
  await connection.query('CREATE DATABASE placard_bench CHARACTER SET utf8mb4');
  await connection.end();
  const folder = await mkdtemp(join(tmpdir(), 'placard-bench-'));
  const context = await openContext(
    readConfig({
      DATABASE_URL: `${serverUrl}/placard_bench`,
      PLACARD_DATA: folder,
      PLACARD_DEMO: '0',
      ...env,
    }),
  );
  const close = async () => {
    await closeContext(context);
    await rm(folder, { recursive: true, force: true });
  };
  return { context, folder, close };
}

/**
 * Originals of one size, each another in every pixel, and quick to make: a few paintings, each shifted, lit and grained
 * anew.
 */
export async function grainedOriginals(
  folder: string,
  count: number,
  size: { readonly width: number; readonly height: number },
): Promise<readonly string[]> {
  const BASES = 4;
  const bases = await paintOriginals(folder, BASES, { width: size.width + 200, height: size.height + 200 });
  const paths: string[] = [];
  for (let number = 0; number < count; number += 1) {
    const path = join(folder, `grained-${number}.jpg`);
    const base = bases[number % BASES] ?? '';
    await sharp(base)
      .extract({ left: (number * 13) % 200, top: (number * 29 + Math.floor(number / 200)) % 200, ...size })
      .modulate({ brightness: 0.9 + (number % 20) / 100 })
      .jpeg({ quality: 90 })
      .toFile(path);
    paths.push(path);
  }
  return paths;
}

/** Paints originals of different content into a folder; answers their paths. */
export async function paintOriginals(
  folder: string,
  count: number,
  size: { readonly width: number; readonly height: number },
): Promise<readonly string[]> {
  const paths: string[] = [];
  // Two paintings and many crops of grain over them: each file is another to the last byte, and quick to make.
  for (let number = 0; number < count; number += 1) {
    const random = seeded(7000 + number);
    const svg = paintScene(number % 2 === 0 ? 'heron' : 'boardwalk', 'dawn', 7000 + (number % 4), 1.5);
    const path = join(folder, `original-${size.width}-${number}.jpg`);
    const image = await render(svg, { ...size, grain: 20 + random.next() * 12 }, 7000 + number);
    await image.jpeg({ quality: 90 }).toFile(path);
    paths.push(path);
  }
  return paths;
}
