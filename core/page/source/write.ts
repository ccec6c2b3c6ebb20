import type { PageDoc } from '../model.ts';
import { writeForSource } from '../write.ts';
import type { WriteContext } from '../write-context.ts';

/** Where a block stands in source, in letters from its beginning: up to `to`, behind its last. */
export interface SourceMark {
  readonly id: string;
  readonly from: number;
  readonly to: number;
}

/** A page as source: what goes out of it, with signs for what Placard writes itself. */
export interface Source {
  readonly text: string;
  /** The blocks at any depth, in the order in which they begin. */
  readonly marks: readonly SourceMark[];
}

const MARK = / data-block="([^"]*)"/g;

/**
 * A page as source, block for block in lines of their own. Signs stand for files and credits (`blocks/placement/sign.ts`);
 * links lead where they are kept to lead. Without the page's title, which has its own place on the screen.
 */
export function writeSource(page: PageDoc, context: Pick<WriteContext, 'rules' | 'pieces'>): Source {
  const begins: Omit<SourceMark, 'to'>[] = [];
  const lines: string[] = [];
  let from = 0;
  for (const html of writeForSource(page, context)) {
    if (html === '') continue;
    let cut = 0;
    const clean = html.replace(MARK, (mark: string, id: string, at: number) => {
      // The mark stands behind the name of its element, which begins at the last "<" before it.
      begins.push({ id, from: from + html.lastIndexOf('<', at) - cut });
      cut += mark.length;
      return '';
    });
    lines.push(clean);
    from += clean.length + 1;
  }
  const text = lines.map((line) => `${line}\n`).join('');
  return { text, marks: begins.map((begin) => ({ ...begin, to: endOf(text, begin.from) })) };
}

/** Where the element ends that begins at a place: behind its own end tag, or its tag where it has none (HTML, void elements). */
function endOf(text: string, from: number): number {
  const name = /^<([a-z][a-z0-9]*)/.exec(text.slice(from, from + 20))?.[1] ?? '';
  const tag = new RegExp(`<(/?)${name}\\b[^>]*>`, 'g');
  tag.lastIndex = from;
  let depth = 0;
  for (let found = tag.exec(text); found; found = tag.exec(text)) {
    depth += found[1] === '/' ? -1 : 1;
    if (depth === 0 || name === 'hr') return tag.lastIndex;
  }
  return text.length;
}
