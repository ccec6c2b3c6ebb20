import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { LinkedPages } from '#core/page/page-address.ts';
import { pageAddressesQuery } from '../api/queries.ts';

/** The pages that links may lead to; undefined while nobody knows, so that none is called broken before. */
export function useLinkedPages(): LinkedPages | undefined {
  const { data } = useQuery(pageAddressesQuery);
  return useMemo(() => data && new Map(data.map((page) => [page.id, page])), [data]);
}
