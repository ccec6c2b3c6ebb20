import { messagesFor } from '../messages/messages.ts';
import { labelIn } from '../rights/label-in.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { escapeHtml } from './escape.ts';
import type { Piece } from './piece.ts';
import type { HouseRules } from './target.ts';
import { titleHere } from './words.ts';

/** In the language of the page. */
type Spoken = Pick<HouseRules, 'language'>;

/** The id of a placement's long description on its page, to which its picture points (WAI-ARIA 1.3, `aria-details`). */
export const descriptionId = ({ id }: Pick<Placement, 'id'>) => `described-${id}`;

/** What a long description is called where it is folded away: of what it is. */
export const describedAs = (rules: Spoken, piece: Pick<Piece, 'label' | 'stem'>) =>
  messagesFor(rules.language).descriptionOf(titleHere(rules, piece));

/** The paragraphs of a long description: blank lines part them. Empty when there is none. */
export function describedIn({ language }: Spoken, { label }: Pick<Piece, 'label'>): readonly string[] {
  return labelIn(label, language)
    .extendedDescription.split(/\n[ \t]*\n/u)
    .map((part) => part.trim())
    .filter(Boolean);
}

/**
 * The long description of a piece under its figure, folded away (HTML `details`; W3C WAI "Complex images": a structured
 * long description in the page). Empty when there is none.
 */
export function writeDescription(placement: Placement, piece: Piece, rules: Spoken): string {
  const parts = describedIn(rules, piece);
  if (parts.length === 0) return '';
  const text = parts.map((part) => `<p>${escapeHtml(part).replaceAll('\n', '<br>')}</p>`).join('\n');
  return `<details class="described" id="${escapeHtml(descriptionId(placement))}"><summary>${escapeHtml(describedAs(rules, piece))}</summary>\n${text}\n</details>`;
}
