import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import {
  BegunSchema,
  type BringInWish,
  type InheritedPage,
  InheritedPageSchema,
  type SaidFault,
} from '#api/inherited.ts';
import { type Job, JobSchema } from '#api/jobs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { isUnderWay, sayJob } from '../api/follow-job.ts';
import { inheritedQuery, queryClient, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useJob } from '../api/use-job.ts';
import { useOffer } from '../frame/commands.ts';
import { Split } from '../frame/split.tsx';
import { type FrameMark, MarkedFrame } from '../measure/marked-frame.tsx';
import { LEAST_PX, useHalf } from '../measure/use-half.ts';
import { Choice, Sentence } from '../sentence/sentence.tsx';
import { Button, LinkButton } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { Empty } from '../ui/empty.tsx';
import { Fault } from '../ui/fault.tsx';
import { Progress } from '../ui/progress.tsx';
import { FaultsPane } from './faults-pane.tsx';
import { saySource } from './say-source.ts';

const MENDING = [
  ['yes', 'all that is safe'],
  ['no', 'nothing'],
] as const;

const USUAL: BringInWish = { mends: true, isOurs: false, unlinksDead: true, alts: {} };

/** A page of another maker beside what it becomes here: its faults, what is decided of them, and the way in. */
export function InheritedScreen() {
  const { id = '' } = useParams();
  const found = useQuery(inheritedQuery(id));
  const [wished, setWish] = useState<BringInWish | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const page = found.data;
  const navigate = useNavigate();
  const refresh = () => queryClient.invalidateQueries({ queryKey: ['inherited'] });
  const job = useJob(page?.jobId, page?.state, () => {
    void refresh();
    void queryClient.invalidateQueries({ queryKey: ['pages'] });
  });
  const isBusy = job !== null && isUnderWay(job);
  const wish = page?.wishes && page.state !== 'read' ? page.wishes : (wished ?? USUAL);
  const doing = async (work: () => Promise<unknown>) => {
    setFault(null);
    await work().catch((error: unknown) => setFault(sayFailure(error)));
    await refresh();
  };
  const path = { id };
  const bringIn = () =>
    doing(() => requestJson('post /inherited/{id}/bring-in', InheritedPageSchema, { path, body: wish }));
  const takeBack = () =>
    doing(() => requestJson('post /inherited/{id}/take-back', InheritedPageSchema, { path }));
  const readFramed = ({ targetId, framed }: InheritedPage) =>
    doing(async () => {
      const from = { kind: 'addresses', addresses: framed } as const;
      await requestJson('post /inherited', BegunSchema, { body: { targetId, from } });
      navigate('/pages/bring-in');
    });
  const withJob = (does: 'post /jobs/{id}/stop' | 'post /jobs/{id}/go-on') =>
    doing(() => requestJson(does, JobSchema, { path: { id: page?.jobId ?? '' } }));
  useOffer(
    page?.state === 'read' && !isBusy ? [{ words: 'Bring this page in', act: () => void bringIn() }] : [],
  );
  if (!page) return <Unanswered isScreen of={found} />;
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex flex-wrap items-start gap-x-3.5 gap-y-1 border-b border-line bg-panel px-4.5 py-2.5">
        <div className="min-w-0 flex-1 max-narrow:basis-full">
          <Heading page={page} wish={wish} onWish={setWish} />
          <p className="text-sm text-soft">{saySoFar(page)}</p>
        </div>
        <LinkButton to="/pages/bring-in">All that was read</LinkButton>
      </header>
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
        <div>
          {fault ? <Fault says={fault} className="px-4.5 py-2" /> : null}
          {job && (isBusy || page.words !== '' || job.state === 'stopped') ? (
            <UnderWay
              job={job}
              words={page.words}
              onStop={() => void withJob('post /jobs/{id}/stop')}
              onGoOn={() => void withJob('post /jobs/{id}/go-on')}
            />
          ) : null}
        </div>
        {page.frames.found && page.frames.written ? (
          <Split
            id="inherited"
            stacks="middle"
            panes={[
              {
                id: 'states',
                name: 'both states',
                content: <States page={page} wish={wish} chosen={chosen} onChoose={setChosen} />,
              },
              {
                id: 'faults',
                name: 'faults',
                width: { usual: 372, least: 280 },
                content: (
                  <FaultsPane
                    page={page}
                    wish={wish}
                    isBusy={isBusy}
                    chosen={chosen}
                    onWish={setWish}
                    onChoose={setChosen}
                    onBringIn={() => void bringIn()}
                    onTakeBack={() => void takeBack()}
                    onReadFramed={() => void readFramed(page)}
                  />
                ),
              },
            ]}
          />
        ) : isBusy ? null : (
          <Empty title="It was not read">
            Nothing of it was taken. Read it again, or give another address.
          </Empty>
        )}
      </div>
    </div>
  );
}

