import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useParams } from 'react-router';
import {
  type Deliveries,
  DeliveriesSchema,
  type Delivery,
  DeliverySchema,
  type SendingPlanWish,
} from '#api/deliveries.ts';
import { type Job, JobSchema } from '#api/jobs.ts';
import { may } from '#api/people.ts';
import { TargetSchema } from '#api/targets.ts';
import type { Sending } from '#core/deliver/sending.ts';
import type { HouseRules } from '#core/page/target.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { isUnderWay, sayJob } from '../api/follow-job.ts';
import { deliveriesQuery, meQuery, queryClient, sentPageQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useJob } from '../api/use-job.ts';
import { useOffer } from '../frame/commands.ts';
import { Split } from '../frame/split.tsx';
import { type FrameMark, MarkedFrame } from '../measure/marked-frame.tsx';
import { LEAST_PX, useHalf } from '../measure/use-half.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { sayTime } from '../ui/dates.ts';
import { Deeds } from '../ui/deeds.tsx';
import { Empty } from '../ui/empty.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';
import { Progress } from '../ui/progress.tsx';
import { DifferencesPane } from './differences-pane.tsx';
import { PlanPanel, sayPlan } from './plan-panel.tsx';

/** A page beside what stands where it was sent to: sent, read back, mended, taken down. */
export function SentScreen() {
  const { id = '' } = useParams();
  const page = useQuery(sentPageQuery(id));
  const me = useQuery(meQuery);
  const sent = useQuery(deliveriesQuery(id));
  const [looked, setLooked] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isTakingDown, setTakingDown] = useState(false);
  const [isPlanning, setPlanning] = useState(false);
  const [width, setWidth] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const deliveries = sent.data?.deliveries ?? [];
  const [newest] = deliveries;
  const job = useJob(newest?.jobId, newest?.state, () =>
    queryClient.invalidateQueries({ queryKey: ['deliveries', id] }),
  );
  if (!page.data || !me.data || !sent.data) return <Unanswered isScreen of={[page, me, sent]} />;
  const { rules, id: targetId } = page.data.target;
  const delivery = deliveries.find((one) => one.id === looked) ?? newest;
  const isEditable = may(me.data.role, 'take-away');
  const isSending = job !== null && isUnderWay(job);
  const doing = async (work: () => Promise<unknown>) => {
    setFault(null);
    await work().catch((error: unknown) => setFault(sayFailure(error)));
    await queryClient.invalidateQueries({ queryKey: ['deliveries', id] });
  };
  const send = () =>
    doing(async () => {
      await requestJson('post /pages/{id}/deliveries', DeliverySchema, { path: { id } });
      setLooked(null);
      setChosen(null);
    });
  const withJob = (does: 'post /jobs/{id}/stop' | 'post /jobs/{id}/go-on') =>
    doing(() => requestJson(does, JobSchema, { path: { id: newest?.jobId ?? '' } }));
  const path = { id: delivery?.id ?? '' };
  const mend = (code: string) =>
    doing(async () => {
      const target = await requestJson('get /targets/{id}', TargetSchema, { path: { id: targetId } });
      const sending = { ...target.rules.sending, ...WRITTEN_OTHERWISE[code] };
      await requestJson('put /targets/{id}', TargetSchema, {
        path: { id: targetId },
        body: { ...target.rules, sending },
        version: target.version,
      });
      await queryClient.invalidateQueries({ queryKey: ['sent-page', id] });
      await requestJson('post /pages/{id}/deliveries', DeliverySchema, { path: { id } });
      setLooked(null);
      setChosen(null);
    });
  const { isPossible, stops, targetName } = sent.data;
  const planned = sayPlan(sent.data.plan, sent.data.timeZone);
  const plan = (body: SendingPlanWish) =>
    doing(async () => {
      await requestJson('put /pages/{id}/plan', DeliveriesSchema, { path: { id }, body });
      setPlanning(false);
    });
  const cancel = () =>
    doing(() => requestJson('delete /pages/{id}/plan', DeliveriesSchema, { path: { id } }));
  const sendWords = newest?.state === 'out' ? 'Send it again' : `Send to the ${targetName}`;
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <Offers onSend={isEditable && isPossible && stops.length === 0 ? () => void send() : null} />
      <header className="flex min-h-14.5 flex-wrap items-center gap-x-3.5 gap-y-2 border-b border-line bg-panel px-4.5 py-1.5">
        <div className="min-w-0 flex-1 max-narrow:basis-full">
          <h1 className="truncate text-2xl">{sayPageTitle(page.data.doc.title)}</h1>
          <p className="text-sm text-soft">
            {delivery ? saySent(delivery) : `for the ${targetName}, not sent yet`}
          </p>
          {planned === null ? null : (
            <p className={sent.data.plan?.state === 'failed' ? 'text-due' : ''}>
              {planned}{' '}
              {isEditable ? (
                <Button kind="link" onClick={() => void cancel()}>
                  {sent.data.plan?.state === 'failed' ? 'Put that away' : 'Cancel that'}
                </Button>
              ) : null}
            </p>
          )}
        </div>
        <LinkButton to={`/pages/${id}`}>Back to the sheet</LinkButton>
        {isEditable && delivery?.id === newest?.id && delivery?.state === 'out' ? (
          <Button disabled={isSending} onClick={() => setTakingDown(true)}>
            Take it down...
          </Button>
        ) : null}
        {isEditable && isPossible ? (
          <Button onClick={() => setPlanning(true)}>
            {newest?.state === 'out' ? 'Take it down later...' : 'Send it later...'}
          </Button>
        ) : null}
        {isEditable ? (
          <Button
            kind="action"
            disabled={!isPossible || isSending || stops.length > 0}
            onClick={() => void send()}
          >
            {sendWords}
          </Button>
        ) : null}
      </header>
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
        <div>
          {fault ? <Fault says={fault} /> : null}
          {job && newest && (isSending || newest.state !== 'out') && newest.state !== 'down' ? (
            <UnderWay
              job={job}
              onStop={() => void withJob('post /jobs/{id}/stop')}
              onGoOn={() => void withJob('post /jobs/{id}/go-on')}
            />
          ) : null}
        </div>
        {delivery?.frames.sent ? (
          <Split
            id="sent"
            stacks="middle"
            panes={[
              {
                id: 'states',
                name: 'both states',
                content: (
                  <States
                    delivery={delivery}
                    rules={rules}
                    width={width}
                    chosen={chosen}
                    onWidth={setWidth}
                    onChoose={setChosen}
                  />
                ),
              },
              {
                id: 'differences',
                name: 'what differs',
                width: { usual: 370, least: 280 },
                content: (
                  <DifferencesPane
                    delivery={delivery}
                    earlier={deliveries.filter((one) => one.id !== delivery.id && one.frames.sent !== null)}
                    chosen={chosen}
                    isMended={(code) => isWrittenOtherwise(rules.sending, code)}
                    mayMend={may(me.data.role, 'set-rules') && !isSending}
                    isEditable={isEditable}
                    onChoose={setChosen}
                    onReadBack={() =>
                      void doing(() =>
                        requestJson('post /deliveries/{id}/read-back', DeliverySchema, { path }),
                      )
                    }
                    onMend={(code) => void mend(code)}
                    onLook={(one) => {
                      setLooked(one);
                      setChosen(null);
                    }}
                  />
                ),
              },
            ]}
          />
        ) : isSending ? null : (
          <NotSent id={id} sent={sent.data} />
        )}
      </div>
      {isPlanning ? (
        <PlanPanel
          plan={sent.data.plan}
          timeZone={sent.data.timeZone}
          isOut={newest?.state === 'out'}
          fault={fault}
          onPlan={(wish) => void plan(wish)}
          onClose={() => setPlanning(false)}
        />
      ) : null}
      {isTakingDown && delivery ? (
        <Panel
          title="Take it down"
          about={`Readers of the ${delivery.targetName} get nothing at ${delivery.address} from then on. The page and all of its pieces stay here.`}
          isOpen
          onClose={() => setTakingDown(false)}
        >
          <Deeds>
            <Button
              kind="action"
              onClick={() => {
                setTakingDown(false);
                void doing(() => requestJson('post /deliveries/{id}/take-down', DeliverySchema, { path }));
              }}
            >
              Take it down
            </Button>
            <Button onClick={() => setTakingDown(false)}>Leave it there</Button>
          </Deeds>
        </Panel>
      ) : null}
    </div>
  );
}

