import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { may } from '#api/people.ts';
import type { LedgerQuery, LedgerRow } from '#api/rights.ts';
import { strictest } from '#core/page/target.ts';
import { dayIn } from '#core/rights/terms.ts';
import { addressOf } from '../api/client.ts';
import { askLedger, ledgerCountQuery, meQuery, shelfCountQuery, targetsQuery } from '../api/queries.ts';
import { failureOf, Unanswered } from '../api/unanswered.tsx';
import { BuyDeed } from '../buying/buy-deed.tsx';
import { purchasesQuery } from '../buying/purchases.ts';
import { HeadPane, PANES_LOOK, SidePane } from '../frame/panes.tsx';
import { LABEL_PX, Split } from '../frame/split.tsx';
import { Label } from '../label/label.tsx';
import type { LabelRowName } from '../label/row.tsx';
import { pieces, putPieces } from '../pieces/pieces.ts';
import { useOpened } from '../pieces/use-opened.ts';
import { ReplaceDeed } from '../replace/replace-deed.tsx';
import { ChosenBar } from '../shelf/chosen-bar.tsx';
import { ChosenCard } from '../shelf/chosen-card.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { Empty } from '../ui/empty.tsx';
import { useStore } from '../ui/store.ts';
import { HistoryRow } from './history-row.tsx';
import { LedgerLines } from './ledger-lines.tsx';
import { LedgerTable } from './ledger-table.tsx';
import { OnTheDayRow } from './on-the-day-row.tsx';
import { readLedgerQuestion, writeLedgerQuestion } from './question.ts';
import { RightsQuestion } from './rights-question.tsx';
import { UsesRow } from './uses-row.tsx';

const ComparePanel = lazy(async () => ({
  default: (await import('../buying/compare-panel.tsx')).ComparePanel,
}));

const BringPanel = lazy(async () => ({ default: (await import('./bring-panel.tsx')).BringPanel }));

const LicencesPanel = lazy(async () => ({
  default: (await import('./licences-panel.tsx')).LicencesPanel,
}));

const NONE: ReadonlySet<string> = new Set();
/** How far the axis reaches where any time is asked about. */
const ANY_TIME_DAYS = 730;

/** Who may use what until when, and what has to be done about it. */
export function RightsScreen() {
  const [params, setParams] = useSearchParams();
  const question = readLedgerQuestion(params);
  const openId = params.get('piece');
  const isTable = params.get('as') === 'table';
  const [chosen, setChosen] = useState(NONE);
  const [row, setRow] = useState<LabelRowName | null>(null);
  const [isBringing, setBringing] = useState(false);
  const [readsLicences, setReadingLicences] = useState(false);
  const { data: me } = useQuery(meQuery);
  const rules = strictest(useQuery(targetsQuery).data ?? [])?.rules;
  const asked = useLedger(question);
  const answer = failureOf(asked) ? undefined : asked.data;
  const known = useStore(pieces);
  const rows = (answer?.pages.flatMap((page) => page.rows) ?? []).map((one) => ({
    ...one,
    // What was said on this screen is shown at once.
    asset: known.get(one.asset.id) ?? one.asset,
  }));
  const held = useQuery(shelfCountQuery({})).data?.held;
  const opened = useOpened(openId);
  const counted = useQuery(ledgerCountQuery(question));
  const found = failureOf(counted) ? null : (counted.data?.found ?? null);
  const today = dayIn(rules?.timeZone ?? 'UTC', new Date());
  const go = (next: LedgerQuery, more: { piece?: string | null; table?: boolean }) => {
    const said = writeLedgerQuestion(next);
    if (more.table ?? isTable) said.set('as', 'table');
    if (more.piece) said.set('piece', more.piece);
    return said;
  };
  const open = (id: string) => {
    setRow(null);
    setParams(go(question, { piece: id }), { replace: true });
  };
  const mayChange = me ? may(me.role, 'say-rights') : false;
  const mayDecide = me ? may(me.role, 'decide-rights') : false;
  const many = rows.map(({ asset }) => asset).filter(({ id }) => chosen.has(id));
  return (
    <div className={PANES_LOOK}>
      <HeadPane aria-label="Question">
        <h1 className="sr-only">Rights</h1>
        <RightsQuestion
          question={question}
          onAsk={(next) => {
            setChosen(NONE);
            setParams(go(next, { piece: openId }));
          }}
        />
        <div className="mt-0.5 flex flex-wrap gap-x-4.5 gap-y-1 text-soft">
          <span role="status">
            {found === null ? null : (
              <>
                <strong>{found}</strong> of {held ?? '...'} pieces
              </>
            )}
          </span>
          <Button
            className="min-h-5"
            kind="link"
            onClick={() => setParams(go(question, { piece: openId, table: !isTable }), { replace: true })}
          >
            {isTable ? 'As lines of time' : 'As a table'}
          </Button>
          <a
            className={buttonLook({ kind: 'link' })}
            href={addressOf('get /rights.csv', { query: question })}
            download
          >
            Take it away as CSV
          </a>
          <a
            className={buttonLook({ kind: 'link' })}
            href={addressOf('get /rights.json', { query: question })}
            download
          >
            as JSON
          </a>
          <Button className="min-h-5" kind="link" onClick={() => setBringing(true)}>
            Bring a ledger in...
          </Button>
          <Button className="min-h-5" kind="link" onClick={() => setReadingLicences(true)}>
            Licences of the house...
          </Button>
          {readsLicences ? (
            <Suspense>
              <LicencesPanel mayChange={mayDecide} onClose={() => setReadingLicences(false)} />
            </Suspense>
          ) : null}
          {isBringing ? (
            <Suspense>
              <BringPanel onClose={() => setBringing(false)} />
            </Suspense>
          ) : null}
          <Buying rows={rows} />
        </div>
      </HeadPane>
      <Split
        id="rights"
        firstPlace={openId ? 'label' : 'ledger'}
        panes={[
          {
            id: 'ledger',
            name: 'the ledger',
            says: found === null ? '' : `${found} pieces`,
            content: (
              <div className="relative grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)]">
                <div className="min-h-0 min-w-0 overflow-auto">
                  <Unanswered of={asked} />
                  {answer && rows.length === 0 ? (
                    <Empty>
                      <h2 className="mb-1 text-xl text-ink">Nothing answers this question</h2>
                      <p>Ask for a longer time, or for every piece.</p>
                    </Empty>
                  ) : null}
                  {rows.length > 0 && isTable ? (
                    <LedgerTable
                      rows={rows}
                      today={today}
                      chosen={chosen}
                      onChosen={setChosen}
                      onOpen={open}
                    />
                  ) : null}
                  {rows.length > 0 && !isTable ? (
                    <LedgerLines
                      rows={rows}
                      today={today}
                      withinDays={daysOf(question)}
                      openId={openId}
                      onOpen={open}
                    />
                  ) : null}
                  {asked.hasNextPage ? (
                    <Button
                      className="m-4.5"
                      disabled={asked.isFetchingNextPage}
                      onClick={() => void asked.fetchNextPage()}
                    >
                      Show more
                    </Button>
                  ) : null}
                </div>
                {many.length > 0 ? <ChosenBar assets={many} onClear={() => setChosen(NONE)} /> : null}
              </div>
            ),
          },
          {
            id: 'label',
            name: 'the label',
            width: { usual: LABEL_PX, least: 260 },
            says: many.length > 1 ? `${many.length} chosen` : (opened?.label.title ?? 'no piece'),
            content: (
              <SidePane aria-label="Label">
                {many.length > 1 ? (
                  <ChosenCard assets={many} />
                ) : opened && rules ? (
                  <>
                    <Label
                      key={opened.id}
                      asset={opened}
                      rules={rules}
                      use={null}
                      isEditable={mayChange && opened.deletedAt === null}
                      openRow={row}
                      onOpenRow={setRow}
                      uses={
                        <>
                          <UsesRow asset={opened} />
                          <OnTheDayRow
                            asset={opened}
                            pages={opened.usedOn.length}
                            isEditable={mayChange}
                            onRenew={() => setRow('terms')}
                          />
                        </>
                      }
                      history={<HistoryRow asset={opened} />}
                    />
                    {mayChange ? (
                      <div className="px-1 pt-2.5">
                        <ReplaceDeed asset={opened} rules={rules} />
                      </div>
                    ) : null}
                  </>
                ) : (
                  <p className="text-soft">Choose a piece to see its label.</p>
                )}
              </SidePane>
            ),
          },
        ]}
      />
    </div>
  );
}

