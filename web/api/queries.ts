import { keepPreviousData, QueryClient, queryOptions } from '@tanstack/react-query';
import * as v from 'valibot';
import {
  AssetCountSchema,
  AssetListSchema,
  type AssetQuery,
  AssetSchema,
  FolderListSchema,
  LightsSchema,
  LookalikesSchema,
  MadeCutsSchema,
  OwnWordsSchema,
} from '#api/assets.ts';
import { DeliveriesSchema, ForeseenSchema, SentCodeSchema, TokenSetSchema } from '#api/deliveries.ts';
import { DeskSchema } from '#api/desk.ts';
import { ProvenanceSchema } from '#api/gather.ts';
import { InheritedListSchema, InheritedPageSchema } from '#api/inherited.ts';
import { LikenessCurveSchema } from '#api/likeness.ts';
import {
  FragmentSchema,
  type FragmentWish,
  KeptStateSchema,
  PageAddressesSchema,
  PageListSchema,
  PageSchema,
  PageVersionListSchema,
  PreviewSchema,
  SistersSchema,
} from '#api/pages.ts';
import { PartListSchema, PartSchema } from '#api/parts.ts';
import { BeginningSchema, DemoPersonSchema, PersonSchema } from '#api/people.ts';
import { ReportSchema } from '#api/report.ts';
import {
  HistorySchema,
  JudgedUsesSchema,
  LedgerCountSchema,
  type LedgerQuery,
  LedgerSchema,
} from '#api/rights.ts';
import { type Target, TargetSchema } from '#api/targets.ts';
import { ApiProblem, requestJson } from './client.ts';
import { whenSaved } from './under-way.ts';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2000,
      retry: (tries, error) => tries < 3 && error instanceof ApiProblem && error.isPassing,
    },
  },
});

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: async () => {
    try {
      return await requestJson('get /me', PersonSchema);
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 401) return null;
      throw error;
    }
  },
  staleTime: 60_000,
});

export const beginningQuery = queryOptions({
  queryKey: ['beginning'],
  queryFn: () => requestJson('get /beginning', BeginningSchema),
});

export const demoPeopleQuery = queryOptions({
  queryKey: ['demo-people'],
  queryFn: () => requestJson('get /demo-people', v.array(DemoPersonSchema)),
  staleTime: Infinity,
});
const HANGING_MILLIS = 1500;

export const deskQuery = queryOptions({
  queryKey: ['desk'],
  queryFn: () => requestJson('get /desk', DeskSchema),
  // While the demo hangs itself, people look on.
  refetchInterval: ({ state }) => (state.data?.hanging ? HANGING_MILLIS : false),
});
export const pagesQuery = queryOptions({
  queryKey: ['pages'],
  queryFn: () => requestJson('get /pages', PageListSchema, { query: {} }),
});
/** Where pages stand on their sites, for links between them. */
export const pageAddressesQuery = queryOptions({
  queryKey: ['page-addresses'],
  queryFn: () => requestJson('get /pages/addresses', PageAddressesSchema),
});
/** Those whose titles hold each of the words, also where there are more pages than are listed. */
export const pagesTitledQuery = (words: string) =>
  queryOptions({
    queryKey: ['pages', words.trim()],
    queryFn: ({ signal }) =>
      requestJson('get /pages', PageListSchema, { query: { words: words.trim() }, signal }),
    placeholderData: keepPreviousData,
  });
export const targetsQuery = queryOptions({
  queryKey: ['targets'],
  queryFn: () => requestJson('get /targets', v.array(TargetSchema)),
});
/** The target that many pieces are sized for where nobody said which: the one with most sizes in its house rules. */
export function mostSizes(targets: readonly Target[]): Target | undefined {
  return [...targets].sort((one, other) => other.rules.cutPresets.length - one.rules.cutPresets.length)[0];
}

export const foldersQuery = queryOptions({
  queryKey: ['folders'],
  queryFn: () => requestJson('get /folders', FolderListSchema),
});

/** A page as it is when all that was changed on another screen is saved. */
async function openedPage(id: string) {
  await whenSaved(id);
  return requestJson('get /pages/{id}', PageSchema, { path: { id } });
}

