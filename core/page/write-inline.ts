import { messagesFor } from '../messages/messages.ts';
import { escapeHtml } from './escape.ts';
import { folded, type Inline, type Mark } from './inline.ts';
import { type LinkContext, linkOut } from './link-out.ts';
import { type LinkMark, linkRuns } from './link-runs.ts';

/** Words in a line as HTML (WHATWG HTML, 4.5 text-level semantics). */
export function writeInlines(content: readonly Inline[] | undefined, context: LinkContext): string {
  return linkRuns(folded(content))
    .map(({ link, inlines }) => {
      const html = inlines.map(writeInline).join('');
      return link ? writeLink(link, html, context) : html;
    })
    .join('');
}

/**
 * A link, or the words alone where nobody knows where they lead. What kind of file it leads to, and how large that is, is said
 * in it (WCAG 2.2, technique H30 and its advice), and where it opens a new window, that is said to all (technique G201).
 */
function writeLink({ href, newWindow }: LinkMark, html: string, context: LinkContext): string {
  const out = linkOut(href, context);
  if (!out) return html;
  const said = [out.says, newWindow ? messagesFor(context.rules.language).opensNewWindow : ''].filter(
    Boolean,
  );
  const language = out.hreflang === '' ? '' : ` hreflang="${escapeHtml(out.hreflang)}"`;
  const type = out.mime === '' ? '' : ` type="${out.mime}"`;
  const larger = out.larger ? ` class="larger" data-alt="${escapeHtml(out.larger.alt)}"` : '';
  const target = newWindow ? ' target="_blank" rel="noopener"' : '';
  const says = said.length === 0 ? '' : `<span class="link-says"> (${escapeHtml(said.join(', '))})</span>`;
  return `<a${larger} href="${escapeHtml(out.href)}"${language}${type}${target}>${html}${says}</a>`;
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
