import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import * as v from 'valibot';
import { RunPreviewSchema, RunSchema, RunSummarySchema } from '#api/runs.ts';
import type { RunOrder } from '#core/run/order.ts';
import { requestJson } from '../api/client.ts';

export const runPreviewQuery = (order: RunOrder) =>
  queryOptions({
    queryKey: ['run-preview', order],
    queryFn: ({ signal }) => requestJson('post /run-previews', RunPreviewSchema, { body: order, signal }),
    placeholderData: keepPreviousData,
    gcTime: 10_000,
  });

const LOOK_MILLIS = 500;

export const runQuery = (id: string) =>
  queryOptions({
    queryKey: ['run', id],
    queryFn: () => requestJson('get /runs/{id}', RunSchema, { path: { id } }),
    refetchInterval: ({ state }) =>
      state.data && state.data.state !== 'waiting' && state.data.state !== 'running' ? false : LOOK_MILLIS,
  });

export const runsQuery = queryOptions({
  queryKey: ['runs'],
  queryFn: () => requestJson('get /runs', v.array(RunSummarySchema)),
  staleTime: 5000,
});
