import * as v from 'valibot';

/** An address that a reader may be sent to: http or https, or empty. */
export const WebAddressSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(2000),
  v.check(
    (address) => address === '' || isWebAddress(address),
    'An address begins with https:// or http://.',
  ),
);

export function isWebAddress(address: string): boolean {
  if (!/^https?:\/\//i.test(address)) return false;
  return URL.canParse(address) && new URL(address).username === '';
}
