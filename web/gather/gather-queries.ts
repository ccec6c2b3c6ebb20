import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import * as v from 'valibot';
import {
  AddressReadingSchema,
  AlbumSchema,
  ClipperSchema,
  ClipSchema,
  CloserLookSchema,
  SourceAnswerSchema,
  SourceSchema,
} from '#api/gather.ts';
import { PageSchema } from '#api/pages.ts';
import type { GatherQuestion } from '#core/gather/question.ts';
import { ApiProblem, requestJson } from '../api/client.ts';
import { putPieces } from '../pieces/pieces.ts';
import { queryOf } from './gather-address.ts';

const MINUTE_MILLIS = 60_000;
/** A source that did not answer is asked again after this long. */
export const SILENT_MILLIS = 20_000;

/** The page that is gathered for, as it stands on the server. Not the page that its screen has open. */
export const gatherPageQuery = (id: string) =>
  queryOptions({
    queryKey: ['gather-page', id],
    queryFn: async () => {
      const page = await requestJson('get /pages/{id}', PageSchema, { path: { id } });
      putPieces(page.pieces);
      return page;
    },
  });

export const sourcesQuery = queryOptions({
  queryKey: ['sources'],
  queryFn: () => requestJson('get /sources', v.array(SourceSchema)),
  staleTime: Infinity,
});

/** One source's answer, a page at a time. Each source is asked by itself, so that a slow one holds up no other. */
export const sourceQuery = (id: string, question: GatherQuestion) =>
  infiniteQueryOptions({
    queryKey: ['source', id, question],
    queryFn: ({ pageParam, signal }) =>
      requestJson('get /sources/{id}/pictures', SourceAnswerSchema, {
        path: { id },
        query: { ...queryOf(question), ...(pageParam ? { cursor: pageParam } : {}) },
        signal,
      }),
    initialPageParam: '',
    getNextPageParam: (last) => last.cursor,
    staleTime: 5 * MINUTE_MILLIS,
    retry: false,
    refetchInterval: (query) => (query.state.status === 'error' ? SILENT_MILLIS : false),
  });

export const albumsQuery = (id: string) =>
  queryOptions({
    queryKey: ['source', id, 'albums'],
    queryFn: ({ signal }) =>
      requestJson('get /sources/{id}/albums', v.array(AlbumSchema), { path: { id }, signal }),
    retry: false,
  });

export const albumQuery = (id: string, albumId: string) =>
  queryOptions({
    queryKey: ['source', id, 'album', albumId],
    queryFn: ({ signal }) =>
      requestJson('get /sources/{id}/albums/{albumId}', SourceAnswerSchema, {
        path: { id, albumId },
        signal,
      }),
    retry: false,
  });

export const readingQuery = (address: string) =>
  queryOptions({
    queryKey: ['reading', address],
    queryFn: ({ signal }) =>
      requestJson('post /readings', AddressReadingSchema, { body: { address }, signal }),
    staleTime: 5 * MINUTE_MILLIS,
    retry: (tries, error) => tries < 1 && error instanceof ApiProblem && error.status === 0,
  });

export const closerQuery = (seal: string) =>
  queryOptions({
    queryKey: ['closer', seal.slice(-60)],
    queryFn: ({ signal }) => requestJson('post /closer-looks', CloserLookSchema, { body: { seal }, signal }),
    staleTime: 5 * MINUTE_MILLIS,
    retry: false,
  });

export const clippersQuery = queryOptions({
  queryKey: ['clippers'],
  queryFn: () => requestJson('get /clippers', v.array(ClipperSchema)),
});

export const clipsQuery = queryOptions({
  queryKey: ['clips'],
  queryFn: () => requestJson('get /clips', v.array(ClipSchema)),
  refetchOnWindowFocus: true,
});

export const clipQuery = (id: string) =>
  queryOptions({
    queryKey: ['clip', id],
    queryFn: () => requestJson('post /clips/{id}/open', ClipSchema, { path: { id } }),
    staleTime: Infinity,
  });
