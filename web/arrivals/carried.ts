import type { Hosts } from '#core/embed/host.ts';
import { type InText, readInText } from '../embeds/in-text.ts';
import { pastedAddress } from '../gather/pasted.ts';
import { carriedText } from './carried-text.ts';

/** What a paste or a drop carries to a place that takes pieces. */
export type Carried =
  | { readonly kind: 'files' }
  | Exclude<InText, { kind: 'text' }>
  | { readonly kind: 'address'; readonly address: string }
  | { readonly kind: 'nothing' };

/** Files come before what is said of them; an address that embeds nothing is a page of the web. */
export function readCarried(data: Pick<DataTransfer, 'files' | 'getData'>, hosts: Hosts): Carried {
  if (data.files.length > 0) return { kind: 'files' };
  const text = carriedText(data);
  const read = readInText(text, hosts);
  if (read.kind !== 'text') return read;
  const address = pastedAddress(text);
  return address === '' ? { kind: 'nothing' } : { kind: 'address', address };
}
