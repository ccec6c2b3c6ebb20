import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { runProgram } from '../foreign/program.ts';

interface FilmWish {
  readonly seconds?: number;
  /** Of its file, which says what is in it. */
  readonly name: string;
  /** Null for sound alone. */
  readonly size?: string | null;
  readonly hasSound?: boolean;
  readonly title?: string;
  /** As a camera writes it down that was held upright: in degrees. */
  readonly turned?: number;
  /** More of what ffmpeg is told about what it writes. */
  readonly more?: readonly string[];
}

const LIMITS = { millis: 60_000, bytes: 4_000_000_000, answerBytes: 100_000 };

/** A film or a recording that is made here: moving bars, and a tone that swells. */
export async function filmOf({
  seconds = 2,
  name,
  size = '320x180',
  hasSound = true,
  title = '',
  turned = 0,
  more = [],
}: FilmWish): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'placard-film-'));
  const to = join(folder, name);
  const length = String(seconds);
  const inputs = [
    ...(size === null ? [] : ['-f', 'lavfi', '-t', length, '-i', `testsrc=size=${size}:rate=25`]),
    ...(hasSound ? ['-f', 'lavfi', '-t', length, '-i', 'sine=frequency=440'] : []),
  ];
  const video = size === null || !name.endsWith('.mp4') ? [] : ['-c:v', 'libx264', '-pix_fmt', 'yuv420p'];
  const tags = title === '' ? [] : ['-metadata', `title=${title}`];
  try {
    await runProgram(
      'ffmpeg',
      ['-nostdin', '-v', 'error', ...inputs, ...video, ...tags, ...more, '-y', to],
      LIMITS,
    );
    if (turned === 0) return await readFile(to);
    const held = join(folder, `turned-${name}`);
    const tag = `rotate=${turned}`;
    await runProgram(
      'ffmpeg',
      ['-nostdin', '-v', 'error', '-i', to, '-c', 'copy', '-metadata:s:v:0', tag, '-y', held],
      LIMITS,
    );
    return await readFile(held);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
