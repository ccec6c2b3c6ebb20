import type { Statement } from '#core/gather/statement.ts';
import type { Context } from '../context.ts';
import { ForeignProblem, sayForeignFault } from '../foreign/problem.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { textOf } from './page-text.ts';

const PAGE_LIMITS = { bytes: 2_000_000, millis: 6000 };

/** What a page says of a picture, or why that cannot be told just now. */
export type PageSays =
  | { readonly said: readonly Statement[]; readonly fault: null }
  | { readonly said: null; readonly fault: string };

interface OnPage {
  readonly page: string;
  /** The address of the picture; null where it is not known, and the page is about one picture. */
  readonly picture: string | null;
}

/** Reads a page for what it says of one picture on it: that one where it is there still, and its first one otherwise. */
export async function askPage(
  context: Context,
  { page, picture }: OnPage,
  signal: AbortSignal,
): Promise<PageSays> {
  try {
    const { bytes, headers, address } = await context.outbound.read(page, {
      limits: PAGE_LIMITS,
      accept: 'text/html',
      signal,
    });
    const html = textOf(bytes, headers['content-type']);
    const { pictures } = await context.texts.pagePictures({ html, base: address }, signal);
    const own = pictures.filter((one) => one.address === picture);
    const heard = own.length > 0 ? own : pictures.slice(0, 1);
    return { said: heard.flatMap(({ statements }) => [...statements]).slice(0, 200), fault: null };
  } catch (error) {
    if (error instanceof OutboundProblem) return { said: null, fault: error.message };
    if (error instanceof ForeignProblem && error.fault !== 'stopped')
      return { said: null, fault: `Its page ${sayForeignFault(error.fault)}.` };
    throw error;
  }
}
