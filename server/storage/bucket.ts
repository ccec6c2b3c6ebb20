import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadObjectCommand,
  ListObjectsV2Command,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3';
import { clearParts } from './disk.ts';
import { FileChanged, StorageGone } from './failures.ts';
import { assertSafeKey, type Storage, type Stored } from './storage.ts';

const CONNECT_MILLIS = 5000;
/** Between two signs of life of the bucket. */
const ANSWER_MILLIS = 60_000;

export interface BucketSettings {
  readonly bucket: string;
  readonly endpoint: string;
  readonly region: string;
  readonly key: string;
  readonly secret: string;
}

/**
 * Files in a bucket that speaks the S3 protocol. An object is there whole or not at all. Work that needs a path
 * reads a copy below `cacheFolder`; stored bytes never change, so that folder may be emptied at any time.
 */
export function bucketStorage(settings: BucketSettings, cacheFolder: string): Storage {
  const { bucket, endpoint, region, key: accessKeyId, secret: secretAccessKey } = settings;
  const client = new S3Client({
    endpoint,
    region,
    forcePathStyle: true,
    maxAttempts: 3,
    requestHandler: { connectionTimeout: CONNECT_MILLIS, requestTimeout: ANSWER_MILLIS },
    // Streams go as they are: not every server that speaks the protocol takes checksums behind them.
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    credentials: { accessKeyId, secretAccessKey },
  });
  const at = (key: string) => {
    assertSafeKey(key);
    return { Bucket: bucket, Key: key };
  };
  const stream = (key: string) =>
    asked(async () => {
      const { Body } = await client.send(new GetObjectCommand(at(key)));
      if (!(Body instanceof Readable)) throw new Error(`The bucket gave no bytes for ${key}.`);
      return Body;
    });
  return {
    put: (key, bytes) =>
      asked(async () => {
        await client.send(new PutObjectCommand({ ...at(key), Body: bytes, ContentLength: bytes.length }));
      }),
    take: (key, path, sha256) =>
      asked(async () => {
        const { size } = await stat(path);
        const hash = createHash('sha256');
        // Read once: what is hashed is what was sent. Whatever its writer adds meanwhile is not sent.
        const body = createReadStream(path, { start: 0, end: Math.max(0, size - 1) });
        body.on('data', (part) => hash.update(part));
        await client.send(new PutObjectCommand({ ...at(key), Body: body, ContentLength: size }));
        if (!sha256 || hash.digest('hex') === sha256) return;
        await client.send(new DeleteObjectCommand(at(key)));
        throw new FileChanged(key);
      }),
    read: async (key) => {
      const parts: Buffer[] = [];
      for await (const part of await stream(key)) parts.push(Buffer.from(part));
      return Buffer.concat(parts);
    },
    stream,
    has: (key) =>
      asked(async () => {
        try {
          await client.send(new HeadObjectCommand(at(key)));
          return true;
        } catch (error) {
          if (isNotThere(error)) return false;
          throw error;
        }
      }),
    remove: (key) =>
      asked(async () => {
        await client.send(new DeleteObjectCommand(at(key)));
        await rm(join(cacheFolder, key), { force: true });
      }),
    list: (folder) => listed(client, bucket, `${folder}/`),
    clear: (before) => clearParts(cacheFolder, before),
    withFile: async (key, use) => use(await cached(key, cacheFolder, stream)),
  };
}

async function* listed(client: S3Client, bucket: string, prefix: string): AsyncIterable<Stored> {
  let token: string | undefined;
  do {
    const page = await asked(() =>
      client.send(
        new ListObjectsV2Command({
          Bucket: bucket,
          Prefix: prefix,
          ...(token ? { ContinuationToken: token } : {}),
        }),
      ),
    );
    for (const { Key, LastModified } of page.Contents ?? [])
      if (Key && LastModified) yield { key: Key, at: LastModified };
    token = page.NextContinuationToken;
  } while (token);
}

function isNotThere(error: unknown): boolean {
  return error instanceof S3ServiceException && error.$metadata.httpStatusCode === 404;
}

/** What the bucket refuses is told as it is; that it does not answer, or has a fault of its own, is told as that. */
async function asked<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw isGone(error) ? new StorageGone(error) : error;
  }
}

const GONE =
  /^(ECONN|EPIPE|ETIMEDOUT|ENOTFOUND|EAI_AGAIN|EHOSTUNREACH|ENETUNREACH|CERT|ERR_TLS|UNABLE_TO_VERIFY)/;

function isGone(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  if (error instanceof S3ServiceException) return (error.$metadata.httpStatusCode ?? 500) >= 500;
  const code = 'code' in error ? String(error.code) : '';
  return GONE.test(code) || error.name === 'TimeoutError' || error.message === 'socket hang up';
}

/** The path of a copy of the stored bytes, fetched when it is not there yet. */
async function cached(key: string, cacheFolder: string, stream: Storage['stream']): Promise<string> {
  assertSafeKey(key);
  const path = join(cacheFolder, key);
  const isThere = await stat(path).then(
    () => true,
    () => false,
  );
  if (isThere) return path;
  const temporary = `${path}.${randomUUID()}.part`;
  await mkdir(dirname(path), { recursive: true });
  try {
    await pipeline(await stream(key), createWriteStream(temporary));
    await rename(temporary, path);
  } catch (error) {
    await rm(temporary, { force: true });
    throw error;
  }
  return path;
}