/** What of this is to buy, and what was bought and waits to be compared. */
function Buying({ rows }: { readonly rows: readonly LedgerRow[] }) {
  const { data: purchases } = useQuery(purchasesQuery);
  // An errand leads to the very one.
  const asked = useSearchParams()[0].get('compare');
  const [comparing, setComparing] = useState(asked);
  const waiting = purchases?.filter(({ state, original }) => state === 'to-compare' && original) ?? [];
  const compared = waiting.find(({ id }) => id === comparing);
  const bought = new Set(purchases?.flatMap(({ state, comp }) => (state === 'refused' ? [] : comp.id)));
  const comps = rows.filter(
    ({ asset, pages }) => asset.label.licence === 'comp' && pages.length > 0 && !bought.has(asset.id),
  );
  return (
    <>
      {comps.length > 0 ? (
        <BuyDeed
          comps={comps.map(({ asset }) => asset)}
          kind="link"
          words={comps.length === 1 ? 'Buy 1 comp...' : `Buy ${comps.length} comps...`}
        />
      ) : null}
      {waiting.map(({ id, comp }) => (
        <Button key={id} className="min-h-5 text-due" kind="link" onClick={() => setComparing(id)}>
          Compare the original of {comp.label.title || comp.stem}...
        </Button>
      ))}
      {compared?.original ? (
        <Suspense>
          <ComparePanel purchase={compared} original={compared.original} onClose={() => setComparing(null)} />
        </Suspense>
      ) : null}
    </>
  );
}

const daysOf = ({ within = '183' }: LedgerQuery): number =>
  within === 'any' ? ANY_TIME_DAYS : Number(within);

function useLedger(question: LedgerQuery) {
  const asked = useInfiniteQuery({
    queryKey: ['rights', question],
    queryFn: ({ pageParam, signal }) =>
      askLedger({ ...question, ...(pageParam ? { cursor: pageParam } : {}) }, signal),
    initialPageParam: '',
    getNextPageParam: (last) => last.cursor,
    placeholderData: keepPreviousData,
  });
  useEffect(() => {
    if (asked.data) putPieces(asked.data.pages.flatMap(({ rows }) => rows.map(({ asset }) => asset)));
  }, [asked.data]);
  return asked;
}
