import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { AssetListSchema, AssetSchema } from '#api/assets.ts';
import { EmbedPreviewSchema, FoundFilmsSchema, HostsSchema, LookSchema } from '#api/embeds.ts';
import type { EmbedForm } from '#core/embed/forms.ts';
import type { Embed } from '#core/embed/model.ts';
import { requestJson } from '../api/client.ts';

export const hostsQuery = queryOptions({
  queryKey: ['embed-hosts'],
  queryFn: () => requestJson('get /embeds/hosts', HostsSchema),
});

/** The embeds on the shelf. */
export const heldEmbedsQuery = queryOptions({
  queryKey: ['embed-held'],
  queryFn: () => requestJson('get /assets', AssetListSchema, { query: { kind: 'embed', limit: '60' } }),
});

export const heldEmbedQuery = (id: string) =>
  queryOptions({
    queryKey: ['asset', id],
    queryFn: () => requestJson('get /assets/{id}', AssetSchema, { path: { id } }),
  });

/** What the other site says of a thing. Asked once for each address, and again when somebody wants it. */
export const lookQuery = (embed: Embed) =>
  queryOptions({
    queryKey: ['embed-look', embed.address, embed.page, embed.host],
    queryFn: ({ signal }) => requestJson('post /embeds/looks', LookSchema, { body: { embed }, signal }),
    staleTime: 60_000,
    retry: false,
  });

export const embedPreviewQuery = (embed: Embed, target: string, form: EmbedForm) =>
  queryOptions({
    queryKey: ['embed-preview', embed, target, form],
    queryFn: ({ signal }) =>
      requestJson('post /embeds/previews', EmbedPreviewSchema, { body: { embed, target, form }, signal }),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

export const filmsQuery = (host: string, words: string) =>
  queryOptions({
    queryKey: ['embed-films', host, words],
    queryFn: ({ signal }) =>
      requestJson('get /embeds/films', FoundFilmsSchema, {
        query: { host, words },
        signal,
      }),
    staleTime: 60_000,
    retry: false,
  });
