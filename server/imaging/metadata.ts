import { spawn } from 'node:child_process';
import { ExifTool, exiftoolPath } from 'exiftool-vendored';
import * as v from 'valibot';
import type { RawTags } from '#core/formats/metadata.ts';
import { dyingWith } from '../foreign/dying-with.ts';
import { watchMemory } from '../foreign/memory-watch.ts';

/** Reads and writes XMP, IPTC and EXIF through a small pool of long-lived exiftool processes. */
export interface MetadataTool {
  readonly read: (path: string) => Promise<RawTags>;
  readonly write: (path: string, tags: Readonly<Record<string, string | readonly string[]>>) => Promise<void>;
  readonly end: () => Promise<void>;
}

const PROCESSES = 2;
const TASK_LIMIT_MILLIS = 20_000;

/** Groups that a label can come from. Everything else in a file is of no concern, and may be huge. */
const READ_ARGUMENTS = [
  '-G1',
  '-n',
  '-fast',
  '-api',
  'largefilesupport=1',
  '-XMP-dc:all',
  '-XMP-photoshop:all',
  '-XMP-iptcCore:all',
  '-XMP-xmpRights:all',
  '-XMP-plus:all',
  '-XMP-cc:all',
  '-XMP-exif:GPSLatitude',
  '-IPTC:all',
  '-IFD0:Artist',
  '-IFD0:Copyright',
  '-ExifIFD:DateTimeOriginal',
  '-ExifIFD:ColorSpace',
  '-GPS:GPSLatitude',
];

const TagsSchema = v.record(v.string(), v.unknown());

/** Reading labels takes some 60 MB; text that was packed small and is read whole takes gigabytes. */
const MOST_BYTES = 400_000_000;

export function metadataTool(): MetadataTool {
  const tool = new ExifTool({
    maxProcs: PROCESSES,
    taskTimeoutMillis: TASK_LIMIT_MILLIS,
    // What was too much once is too much the second time.
    taskRetries: 0,
    useMWG: false,
    // Killed with the server in whatever way it ends: by itself the program would wait for more for ever.
    processFactory: async () => {
      const [program, ...args] = dyingWith('perl', [await exiftoolPath(), '-stay_open', 'True', '-@', '-']);
      return spawn(program, args, { stdio: 'pipe', env: { PATH: process.env.PATH, LANG: 'C' } });
    },
  });
  const kill = (pid: number) => {
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // It ended by itself meanwhile.
    }
  };
  const endWatch = watchMemory(() => tool.pids, MOST_BYTES, kill);
  return {
    read: async (path) => v.parse(TagsSchema, await tool.readRaw(path, { readArgs: READ_ARGUMENTS })),
    write: async (path, tags) => {
      const values = Object.fromEntries(
        Object.entries(tags).map(([name, value]) => [name, typeof value === 'string' ? value : [...value]]),
      );
      await tool.write(path, values, { writeArgs: ['-overwrite_original', '-codedcharacterset=utf8', '-m'] });
    },
    end: async () => {
      endWatch();
      await tool.end();
    },
  };
}
