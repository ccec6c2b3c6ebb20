import type { Made, Messages } from '../messages/table.ts';
import { type CreditPart, creditEnd, creditLead } from '../rights/attribution.ts';
import { escapeHtml } from './escape.ts';

/**
 * A credit line as HTML. In a figure the licence is linked with `rel="license"` (HTML, link type "license") and says by
 * `property` whose it is: that of the figure's picture, not of the whole document (RDFa Lite 1.1; schema.org `license`).
 */
export function writeCredit(
  parts: readonly CreditPart[],
  made: Made,
  messages: Messages,
  isInFigure = true,
): string {
  if (parts.length === 0) return '';
  const html = parts.map((part) => {
    const text = escapeHtml(part.text);
    if (!part.address) return text;
    const rel = isInFigure && part.kind === 'licence' ? ' rel="license" property="license"' : '';
    return `<a href="${escapeHtml(part.address)}"${rel}>${text}</a>`;
  });
  return `${creditLead(parts, made, messages)}${html.join(', ')}${creditEnd(parts)}`;
}
