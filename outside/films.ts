import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, rename, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { OutsidePicture } from './catalogue.ts';
import { original } from './pictures.ts';

/** Who may see a film: everybody, those who know its address, or nobody but its owner. */
type FilmVisibility = 'public' | 'by-link' | 'private';

export interface Film {
  readonly id: string;
  readonly title: string;
  readonly author: string;
  readonly about: string;
  readonly seconds: number;
  readonly visibility: FilmVisibility;
  /** Captions by language: when each line begins, in seconds, and what it says. */
  readonly captions: Readonly<Record<string, readonly (readonly [number, string])[]>>;
  readonly still: OutsidePicture;
}

const still = (
  id: string,
  subject: OutsidePicture['scene']['subject'],
  light: OutsidePicture['scene']['light'],
  seed: number,
): OutsidePicture => ({
  id: `film-${id}`,
  scene: { subject, light, seed },
  width: 1920,
  height: 1080,
});

export const FILMS: readonly Film[] = [
  {
    id: 'eel-pass-71',
    title: 'How the eel pass works',
    author: 'Saltmere Marsh Reserve',
    about: 'Glass eels climb a ramp of wet bristles past the sluice.',
    seconds: 40,
    visibility: 'public',
    captions: {
      en: [
        [0, 'In April the glass eels come in on the night tide.'],
        [8, 'The sluice is shut, and they cannot swim up the wall.'],
        [16, 'So they climb: a ramp of bristles, kept wet by a pump.'],
        [26, 'At the top they slide into the channel behind.'],
      ],
      cy: [
        [0, 'Ym mis Ebrill daw’r llysywod gwydr i mewn gyda llanw’r nos.'],
        [8, 'Mae’r llifddor ar gau, ac ni allant nofio i fyny’r wal.'],
        [16, 'Felly maen nhw’n dringo: ramp o wrych, wedi’i gadw’n wlyb.'],
        [26, 'Ar y brig maen nhw’n llithro i’r sianel y tu ôl.'],
      ],
    },
    still: still('eel-pass-71', 'sluice', 'dawn', 471),
  },
  {
    id: 'first-boom-12',
    title: 'The first boom of the year',
    author: 'Saltmere Marsh Reserve',
    about: 'A bittern calls from the reeds at first light.',
    seconds: 24,
    visibility: 'public',
    captions: {},
    still: still('first-boom-12', 'bittern', 'mist', 412),
  },
  {
    id: 'reed-cutting-3',
    title: 'A day of reed-cutting',
    author: 'Friends of Saltmere',
    about: 'Twelve volunteers, one morning, four acres.',
    seconds: 30,
    visibility: 'by-link',
    captions: { en: [[0, 'We start at eight, before the wind gets up.']] },
    still: still('reed-cutting-3', 'cutters', 'noon', 403),
  },
  {
    id: 'nest-camera-9',
    title: 'The nest camera, unedited',
    author: 'Saltmere Marsh Reserve',
    about: 'Not for showing while the birds sit.',
    seconds: 24,
    visibility: 'private',
    captions: {},
    still: still('nest-camera-9', 'reeds', 'dusk', 409),
  },
  {
    id: 'boardwalk-22',
    title: 'Along the new boardwalk',
    author: 'Joss Imrie',
    about: 'The whole way round in half a minute.',
    seconds: 30,
    visibility: 'public',
    captions: { en: [[0, 'From the car park to the first hide it is six minutes on foot.']] },
    still: still('boardwalk-22', 'boardwalk', 'noon', 422),
  },
];

/** Films that were handed in while this runs, with their files and captions. */
const handedIn = new Map<string, Film>();
const handedFiles = new Map<string, string>();
const handedCaptions = new Map<string, Map<string, string>>();
const byOrder = new Map<string, string>();

export const filmById = (id: string | undefined): Film | undefined =>
  id === undefined ? undefined : (handedIn.get(id) ?? FILMS.find((film) => film.id === id));

interface HandedIn {
  readonly title: string;
  readonly about: string;
  readonly visibility: FilmVisibility;
}

