const ENTITIES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text for HTML content and double-quoted attributes; control characters that HTML forbids are left away. */
export function escapeHtml(text: string): string {
  return text.replace(/[^\P{Cc}\t\n\r]/gu, '').replace(/[&<>"]/g, (letter) => ENTITIES[letter] ?? '');
}
