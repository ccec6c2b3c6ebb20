import { createHmac, timingSafeEqual } from 'node:crypto';

/**
 * Makes and checks addresses on the media origin. That origin knows no session, so an address itself is the
 * permission: nobody can make one up, each opens one thing, and it ends.
 */
export interface Signatures {
  readonly sign: (text: string) => string;
  readonly isSigned: (text: string, signature: string) => boolean;
}

const LETTERS = 22;

export function signatures(secret: string): Signatures {
  const of = (text: string) =>
    createHmac('sha256', secret).update(text).digest('base64url').slice(0, LETTERS);
  return {
    sign: of,
    isSigned: (text, signature) => {
      const [given, right] = [Buffer.from(signature), Buffer.from(of(text))];
      return given.length === right.length && timingSafeEqual(given, right);
    },
  };
}
