import { type Judgement, sayChanges } from './judgement.ts';
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
 * (Creative Commons, "Recommended practices for attribution"). Empty when nothing is owed nor asked.
 */
export function creditParts(label: Label, judgement: Judgement): readonly CreditPart[] {
  const terms = licenceTerms(label.licence);
  const owed = judgement.duties.includes('credit') || terms.owesCredit === 'asked';
  if (!owed) return [];
  const parts: CreditPart[] = [];
  const add = (kind: CreditPart['kind'], text: string, address: string | null = null) => {
    if (text !== '') parts.push({ kind, text, address: address || null });
  };
  if (terms.titleInCredit === 'yes') add('title', label.title && `“${label.title}”`, label.sourceAddress);
  add('maker', label.maker, label.makerAddress);
  if (label.source !== label.maker) add('source', label.source, label.sourceAddress);
  if (terms.address) add('licence', terms.short, terms.address);
  else if (label.licence === 'permission') add('licence', terms.short);
  if (judgement.duties.includes('say-changes')) add('changes', sayChanges(judgement.changes));
  if (label.licence === 'agency') {
    add('id', label.sourceId);
    add('licensed-to', label.licensedTo && `licensed to ${label.licensedTo}`);
  }
  return parts;
}

/** What a credit begins with: what was made, unless its title says so. */
export function creditLead(parts: readonly CreditPart[], what: string): string {
  return parts[0]?.kind === 'title' ? '' : `${what}: `;
}

/**
 * The credit as plain text, "Photo: Ines Okonjo, CC BY 4.0, cropped." Empty when there is none. `what` was made, as
 * the credit begins.
 */
export function creditText(parts: readonly CreditPart[], what = 'Photo'): string {
  if (parts.length === 0) return '';
  return `${creditLead(parts, what)}${parts.map((part) => part.text).join(', ')}.`;
}
