import { createHash, createHmac } from 'node:crypto';

/** What is signed of a request: each component's name and value, in order (RFC 9421, 2). */
export type Component = readonly [name: string, value: string];

export interface SignatureParams {
  readonly keyId: string;
  /** Seconds since 1970. */
  readonly created: number;
  readonly nonce?: string;
  /** Whether the algorithm is said beside it. */
  readonly saysAlgorithm?: boolean;
}

/**
 * The two headers that sign a request with a shared secret (RFC 9421, 3.3.3: HMAC with SHA-256), under the label `placard`.
 */
export function signatureHeaders(
  secret: Buffer,
  components: readonly Component[],
  params: SignatureParams,
  label = 'placard',
): { readonly 'signature-input': string; readonly signature: string } {
  const said = signatureParams(components, params);
  const signature = createHmac('sha256', secret).update(signatureBase(components, said)).digest('base64');
  return { 'signature-input': `${label}=${said}`, signature: `${label}=:${signature}:` };
}

/** RFC 9421, 2.3: the names of what is signed, and of the signature itself. */
function signatureParams(
  components: readonly Component[],
  { keyId, created, nonce, saysAlgorithm = true }: SignatureParams,
): string {
  const names = components.map(([name]) => `"${name}"`).join(' ');
  const parts = [
    `(${names})`,
    `created=${created}`,
    `keyid="${keyId}"`,
    ...(saysAlgorithm ? ['alg="hmac-sha256"'] : []),
    ...(nonce === undefined ? [] : [`nonce="${nonce}"`]),
  ];
  return parts.join(';');
}

/** RFC 9421, 2.5. */
function signatureBase(components: readonly Component[], params: string): string {
  return [...components, ['@signature-params', params] as const]
    .map(([name, value]) => `"${name}": ${value}`)
    .join('\n');
}

/** The digest of a body as a header (RFC 9530, 2). */
export const contentDigest = (body: Buffer): string =>
  `sha-256=:${createHash('sha256').update(body).digest('base64')}:`;
