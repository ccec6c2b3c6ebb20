import { webSafe } from './names.ts';

export const FOLDER_DEPTH_LIMIT = 5;
/** Longer than any path of five segments. */
const READ_LIMIT = 4000;

/** A folder's path from any text: web-safe segments joined by "/", at most five deep; empty for the top. */
export function folderPath(text: string): string {
  return text
    .slice(0, READ_LIMIT)
    .split(/[/\\]/)
    .map((segment) => webSafe(segment))
    .filter(Boolean)
    .slice(0, FOLDER_DEPTH_LIMIT)
    .join('/');
}

/** The paths of all folders above one, outermost first, and the folder itself. */
export function withAncestors(path: string): readonly string[] {
  const segments = path.split('/').filter(Boolean);
  return segments.map((_, at) => segments.slice(0, at + 1).join('/'));
}

/** The sections of a site, as folder paths, that no folder mirrors yet; each once, in the site's own order. */
export function missingSections(sections: readonly string[], folders: readonly string[]): readonly string[] {
  const there = new Set(folders);
  return [...new Set(sections.map(folderPath))].filter((path) => path !== '' && !there.has(path));
}

/** How deep a folder lies: 1 for one at the top. */
export function folderDepth(path: string): number {
  return path.split('/').filter(Boolean).length;
}
