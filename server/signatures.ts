import { createHmac, timingSafeEqual } from 'node:crypto';

/**
 * Makes and checks addresses on the media origin. That origin knows no session, so an address itself is the
 * permission: nobody can make one up, and each opens one thing.
 */
export interface Signatures {
  readonly sign: (path: string) => string;
  readonly isSigned: (path: string, signature: string) => boolean;
}

const LETTERS = 22;

export function signatures(secret: string): Signatures {
  const of = (path: string) =>
    createHmac('sha256', secret).update(path).digest('base64url').slice(0, LETTERS);
  return {
    sign: of,
    isSigned: (path, signature) => {
      const [given, right] = [Buffer.from(signature), Buffer.from(of(path))];
      return given.length === right.length && timingSafeEqual(given, right);
    },
  };
}
