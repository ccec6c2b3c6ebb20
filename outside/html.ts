/** Text made safe for HTML. */
export function escapeHtml(text: string): string {
  return text.replace(
    /[&<>"]/g,
    (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter] ?? '',
  );
}

/** A plain page of a service. */
export function htmlPage(title: string, body: string, head = ''): string {
  return `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>${escapeHtml(title)}</title>${head}<style>body{font:16px/1.5 Georgia,serif;max-width:860px;margin:40px auto;padding:0 20px;color:#233}img{max-width:100%;height:auto}figure{margin:20px 0}</style></head><body><h1>${escapeHtml(title)}</h1>${body}</body></html>`;
}

/** Data for machines inside a page; nothing in it can end the script. */
export function jsonLd(data: unknown): string {
  return `<script type="application/ld+json">${JSON.stringify(data).replace(/</g, '\\u003c')}</script>`;
}

/** Whether a text holds every word asked for, as the beginning of one. */
export function answersWords(text: string, asked: string): boolean {
  const words = text.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  return asked
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .every((wanted) => words.some((word) => word.startsWith(wanted)));
}
