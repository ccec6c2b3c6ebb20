import * as v from 'valibot';
import type { FoundFilm } from '#api/embeds.ts';
import type { HostEntry } from '#core/embed/host.ts';
import { safeOrNone } from '#core/embed/reading.ts';
import { oneLine } from '#core/words/one-line.ts';
import type { Context } from '../context.ts';
import { farAddress } from '../gather/preview.ts';
import { HttpProblem } from '../problem.ts';

const LIMITS = { bytes: 1_000_000, millis: 8000 };
const MOST = 24;

const line = v.pipe(
  v.string(),
  v.transform((text) => oneLine(text)),
);
/** How a film host answers a search: a list of films, each with the address of its page. */
const AnswerSchema = v.object({
  films: v.array(
    v.object({
      title: line,
      author: v.optional(line, ''),
      seconds: v.optional(v.nullable(v.pipe(v.number(), v.minValue(0))), null),
      page: v.string(),
      thumbnail: v.optional(v.string(), ''),
    }),
  ),
});

/** Asks a film host for films by words. Throws OutboundProblem, or an HttpProblem for an answer that is not understood. */
export async function searchFilms(
  context: Context,
  entry: HostEntry,
  words: string,
  signal: AbortSignal,
): Promise<readonly FoundFilm[]> {
  if (!entry.search)
    throw new HttpProblem(404, `${entry.name} has no search that is known. Paste the address of the film.`);
  const address = new URL(entry.search);
  address.searchParams.set('q', words);
  const { bytes } = await context.outbound.read(address.href, {
    limits: LIMITS,
    accept: 'application/json',
    signal,
  });
  const read = v.safeParse(AnswerSchema, parsed(bytes.toString('utf8')));
  if (!read.success)
    throw new HttpProblem(
      502,
      `${entry.name} answered in a way that is not understood. Paste the address of the film instead.`,
    );
  return read.output.films.slice(0, MOST).flatMap(({ thumbnail, page, ...film }) => {
    const [pageAddress, picture] = [safeOrNone(page), safeOrNone(thumbnail)];
    if (pageAddress === '') return [];
    return [
      {
        ...film,
        page: pageAddress,
        poster: picture ? farAddress(context, { address: picture, page: pageAddress }) : null,
      },
    ];
  });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
