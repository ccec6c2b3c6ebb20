// What imports what in the project's own code.
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { root } from './machine.mjs';

/** Import and export statements, imports for their effect, and imports at run time. */
const IMPORT =
  /(?:^|\n)\s*(?:import|export)\s(?:[^;'"]*?\sfrom\s)?\s*['"]([^'"]+)['"]|\bimport\(\s*['"]([^'"]+)['"]/g;

/** What a file names in its imports, as it is written there. */
export function namedIn(file) {
  return [...readFileSync(file, 'utf8').matchAll(IMPORT)].map(([, named, atRunTime]) => named ?? atRunTime);
}

export const isOwn = (from) => from.startsWith('.') || from.startsWith('#');

/** The file of ours that an import leads to, from the project's root. */
export function targetOf(file, from) {
  return from.startsWith('#') ? from.slice(1) : relative(root, resolve(dirname(file), from));
}

export function filesIn(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(path);
    return /\.(ts|tsx)$/.test(entry.name) ? [path] : [];
  });
}
