import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import type { Asset } from '#api/assets.ts';
import type { FilmWork } from '#api/films.ts';
import { queryClient } from '../api/queries.ts';
import { filmWorkQuery } from './tracks.ts';

/** How far the work on a film is; asked anew whenever something else is to be made of it, also by an undo. */
export function useFilmWork({ id, recipe }: Extract<Asset, { readonly kind: 'film' }>): FilmWork | undefined {
  const { data } = useQuery(filmWorkQuery(id));
  const said = JSON.stringify(recipe);
  const before = useRef(said);
  useEffect(() => {
    if (before.current !== said) void queryClient.invalidateQueries({ queryKey: ['film', id] });
    before.current = said;
  }, [id, said]);
  return data;
}