/** What a page is told that was not sent yet: what is missing for it, or what will be seen here. */
function NotSent({ id, sent }: { readonly id: string; readonly sent: Deliveries }) {
  const { isPossible, why, stops, targetName } = sent;
  if (!isPossible) return <Empty>{why}</Empty>;
  if (stops.length === 0)
    return <Empty>Once it is sent to the {targetName}, it stands here beside what readers get.</Empty>;
  return (
    <section className="max-w-140 px-4.5 py-5" aria-labelledby="what-stops">
      <h2 className="text-lg" id="what-stops">
        {stops.length === 1 ? 'One thing keeps it here' : `${stops.length} things keep it here`}
      </h2>
      <ul className="my-2.5 list-disc pl-4.5 text-due">
        {stops.map((stop) => (
          <li key={stop}>{stop}</li>
        ))}
      </ul>
      <LinkButton to={`/pages/${id}/proof`}>See the proof, which mends it</LinkButton>
    </section>
  );
}

/** What is written otherwise for a target from then on, by what it lost. */
const WRITTEN_OTHERWISE: Readonly<Record<string, Partial<Sending>>> = {
  'caption-lost': { captions: 'plain' },
  'beside-lost': { sides: 'picture' },
};

/** Whether that was said already: where it is lost all the same, saying it again mends nothing. */
const isWrittenOtherwise = ({ captions, sides }: Sending, code: string): boolean => {
  const change = WRITTEN_OTHERWISE[code];
  return change !== undefined && (change.captions === captions || change.sides === sides);
};

