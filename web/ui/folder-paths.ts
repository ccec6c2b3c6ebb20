import { useQuery } from '@tanstack/react-query';
import { missingSections } from '#core/naming/folders.ts';
import { foldersQuery, targetsQuery } from '../api/queries.ts';

/** The folders that there are, and those that mirror a section of a site but are not made yet. */
export function useFolderPaths(): { readonly made: readonly string[]; readonly missing: readonly string[] } {
  const folders = useQuery(foldersQuery);
  const targets = useQuery(targetsQuery);
  const made = folders.data?.map(({ path }) => path) ?? [];
  const sections = targets.data?.flatMap(({ rules }) => rules.sections) ?? [];
  return { made, missing: folders.data ? missingSections(sections, made) : [] };
}
