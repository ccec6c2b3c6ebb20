import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { ZipArchive } from 'archiver';

/** Packs all that lies in a folder. Pictures are packed already, so a fast setting loses nothing. */
export async function zipFolder(folder: string, path: string): Promise<void> {
  const archive = new ZipArchive({ zlib: { level: 6 } });
  archive.directory(folder, false);
  const writing = pipeline(archive, createWriteStream(path));
  await archive.finalize();
  await writing;
}
