import { escapeHtml } from './escape.ts';
import type { Inline, Mark } from './inline.ts';

/** Words in a line as HTML (WHATWG HTML, 4.5 text-level semantics). */
export function writeInlines(content: readonly Inline[] | undefined): string {
  return (content ?? [])
    .map((inline) =>
      inline.type === 'hardBreak' ? '<br>' : withMarks(escapeHtml(inline.text), inline.marks ?? []),
    )
    .join('');
}

function withMarks(html: string, marks: readonly Mark[]): string {
  return marks.reduceRight((inner, mark) => withMark(inner, mark), html);
}

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
    case 'link':
      return `<a href="${escapeHtml(mark.attrs.href)}">${html}</a>`;
  }
}
