import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import {
  type Deliveries,
  DeliveriesSchema,
  type Delivery,
  DeliverySchema,
  type Foreseen,
  type SendingPlanWish,
} from '#api/deliveries.ts';
import { type Job, JobSchema } from '#api/jobs.ts';
import { may, SENDER_WORDS } from '#api/people.ts';
import { type Target, TargetSchema } from '#api/targets.ts';
import { isKeepingAll } from '#core/deliver/filter.ts';
import { maySend, type Sending } from '#core/deliver/sending.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { isUnderWay, sayJob } from '../api/follow-job.ts';
import {
  deliveriesQuery,
  foreseenQuery,
  meQuery,
  queryClient,
  sentPageQuery,
  targetsQuery,
} from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useJob } from '../api/use-job.ts';
import { useOffer } from '../frame/commands.ts';
import { Split } from '../frame/split.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { Deeds } from '../ui/deeds.tsx';
import { Empty } from '../ui/empty.tsx';
import { Fault } from '../ui/fault.tsx';
import { Panel } from '../ui/panel.tsx';
import { Progress } from '../ui/progress.tsx';
import { Select } from '../ui/select.tsx';
import { AheadPane } from './ahead-pane.tsx';
import { DifferencesPane } from './differences-pane.tsx';
import { PastePane } from './paste-pane.tsx';
import { PlanPanel, sayPlan } from './plan-panel.tsx';
import { States } from './states.tsx';

/** Looked at in the place of a sending: what would become of the page as it is now. */
const AHEAD = 'ahead';

