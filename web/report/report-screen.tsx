import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import type { Report, ReportPage } from '#api/report.ts';
import { writeCsv } from '#core/formats/csv.ts';
import { sayBytes } from '#core/media/weight.ts';
import { type ReportDay, summedDays } from '#core/report/day.ts';
import { reportQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { Choice, Sentence } from '../sentence/sentence.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { sayDay } from '../ui/dates.ts';
import { Empty } from '../ui/empty.tsx';
import { Folded } from '../ui/folded.tsx';
import { ReportChart, type ReportLine } from './report-chart.tsx';

const SPANS = [
  ['30', 'the last 30 days'],
  ['91', 'the last quarter'],
  ['366', 'the last year'],
] as const;
type Span = (typeof SPANS)[number][0];
const USUAL: Span = '91';

const CHARTS: readonly {
  readonly title: string;
  readonly lines: readonly ReportLine[];
  readonly say?: (value: number) => string;
}[] = [
  {
    title: 'Findings',
    lines: [
      { name: 'stop sending', isPressing: true, of: ({ stops }) => stops },
      { name: 'should be mended', of: ({ mends }) => mends },
    ],
  },
  {
    title: 'Words and rights',
    lines: [
      { name: 'rights open', isPressing: true, of: ({ rights }) => rights },
      { name: 'words missing', of: ({ words }) => words },
    ],
  },
  {
    title: 'Out',
    lines: [
      { name: 'pages out', of: ({ out }) => out },
      { name: 'sent that day', isPressing: true, isOfTheDay: true, of: ({ sent }) => sent },
    ],
  },
  {
    title: 'Weight',
    lines: [{ name: 'first load of a page that is out', of: ({ bytes }) => bytes }],
    say: (bytes) => sayBytes(Math.round(bytes)),
  },
];

/** How the pages of the house stand, day by day and today: for the site owner, to be kept as CSV or printed. */
export function ReportScreen() {
  const report = useQuery(reportQuery);
  const [params, setParams] = useSearchParams();
  if (!report.data) return <Unanswered isScreen of={report} />;
  const { targets, days, pages } = report.data;
  const target = targets.find(({ id }) => id === params.get('target'))?.id ?? '';
  const span = SPANS.find(([one]) => one === params.get('span'))?.[0] ?? USUAL;
  const ask = (part: Readonly<Record<string, string>>) =>
    setParams({ target, span, ...part }, { replace: true });
  const isOf = ({ targetId }: { readonly targetId: string }) => target === '' || targetId === target;
  const shown = summedDays(days.filter(isOf)).filter(({ day }) => day >= firstDay(days, Number(span)));
  const own = pages.filter(isOf).sort(worstFirst);
  const name = targets.find(({ id }) => id === target)?.name ?? 'all targets';
  return (
    <div className="h-full overflow-auto px-8.5 pt-5.5 pb-10 max-narrow:px-3.5 print:h-auto print:overflow-visible print:p-0">
      <div className="mx-auto max-w-275">
        <header className="flex flex-wrap items-end justify-between gap-x-4 gap-y-2 border-b-2 border-ink pb-2.5">
          <div>
            <h1 className="text-4xl">Report</h1>
            <Sentence>
              How pages for{' '}
              <Choice
                about="Target"
                value={target}
                choices={[['', 'all targets'], ...targets.map((one) => [one.id, one.name] as const)]}
                onChoose={(next) => ask({ target: next })}
              />{' '}
              stood over{' '}
              <Choice about="Time" value={span} choices={SPANS} onChoose={(next) => ask({ span: next })} />
            </Sentence>
          </div>
          <div className="flex flex-wrap gap-2 print:hidden">
            <a
              className={buttonLook({})}
              download={`report-${shown.at(-1)?.day ?? 'empty'}.csv`}
              href={`data:text/csv;charset=utf-8,${encodeURIComponent(csvOf(report.data, isOf))}`}
            >
              Take it away as CSV
            </a>
            <Button onClick={() => window.print()}>Print</Button>
          </div>
        </header>
        <div className="mt-5 grid grid-cols-2 gap-5 max-middle:grid-cols-1 print:grid-cols-2">
          {CHARTS.map(({ title, lines, say = String }) => (
            <ReportChart key={title} title={title} lines={lines} days={shown} say={say} />
          ))}
        </div>
        <PagesToday pages={own} about={name} />
        <DaysTable days={shown} />
      </div>
    </div>
  );
}

/** The first day that is shown: so many days before the last that is known. */
function firstDay(days: readonly Pick<ReportDay, 'day'>[], span: number): string {
  const last = days
    .map(({ day }) => day)
    .sort()
    .at(-1);
  if (last === undefined) return '';
  const first = new Date(`${last}T00:00:00Z`);
  first.setUTCDate(first.getUTCDate() - span + 1);
  return first.toISOString().slice(0, 10);
}

const worstFirst = (one: ReportPage, other: ReportPage): number =>
  other.stops - one.stops || other.lost - one.lost || other.mends - one.mends;

const CELL = 'border-b border-hairline py-1.5 pr-3 text-left align-baseline last:pr-0';
const NUMBER = `${CELL} text-right font-mono whitespace-nowrap`;
const NUMBER_HEAD = `${CELL} text-right`;

function PagesToday({ pages, about }: { readonly pages: readonly ReportPage[]; readonly about: string }) {
  if (pages.length === 0)
    return (
      <Empty>
        <p>There are no pages for {about} yet. They stand here with what they still need.</p>
      </Empty>
    );
  return (
    <section className="mt-7" aria-labelledby="pages-today">
      <h2 className="text-lg" id="pages-today">
        Pages today
      </h2>
      <table className="w-full border-collapse">
        <thead>
          <tr>
            <th className={CELL}>Page</th>
            <th className={NUMBER_HEAD}>Stop it</th>
            <th className={NUMBER_HEAD}>To mend</th>
            <th className={`${NUMBER_HEAD} max-narrow:hidden`}>Words</th>
            <th className={`${NUMBER_HEAD} max-narrow:hidden`}>Rights</th>
            <th className={NUMBER_HEAD}>Lost there</th>
            <th className={NUMBER_HEAD}>First load</th>
          </tr>
        </thead>
        <tbody>
          {pages.map(({ id, title, stops, mends, words, rights, isOut, lost, bytes }) => (
            <tr key={id}>
              <td className={CELL}>
                <Link className="underline" to={isOut ? `/pages/${id}/sent` : `/pages/${id}/proof`}>
                  {sayPageTitle(title)}
                </Link>
              </td>
              <td className={`${NUMBER} ${stops > 0 ? 'text-due' : ''}`}>{stops}</td>
              <td className={NUMBER}>{mends}</td>
              <td className={`${NUMBER} max-narrow:hidden`}>{words}</td>
              <td className={`${NUMBER} max-narrow:hidden`}>{rights}</td>
              <td className={`${NUMBER} ${lost > 0 ? 'text-due' : ''}`}>{isOut ? lost : 'not out'}</td>
              <td className={NUMBER}>{bytes === null ? '' : sayBytes(bytes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** The numbers of the charts, the newest day first. */
function DaysTable({ days }: { readonly days: readonly ReportDay[] }) {
  return (
    <Folded className="mt-7 print:hidden" words={<span className="text-lg font-semibold">Day by day</span>}>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse">
          <thead>
            <tr>
              {[
                'Day',
                'Pages',
                'Out',
                'Sent',
                'Stop sending',
                'To mend',
                'Words',
                'Rights',
                'First load',
              ].map((head, at) => (
                <th key={head} className={at === 0 ? CELL : NUMBER_HEAD}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {[...days].reverse().map((one) => (
              <tr key={one.day}>
                <th className={`${CELL} font-normal`} scope="row">
                  {sayDay(one.day)}
                </th>
                {[one.pages, one.out, one.sent, one.stops, one.mends, one.words, one.rights].map(
                  (value, at) => (
                    // biome-ignore lint/suspicious/noArrayIndexKey: the columns are always these, in this order.
                    <td key={at} className={NUMBER}>
                      {value}
                    </td>
                  ),
                )}
                <td className={NUMBER}>{one.bytes === null ? '' : sayBytes(one.bytes)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Folded>
  );
}

/** What is shown, as it was counted: each target by itself on each day. */
function csvOf({ targets, days }: Report, isOf: (day: Report['days'][number]) => boolean): string {
  const names = new Map(targets.map(({ id, name }) => [id, name]));
  const rows = [...days]
    .filter(isOf)
    .sort((one, other) => (one.day < other.day ? -1 : 1))
    .map((one) => [
      one.day,
      names.get(one.targetId) ?? one.targetId,
      one.pages,
      one.out,
      one.sent,
      one.stops,
      one.mends,
      one.words,
      one.rights,
      one.bytes ?? '',
    ]);
  const heads = [
    'day',
    'target',
    'pages',
    'pages out',
    'sent',
    'stop sending',
    'to mend',
    'words missing',
    'rights open',
    'first load in bytes',
  ];
  return writeCsv([heads, ...rows]);
}