/** A place for a film that is handed in; the same order gets the same place. */
export function placeForFilm(order: string, { title, about, visibility }: HandedIn): string {
  const known = byOrder.get(order);
  if (known) return known;
  const id = `own-${handedIn.size + 1}`;
  byOrder.set(order, id);
  const [like] = FILMS;
  if (!like) throw new Error('There are no films.');
  handedIn.set(id, { ...like, id, title, about, visibility, captions: {} });
  return id;
}

export async function takeFilm(id: string, bytes: Buffer): Promise<void> {
  const path = join(await folderOf(), `${id}.mp4`);
  await writeFile(path, bytes);
  handedFiles.set(id, path);
}

export function takeCaptions(id: string, language: string, text: string): void {
  const film = handedIn.get(id);
  if (!film) return;
  const all = handedCaptions.get(id) ?? new Map<string, string>();
  handedCaptions.set(id, all.set(language, text));
  handedIn.set(id, { ...film, captions: { ...film.captions, [language]: [] } });
}

const made = new Map<string, Promise<string>>();
let workFolder: Promise<string> | undefined;

/** The path of a film's file: a slow look across its still with the noise of wind, made once by ffmpeg. */
export function filmFile(film: Film): Promise<string> {
  const handed = handedFiles.get(film.id);
  if (handed) return Promise.resolve(handed);
  const known = made.get(film.id);
  if (known) return known;
  const making = make(film);
  made.set(film.id, making);
  making.catch(() => made.delete(film.id));
  return making;
}

async function make(film: Film): Promise<string> {
  const folder = await folderOf();
  const path = join(folder, `${film.id}.webm`);
  if (existsSync(path)) return path;
  const picture = join(folder, `${film.id}-still.jpg`);
  await writeFile(picture, (await original(film.still)).bytes);
  const temporary = join(folder, `${film.id}.part.webm`);
  const pan = `scale=880:-2,crop=640:360:x='(in_w-640)*t/${film.seconds}':y='(in_h-360)/2'`;
  await ffmpeg([
    ...['-loop', '1', '-framerate', '12', '-i', picture],
    ...['-f', 'lavfi', '-i', 'anoisesrc=color=brown:amplitude=0.06:sample_rate=48000'],
    ...['-t', String(film.seconds), '-vf', pan, '-pix_fmt', 'yuv420p'],
    ...['-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8', '-b:v', '700k', '-g', '24'],
    ...['-c:a', 'libopus', '-b:a', '32k', temporary],
  ]);
  await rename(temporary, path);
  return path;
}

async function folderOf(): Promise<string> {
  if (process.env.OUTSIDE_PICTURES) {
    await mkdir(process.env.OUTSIDE_PICTURES, { recursive: true });
    return process.env.OUTSIDE_PICTURES;
  }
  workFolder ??= mkdtemp(join(tmpdir(), 'outside-films-'));
  return workFolder;
}

function ffmpeg(args: readonly string[]): Promise<void> {
  return new Promise((done, fail) => {
    const child = spawn('ffmpeg', ['-hide_banner', '-loglevel', 'error', '-nostdin', '-y', ...args], {
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    child.on('error', fail);
    child.on('exit', (code) => (code === 0 ? done() : fail(new Error(`ffmpeg ended with ${code}.`))));
  });
}

/** Captions as WebVTT (W3C). */
export function captionsOf(film: Film, language: string): string | undefined {
  const handed = handedCaptions.get(film.id)?.get(language);
  if (handed !== undefined) return handed;
  const lines = film.captions[language];
  if (!lines) return undefined;
  const stamp = (seconds: number) => `00:00:${String(seconds).padStart(2, '0')}.000`;
  const cues = lines.map(
    ([at, words], index) =>
      `${stamp(at)} --> ${stamp((lines[index + 1]?.[0] ?? film.seconds) - 1)}\n${words}\n`,
  );
  return `WEBVTT\n\n${cues.join('\n')}`;
}
