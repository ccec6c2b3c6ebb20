import { createPrivateKey, createPublicKey, hkdfSync, type KeyObject, sign } from 'node:crypto';
import type { Context } from '../context.ts';

/** What a private key of Ed25519 begins with before its seed (RFC 8410, 7; PKCS #8 in DER). */
const PKCS8_BEFORE_SEED = Buffer.from('302e020100300506032b657004220420', 'hex');

/** The key by which the house signs what it vouches for: always the same, from its own secret (RFC 5869). */
function houseKey({ secret }: Pick<Context, 'secret'>): KeyObject {
  const seed = Buffer.from(hkdfSync('sha256', secret, 'placard', 'signature of evidence', 32));
  return createPrivateKey({ key: Buffer.concat([PKCS8_BEFORE_SEED, seed]), format: 'der', type: 'pkcs8' });
}

/** The signature of a file by the house (Ed25519, RFC 8032), and the key by which anybody verifies it, as PEM. */
export function signedByHouse(
  context: Pick<Context, 'secret'>,
  bytes: Buffer,
): { readonly signature: Buffer; readonly publicKey: string } {
  const key = houseKey(context);
  return {
    signature: sign(null, bytes, key),
    publicKey: String(createPublicKey(key).export({ format: 'pem', type: 'spki' })),
  };
}
