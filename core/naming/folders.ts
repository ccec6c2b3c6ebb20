import { webSafe } from './names.ts';
import { FOLDER_DEPTH_LIMIT } from './paths.ts';
import { isDeviceName } from './rule.ts';

/** Longer than any path of five segments. */
const READ_LIMIT = 4000;

/** A folder's path from any text: web-safe segments joined by "/", at most five deep; empty for the top. */
export function folderPath(text: string): string {
  return text
    .slice(0, READ_LIMIT)
    .split(/[/\\]/)
    .map((segment) => webSafe(segment))
    .map((segment) => (isDeviceName(segment) ? `${segment}-folder` : segment))
    .filter(Boolean)
    .slice(0, FOLDER_DEPTH_LIMIT)
    .join('/');
}

/** The sections of a site, as folder paths, that no folder mirrors yet; each once, in the site's own order. */
export function missingSections(sections: readonly string[], folders: readonly string[]): readonly string[] {
  const there = new Set(folders);
  return [...new Set(sections.map(folderPath))].filter((path) => path !== '' && !there.has(path));
}
