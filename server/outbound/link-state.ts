import type { Outbound, Probed } from './outbound.ts';
import { OutboundProblem } from './problem.ts';

/** Enough of a page to know its title. */
const LIMITS = { bytes: 60_000, millis: 8000 };

export type LinkState =
  | { readonly state: 'dead' }
  /** Nobody knows its host: it is gone, or nobody outside can be asked from here. */
  | { readonly state: 'unknown-host' }
  | { readonly state: 'there'; readonly answer: Probed }
  /** Another address than that of the link, for good. */
  | { readonly state: 'moved'; readonly answer: Probed };

/** What a link leads to, asked for as a reader does; null where that cannot be told now, which is no reason to call it dead. */
export async function linkState(
  outbound: Outbound,
  address: string,
  signal: AbortSignal,
): Promise<LinkState | null> {
  try {
    const answer = await outbound.probe(address, { limits: LIMITS, accept: 'text/html', signal });
    if (answer.status === 404 || answer.status === 410) return { state: 'dead' };
    if (answer.status >= 400) return null;
    return { state: answer.hasMoved ? 'moved' : 'there', answer };
  } catch (error) {
    if (signal.aborted || !(error instanceof OutboundProblem)) throw error;
    if (error.fault === 'unknown-host') return { state: 'unknown-host' };
    return error.fault === 'not-found' ? { state: 'dead' } : null;
  }
}
