import { Agent as HttpAgent } from 'node:http';
import { Agent as HttpsAgent } from 'node:https';
import type { LookupFunction } from 'node:net';
import {
  DeleteObjectCommand,
  GetObjectCommand,
  PutObjectCommand,
  S3Client,
  S3ServiceException,
} from '@aws-sdk/client-s3';
import { portOf } from '../outbound/guard.ts';
import type { Outbound } from '../outbound/outbound.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import type { FileStore } from './file-site.ts';
import { SendProblem } from './way.ts';

interface Door {
  readonly outbound: Outbound;
  /** Where the bucket is asked for. */
  readonly address: string;
  readonly bucket: string;
  readonly region: string;
  readonly keyId: string;
  readonly secret: string;
  /** Under which its files lie there. */
  readonly folder: string;
  readonly signal: AbortSignal;
}

const CONNECT_MILLIS = 10_000;
const ANSWER_MILLIS = 180_000;

/** Files in a bucket that speaks the S3 protocol; each is there whole or not at all. It is reached where every other host is. */
export function bucketStore(door: Door): FileStore {
  const { address, bucket, region, keyId, secret, folder, signal } = door;
  const host = new URL(address).host;
  const client = new S3Client({
    endpoint: address,
    region: region || 'us-east-1',
    forcePathStyle: true,
    maxAttempts: 3,
    requestHandler: {
      connectionTimeout: CONNECT_MILLIS,
      requestTimeout: ANSWER_MILLIS,
      httpAgent: new HttpAgent({ lookup: checkedLookup(door) }),
      httpsAgent: new HttpsAgent({ lookup: checkedLookup(door) }),
    },
    requestChecksumCalculation: 'WHEN_REQUIRED',
    responseChecksumValidation: 'WHEN_REQUIRED',
    credentials: { accessKeyId: keyId, secretAccessKey: secret },
  });
  const at = (path: string) => ({ Bucket: bucket, Key: folder === '' ? path : `${folder}/${path}` });
  const asking = { abortSignal: signal };
  return {
    async put(path, bytes, type) {
      const wish = { ...at(path), Body: bytes, ContentType: type, ContentLength: bytes.length };
      await client.send(new PutObjectCommand(wish), asking).catch(told(host, bucket, path));
    },
    async read(path) {
      try {
        const { Body } = await client.send(new GetObjectCommand(at(path)), asking);
        return Body ? Buffer.from(await Body.transformToByteArray()) : null;
      } catch (error) {
        if (
          error instanceof S3ServiceException &&
          error.$metadata.httpStatusCode === 404 &&
          error.name !== 'NoSuchBucket'
        )
          return null;
        return told(host, bucket, path)(error);
      }
    },
    async remove(path) {
      await client.send(new DeleteObjectCommand(at(path)), asking).catch(told(host, bucket, path));
    },
    close: () => Promise.resolve(client.destroy()),
  };
}

/** The same gate as every way out: a name is looked up there, and one that leads to a private place is refused. */
function checkedLookup({ outbound, address }: Door): LookupFunction {
  return (host, options, done) => {
    outbound.reach(host, portOf(new URL(address))).then(
      (numeric) => {
        const family = numeric.includes(':') ? 6 : 4;
        if (options.all) done(null, [{ address: numeric, family }]);
        else done(null, numeric, family);
      },
      (error: unknown) => done(error instanceof Error ? error : new Error(String(error)), ''),
    );
  };
}

function told(host: string, bucket: string, path: string): (error: unknown) => never {
  return (error) => {
    if (error instanceof OutboundProblem) throw error;
    if (!(error instanceof S3ServiceException))
      throw new OutboundProblem('unreachable', host, { cause: error });
    const status = error.$metadata.httpStatusCode ?? 0;
    if (error.name === 'NoSuchBucket')
      throw new SendProblem(
        `There is no bucket “${bucket}” at ${host}. Say which one in House rules. Nothing was sent.`,
      );
    if (status === 401 || status === 403)
      throw new SendProblem(
        `${host} does not take the key of the house for “${bucket}”. The site owner sets another in House rules; what is sent already is not sent again.`,
      );
    if (status === 429 || status >= 500)
      throw new OutboundProblem(status === 429 ? 'busy' : 'server-error', host);
    throw new SendProblem(
      `“${path}” was not taken: ${host} answered with ${status}. What is sent already is not sent again.`,
    );
  };
}
