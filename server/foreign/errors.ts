import { HttpProblem } from '../problem.ts';

/** What a process or thread sends back. */
export type Sent =
  | { readonly result: unknown }
  | { readonly refusal: { readonly status: number; readonly detail: string; readonly cause: string } }
  | { readonly error: { readonly name: string; readonly message: string; readonly code: string } };

/** An error as what can be sent. */
export function toSent(error: unknown): Sent {
  if (error instanceof HttpProblem)
    return { refusal: { status: error.status, detail: error.message, cause: String(error.cause ?? '') } };
  if (!(error instanceof Error)) return { error: { name: 'Error', message: String(error), code: '' } };
  const code = 'code' in error && typeof error.code === 'string' ? error.code : '';
  return { error: { name: error.name, message: error.stack ?? error.message, code } };
}

/** The error that was sent, with its code, so that a full disk is known as one. */
export function fromSent(sent: Exclude<Sent, { result: unknown }>): Error {
  if ('refusal' in sent) {
    const { status, detail, cause } = sent.refusal;
    return new HttpProblem(status, detail, {}, { cause });
  }
  const { name, message, code } = sent.error;
  return Object.assign(new Error(message), { name, ...(code ? { code } : {}) });
}
