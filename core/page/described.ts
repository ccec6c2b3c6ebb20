import { messagesFor } from '../messages/messages.ts';
import { labelIn } from '../rights/label-in.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { escapeHtml } from './escape.ts';
import { type DescribedPart, describedParts } from './long-description.ts';
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

/** The parts of a long description; none where there is none. */
export const describedIn = (
  { language }: Spoken,
  { label }: Pick<Piece, 'label'>,
): readonly DescribedPart[] => describedParts(labelIn(label, language).extendedDescription);

/**
 * The long description of a piece under its figure, folded away (HTML `details`; W3C WAI "Complex images": a structured
 * long description in the page). Its headings are one step under `level`, that of the heading it stands under. Empty when there
 * is none.
 */
export function writeDescription(
  placement: Placement,
  piece: Piece,
  rules: Spoken,
  { level, isInline }: { readonly level: number; readonly isInline: boolean },
): string {
  const parts = describedIn(rules, piece);
  if (parts.length === 0) return '';
  const name = escapeHtml(describedAs(rules, piece));
  const text = parts
    .map((part) => writePart(part, { name, isInline, heading: `h${Math.min(6, level + 1)}` }))
    .join('\n');
  return `<details class="described" id="${escapeHtml(descriptionId(placement))}"><summary>${name}</summary>\n${text}\n</details>`;
}

interface PartContext {
  /** Of the description, as HTML. */
  readonly name: string;
  readonly heading: string;
  readonly isInline: boolean;
}

const INLINE_CELL = ' style="padding:2px 14px 2px 0;border-bottom:1px solid #8a989d;text-align:left"';

function writePart(part: DescribedPart, { name, heading, isInline }: PartContext): string {
  switch (part.kind) {
    case 'paragraph':
      return `<p>${part.lines.map(escapeHtml).join('<br>')}</p>`;
    case 'heading':
      return `<${heading}>${escapeHtml(part.text)}</${heading}>`;
    case 'list': {
      const list = part.isOrdered ? 'ol' : 'ul';
      return `<${list}>\n${part.items.map((item) => `<li>${escapeHtml(item)}</li>`).join('\n')}\n</${list}>`;
    }
    case 'table': {
      const style = isInline ? INLINE_CELL : '';
      // As a table of the page: it scrolls in itself, and so has a name and is reached by keyboard.
      const frame = isInline ? ' style="overflow-x:auto"' : '';
      return `<div class="figures" role="region" aria-label="${name}" tabindex="0"${frame}>\n<table>\n${writeFigures(part, style)}\n</table>\n</div>`;
    }
  }
}

/** Header cells say what they are headers of (WHATWG HTML, 4.9.10, `scope`): the first column what each row is of. */
function writeFigures({ rows, isHeaded }: Extract<DescribedPart, { kind: 'table' }>, style: string): string {
  const [first = [], ...others] = rows;
  const head = isHeaded
    ? `<thead>\n<tr>${first.map((cell) => `<th scope="col"${style}>${escapeHtml(cell.trim())}</th>`).join('')}</tr>\n</thead>\n`
    : '';
  const lines = (isHeaded ? others : rows).map(
    ([of = '', ...cells]) =>
      `<tr><th scope="row"${style}>${escapeHtml(of.trim())}</th>${cells.map((cell) => `<td${style}>${escapeHtml(cell.trim())}</td>`).join('')}</tr>`,
  );
  return `${head}<tbody>\n${lines.join('\n')}\n</tbody>`;
}
