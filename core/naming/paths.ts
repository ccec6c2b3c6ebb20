export const FOLDER_DEPTH_LIMIT = 5;

/** The paths of all folders above one, outermost first, and the folder itself. */
export function withAncestors(path: string): readonly string[] {
  const segments = path.split('/').filter(Boolean);
  return segments.map((_, at) => segments.slice(0, at + 1).join('/'));
}

/** How deep a folder lies: 1 for one at the top. */
export function folderDepth(path: string): number {
  return path.split('/').filter(Boolean).length;
}
