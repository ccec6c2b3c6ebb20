import { escapeHtml } from '../page/escape.ts';

/** A page as a site of files holds it. */
export interface PageFile {
  /** Names the page wherever it is sent, and stays the same. */
  readonly uid: string;
  readonly title: string;
  readonly summary: string;
  /** The fragment, with its styles in it. */
  readonly html: string;
}

const NAMED = 'placard-page';

/** A page as a whole document (WHATWG HTML, 4.1) that says which one it is, so that it is known again where it lies. */
export function pageDocument({ uid, title, summary, html }: PageFile, language: string): string {
  const description = summary === '' ? '' : `<meta name="description" content="${escapeHtml(summary)}">\n`;
  return `<!DOCTYPE html>
<html lang="${escapeHtml(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escapeHtml(title)}</title>
${description}<meta name="${NAMED}" content="${escapeHtml(uid)}">
</head>
<body>
<main>
<h1>${escapeHtml(title)}</h1>
${html}</main>
</body>
</html>
`;
}

/** Whether a document is the one of a page that was sent before; whatever else it is, it is somebody else's. */
export const isDocumentOf = (document: string, uid: string): boolean =>
  document.includes(`<meta name="${NAMED}" content="${escapeHtml(uid)}">`);
