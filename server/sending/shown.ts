import { eq } from 'drizzle-orm';
import { escapeHtml } from '#core/page/escape.ts';
import { documentStyle, styleSheet } from '#core/page/style-sheet.ts';
import type { Context } from '../context.ts';
import { deliveries } from '../db/schema.ts';
import { fontFaces } from '../deliver/fonts.ts';
import { readPage } from '../pages/store.ts';
import { notFound } from '../problem.ts';

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
  const measure = `<script src="${escapeHtml(`${mediaOrigin}${script}`)}"></script>`;
  if (which === 'found') {
    if (row.found === null || row.address === null) throw notFound('What stands there');
    return context.texts.shown({ html: row.found, base: row.address, head: measure });
  }
  if (row.html === null) throw notFound('What was sent');
  const { doc, rules, pieces } = await readPage(context, row.pageId, 'house');
  const style = `${fontFaces(`${mediaOrigin}/fonts`)}${documentStyle({ dark: false })}${styleSheet({ ...rules, dark: false }, doc, pieces)}`;
  const title = `<h1>${escapeHtml(row.title)}</h1>`;
  // The title goes apart from the page, and stands over its first words as any site has it.
  const html = row.html.replace(
    '<div class="placard-column">',
    () => `<div class="placard-column">\n${title}`,
  );
  return context.texts.shown({
    html: `<!DOCTYPE html><html lang="${escapeHtml(rules.language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escapeHtml(row.title)}</title><style>${style}</style></head><body>${html}</body></html>`,
    base: row.address ?? mediaOrigin,
    head: measure,
  });
}