/** A page beside what stands where it was sent to: sent, read back, mended, taken down. */
export function SentScreen() {
  const { id = '' } = useParams();
  const [params, setParams] = useSearchParams();
  const wanted = params.get('target');
  const page = useQuery(sentPageQuery(id));
  const me = useQuery(meQuery);
  const targets = useQuery(targetsQuery);
  const sent = useQuery(deliveriesQuery(id, wanted));
  const [looked, setLooked] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isTakingDown, setTakingDown] = useState(false);
  const [isPlanning, setPlanning] = useState(false);
  const [isPasting, setPasting] = useState(false);
  const [width, setWidth] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const deliveries = sent.data?.deliveries ?? [];
  const [newest] = deliveries;
  const job = useJob(newest?.jobId, newest?.state, () =>
    queryClient.invalidateQueries({ queryKey: ['deliveries', id] }),
  );
  const isAheadAsked = looked === AHEAD || (sent.data !== undefined && !newest?.frames.sent);
  const targetId = sent.data?.targetId ?? '';
  const ahead = useQuery({ ...foreseenQuery(id, targetId), enabled: isAheadAsked && targetId !== '' });
  if (!page.data || !me.data || !targets.data || !sent.data)
    return <Unanswered isScreen of={[page, me, targets, sent]} />;
  const { rules } = targets.data.find((one) => one.id === targetId) ?? page.data.target;
  const isFilterKnown = !isKeepingAll(rules.sending.filter);
  const delivery = deliveries.find((one) => one.id === looked) ?? newest;
  const isEditable = may(me.data.role, 'take-away') && maySend(rules.sending.senders, me.data.role);
  const isSending = job !== null && isUnderWay(job);
  const isAhead = isAheadAsked && isFilterKnown && !isSending;
  const doing = async (work: () => Promise<unknown>) => {
    setFault(null);
    await work().catch((error: unknown) => setFault(sayFailure(error)));
    await queryClient.invalidateQueries({ queryKey: ['deliveries', id] });
  };
  const send = () =>
    doing(async () => {
      await requestJson('post /pages/{id}/deliveries', DeliverySchema, {
        path: { id },
        query: { target: targetId },
      });
      setLooked(null);
      setChosen(null);
    });
  const withJob = (does: 'post /jobs/{id}/stop' | 'post /jobs/{id}/go-on') =>
    doing(() => requestJson(does, JobSchema, { path: { id: newest?.jobId ?? '' } }));
  const path = { id: delivery?.id ?? '' };
  const mend = (code: string, isSentAgain: boolean) =>
    doing(async () => {
      const target = await requestJson('get /targets/{id}', TargetSchema, { path: { id: targetId } });
      const sending = { ...target.rules.sending, ...WRITTEN_OTHERWISE[code] };
      await requestJson('put /targets/{id}', TargetSchema, {
        path: { id: targetId },
        body: { ...target.rules, sending },
        version: target.version,
      });
      await queryClient.invalidateQueries({ queryKey: targetsQuery.queryKey });
      setChosen(null);
      if (!isSentAgain) return;
      await requestJson('post /pages/{id}/deliveries', DeliverySchema, {
        path: { id },
        query: { target: targetId },
      });
      setLooked(null);
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
  const { isPasted } = sent.data;
  const isOut = newest?.state === 'out';
  const sendWords = isPasted
    ? newest?.state === 'ready' || isOut
      ? 'Make it ready again'
      : 'Make it ready to paste'
    : isOut
      ? 'Send it again'
      : `Send to the ${targetName}`;
  const pasting = delivery ? (
    <PastePane
      key={delivery.id}
      delivery={delivery}
      before={deliveries.find(({ address }) => address !== null)?.address ?? ''}
      onPasted={async () => {
        setPasting(false);
        await queryClient.invalidateQueries({ queryKey: ['deliveries', id] });
      }}
    />
  ) : null;
  const list = {
    chosen,
    isMended: (code: string) => isWrittenOtherwise(rules.sending, code),
    mayMend: may(me.data.role, 'set-rules') && !isSending,
    onChoose: setChosen,
  };
  const foreseen = isAhead && ahead.data && ahead.data.differences.length > 0 ? ahead.data : null;
  const looking = foreseen
    ? {
        states: statesAhead(foreseen, targetName),
        pane: (
          <AheadPane
            {...list}
            foreseen={foreseen}
            targetName={targetName}
            stops={stops}
            onBack={delivery?.frames.sent ? () => setLooked(null) : null}
            proof={sent.data.isOwnTarget ? `/pages/${id}/proof` : null}
            onMend={(code) => void mend(code, false)}
          />
        ),
      }
    : delivery?.frames.sent
      ? {
          states: statesOf(delivery),
          pane: (
            <DifferencesPane
              {...list}
              delivery={delivery}
              earlier={deliveries.filter((one) => one.id !== delivery.id && one.frames.sent !== null)}
              paste={delivery.state === 'ready' && isEditable ? pasting : null}
              isEditable={isEditable}
              onReadBack={() =>
                void doing(() => requestJson('post /deliveries/{id}/read-back', DeliverySchema, { path }))
              }
              onMend={(code) => void mend(code, true)}
              onLookAhead={isFilterKnown ? () => setLooked(AHEAD) : null}
              onLook={(one) => {
                setLooked(one);
                setChosen(null);
              }}
            />
          ),
        }
      : null;
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <Offers onSend={isEditable && isPossible && stops.length === 0 ? () => void send() : null} />
      <header className="flex min-h-14.5 flex-wrap items-center gap-x-3.5 gap-y-2 border-b border-line bg-panel px-4.5 py-1.5">
        <div className="min-w-0 flex-1 max-narrow:basis-full">
          <h1 className="truncate text-2xl">{sayPageTitle(page.data.doc.title)}</h1>
          <p className="text-sm text-soft">
            {delivery ? saySent(delivery) : `for the ${targetName}, not sent yet`}
          </p>
          {isEditable ? null : (
            <p className="text-sm text-soft">
              Pages of {targetName} are sent by {SENDER_WORDS[rules.sending.senders]}.
            </p>
          )}
          {planned === null || !sent.data.isOwnTarget ? null : (
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
        {targets.data.length > 1 ? (
          <Select
            className="w-44"
            aria-label="Target that it is sent to"
            value={targetId}
            choices={targets.data.map((one) => [one.id, sayTarget(one, sent.data.sentTo)] as const)}
            onChoose={(target) => {
              setLooked(null);
              setChosen(null);
              setWidth(0);
              setParams({ target }, { replace: true });
            }}
          />
        ) : null}
        <LinkButton to={`/pages/${id}`}>Back to the sheet</LinkButton>
        {isEditable && isPasted && delivery?.state === 'out' ? (
          <Button onClick={() => setPasting(true)}>Its code...</Button>
        ) : null}
        {isEditable && delivery?.id === newest?.id && (isOut || newest?.state === 'ready') ? (
          <Button disabled={isSending} onClick={() => setTakingDown(true)}>
            Take it down...
          </Button>
        ) : null}
        {isEditable && isPossible && !isPasted && sent.data.isOwnTarget ? (
          <Button onClick={() => setPlanning(true)}>
            {isOut ? 'Take it down later...' : 'Send it later...'}
          </Button>
        ) : null}
        {isEditable ? (
          <Button
            kind={newest?.state === 'ready' ? 'plain' : 'action'}
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
          {job && newest && (isSending || newest.state === 'sending' || newest.state === 'handing') ? (
            <UnderWay
              job={job}
              onStop={() => void withJob('post /jobs/{id}/stop')}
              onGoOn={() => void withJob('post /jobs/{id}/go-on')}
            />
          ) : null}
        </div>
        {looking ? (
          <Split
            id="sent"
            stacks="middle"
            panes={[
              {
                id: 'states',
                name: 'both states',
                content: (
                  <States
                    {...looking.states}
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
                content: looking.pane,
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
          isOut={isOut}
          fault={fault}
          onPlan={(wish) => void plan(wish)}
          onClose={() => setPlanning(false)}
        />
      ) : null}
      {isPasting && delivery ? (
        <Panel title="Its code" isOpen onClose={() => setPasting(false)}>
          {pasting}
        </Panel>
      ) : null}
      {isTakingDown && delivery ? (
        <Panel
          title="Take it down"
          about={sayTakenDown(delivery, isPasted)}
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

/** What a target is called, and whether the page went there. */
const sayTarget = ({ id, rules }: Target, sentTo: readonly string[]): string =>
  sentTo.includes(id) ? `${rules.name}, sent` : rules.name;

/** A sending as it is looked at: what was sent, and what stands there. */
const statesOf = ({ state, title, address, frames, differences }: Delivery) => ({
  sent: { title: state === 'ready' ? 'What is pasted' : 'What was sent', about: title, address: frames.sent },
  found: {
    title: 'What stands there now',
    about: (address ?? '').replace(/^https?:\/\//, ''),
    address: frames.found,
  },
  differences,
});

/** A page that is not sent yet: as it will be sent, and what its target keeps of it. */
const statesAhead = ({ frames, differences }: Foreseen, targetName: string) => ({
  sent: { title: 'As it will be sent', about: 'this page', address: frames.sent },
  found: { title: 'As it will stand there', about: `what the ${targetName} keeps`, address: frames.found },
  differences,
});

/** What becomes of a page that is taken down. */
function sayTakenDown({ targetName, address }: Delivery, isPasted: boolean): string {
  const stay = 'The page and all of its pieces stay here.';
  if (!isPasted) return `Readers of the ${targetName} get nothing at ${address} from then on. ${stay}`;
  const where = address === null ? `at the ${targetName}` : `at ${address}`;
  return `Its files are served no longer, so that its pictures are gone wherever it was pasted. Take its code away ${where} by hand. ${stay}`;
}

/** What a page is told that was not sent yet: what is missing for it, or what will be seen here. */
function NotSent({ id, sent }: { readonly id: string; readonly sent: Deliveries }) {
  const { isPossible, isPasted, why, stops, targetName } = sent;
  if (!isPossible) return <Empty>{why}</Empty>;
  if (stops.length === 0)
    return (
      <Empty>
        {isPasted
          ? `Once it is ready, its code is copied here, and stands beside what readers of the ${targetName} get.`
          : `Once it is sent to the ${targetName}, it stands here beside what readers get.`}
      </Empty>
    );
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
      {sent.isOwnTarget ? (
        <LinkButton to={`/pages/${id}/proof`}>See the proof, which mends it</LinkButton>
      ) : null}
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
  if (state === 'ready') return `made ready for the ${targetName} ${sayTime(at)} by ${by} · not pasted yet`;
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
