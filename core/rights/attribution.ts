import type { Messages } from '../messages/table.ts';
import type { CreditPartKind } from './credit-words.ts';
import { termsOf } from './house-licence.ts';
import type { Judgement } from './judgement.ts';
import type { Label } from './label.ts';
import { maybePort } from './recognise.ts';
import { foldName, isSameName } from './same-name.ts';

/** One part of a credit line; parts with an address are links. */
export interface CreditPart {
  readonly kind: CreditPartKind;
  readonly text: string;
  readonly address: string | null;
}

/**
 * The parts of a credit line in the order title, maker, copyright notice, source, licence, changes, agency's ID and licensee, in
 * the words of a language. Empty when nothing is owed nor asked, and where nobody could be credited.
 *
 * CC BY 4.0 s3(a)(1)(A): creator (i), copyright notice (ii), a notice of the licence (iii) with its address, which leads to the
 * disclaimer (iv), and the address of the work (v), each as far as supplied; s3(a)(1)(B): that it was modified. 1.0 to 3.0 s4:
 * the title as well. A maker whom the notice names is not named twice, nor is a source that is the maker in another spelling.
 */
export function creditParts(label: Label, judgement: Judgement, messages: Messages): readonly CreditPart[] {
  const terms = termsOf(label);
  const isOwed = judgement.duties.includes('credit');
  if (!isOwed && terms.owesCredit !== 'asked') return [];
  const people = peopleOf(label, terms.keepsNotice);
  if (people.length === 0 && !isOwed) return [];
  const parts: CreditPart[] = [];
  const add = (kind: CreditPart['kind'], text: string, address: string | null = null) => {
    if (text !== '') parts.push({ kind, text, address: address || null });
  };
  if (terms.titleInCredit === 'yes') add('title', messages.quoted(label.title), label.sourceAddress);
  parts.push(...people);
  if (terms.address) add('licence', shortOf(label), licenceAddressOf(label));
  else if (NAMED_WITHOUT_ADDRESS.has(label.licence)) add('licence', terms.short);
  if (judgement.duties.includes('say-changes')) add('changes', messages.changed(judgement.changes));
  if (label.licence === 'agency') {
    add('id', label.sourceId);
    add('licensed-to', label.licensedTo && messages.licensedTo(label.licensedTo));
    add('accessed', label.terms.begins && messages.accessed(label.terms.begins));
  }
  return parts;
}

/** Licences that have no address of their text, and are named all the same. */
const NAMED_WITHOUT_ADDRESS: ReadonlySet<string> = new Set(['permission', 'house']);

/** The maker, the notice and the source, none of them twice. */
function peopleOf(label: Label, keepsNotice: boolean): readonly CreditPart[] {
  const { creator, makerAddress, source, sourceAddress } = label;
  const notice = keepsNotice ? label.copyrightNotice : '';
  const isNamed = creator !== '' && ` ${foldName(notice)} `.includes(` ${foldName(creator)} `);
  const parts: CreditPart[] = [];
  if (creator !== '' && !isNamed) parts.push({ kind: 'maker', text: creator, address: makerAddress || null });
  if (notice !== '') parts.push({ kind: 'notice', text: notice, address: (isNamed && makerAddress) || null });
  // A source without a name is told by the host of its address: the address of the work is owed all the same.
  const from = source === '' ? hostOf(sourceAddress) : source;
  if (from === '') return parts;
  const isMaker = isSameName(from, creator) || isSameName(from, notice);
  if (!isMaker) parts.push({ kind: 'source', text: from, address: sourceAddress || null });
  else if (sourceAddress !== '' && sourceAddress !== makerAddress && source !== '')
    parts.push({ kind: 'source', text: hostOf(sourceAddress), address: sourceAddress });
  return parts;
}

const hostOf = (address: string): string =>
  URL.canParse(address) ? new URL(address).hostname.replace(/^www\./, '') : '';

/** Where the text of a label's licence stands: that of the port that was said, or of the catalogue; null for none. */
export const licenceAddressOf = (label: Pick<Label, 'licence' | 'houseLicence' | 'licenceAddress'>) =>
  label.licenceAddress || termsOf(label).address;

/** "CC BY 3.0 DE": with the country whose law a port was made for. */
function shortOf(label: Label): string {
  const { short } = termsOf(label);
  const port = maybePort(label.licenceAddress);
  return port === null ? short : `${short} ${port.toUpperCase()}`;
}
