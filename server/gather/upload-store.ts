import { createWriteStream } from 'node:fs';
import { type Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FileStore } from '@tus/file-store';
import { and, count, eq, sum } from 'drizzle-orm';
import { sayBytes } from '#core/media/weight.ts';
import type { Context } from '../context.ts';
import { people, uploads } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';

/** As the store of the tus package, but a write that fails says why: a full disk is no unknown fault. */
export class UploadStore extends FileStore {
  override async write(readable: Readable, id: string, offset: number): Promise<number> {
    let at = offset;
    // Not a generator: one that comes to its end destroys what it read from, and with it the line to the browser.
    const counted = new Transform({
      transform(part: Buffer, _encoding, done) {
        at += part.length;
        done(null, part);
      },
    });
    const path = `${this.directory}/${id}`;
    await pipeline(readable, counted, createWriteStream(path, { flags: 'r+', start: offset }));
    return at;
  }
}

/**
 * Writes down whose an upload is. Each person has so many under way, and so many bytes of them: what one person leaves
 * unfinished does not fill the disk of all. Throws an HttpProblem.
 */
export async function beginUpload(
  { db, config }: Context,
  upload: { readonly id: string; readonly bytes: number },
  personId: string,
  now: Date,
): Promise<void> {
  const { uploadsEach, uploadBytesEach } = config.quotas;
  await db.transaction(async (tx) => {
    // One after the other for each person, so that many at once do not slip through together.
    await tx.select({ id: people.id }).from(people).where(eq(people.id, personId)).for('update');
    const [held] = await tx
      .select({ files: count(), bytes: sum(uploads.bytes).mapWith(Number) })
      .from(uploads)
      .where(eq(uploads.personId, personId));
    if ((held?.files ?? 0) >= uploadsEach)
      throw new HttpProblem(
        429,
        `You have ${uploadsEach} files under way, which is as many as one person has at once. This one waits until some are in.`,
        { retryAfterSeconds: 10 },
      );
    if ((held?.bytes ?? 0) + upload.bytes > uploadBytesEach)
      throw new HttpProblem(
        429,
        `Your files under way take ${sayBytes(uploadBytesEach)} together, which is the most for one person. This one waits until some are in.`,
        { retryAfterSeconds: 10 },
      );
    await tx.insert(uploads).values({ ...upload, personId, at: now });
  });
}

/** Whether an upload is this person's. Nobody else learns that it is there. */
export async function isOwnUpload({ db }: Context, id: string, personId: string): Promise<boolean> {
  const [row] = await db
    .select({ id: uploads.id })
    .from(uploads)
    .where(and(eq(uploads.id, id), eq(uploads.personId, personId)));
  return row !== undefined;
}