interface HeadingProps {
  readonly page: InheritedPage;
  readonly wish: BringInWish;
  readonly onWish: (wish: BringInWish) => void;
}

function Heading({ page, wish, onWish }: HeadingProps) {
  const source = <strong className="wrap-anywhere">{saySource(page.source)}</strong>;
  if (page.state !== 'read')
    return (
      <h1 className="text-3xl leading-normal font-stretch-94% max-narrow:text-xl">
        {page.state === 'in' ? 'Brought in from' : 'Bring in'} {source}
      </h1>
    );
  return (
    <>
      <h1 className="sr-only">Bring in {saySource(page.source)}</h1>
      <Sentence>
        Bring in {source} as a page for the {page.targetName}, mending{' '}
        <Choice
          about="Mending"
          value={wish.mends ? 'yes' : 'no'}
          choices={MENDING}
          onChoose={(mends) => onWish({ ...wish, mends: mends === 'yes' })}
        />
      </Sentence>
    </>
  );
}

function saySoFar(page: InheritedPage): string {
  if (page.bytes === null) return `for the ${page.targetName}`;
  const weighs = `${page.pictures === 1 ? '1 picture' : `${page.pictures} pictures`}, ${sayBytes(page.bytes)} as it loads there`;
  return `${page.said} · ${weighs}`;
}

interface UnderWayProps {
  readonly job: Job;
  readonly words: string;
  readonly onStop: () => void;
  readonly onGoOn: () => void;
}

function UnderWay({ job, words, onStop, onGoOn }: UnderWayProps) {
  const isGoing = isUnderWay(job);
  return (
    <div className="grid gap-2 border-b border-line bg-panel px-4.5 py-2.5">
      {isGoing ? (
        <Progress name="Working on it" value={job.of > 0 ? (job.done / job.of) * 100 : null} />
      ) : null}
      <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1">
        <p className={isGoing ? '' : 'text-due'} role="status">
          {isGoing ? sayJob(job) : words || sayJob(job)}
        </p>
        {isGoing ? (
          <Button onClick={onStop}>Stop</Button>
        ) : (
          <Button kind="action" onClick={onGoOn}>
            Try it again
          </Button>
        )}
      </div>
    </div>
  );
}

interface StatesProps {
  readonly page: InheritedPage;
  readonly wish: BringInWish;
  readonly chosen: number | null;
  readonly onChoose: (number: number | null) => void;
}

function States({ page, wish, chosen, onChoose }: StatesProps) {
  const pane = useRef<HTMLElement>(null);
  const targets = useQuery(targetsQuery);
  const widths = targets.data?.find(({ id }) => id === page.targetId)?.rules.proofWidths ?? [];
  const [at, setAt] = useState<number | null>(null);
  // What pages of before were made for is nearer to a tablet than to a desk.
  const usual = Math.floor((widths.length - 1) / 2);
  const viewport = widths[at ?? usual] ?? WIDE_PX;
  const shown = Math.min(viewport, useHalf(pane));
  const { found, written } = page.frames;
  const frame = { viewport, shown, chosen, onChoose, markName: 'Fault' };
  const marks = marksOf(page.list, chosen);
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <div className="px-4.5 pt-2">
        <OneOf
          about="Width that is looked at"
          value={String(at ?? usual)}
          choices={widths.map((one, index) => [String(index), `${one} px`] as const)}
          onChoose={(index) => setAt(Number(index))}
        />
      </div>
      <section
        className="flex items-start gap-5.5 overflow-auto px-4.5 pt-3.5 pb-7.5 max-narrow:flex-wrap"
        ref={pane}
        aria-label="As it stands there, and as Placard writes it"
      >
        {found ? (
          <MarkedFrame
            key={`found ${viewport}`}
            {...frame}
            title="As it stands there"
            about={saySource(page.source)}
            address={found}
            marks={marks}
          />
        ) : null}
        {written ? (
          <MarkedFrame
            key={`written ${viewport} ${wish.mends}`}
            {...frame}
            title="As Placard writes it"
            about={wish.mends ? 'mended as far as that is safe' : 'as it was read'}
            address={`${written}&mends=${wish.mends ? 1 : 0}`}
            marks={[]}
          />
        ) : null}
      </section>
    </div>
  );
}

/**
 * The marks of faults on the page as it stood: each once, where no other is if it can be, so that they hide nothing; the one that is
 * chosen wherever it is.
 */
function marksOf(list: readonly SaidFault[], chosen: number | null): readonly FrameMark[] {
  const taken = new Set<number>();
  return list.flatMap(({ spots, outcome }, index) => {
    const number = index + 1;
    const free = spots.find((spot) => !taken.has(spot)) ?? spots[0];
    if (free !== undefined) taken.add(free);
    const shown = number === chosen ? spots : free === undefined ? [] : [free];
    return shown.map((spot) => ({ number, isPressing: outcome === 'asks', block: `spot ${spot}` }));
  });
}

const WIDE_PX = Math.max(LEAST_PX, 1024);
