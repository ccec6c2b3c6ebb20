import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadObjectCommand,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3';
import { assertSafeKey, type Storage } from './storage.ts';

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
    // Streams go as they are: not every server that speaks the protocol takes checksums behind them.
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    credentials: { accessKeyId, secretAccessKey },
  });
  const at = (key: string) => {
    assertSafeKey(key);
    return { Bucket: bucket, Key: key };
  };
  const stream = async (key: string) => {
    const { Body } = await client.send(new GetObjectCommand(at(key)));
    if (!(Body instanceof Readable)) throw new Error(`The bucket gave no bytes for ${key}.`);
    return Body;
  };
  return {
    put: async (key, bytes) => {
      await client.send(new PutObjectCommand({ ...at(key), Body: bytes, ContentLength: bytes.length }));
    },
    take: async (key, path) => {
      const { size } = await stat(path);
      await client.send(
        new PutObjectCommand({ ...at(key), Body: createReadStream(path), ContentLength: size }),
      );
      await rm(path, { force: true });
    },
    read: async (key) => {
      const parts: Buffer[] = [];
      for await (const part of await stream(key)) parts.push(Buffer.from(part));
      return Buffer.concat(parts);
    },
    stream,
    has: async (key) => {
      try {
        await client.send(new HeadObjectCommand(at(key)));
        return true;
      } catch (error) {
        if (error instanceof S3ServiceException && error.$metadata.httpStatusCode === 404) return false;
        throw error;
      }
    },
    remove: async (key) => {
      await client.send(new DeleteObjectCommand(at(key)));
    },
    withFile: async (key, use) => use(await cached(key, cacheFolder, stream)),
  };
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
