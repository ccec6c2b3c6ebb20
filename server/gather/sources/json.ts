import * as v from 'valibot';
import { OutboundProblem } from '../../outbound/problem.ts';
import type { SourceTools } from './source.ts';

const ANSWER_LIMITS = { bytes: 4_000_000, millis: 8000 };

/** A source's JSON answer, read into a type. An answer of another shape is a fault of the source. */
export async function readJson<T extends v.GenericSchema>(
  schema: T,
  path: string,
  { outbound, origin, signal }: SourceTools,
): Promise<v.InferOutput<T>> {
  const { bytes, address } = await outbound.read(`${origin}${path}`, {
    limits: ANSWER_LIMITS,
    accept: 'application/json',
    signal,
  });
  const read = v.safeParse(schema, maybeJson(bytes));
  if (!read.success) throw new OutboundProblem('odd-status', new URL(address).hostname);
  return read.output;
}

/** A source's JSON answer to JSON that is put there; null where it says that this cannot be done (4xx). */
export async function putJson<T extends v.GenericSchema>(
  schema: T,
  path: string,
  json: unknown,
  { outbound, origin, signal }: SourceTools,
): Promise<v.InferOutput<T> | null> {
  const limits = ANSWER_LIMITS;
  const { status, bytes, address } = await outbound.put(`${origin}${path}`, json, {
    limits,
    accept: 'application/json',
    signal,
  });
  const { hostname } = new URL(address);
  if (status === 429) throw new OutboundProblem('busy', hostname);
  if (status >= 500) throw new OutboundProblem('server-error', hostname);
  if (status >= 400) return null;
  const read = v.safeParse(schema, maybeJson(bytes));
  if (!read.success) throw new OutboundProblem('odd-status', hostname);
  return read.output;
}

function maybeJson(bytes: Buffer): unknown {
  try {
    return JSON.parse(bytes.toString('utf8')) as unknown;
  } catch {
    return undefined;
  }
}

/** A web address that a source gives, or empty for anything that is not one. */
export function addressOr(text: string): string {
  if (!URL.canParse(text)) return '';
  const { protocol } = new URL(text);
  return protocol === 'http:' || protocol === 'https:' ? text : '';
}
