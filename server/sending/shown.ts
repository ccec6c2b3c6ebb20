import { eq } from 'drizzle-orm';
import { escapeHtml } from '#core/page/escape.ts';
import { documentStyle, styleSheet } from '#core/page/style-sheet.ts';
import type { Context } from '../context.ts';
import { deliveries } from '../db/schema.ts';
import { fontFaces } from '../deliver/fonts.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { HttpProblem, notFound } from '../problem.ts';

export const measuredBy = ({ config }: Context, script: string): string =>
  `<script src="${escapeHtml(`${config.mediaOrigin}${script}`)}"></script>`;

/** What was sent, in the styles of the page itself, or the document that stood at its address; nothing in either runs but `script`. */
export async function deliveredDocument(
  context: Context,
  id: string,
  which: 'sent' | 'found',
  script: string,
): Promise<string> {
  const [row] = await context.db.select().from(deliveries).where(eq(deliveries.id, id));
  if (!row) throw notFound('What was sent');
  const { mediaOrigin } = context.config;
  const measure = measuredBy(context, script);
  if (which === 'found') {
    if (row.found === null || row.address === null) throw notFound('What stands there');
    return context.texts.shown({ html: row.found, base: row.address, head: measure });
  }
  if (row.html === null) throw notFound('What was sent');
  const whole = await readPage(context, row.pageId, 'house', row.targetId).catch((error: unknown) => {
    // Its target was removed since: it is looked at as its page is now.
    if (error instanceof HttpProblem && error.status === 404) return readPage(context, row.pageId, 'house');
    throw error;
  });
  return ourDocument(context, whole, { ...row, html: row.html, base: row.address ?? mediaOrigin }, measure);
}

interface Ours {
  readonly title: string;
  readonly html: string;
  readonly base: string;
}

/** HTML of a page of ours in its own styles. The title goes apart from the page, and stands over its first words as any site has it. */
export function ourDocument(
  context: Context,
  { doc, rules, pieces }: Pick<WholePage, 'doc' | 'rules' | 'pieces'>,
  { title, html, base }: Ours,
  head: string,
): Promise<string> {
  const { mediaOrigin } = context.config;
  const style = `${fontFaces(`${mediaOrigin}/fonts`)}${documentStyle({ dark: false })}${styleSheet({ ...rules, dark: false }, doc, pieces)}`;
  const said = escapeHtml(title);
  const column = '<div class="placard-column">';
  // A site that keeps no classes has a column of its own.
  const inColumn = html.includes(column) ? html : `${column}\n${html}</div>`;
  const titled = inColumn.replace(column, () => `${column}\n<h1>${said}</h1>`);
  return context.texts.shown({
    html: `<!DOCTYPE html><html lang="${escapeHtml(rules.language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${said}</title><style>${style}</style></head><body>${titled}</body></html>`,
    base,
    head,
  });
}
