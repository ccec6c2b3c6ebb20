import { useQueries, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { Purchase, Spending } from '#api/purchases.ts';
import { type Offer, sayAmount, sayOffer } from '#core/rights/offer.ts';
import { sayDay } from '#core/rights/say-judgement.ts';
import { sayFailure } from '../api/client.ts';
import { assetQuery } from '../api/queries.ts';
import { changePiece } from '../pieces/pieces.ts';
import { sayUsedOn } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import { Select } from '../ui/select.tsx';
import {
  goOnWith,
  isUnderWay,
  offersQuery,
  orderPurchase,
  purchasesQuery,
  spendingQuery,
} from './purchases.ts';

const titleOf = ({ label, stem }: Asset) => label.title || stem;

interface BuyPanelProps {
  readonly comps: readonly Asset[];
  readonly onClose: () => void;
}

/** What is to be bought, with its price for each offer, and the sum; each comes by itself, and takes its comp's place. */
export function BuyPanel({ comps: known, onClose }: BuyPanelProps) {
  // Where they stand may have changed since they were read, by the very page that one is on.
  const now = useQueries({ queries: known.map(({ id }) => ({ ...assetQuery(id), staleTime: 0 })) });
  const comps = known.map((comp, at) => now[at]?.data ?? comp);
  const asked = useQueries({ queries: comps.map(({ id }) => offersQuery(id)) });
  const { data: spending } = useQuery(spendingQuery);
  const { data: purchases } = useQuery(purchasesQuery);
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const [typed, setTyped] = useState<string | null>(null);
  const said = comps.find(({ label }) => label.licensedTo)?.label.licensedTo;
  const licensedTo = typed ?? said ?? purchases?.[0]?.licensedTo ?? '';
  // A licence is renewed by itself; comps are bought together.
  const renewed = comps.length === 1 ? comps.find(({ label }) => label.licence === 'agency') : undefined;
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const lines = comps.map((comp, at) => {
    const answer = asked[at];
    const offers = answer?.data?.offers ?? [];
    const [first] = offers;
    return {
      comp,
      offers,
      offer: offers.find(({ id }) => id === chosen[comp.id]) ?? first,
      fault: answer?.error ? sayFailure(answer.error) : null,
      purchase: purchases?.find(
        (one) =>
          one.comp.id === comp.id &&
          one.state !== 'refused' &&
          // A renewal that is done is no reason not to renew it once more.
          (!one.isRenewal || one.state !== 'done'),
      ),
    };
  });
  const open = lines.filter(({ offer, purchase }) => offer && !purchase);
  const buy = async () => {
    setBusy(true);
    setFault(null);
    try {
      for (const { comp, offer } of open)
        if (offer)
          await orderPurchase({ compId: comp.id, offer: offer.id, amount: offer.amount, licensedTo });
    } catch (error) {
      setFault(sayFailure(error));
    }
    setBusy(false);
  };
  const onTheDay = async (piece: Asset, offer: Offer | undefined) => {
    if (!offer) return;
    const { terms } = piece.label;
    // The server writes who decided.
    const afterwards = { do: 'renew', offer: offer.id, amount: offer.amount, by: '', personId: '' } as const;
    setFault(null);
    try {
      await changePiece(
        piece.id,
        { label: { licensedTo, terms: { ...terms, afterwards } } },
        'renewing it on the day',
      );
      onClose();
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const sum = sumOf(open.flatMap(({ offer }) => offer ?? []));
  return (
    <Panel
      title={
        renewed
          ? `Renew ${titleOf(renewed)}`
          : comps.length === 1
            ? `Buy ${titleOf(comps[0] as Asset)}`
            : `${comps.length} comps to buy`
      }
      about={
        renewed
          ? `Its term goes on where it ends, ${renewed.label.terms.ends ? sayDay(renewed.label.terms.ends) : 'today'}, wherever it stands.`
          : 'Each original takes its comp’s place on all pages as soon as it is here, with its crop, width, margins, alt text and caption.'
      }
      isOpen
      onClose={onClose}
    >
      <ul className="mt-3">
        {lines.map(({ comp, offers, offer, fault: lineFault, purchase }) => (
          <li
            key={comp.id}
            className="grid grid-cols-[84px_minmax(0,1fr)] gap-3 border-t border-hairline py-2.5"
          >
            <img className="h-14 w-21 bg-stage object-cover" src={comp.thumb} alt="" />
            <div className="grid min-w-0 grid-cols-1 content-start gap-1">
              <p>
                <strong>{titleOf(comp)}</strong>{' '}
                <span className="text-soft">
                  {[comp.label.source, comp.label.sourceId].filter(Boolean).join(' ')}, {sayUsedOn(comp)}
                </span>
              </p>
              {purchase ? (
                <Bought purchase={purchase} />
              ) : offer ? (
                <Select
                  aria-label={`What is bought of ${titleOf(comp)}`}
                  value={offer.id}
                  choices={offers.map(
                    (one) => [one.id, `${sayAmount(one.amount, one.currency)}: ${sayOffer(one)}`] as const,
                  )}
                  onChoose={(id) => setChosen({ ...chosen, [comp.id]: id })}
                />
              ) : (
                <p className={lineFault ? 'text-due' : 'text-soft'}>{lineFault ?? 'Asking the agency...'}</p>
              )}
            </div>
          </li>
        ))}
      </ul>
      {open.length > 0 ? (
        <>
          <Field name="Licensed to" hint="Stands in the credit where the agency asks for it.">
            {(control) => (
              <Input
                {...control}
                value={licensedTo}
                maxLength={300}
                onChange={(event) => setTyped(event.target.value)}
              />
            )}
          </Field>
          <p className="mt-2 text-soft">{saySpending(spending, open[0]?.offer?.currency)}</p>
        </>
      ) : null}
      <Fault says={fault} />
      <Deeds>
        {open.length > 0 ? (
          <Button
            kind="action"
            disabled={isBusy || licensedTo.trim() === '' || spending?.mine === 0}
            onClick={() => void buy()}
          >
            {renewed ? 'Renew it' : `Buy ${open.length === 1 ? 'it' : `all ${open.length}`}`} for {sum}
          </Button>
        ) : null}
        {renewed && renewed.label.terms.ends !== '' && open[0]?.offer ? (
          <Button
            disabled={isBusy || licensedTo.trim() === '' || spending?.mine === 0}
            onClick={() => void onTheDay(renewed, open[0]?.offer)}
          >
            Renew it on the day
          </Button>
        ) : null}
        <Button onClick={onClose}>Close</Button>
      </Deeds>
    </Panel>
  );
}

function Bought({ purchase }: { readonly purchase: Purchase }) {
  const { id, words, by, halted } = purchase;
  return (
    <div role="status">
      <p className={halted ? 'text-due' : ''}>{words}</p>
      <p className="text-sm text-soft">
        {by}, for {sayAmount(purchase.offer.amount, purchase.offer.currency)}
        {isUnderWay(purchase) ? ', under way' : ''}
      </p>
      {halted ? (
        <Button kind="link" onClick={() => void goOnWith(id)}>
          Go on
        </Button>
      ) : null}
    </div>
  );
}

/** "132.00 EUR", or a sum for each currency. */
function sumOf(offers: readonly Offer[]): string {
  const sums = new Map<string, number>();
  for (const { amount, currency } of offers) sums.set(currency, (sums.get(currency) ?? 0) + amount);
  return [...sums].map(([currency, amount]) => sayAmount(amount, currency)).join(' and ');
}

function saySpending(spending: Spending | undefined, currency = 'EUR'): string {
  if (!spending) return '';
  const { mine, spent } = spending;
  const so = Object.entries(spent).map(([currency, amount]) => sayAmount(amount, currency));
  const far = so.length === 0 ? 'nothing yet' : so.join(' and ');
  if (mine === 0)
    return 'Your role buys nothing. The site owner says in the House rules who may spend how much.';
  return mine === null
    ? `You have spent ${far} this month.`
    : `You may spend ${sayAmount(mine, currency)} a month, and have spent ${far}.`;
}
