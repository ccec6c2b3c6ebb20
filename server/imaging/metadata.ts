import { type ChildProcessWithoutNullStreams, spawn } from 'node:child_process';
import { ExifTool, exiftoolPath } from 'exiftool-vendored';
import * as v from 'valibot';
import { LABEL_TAGS, type RawTags } from '#core/formats/metadata.ts';
import { dyingWith } from '../foreign/dying-with.ts';
import { watchMemory } from '../foreign/memory-watch.ts';

/** Reads and writes XMP, IPTC and EXIF through a small pool of long-lived exiftool processes. */
export interface MetadataTool {
  readonly read: (path: string) => Promise<RawTags>;
  readonly write: (path: string, tags: Readonly<Record<string, string | readonly string[]>>) => Promise<void>;
  readonly end: () => Promise<void>;
}

const PROCESSES = 2;
/** A file of 200 MB is read in under a second; one that was made to take long holds no other up for longer than this. */
const TASK_LIMIT_MILLIS = 10_000;

const READ_ARGUMENTS = [
  '-G1',
  '-n',
  '-fast',
  '-api',
  'largefilesupport=1',
  ...LABEL_TAGS.map((tag) => `-${tag}`),
];

/** Compact: without the 2 kB of blanks that XMP leaves for whoever writes into a file in place; readers only download them. */
const WRITE_ARGUMENTS = ['-overwrite_original', '-codedcharacterset=utf8', '-m', '-api', 'compact=all'];

const TagsSchema = v.record(v.string(), v.unknown());

/** Reading labels takes some 60 MB; text that was packed small and is read whole takes gigabytes. */
const MOST_BYTES = 400_000_000;

/** The fullest label is some 50 kB. An answer is put together and parsed on the event loop: 40 MB hold it for a second. */
const MOST_ANSWER_BYTES = 2_000_000;

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
      const reader = spawn(program, args, { stdio: 'pipe', env: { PATH: process.env.PATH, LANG: 'C' } });
      endOnLongAnswer(reader);
      return reader;
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
      await tool.write(path, values, { writeArgs: WRITE_ARGUMENTS });
    },
    end: async () => {
      endWatch();
      await tool.end();
    },
  };
}

/** How exiftool says that an answer is whole (its option -stay_open). Within values a line never ends: they are JSON. */
const WHOLE_ANSWER = /(?:^|\n)\{ready\d*\}\r?\n?$/;

function endOnLongAnswer(reader: ChildProcessWithoutNullStreams): void {
  let bytes = 0;
  let end = '';
  reader.stdout.on('data', (part: Buffer) => {
    bytes += part.length;
    end = (end + part.subarray(-64).toString('latin1')).slice(-64);
    if (WHOLE_ANSWER.test(end)) bytes = 0;
    else if (bytes > MOST_ANSWER_BYTES) reader.kill('SIGKILL');
  });
}
