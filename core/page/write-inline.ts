import { messagesFor } from '../messages/messages.ts';
import { escapeHtml } from './escape.ts';
import type { Inline, Mark } from './inline.ts';
import { type LinkMark, linkRuns } from './link-runs.ts';
import { hrefOut } from './page-address.ts';
import type { WriteContext } from './write-context.ts';

type Wording = Pick<WriteContext, 'rules' | 'pages'>;

/** Words in a line as HTML (WHATWG HTML, 4.5 text-level semantics). */
export function writeInlines(content: readonly Inline[] | undefined, context: Wording): string {
  return linkRuns(content)
    .map(({ link, inlines }) => {
      const html = inlines.map(writeInline).join('');
      return link ? writeLink(link, html, context) : html;
    })
    .join('');
}

/** A link, or the words alone where nobody knows where they lead; where it opens a new window, that is said to all (WCAG 2.2, technique G201). */
function writeLink(link: LinkMark, html: string, { rules, pages }: Wording): string {
  const href = hrefOut(link.href, pages);
  if (href === null) return html;
  if (!link.newWindow) return `<a href="${escapeHtml(href)}">${html}</a>`;
  const { opensNewWindow } = messagesFor(rules.language);
  return `<a href="${escapeHtml(href)}" target="_blank" rel="noopener">${html}<span class="new-window"> (${escapeHtml(opensNewWindow)})</span></a>`;
}

const writeInline = (inline: Inline) =>
  inline.type === 'hardBreak'
    ? '<br>'
    : (inline.marks ?? []).reduceRight((inner, mark) => withMark(inner, mark), escapeHtml(inline.text));

function withMark(html: string, mark: Mark): string {
  switch (mark.type) {
    case 'bold':
      return `<strong>${html}</strong>`;
    case 'italic':
      return `<em>${html}</em>`;
    case 'superscript':
      return `<sup>${html}</sup>`;
    case 'subscript':
      return `<sub>${html}</sub>`;
    case 'small':
      return `<small>${html}</small>`;
    case 'code':
      return `<code>${html}</code>`;
    case 'abbreviation':
      return `<abbr title="${escapeHtml(mark.attrs.title)}">${html}</abbr>`;
    case 'language':
      return `<span lang="${escapeHtml(mark.attrs.lang)}">${html}</span>`;
    // What is a link is one round all of its words.
    case 'link':
      return html;
  }
}
