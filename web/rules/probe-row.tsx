import { useState } from 'react';
import { LearnedSchema, PastedAtSchema, SentCodeSchema } from '#api/deliveries.ts';
import { rulesLearned, sayLearned } from '#core/deliver/learned.ts';
import { isPasted } from '#core/deliver/sending.ts';
import type { HouseRules } from '#core/page/target.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { copyText } from '../ui/copy.ts';
import { Fault } from '../ui/fault.tsx';

interface ProbeRowProps {
  readonly targetId: string;
  /** The rules as they are written here. */
  readonly rules: HouseRules;
  /** Whether they are what holds: a probe goes by the way that is saved. */
  readonly isSaved: boolean;
  /** Takes what was learned as what is written here; nothing holds before it is saved. */
  readonly onLearn: (rules: HouseRules) => void;
}

/** What a target keeps is learned from a page that holds one of each thing, as differences to agree to by saving them. */
export function ProbeRow({ targetId, rules, isSaved, onLearn }: ProbeRowProps) {
  const [isBusy, setBusy] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [said, setSaid] = useState<readonly string[] | null>(null);
  const [left, setLeft] = useState<string | null>(null);
  const path = { id: targetId };
  const learn = async (address: string | null) => {
    const learned = await requestJson('post /targets/{id}/probe', LearnedSchema, { path, body: { address } });
    const after = rulesLearned(rules, learned, learned.tried);
    setSaid(sayLearned(rules, after));
    setLeft(learned.left);
    onLearn(after);
  };
  const doing = async (work: () => Promise<unknown>) => {
    setFault(null);
    setSaid(null);
    setLeft(null);
    setBusy(true);
    await work().catch((error: unknown) => setFault(sayFailure(error)));
    setBusy(false);
  };
  const copy = () =>
    doing(async () => {
      const { html } = await requestJson('get /targets/{id}/probe', SentCodeSchema, { path });
      await copyText(html, 'The probe is');
    });
  const isByHand = isPasted(rules.sending);
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1.5">
        {isByHand ? (
          <Button disabled={!isSaved || isBusy} onClick={() => void copy()}>
            Copy a probe to paste there
          </Button>
        ) : (
          <Button disabled={!isSaved || isBusy} onClick={() => void doing(() => learn(null))}>
            {isBusy ? 'Sending a probe...' : 'Learn it by a probe'}
          </Button>
        )}
        <p className="min-w-50 flex-1 text-soft">
          {isSaved
            ? isByHand
              ? 'A page with one of each thing, to be removed there afterwards.'
              : 'A page with one of each thing is sent, read back and taken down.'
            : 'Save the rules first: a probe goes by what holds.'}
        </p>
      </div>
      {isByHand ? <PastedProbe isDisabled={!isSaved || isBusy} onLearn={learn} /> : null}
      <Fault says={fault} />
      <div role="status">
        {left === null ? null : (
          <p className="wrap-anywhere text-due">
            The target did not let the probe be taken down. Remove it there: {left}
          </p>
        )}
        {said === null ? null : said.length === 0 ? (
          <p>It keeps what is said here, and nothing else was learned.</p>
        ) : (
          <>
            <p className="font-strong">This was learned. Save the rules to agree.</p>
            <ul className="list-disc pl-4.5">
              {said.map((sentence) => (
                <li key={sentence} className="wrap-anywhere">
                  {sentence}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </div>
  );
}

interface PastedProbeProps {
  readonly isDisabled: boolean;
  readonly onLearn: (address: string) => Promise<void>;
}

/** Where somebody pasted the probe, from where it is learned. */
function PastedProbe({ isDisabled, onLearn }: PastedProbeProps) {
  const form = useSaveForm({
    schema: PastedAtSchema,
    defaults: { address: '' },
    refusedAt: 'address',
    save: ({ address }) => onLearn(address),
  });
  return (
    <Form of={form} className="flex flex-wrap items-end gap-2.5">
      <Line
        of={form}
        className="min-w-50 flex-1"
        name="address"
        label="Where the probe stands there"
        placeholder="https://"
        isMono
      />
      <Button type="submit" disabled={isDisabled || form.isBusy}>
        Learn from it
      </Button>
    </Form>
  );
}
