import { type ChildProcess, spawn } from 'node:child_process';
import { mkdir, readdir, readFile, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { startDatabase, stopDatabase } from '../../scripts/lib/mariadb.mjs';

/** How a house is run: where its files are, and in how many processes. */
export interface Shape {
  readonly store: 'disk' | 'bucket';
  readonly processes: 1 | 3;
}

const DATABASE_PORT = 4566;
const BUCKET_PORT = 4567;
const OUTSIDE_PORT = 4568;
const SERVER_PORTS = [4560, 4562] as const;

type Part = 'database' | 'bucket' | 'outside' | 'worker' | (typeof SERVER_PORTS)[number];

/** A house whose parts can be killed and started again, each by itself. */
export class World {
  readonly shape: Shape;
  readonly folder: string;
  readonly #children = new Map<Part, ChildProcess>();
  #databaseUrl = '';

  constructor(shape: Shape, folder: string) {
    this.shape = shape;
    this.folder = folder;
  }

  get databaseUrl(): string {
    return this.#databaseUrl;
  }

  get ports(): readonly number[] {
    return this.shape.processes === 1 ? [SERVER_PORTS[0]] : SERVER_PORTS;
  }

  /** The environment of its servers and workers. */
  get env(): Readonly<Record<string, string>> {
    const bucket = {
      PLACARD_BUCKET: 'placard',
      PLACARD_BUCKET_ENDPOINT: `http://127.0.0.1:${BUCKET_PORT}`,
      PLACARD_BUCKET_KEY: 'S3RVER',
      PLACARD_BUCKET_SECRET: 'S3RVER',
    };
    return {
      DATABASE_URL: this.#databaseUrl,
      PLACARD_DATA: join(this.folder, 'data'),
      OUTSIDE_PORT: String(OUTSIDE_PORT),
      LOG_LEVEL: 'fatal',
      ...(this.shape.store === 'bucket' ? bucket : {}),
    };
  }

  async begin(): Promise<void> {
    await rm(this.folder, { recursive: true, force: true });
    await mkdir(join(this.folder, 'data'), { recursive: true });
    await this.#startDatabase();
    if (this.shape.store === 'bucket') await this.#startBucket();
    await this.#start('outside', 'outside/main.ts', { OUTSIDE_PICTURES: join(this.folder, 'pictures') });
  }

  async startPlacard(): Promise<void> {
    await Promise.all(this.placard().map((part) => this.restart(part)));
  }

  /** The parts that are Placard itself. */
  placard(): readonly Part[] {
    return this.shape.processes === 1 ? [SERVER_PORTS[0]] : [...SERVER_PORTS, 'worker'];
  }

  /** Kills one part at once (SIGKILL). */
  async kill(part: Part): Promise<void> {
    const pid = part === 'database' ? await this.#databasePid() : this.#children.get(part)?.pid;
    if (!pid) return;
    const child = this.#children.get(part);
    const ended = child && child.exitCode === null && new Promise((resolve) => child.once('exit', resolve));
    process.kill(pid, 'SIGKILL');
    await ended;
  }

  async restart(part: Part): Promise<void> {
    if (part === 'database') await this.#startDatabase();
    else if (part === 'worker') await this.#start(part, 'server/worker.ts', {});
    else if (typeof part === 'number')
      await this.#start(part, 'server/main.ts', {
        PORT: String(part),
        PLACARD_ORIGIN: `http://localhost:${part}`,
        PLACARD_MEDIA_ORIGIN: `http://127.0.0.1:${part}`,
      });
  }

  /** Ends Placard in order; answers the processes of it that are left. */
  async endPlacard(): Promise<number> {
    const children = this.placard().flatMap((part) => this.#children.get(part) ?? []);
    await Promise.all(
      children.map(
        (child) =>
          new Promise<void>((resolve) => {
            if (child.exitCode !== null || child.signalCode !== null) return resolve();
            child.once('exit', () => resolve());
            child.kill('SIGTERM');
          }),
      ),
    );
    await new Promise((resolve) => setTimeout(resolve, 1000));
    return countLeft(this.folder);
  }

  async end(): Promise<void> {
    for (const part of ['outside', 'bucket'] as const) await this.kill(part);
    await stopDatabase(join(this.folder, 'database'));
    await rm(this.folder, { recursive: true, force: true });
  }

  async #startDatabase(): Promise<void> {
    const { url } = await startDatabase({ folder: join(this.folder, 'database'), port: DATABASE_PORT });
    this.#databaseUrl = url;
  }

  async #databasePid(): Promise<number> {
    return Number(await readFile(join(this.folder, 'database', 'mariadb.pid'), 'utf8').catch(() => '0'));
  }

  async #startBucket(): Promise<void> {
    const bin = createRequire(import.meta.url).resolve('s3rver/bin/s3rver.js');
    const child = spawn(
      process.execPath,
      [
        bin,
        '-a',
        '127.0.0.1',
        '-p',
        String(BUCKET_PORT),
        '-d',
        join(this.folder, 'bucket'),
        '-s',
        '--configure-bucket',
        'placard',
      ],
      { stdio: 'ignore' },
    );
    this.#children.set('bucket', child);
    await untilItAnswers(`http://127.0.0.1:${BUCKET_PORT}`);
  }

  #start(part: Part, script: string, more: Readonly<Record<string, string>>): Promise<void> {
    const child = spawn(process.execPath, ['--no-warnings', '--import', 'tsx', script], {
      env: { ...process.env, ...this.env, ...more, SOAK_FOLDER: this.folder },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    });
    this.#children.set(part, child);
    return new Promise((resolve) => {
      child.once('message', () => resolve());
      // Killed, or without its database, before it listened: it is started again by the next round.
      child.once('exit', () => resolve());
    });
  }
}

async function untilItAnswers(address: string): Promise<void> {
  for (let tries = 0; tries < 200; tries += 1) {
    if (
      await fetch(address).then(
        () => true,
        () => false,
      )
    )
      return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`${address} does not answer.`);
}

/** Processes that read pictures, texts or labels for a house that has ended. */
async function countLeft(folder: string): Promise<number> {
  let left = 0;
  for (const name of await readdir('/proc')) {
    if (!/^\d+$/.test(name)) continue;
    const command = await readFile(`/proc/${name}/cmdline`, 'utf8').catch(() => '');
    const parent = /^\d+ \(.*\) \S (\d+)/s.exec(
      await readFile(`/proc/${name}/stat`, 'utf8').catch(() => ''),
    )?.[1];
    const isOurs = /picture-process|text-process|exiftool/.test(command) && parent === '1';
    if (isOurs || (command.includes('server/main.ts') && command.includes(folder))) left += 1;
  }
  return left;
}
