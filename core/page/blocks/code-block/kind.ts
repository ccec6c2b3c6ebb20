import { escapeHtml } from '../../escape.ts';
import { textOf } from '../../html-tree.ts';
import { plainText } from '../../inline.ts';
import type { BlockKind } from '../kind.ts';
import type { CodeBlock } from './schema.ts';

const INLINE_CODE = 'overflow-x:auto;padding:12px 14px;border:1px solid;font:0.85em/1.5 monospace';

/**
 * Code, as preformatted text (HTML, `pre` and `code`). Long lines scroll inside it, so that it can be reached by keyboard
 * (WCAG 2.2, 2.1.1).
 */
export const codeBlock: BlockKind<CodeBlock> = {
  write: ({ content }, { isInline }) => {
    const text = plainText(content);
    if (text.trim() === '') return '';
    const style = isInline ? ` style="${INLINE_CODE}"` : '';
    return `<pre class="code" tabindex="0"${style}><code>${escapeHtml(text)}</code></pre>`;
  },
  words: ({ content }) => [content],
  style:
    () => `.code { clear: both; margin: 0 0 1em; padding: 12px 14px; overflow-x: auto; background: #f1f4f5; color: #172126; font: 0.85em/1.5 ui-monospace, monospace; tab-size: 4; }
.code code { font: inherit; }`,
  reads: {
    pre: (node, flow, { newId }) => {
      const text = textOf(node).replace(/\r\n?/g, '\n').replace(/\n$/, '');
      if (text.trim() === '') flow.endParagraph();
      else flow.putBlock({ type: 'codeBlock', attrs: { id: newId() }, content: [{ type: 'text', text }] });
    },
  },
};
