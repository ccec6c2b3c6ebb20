import type { Credit } from '../rights/credit.ts';
import { escapeHtml } from './escape.ts';

/**
 * A credit line as HTML. In a figure the licence is linked with `rel="license"` (HTML, link type "license") and says by
 * `property` whose it is: that of the figure's picture, not of the whole document (RDFa Lite 1.1; schema.org `license`).
 */
export function writeCredit({ runs }: Credit, isInFigure = true): string {
  return runs
    .map(({ kind, text, address }) => {
      const words = escapeHtml(text);
      if (!address) return words;
      const rel = isInFigure && kind === 'licence' ? ' rel="license" property="license"' : '';
      return `<a href="${escapeHtml(address)}"${rel}>${words}</a>`;
    })
    .join('');
}
