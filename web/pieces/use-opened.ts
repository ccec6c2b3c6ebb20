import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import type { Asset } from '#api/assets.ts';
import { assetQuery } from '../api/queries.ts';
import { putPieces, usePiece } from './pieces.ts';

/** The piece whose label is open: as it is known, or asked for by its ID. */
export function useOpened(id: string | null): Asset | undefined {
  const known = usePiece(id);
  const asked = useQuery({ ...assetQuery(id ?? ''), enabled: id !== null && !known });
  useEffect(() => {
    if (asked.data) putPieces([asked.data]);
  }, [asked.data]);
  return known ?? asked.data;
}
