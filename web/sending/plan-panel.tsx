import { useState } from 'react';
import type { SendingPlan, SendingPlanWish } from '#api/deliveries.ts';
import { localIn, momentsOf } from '#core/deliver/zoned-time.ts';
import { Button } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { DateInput } from '../ui/date-input.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';

/** A moment as it is said: a day, a time, and which of the two where the clocks show it twice. */
interface Said {
  readonly day: string;
  readonly time: string;
  readonly which: 'first' | 'second' | null;
}

const UNSAID: Said = { day: '', time: '', which: null };

interface PlanPanelProps {
  readonly plan: SendingPlan | null;
  readonly timeZone: string;
  /** Whether it is out already, so that only its end is planned. */
  readonly isOut: boolean;
  readonly fault: string | null;
  readonly onPlan: (wish: SendingPlanWish) => void;
  readonly onClose: () => void;
}

/** When a page goes out by itself and is taken down, in the time of its target. */
export function PlanPanel({ plan, timeZone, isOut, fault, onPlan, onClose }: PlanPanelProps) {
  const [start, setStart] = useState(() => saidAt(plan?.state === 'waiting' ? plan.startAt : null, timeZone));
  const [end, setEnd] = useState(() => saidAt(plan?.endAt ?? null, timeZone));
  const [isTried, setTried] = useState(false);
  const [startRead, endRead] = [readSaid(start, timeZone), readSaid(end, timeZone)];
  const submit = () => {
    setTried(true);
    if (startRead.fault !== null || endRead.fault !== null) return;
    onPlan({ startAt: isOut ? null : startRead.moment, endAt: endRead.moment });
  };
  const says = fault ?? (isTried ? (startRead.fault ?? endRead.fault) : null);
  return (
    <Panel
      title={isOut ? 'Take it down later' : 'Send it later'}
      about={`Days and times are those of ${timeZone.replaceAll('_', ' ')}, where its readers are.`}
      isOpen
      onClose={onClose}
    >
      <div className="mt-2 grid gap-3">
        {isOut ? null : <MomentFields about="Goes out" said={start} timeZone={timeZone} onSay={setStart} />}
        <MomentFields about="Is taken down" said={end} timeZone={timeZone} onSay={setEnd} />
      </div>
      <Fault says={says} className="mt-2" />
      <Deeds>
        <Button kind="action" onClick={submit}>
          Plan it
        </Button>
        <Button onClick={onClose}>Leave it as it is</Button>
      </Deeds>
    </Panel>
  );
}

interface MomentFieldsProps {
  readonly about: string;
  readonly said: Said;
  readonly timeZone: string;
  readonly onSay: (said: Said) => void;
}

function MomentFields({ about, said, timeZone, onSay }: MomentFieldsProps) {
  const isTwice = momentsOf(`${said.day}T${said.time}`, timeZone).length > 1;
  return (
    <fieldset className="min-w-0">
      <legend className="sr-only">{about}</legend>
      <div className="flex flex-wrap items-end gap-2">
        <Field name={`${about} on`}>
          {(control) => (
            <DateInput
              {...control}
              value={said.day}
              onChange={(day) => onSay({ ...said, day, which: null })}
            />
          )}
        </Field>
        <Field name={`${about} at`}>
          {(control) => (
            <Input
              {...control}
              className="w-24 font-mono"
              placeholder="06:00"
              maxLength={5}
              value={said.time}
              onChange={(event) => onSay({ ...said, time: event.target.value.trim(), which: null })}
            />
          )}
        </Field>
      </div>
      {isTwice ? (
        <div className="mt-1.5">
          <p className="text-due">The clocks go back that night, and show {said.time} twice.</p>
          <OneOf
            about={`Which ${said.time}`}
            value={said.which}
            choices={[
              ['first', 'the first'],
              ['second', 'the second, an hour later'],
            ]}
            onChoose={(which) => onSay({ ...said, which })}
          />
        </div>
      ) : null}
    </fieldset>
  );
}

function saidAt(iso: string | null, timeZone: string): Said {
  if (iso === null) return UNSAID;
  const local = localIn(timeZone, new Date(iso));
  const [day = '', time = ''] = local.split('T');
  const [first, second] = momentsOf(local, timeZone);
  const isSecond = second?.getTime() === new Date(iso).getTime();
  return { day, time, which: first && second ? (isSecond ? 'second' : 'first') : null };
}

/** The moment that was said, as ISO 8601 in UTC; null where nothing was; or what is wrong with it. */
export function readSaid(
  { day, time, which }: Said,
  timeZone: string,
): { readonly moment: string | null; readonly fault: string | null } {
  if (day === '' && time === '') return { moment: null, fault: null };
  const whole = /^\d:/.test(time) ? `0${time}` : time;
  if (!/^\d{4}-\d{2}-\d{2}$/.test(day)) return { moment: null, fault: 'A day is written as 12 March 2026.' };
  if (!/^(?:[01]\d|2[0-3]):[0-5]\d$/.test(whole))
    return { moment: null, fault: 'A time is written as 06:30, from 00:00 to 23:59.' };
  const [first, second] = momentsOf(`${day}T${whole}`, timeZone);
  if (!first)
    return {
      moment: null,
      fault: `The clocks go forward that night: there is no ${whole}. Give a time before or after that hour.`,
    };
  if (second && which === null) return { moment: null, fault: `Say which ${whole} is meant.` };
  return { moment: (which === 'second' && second ? second : first).toISOString(), fault: null };
}

const DAYS = { day: 'numeric', month: 'long', year: 'numeric', hour: '2-digit', minute: '2-digit' } as const;

/** What is planned for a page, in a sentence; null where nothing is. */
export function sayPlan(plan: SendingPlan | null, timeZone: string): string | null {
  if (!plan || plan.state === 'done') return null;
  const told = (iso: string) =>
    new Intl.DateTimeFormat('en-GB', { ...DAYS, timeZone, timeZoneName: 'short' }).format(new Date(iso));
  const end = plan.endAt ? told(plan.endAt) : null;
  if (plan.state === 'failed') return `What was planned came to nothing. ${plan.words}`;
  const late = plan.words === '' ? '' : ` ${plan.words} It is tried again.`;
  if (plan.state === 'waiting' && plan.startAt)
    return `Goes out ${told(plan.startAt)}${end ? `, and is taken down ${end}` : ''}, planned by ${plan.by}.${late}`;
  return end ? `Is taken down ${end}, planned by ${plan.by}.${late}` : null;
}
