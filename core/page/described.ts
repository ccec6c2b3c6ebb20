import type { Messages } from '../messages/table.ts';
import { escapeHtml } from './escape.ts';
import type { Placement } from './model.ts';
import type { Piece } from './picture.ts';

/** The id of a placement's long description on its page, to which its picture points (WAI-ARIA 1.3, `aria-details`). */
export const descriptionId = ({ id }: Pick<Placement, 'id'>) => `described-${id}`;

/** What a long description is called where it is folded away: of what it is. */
export const describedAs = ({ label, stem }: Pick<Piece, 'label' | 'stem'>, messages: Messages) =>
  messages.descriptionOf(label.title.trim() || stem);

/** The paragraphs of a long description: blank lines part them. Empty when there is none. */
export function describedIn({ label }: Pick<Piece, 'label'>): readonly string[] {
  return label.description
    .split(/\n[ \t]*\n/u)
    .map((part) => part.trim())
    .filter(Boolean);
}

/**
 * The long description of a piece under its figure, folded away (HTML `details`; W3C WAI "Complex images": a structured
 * long description in the page). Empty when there is none.
 */
export function writeDescription(placement: Placement, piece: Piece, messages: Messages): string {
  const parts = describedIn(piece);
  if (parts.length === 0) return '';
  const text = parts.map((part) => `<p>${escapeHtml(part).replaceAll('\n', '<br>')}</p>`).join('\n');
  return `<details class="described" id="${escapeHtml(descriptionId(placement))}"><summary>${escapeHtml(describedAs(piece, messages))}</summary>\n${text}\n</details>`;
}
