import type { Person } from '#api/people.ts';
import type { Context } from '../context.ts';
import { runProgram } from '../foreign/program.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { findAsset } from '../shelf/change.ts';
import { filmOf } from '../shelf/own-file.ts';
import { seen } from '../shelf/seen.ts';
import { originalKey } from '../storage/storage.ts';
import { SAFE } from './graph.ts';

const LIMITS = { millis: 60_000, bytes: 2_000_000_000, answerBytes: 4_000_000 };

/** The captions that lie inside the file of a film, by their place among its streams of captions, as WebVTT. */
export async function captionsInside(
  context: Context,
  { assetId, at }: { readonly assetId: string; readonly at: number },
  person: Person,
): Promise<string> {
  const row = seen(await findAsset(context, assetId), person);
  const film = filmOf(row);
  const { filmSha256 } = row;
  if (!film || filmSha256 === null || !film.inside.some((one) => one.at === at))
    throw notFound('These captions');
  return context.storage
    .withFile(originalKey(filmSha256), (path) =>
      runProgram(
        'ffmpeg',
        ['-nostdin', '-v', 'error', ...SAFE, '-i', path, '-map', `0:s:${at}`, '-f', 'webvtt', 'pipe:1'],
        LIMITS,
      ),
    )
    .catch((cause: unknown) => {
      throw new HttpProblem(
        422,
        'The captions inside this film cannot be read. Nothing was taken of them.',
        {},
        { cause },
      );
    });
}
