import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** AES-256-GCM (NIST SP 800-38D): a nonce of 96 bits, and a tag that tells when anything was changed. */
const CIPHER = 'aes-256-gcm';
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** The key of one purpose and whom it is for, from the secret of the house (RFC 5869): what was sealed for one opens with no other. */
export const keyFor = (
  secret: string,
  { salt, purpose }: { readonly salt: string; readonly purpose: string },
) => Buffer.from(hkdfSync('sha256', secret, salt, purpose, 32));

/** A text that only its key opens, in base64. */
export function sealed(key: Buffer, text: string): string {
  const nonce = randomBytes(NONCE_BYTES);
  const cipher = createCipheriv(CIPHER, key, nonce);
  const bytes = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), bytes]).toString('base64');
}

/** What was sealed; null where it was sealed by another key, as after a database was moved without its secret. */
export function maybeUnsealed(key: Buffer, text: string): string | null {
  const bytes = Buffer.from(text, 'base64');
  try {
    const decipher = createDecipheriv(CIPHER, key, bytes.subarray(0, NONCE_BYTES));
    decipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
    const parts = [decipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), decipher.final()];
    return Buffer.concat(parts).toString('utf8');
  } catch {
    return null;
  }
}