/** A page is asked once each time it is opened; from then on its saver knows how it stands. */
export const pageQuery = (id: string) =>
  queryOptions({
    queryKey: ['page', id],
    queryFn: () => openedPage(id),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
/** The same page for its proof: asked anew, or the state from which the sheet was opened would be proofed. */
export const proofPageQuery = (id: string) =>
  queryOptions({
    queryKey: ['proof-page', id],
    queryFn: () => openedPage(id),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
/** The page beside what was sent of it: its title and target. */
export const sentPageQuery = (id: string) =>
  queryOptions({ queryKey: ['sent-page', id], queryFn: () => openedPage(id), gcTime: 0 });
/** What would become of a page if it was sent now. */
export const foreseenQuery = (id: string, target: string) =>
  queryOptions({
    queryKey: ['deliveries', id, target, 'foreseen'],
    queryFn: ({ signal }) =>
      requestJson('get /pages/{id}/foreseen', ForeseenSchema, { path: { id }, query: { target }, signal }),
    gcTime: 0,
  });
/** The code of a sending as it is pasted; it never changes once it is ready. */
export const sentCodeQuery = (id: string, at: string) =>
  queryOptions({
    queryKey: ['sent-code', id, at],
    queryFn: () => requestJson('get /deliveries/{id}/code', SentCodeSchema, { path: { id } }),
  });
/** The sendings of a page to a target (its own where none is said), and whether it can be sent there. */
export const deliveriesQuery = (id: string, target: string | null) =>
  queryOptions({
    queryKey: ['deliveries', id, target],
    queryFn: () =>
      requestJson('get /pages/{id}/deliveries', DeliveriesSchema, {
        path: { id },
        query: target === null ? {} : { target },
      }),
    staleTime: 0,
  });
/** How the pages of the house stand. */
export const reportQuery = queryOptions({
  queryKey: ['report'],
  queryFn: () => requestJson('get /report', ReportSchema),
});
/** Pages of other makers that were read or brought in. */
export const inheritedListQuery = queryOptions({
  queryKey: ['inherited'],
  queryFn: () => requestJson('get /inherited', InheritedListSchema),
  staleTime: 0,
});
export const inheritedQuery = (id: string) =>
  queryOptions({
    queryKey: ['inherited', id],
    queryFn: () => requestJson('get /inherited/{id}', InheritedPageSchema, { path: { id } }),
    staleTime: 0,
  });
/** Since when a target has a token. */
export const tokenQuery = (targetId: string) =>
  queryOptions({
    queryKey: ['token', targetId],
    queryFn: () => requestJson('get /targets/{id}/token', TokenSetSchema, { path: { id: targetId } }),
  });
/** The documents of the shelf, to be named as what something rests on. */
export const documentsQuery = queryOptions({
  queryKey: ['documents'],
  queryFn: () => requestJson('get /assets', AssetListSchema, { query: { kind: 'document', limit: '60' } }),
});
export const assetQuery = (id: string) =>
  queryOptions({
    queryKey: ['asset', id],
    queryFn: () => requestJson('get /assets/{id}', AssetSchema, { path: { id } }),
  });
/** An original never changes, so neither does this. */
export const lightsQuery = (id: string) =>
  queryOptions({
    queryKey: ['lights', id],
    queryFn: () => requestJson('get /assets/{id}/lights', LightsSchema, { path: { id } }),
    staleTime: Number.POSITIVE_INFINITY,
  });
export const provenanceQuery = (id: string) =>
  queryOptions({
    queryKey: ['asset', id, 'provenance'],
    queryFn: () => requestJson('get /assets/{id}/provenance', v.array(ProvenanceSchema), { path: { id } }),
    staleTime: 30_000,
  });
export const ownWordsQuery = (id: string) =>
  queryOptions({
    queryKey: ['asset', id, 'own-words'],
    queryFn: () => requestJson('get /assets/{id}/own-words', OwnWordsSchema, { path: { id } }),
    staleTime: 0,
  });
/** Asked anew for each version of the piece, and from time to time: files are made while one looks on. */
export const madeCutsQuery = (id: string, version: number) =>
  queryOptions({
    queryKey: ['made-cuts', id, version],
    queryFn: () => requestJson('get /assets/{id}/cuts', MadeCutsSchema, { path: { id } }),
    refetchInterval: 5_000,
  });
export const likenessQuery = (id: string, about: { recipe: string; width: number; target: string }) =>
  queryOptions({
    queryKey: ['likeness', id, about],
    queryFn: ({ signal }) =>
      requestJson('get /assets/{id}/likeness', LikenessCurveSchema, {
        path: { id },
        query: { ...about, width: String(about.width) },
        signal,
      }),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
export const lookalikesQuery = (id: string) =>
  queryOptions({
    queryKey: ['lookalikes', id],
    queryFn: () => requestJson('get /assets/{id}/lookalikes', LookalikesSchema, { path: { id } }),
    staleTime: 30_000,
  });
export const pinsQuery = queryOptions({
  queryKey: ['pins'],
  queryFn: () => requestJson('get /pins', v.array(v.string())),
});
export const versionsQuery = (id: string) =>
  queryOptions({
    queryKey: ['versions', id],
    queryFn: () => requestJson('get /pages/{id}/versions', PageVersionListSchema, { path: { id } }),
  });

/** A kept state never changes. */
export const keptStateQuery = (id: string, versionId: string) =>
  queryOptions({
    queryKey: ['versions', id, versionId],
    queryFn: () =>
      requestJson('get /pages/{id}/versions/{versionId}', KeptStateSchema, { path: { id, versionId } }),
    staleTime: Infinity,
  });

/** What is kept to stand on many pages. */
export const partsQuery = queryOptions({
  queryKey: ['parts'],
  queryFn: () => requestJson('get /parts', PartListSchema),
});

export const partQuery = (id: string) =>
  queryOptions({
    queryKey: ['parts', id],
    queryFn: () => requestJson('get /parts/{id}', PartSchema, { path: { id } }),
  });

/** The same page in other languages. */
export const sistersQuery = (id: string) =>
  queryOptions({
    queryKey: ['sisters', id],
    queryFn: () => requestJson('get /pages/{id}/sisters', SistersSchema, { path: { id } }),
  });

export const previewQuery = (id: string, version: number) =>
  queryOptions({
    queryKey: ['preview', id, version],
    queryFn: () => requestJson('get /pages/{id}/preview', PreviewSchema, { path: { id } }),
    staleTime: Infinity,
  });
/** The code of a page; that of one which cannot go out yet is only given to who asks for it as such. */
export const fragmentQuery = (id: string, wish: FragmentWish) =>
  queryOptions({
    queryKey: ['fragment', id, wish],
    queryFn: () => requestJson('get /pages/{id}/fragment', FragmentSchema, { path: { id }, query: wish }),
    gcTime: 0,
    placeholderData: keepPreviousData,
  });

export function askShelf(question: AssetQuery, signal?: AbortSignal) {
  return requestJson('get /assets', AssetListSchema, { query: question, signal });
}

/** How many pieces answer a question; shows the last count until the next one is there. */
export const shelfCountQuery = ({ cursor: _cursor, limit: _limit, order: _order, ...question }: AssetQuery) =>
  queryOptions({
    queryKey: ['shelf', 'count', question],
    queryFn: ({ signal }) => requestJson('get /assets/count', AssetCountSchema, { query: question, signal }),
    placeholderData: keepPreviousData,
  });

export function askLedger(question: LedgerQuery, signal?: AbortSignal) {
  return requestJson('get /rights', LedgerSchema, { query: question, signal });
}

/** How many pieces answer a question; shows the last count until the next one is there. */
export const ledgerCountQuery = ({ cursor: _cursor, order: _order, ...question }: LedgerQuery) =>
  queryOptions({
    queryKey: ['rights', 'count', question],
    queryFn: ({ signal }) => requestJson('get /rights/count', LedgerCountSchema, { query: question, signal }),
    placeholderData: keepPreviousData,
  });

/** Where a piece stands and whether it may; asked anew with each of its versions. */
export const usesQuery = (id: string, version: number) =>
  queryOptions({
    queryKey: ['uses', id, version],
    queryFn: () => requestJson('get /assets/{id}/uses', JudgedUsesSchema, { path: { id } }),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
export const historyQuery = (id: string, version: number) =>
  queryOptions({
    queryKey: ['history', id, version],
    queryFn: () => requestJson('get /assets/{id}/history', HistorySchema, { path: { id } }),
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });
