import { queryOptions } from '@tanstack/react-query';
import * as v from 'valibot';
import { type Buy, OffersSchema, type Purchase, PurchaseSchema, SpendingSchema } from '#api/purchases.ts';
import { requestJson } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { saveOpenPages } from '../api/under-way.ts';
import { putPieces } from '../pieces/pieces.ts';
import { noteReplaced } from '../pieces/put-away.ts';
import { countPages } from '../pieces/say-used-on.ts';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';

export const offersQuery = (compId: string) =>
  queryOptions({
    queryKey: ['offers', compId],
    queryFn: () => requestJson('get /assets/{id}/offers', OffersSchema, { path: { id: compId } }),
    staleTime: 60_000,
    retry: false,
  });

export const spendingQuery = queryOptions({
  queryKey: ['spending'],
  queryFn: () => requestJson('get /spending', SpendingSchema),
});

const LOOK_MILLIS = 700;
export const isUnderWay = ({ state, halted }: Purchase): boolean =>
  !halted && (state === 'ordering' || state === 'paid');

/** What was bought lately; looked at again and again while something is under way. */
export const purchasesQuery = queryOptions({
  queryKey: ['purchases'],
  queryFn: () => requestJson('get /purchases', v.array(PurchaseSchema)),
  refetchInterval: ({ state }) => (state.data?.some(isUnderWay) ? LOOK_MILLIS : false),
});

/** Orders the original of a comp, and watches it from then on, whichever screen is open. */
export async function orderPurchase(wish: Buy): Promise<Purchase> {
  // The pages that it will stand on are saved first: what is not saved yet would clash with it.
  await saveOpenPages();
  const purchase = await requestJson('post /purchases', PurchaseSchema, { body: wish });
  await refreshPurchases();
  void watch(purchase.id);
  return purchase;
}

/** Lets a purchase go on that halted. */
export async function goOnWith(id: string): Promise<void> {
  await requestJson('post /purchases/{id}/go-on', PurchaseSchema, { path: { id } });
  await refreshPurchases();
  void watch(id);
}

/** Puts a bought original in the place of its comp, once somebody has compared them. */
export function putOriginalInPlace(id: string): Promise<void> {
  return ledger.during(async () => {
    await saveOpenPages();
    settled(await requestJson('post /purchases/{id}/put-in-place', PurchaseSchema, { path: { id } }));
  });
}

async function watch(id: string): Promise<void> {
  for (;;) {
    await new Promise((resolve) => setTimeout(resolve, LOOK_MILLIS));
    const purchase = await requestJson('get /purchases/{id}', PurchaseSchema, { path: { id } }).catch(
      () => null,
    );
    if (!purchase || isUnderWay(purchase)) continue;
    settled(purchase);
    return;
  }
}

/** Says how a purchase came out, shows it everywhere, and writes what it did to pages into the ledger. */
function settled(purchase: Purchase): void {
  const { comp, original, state, halted, words, replacedAt } = purchase;
  const title = comp.label.title || comp.stem;
  if (original) putPieces([comp, original]);
  void refreshPurchases();
  if (state === 'done' && purchase.isRenewal) toast(`${title} is renewed.`);
  else if (state === 'done' && original && replacedAt) {
    const name = `putting ${original.label.title || original.stem} in the place of its comp`;
    noteReplaced(name, comp.id, original.id, replacedAt);
    toast(`${title} is bought, and stands in the place of its comp on ${countPages(purchase.pages)}.`);
  } else if (halted || state === 'refused') toast.error(`${title}: ${words}`);
  else toast(`${title}: ${words}`);
}

async function refreshPurchases(): Promise<void> {
  await Promise.all(
    ['purchases', 'spending'].map((key) => queryClient.invalidateQueries({ queryKey: [key] })),
  );
}