function Offers({ onSend }: { readonly onSend: (() => void) | null }) {
  useOffer(onSend ? [{ words: 'Send this page', act: onSend }] : []);
  return null;
}

function saySent({ targetName, at, by, state, foundAt, differences }: Delivery): string {
  const sent = `sent to the ${targetName} ${sayTime(at)} by ${by}`;
  if (state === 'down') return `${sent} · taken down`;
  if (state !== 'out') return `${sent} · not out`;
  if (foundAt === null) return `${sent} · not read back yet`;
  const count = differences.length;
  const differs =
    count === 0 ? 'nothing differs' : count === 1 ? '1 thing differs' : `${count} things differ`;
  return `${sent} · read back ${sayTime(foundAt)}, ${differs}`;
}

interface UnderWayProps {
  readonly job: Job;
  readonly onStop: () => void;
  readonly onGoOn: () => void;
}

function UnderWay({ job, onStop, onGoOn }: UnderWayProps) {
  const isGoing = isUnderWay(job);
  if (!isGoing && job.state === 'done') return null;
  return (
    <div className="grid gap-2 border-b border-line bg-panel px-4.5 py-2.5">
      {isGoing ? <Progress name="Sending it" value={job.of > 0 ? (job.done / job.of) * 100 : null} /> : null}
      <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1">
        <p className={isGoing ? '' : 'text-due'} role="status">
          {sayJob(job)}
        </p>
        {isGoing ? (
          <Button onClick={onStop}>Stop</Button>
        ) : (
          <Button kind="action" onClick={onGoOn}>
            Go on
          </Button>
        )}
      </div>
    </div>
  );
}

interface StatesProps {
  readonly delivery: Delivery;
  readonly rules: HouseRules;
  /** Which of the widths of the proof, by its place. */
  readonly width: number;
  readonly chosen: number | null;
  readonly onWidth: (width: number) => void;
  readonly onChoose: (number: number | null) => void;
}

function States({ delivery, rules, width, chosen, onWidth, onChoose }: StatesProps) {
  const pane = useRef<HTMLElement>(null);
  const viewport = rules.proofWidths[width] ?? rules.proofWidths[0] ?? LEAST_PX;
  const shown = Math.min(viewport, useHalf(pane));
  const { sent, found } = delivery.frames;
  const frame = { viewport, shown, chosen, onChoose, markName: 'Difference' };
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <div className="px-4.5 pt-2">
        <OneOf
          about="Width that is looked at"
          value={String(width)}
          choices={rules.proofWidths.map((one, at) => [String(at), `${one} px`] as const)}
          onChoose={(at) => onWidth(Number(at))}
        />
      </div>
      <section
        className="flex items-start gap-5.5 overflow-auto px-4.5 pt-3.5 pb-7.5 max-narrow:flex-wrap"
        ref={pane}
        aria-label="What was sent, and what stands there"
      >
        {sent ? (
          <MarkedFrame
            key={`sent ${delivery.id} ${viewport}`}
            {...frame}
            title="What was sent"
            about={delivery.title}
            address={sent}
            marks={marksOf(delivery, 'sent')}
          />
        ) : null}
        {found ? (
          <MarkedFrame
            key={`found ${delivery.id} ${viewport} ${delivery.foundAt}`}
            {...frame}
            title="What stands there now"
            about={(delivery.address ?? '').replace(/^https?:\/\//, '')}
            address={found}
            marks={marksOf(delivery, 'found')}
          />
        ) : null}
      </section>
    </div>
  );
}

/** The marks of the differences that show in one of the two states. */
function marksOf({ differences }: Delivery, which: 'sent' | 'found'): readonly FrameMark[] {
  return differences.flatMap(({ isLost, spot }, at) => {
    const place = spot?.[which] ?? null;
    return spot && place !== null
      ? [{ number: at + 1, isPressing: isLost, block: `${spot.kind} ${place}` }]
      : [];
  });
}
