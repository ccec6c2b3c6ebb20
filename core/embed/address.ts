import * as v from 'valibot';

/** Why a text is no address that a reader could be sent to. */
export type AddressFault = 'not-an-address' | 'scheme' | 'user-info' | 'no-host';

export type ReadAddress =
  | { readonly kind: 'address'; readonly url: URL; readonly wasHttp: boolean }
  | { readonly kind: 'fault'; readonly fault: AddressFault };

/** Longest address that is kept, in letters. */
const MOST_ADDRESS = 2000;

/**
 * Reads an address as the URL standard does, so that odd spellings are seen as what they are. Plain http becomes https,
 * but for names that only ever mean one's own machine (W3C Secure Contexts, 3.1). An address that begins with two
 * slashes is taken for https. Never throws.
 */
export function readWebAddress(text: string): ReadAddress {
  const trimmed = text.trim();
  const whole = trimmed.startsWith('//') ? `https:${trimmed}` : trimmed;
  if (whole.length > MOST_ADDRESS || !URL.canParse(whole)) return { kind: 'fault', fault: 'not-an-address' };
  const url = new URL(whole);
  if (url.protocol !== 'https:' && url.protocol !== 'http:') return { kind: 'fault', fault: 'scheme' };
  if (url.username !== '' || url.password !== '') return { kind: 'fault', fault: 'user-info' };
  if (url.hostname === '' || url.href.length > MOST_ADDRESS) return { kind: 'fault', fault: 'no-host' };
  const wasHttp = url.protocol === 'http:' && !isOwnMachine(url.hostname);
  if (wasHttp) url.protocol = 'https:';
  return { kind: 'address', url, wasHttp };
}

/**
 * An address as it was meant: without escapes that were written twice, and with the scheme that was left out or said
 * twice. Anything else is left as it stands.
 */
export function meantAddress(text: string): string {
  const plain = text.trim().replace(/&amp;|&#0?38;/gi, '&');
  if (/^https?:\/{2}https?:\/{2}/i.test(plain)) return plain.replace(/^https?:\/{2}/i, '');
  // A name with dots and a path behind it, which a browser would take for a folder of the page itself.
  return /^[a-z0-9-]{1,63}(?:\.[a-z0-9-]{1,63}){1,8}(?::\d{1,5})?\/[^\s]/i.test(plain)
    ? `https://${plain}`
    : plain;
}

/** Whether a host name can only mean the machine itself (W3C Secure Contexts, "potentially trustworthy origin"). */
export function isOwnMachine(hostname: string): boolean {
  return hostname === 'localhost' || hostname.endsWith('.localhost');
}

const FAULT_SENTENCES: Readonly<Record<AddressFault, string>> = {
  'not-an-address': 'This is no address of the web. Copy it whole from the address line of the browser.',
  scheme: 'Only addresses that begin with https:// can be shown to readers. This one begins otherwise.',
  'user-info':
    'This address carries a name or a password before its host. It is not kept. Copy the address without it.',
  'no-host': 'This address names no host, or is too long to be one.',
};

export function sayAddressFault(fault: AddressFault): string {
  return FAULT_SENTENCES[fault];
}

/** An address as an embed holds it: https without user info, written as the URL standard writes it. */
export const SafeAddressSchema = v.pipe(
  v.string(),
  v.maxLength(MOST_ADDRESS),
  v.check((address) => {
    const read = readWebAddress(address);
    return read.kind === 'address' && !read.wasHttp && read.url.href === address;
  }, 'An address begins with https:// and carries no name or password.'),
);
