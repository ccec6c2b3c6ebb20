import { useQuery } from '@tanstack/react-query';
import { documentsQuery } from '../api/queries.ts';

/** The documents of the shelf as a list offers them, after none; one that is said and not among them stays on it. */
export function useDocuments(said: string | null): readonly (readonly [id: string, name: string])[] {
  const held = useQuery(documentsQuery).data?.assets ?? [];
  const others = held.map(({ id, label, stem }) => [id, label.title || stem] as const);
  const isThere = said === null || others.some(([id]) => id === said);
  return [['', 'None'], ...(isThere ? [] : [[said, 'The one that was said'] as const]), ...others];
}
