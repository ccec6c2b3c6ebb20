import { resolve } from 'node:path';
import { SOURCES } from './gather/sources/sources.ts';
import type { BucketSettings } from './storage/bucket.ts';

/** How the server runs: read once from the environment, so that a wrong value stops the start, not a request. */
export interface Config {
  readonly databaseUrl: string;
  readonly dataFolder: string;
  /** Where originals, cuts and bundles are kept instead of on disk, or null. */
  readonly bucket: BucketSettings | null;
  readonly port: number;
  /** Where people work. */
  readonly appOrigin: string;
  /** Another origin, for uploaded files and page previews. */
  readonly mediaOrigin: string;
  readonly uploadLimitBytes: number;
  readonly isDemo: boolean;
  /** Work jobs inside this process too. */
  readonly worksJobs: boolean;
  readonly trustedProxies: number;
  /** Ports of this machine at which names under `.localhost` stand for the world outside; none outside the demo. */
  readonly standInPorts: readonly number[];
  /** Where each source is, by its ID; a source that is not named is not asked. */
  readonly sourceOrigins: Readonly<Record<string, string>>;
}

const MEGA = 1_000_000;

export function readConfig(env: NodeJS.ProcessEnv): Config {
  const port = wholeNumber(env, 'PORT', 4400);
  return {
    databaseUrl: env.DATABASE_URL ?? 'mysql://root@127.0.0.1:4406/placard',
    dataFolder: resolve(env.PLACARD_DATA ?? 'var'),
    bucket: bucketSettings(env),
    port,
    appOrigin: origin(env, 'PLACARD_ORIGIN', `http://localhost:${port}`),
    mediaOrigin: origin(env, 'PLACARD_MEDIA_ORIGIN', `http://127.0.0.1:${port}`),
    uploadLimitBytes: wholeNumber(env, 'PLACARD_UPLOAD_LIMIT_MB', 150) * MEGA,
    isDemo: env.PLACARD_DEMO !== '0',
    worksJobs: env.PLACARD_JOBS !== '0',
    trustedProxies: wholeNumber(env, 'PLACARD_PROXIES', 0),
    standInPorts: standInPorts(env),
    sourceOrigins: sourceOrigins(env),
  };
}

function standInPorts(env: NodeJS.ProcessEnv): readonly number[] {
  return env.PLACARD_DEMO !== '0' && env.OUTSIDE_PORT ? [wholeNumber(env, 'OUTSIDE_PORT', 0)] : [];
}

/** PLACARD_SOURCE_COMMONFIELD and the like; in the demo, the stand-in of each. */
function sourceOrigins(env: NodeJS.ProcessEnv): Readonly<Record<string, string>> {
  const [standInPort] = standInPorts(env);
  const origins = SOURCES.flatMap(({ id, standIn }) => {
    const name = `PLACARD_SOURCE_${id.toUpperCase()}`;
    if (env[name]) return [[id, origin(env, name, '')] as const];
    return standInPort ? [[id, `http://${standIn}.localhost:${standInPort}`] as const] : [];
  });
  return Object.fromEntries(origins);
}

function bucketSettings(env: NodeJS.ProcessEnv): BucketSettings | null {
  if (!env.PLACARD_BUCKET) return null;
  const said = (name: string) => {
    const value = env[name];
    if (!value) throw new RangeError(`PLACARD_BUCKET is set, so ${name} has to be set too.`);
    return value;
  };
  return {
    bucket: env.PLACARD_BUCKET,
    endpoint: said('PLACARD_BUCKET_ENDPOINT'),
    region: env.PLACARD_BUCKET_REGION ?? 'main',
    key: said('PLACARD_BUCKET_KEY'),
    secret: said('PLACARD_BUCKET_SECRET'),
  };
}

function wholeNumber(env: NodeJS.ProcessEnv, name: string, otherwise: number): number {
  const text = env[name];
  if (text === undefined || text === '') return otherwise;
  if (!/^\d{1,6}$/.test(text))
    throw new RangeError(`${name} has to be a whole number; it is "${text.slice(0, 40)}".`);
  return Number(text);
}

function origin(env: NodeJS.ProcessEnv, name: string, otherwise: string): string {
  const text = env[name] ?? otherwise;
  if (!URL.canParse(text))
    throw new RangeError(`${name} has to be an origin such as https://media.example.org.`);
  return new URL(text).origin;
}
