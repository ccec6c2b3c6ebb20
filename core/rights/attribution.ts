import type { Made, Messages } from '../messages/table.ts';
import type { Judgement } from './judgement.ts';
import type { Label } from './label.ts';
import { licenceTerms } from './licences.ts';

/** One part of a credit line; parts with an address are links. */
export interface CreditPart {
  readonly kind: 'title' | 'maker' | 'source' | 'licence' | 'changes' | 'id' | 'licensed-to';
  readonly text: string;
  readonly address: string | null;
}

/**
 * The parts of a credit line in the order title, maker, source, licence, changes, agency's ID and licensee
 * (Creative Commons, "Recommended practices for attribution"), in the words of a language. Empty when nothing is owed nor
 * asked.
 */
export function creditParts(label: Label, judgement: Judgement, messages: Messages): readonly CreditPart[] {
  const terms = licenceTerms(label.licence);
  const owed = judgement.duties.includes('credit') || terms.owesCredit === 'asked';
  if (!owed) return [];
  const parts: CreditPart[] = [];
  const add = (kind: CreditPart['kind'], text: string, address: string | null = null) => {
    if (text !== '') parts.push({ kind, text, address: address || null });
  };
  if (terms.titleInCredit === 'yes')
    add('title', label.title && messages.quoted(label.title), label.sourceAddress);
  add('maker', label.creator, label.makerAddress);
  if (label.source !== label.creator) add('source', label.source, label.sourceAddress);
  if (terms.address) add('licence', terms.short, terms.address);
  else if (label.licence === 'permission') add('licence', terms.short);
  if (judgement.duties.includes('say-changes')) add('changes', messages.changed(judgement.changes));
  if (label.licence === 'agency') {
    add('id', label.sourceId);
    add('licensed-to', label.licensedTo && messages.licensedTo(label.licensedTo));
  }
  return parts;
}

/** What a credit begins with: what was made, unless its title says so. */
export function creditLead(parts: readonly CreditPart[], made: Made, messages: Messages): string {
  return parts[0]?.kind === 'title' ? '' : `${messages.made[made]}: `;
}

/**
 * The credit as plain text, "Photo: Ines Okonjo, CC BY 4.0, cropped." Empty when there is none. `made` is what it begins
 * with.
 */
export function creditText(parts: readonly CreditPart[], made: Made, messages: Messages): string {
  if (parts.length === 0) return '';
  return `${creditLead(parts, made, messages)}${parts.map((part) => part.text).join(', ')}.`;
}
