import { useQuery } from '@tanstack/react-query';
import { foldersQuery, targetsQuery } from '../api/queries.ts';

/** The folders that there are, and those that mirror a section of a site but are not made yet. */
export function useFolderPaths(): { readonly made: readonly string[]; readonly missing: readonly string[] } {
  const folders = useQuery(foldersQuery);
  const targets = useQuery(targetsQuery);
  const made = folders.data?.map(({ path }) => path) ?? [];
  const sections = targets.data?.flatMap(({ rules }) => rules.sections) ?? [];
  const missing = useQuery({
    queryKey: ['missing-sections', sections, made],
    // What spells the letters of all scripts is large, and is fetched only where a site has sections.
    queryFn: async () => (await import('#core/naming/folders.ts')).missingSections(sections, made),
    enabled: folders.data !== undefined && sections.length > 0,
    staleTime: Infinity,
  });
  return { made, missing: missing.data ?? [] };
}
