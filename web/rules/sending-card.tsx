import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { TokenSchema, TokenSetSchema } from '#api/deliveries.ts';
import { SENDER_WORDS } from '#api/people.ts';
import {
  isPasted,
  SENDERS,
  WAY_FIELDS,
  WAY_SECRETS,
  WAY_WORDS,
  WAYS,
  type WayField,
  type WayName,
} from '#core/deliver/sending.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient, tokenQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { sayDate } from '../ui/dates.ts';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { toast } from '../ui/toast.ts';
import { KeptFields } from './kept-fields.tsx';
import { ProbeRow } from './probe-row.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

interface SendingCardProps extends RulesPart {
  readonly targetId: string;
  readonly isEditable: boolean;
  /** Whether what is written here is what holds. */
  readonly isSaved: boolean;
}

/** How pages come to the target, and what has to be written otherwise so that it survives there. */
export function SendingCard({ rules, change, targetId, isEditable, isSaved }: SendingCardProps) {
  const { sending } = rules;
  const secret = WAY_SECRETS[sending.by];
  const set = (part: Partial<typeof sending>) => change({ sending: { ...sending, ...part } });
  return (
    <RulesCard
      id="rules-sending"
      title="Sending"
      about={ABOUT[sending.by === 'none' ? 'none' : isPasted(sending) ? 'pasted' : 'sent']}
    >
      <div className="grid grid-cols-2 gap-2.5">
        <Field name="Way">
          {(control) => (
            <Select
              {...control}
              value={sending.by}
              choices={WAYS.map((way) => [way, WAY_WORDS[way]] as const)}
              onChoose={(by) => set({ by })}
            />
          )}
        </Field>
        {WAY_FIELDS[sending.by].map((field) => (
          <Field key={field} name={nameOf(sending.by, field)} {...hintOf(sending.by, field)}>
            {(control) => (
              <Input
                {...control}
                className="font-mono text-mono"
                value={sending[field]}
                maxLength={2000}
                onChange={(event) => set({ [field]: event.target.value })}
              />
            )}
          </Field>
        ))}
      </div>
      <div className="mt-3 grid grid-cols-2 gap-2.5 max-narrow:grid-cols-1">
        <Field name="Who may send its pages">
          {(control) => (
            <Select
              {...control}
              value={sending.senders}
              choices={SENDERS.map((sender) => [sender, SENDER_WORDS[sender]] as const)}
              onChoose={(senders) => set({ senders })}
            />
          )}
        </Field>
      </div>
      {sending.by === 'none' ? null : (
        <div className="mt-3 grid gap-3">
          {sending.by === 'paste' ? null : (
            <Checkbox
              checked={sending.pages === 'pasted'}
              onChange={(areOnlyFiles) => set({ pages: areOnlyFiles ? 'pasted' : 'sent' })}
            >
              {' '}
              Only files go this way: pages are pasted there by hand
            </Checkbox>
          )}
          <Checkbox
            checked={sending.captions === 'plain'}
            onChange={(isPlain) => set({ captions: isPlain ? 'plain' : 'figcaption' })}
          >
            {' '}
            Captions go as plain text: the site drops what HTML has for them
          </Checkbox>
          <Checkbox
            checked={sending.sides === 'picture'}
            onChange={(isOnPicture) => set({ sides: isOnPicture ? 'picture' : 'figure' })}
          >
            {' '}
            Text runs beside the picture itself: the site keeps no figure round it
          </Checkbox>
          <Field
            name="Its listing"
            hint="Read back too. Left empty, it is the address of the site, which may list nothing."
          >
            {(control) => (
              <Input
                {...control}
                className="font-mono text-mono"
                value={sending.listing}
                maxLength={2000}
                placeholder="https://"
                onChange={(event) => set({ listing: event.target.value })}
              />
            )}
          </Field>
          <h3 className="mt-1.5 font-semibold">What it does not keep</h3>
          <KeptFields filter={sending.filter} onChange={(filter) => set({ filter })} />
          {isEditable ? (
            <ProbeRow targetId={targetId} rules={rules} isSaved={isSaved} onLearn={change} />
          ) : null}
          {secret === null ? null : <Token targetId={targetId} secret={secret} isEditable={isEditable} />}
        </div>
      )}
    </RulesCard>
  );
}

const ABOUT = {
  none: 'Its pages are taken away by hand, as code or as a ZIP.',
  pasted: 'Its files go out from here, its pages are pasted there by hand, read back, and compared.',
  sent: 'Its pages are sent from here, read back, and compared.',
} as const;

const FIELD_NAMES: Readonly<Record<WayField, string>> = {
  address: 'Address of its folder',
  host: 'Host',
  user: 'Name of the house there',
  bucket: 'Bucket',
  region: 'Region',
  folder: 'Folder there',
  hostKey: 'Key of the host',
  publicAddress: 'Where readers find it',
};

function nameOf(by: WayName, field: WayField): string {
  if (field === 'address' && by === 'micropub') return 'Address that takes pages';
  if (field === 'address' && by === 'bucket') return 'Address of the store';
  if (field === 'user' && by === 'bucket') return 'ID of the key';
  return field === 'folder' && by === 'folder' ? 'Folder below that for sites' : FIELD_NAMES[field];
}

const HINTS: Readonly<Partial<Record<WayField, string>>> = {
  host: 'With its port, where that is another than 22.',
  folder: 'Left empty, it is the first that one comes to.',
  hostKey: 'SHA256:…, as its own people say it. A host with another key is told nothing.',
  publicAddress: 'Left empty, it is the address of the site.',
  region: 'Left empty, it is us-east-1.',
};

function hintOf(by: WayName, field: WayField): { readonly hint?: string } {
  if (field === 'address' && by === 'micropub')
    return { hint: 'Left empty, the site is asked: it names it at its head.' };
  const hint = HINTS[field];
  return hint === undefined ? {} : { hint };
}

interface TokenProps {
  readonly targetId: string;
  /** What it is, in a word. */
  readonly secret: string;
  readonly isEditable: boolean;
}

/** What opens the target to the house: set or removed at once, and never shown again. */
function Token({ targetId, secret, isEditable }: TokenProps) {
  const { data } = useQuery(tokenQuery(targetId));
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const path = { id: targetId };
  const doing = async (work: () => Promise<unknown>, done: string) => {
    setFault(null);
    try {
      await work();
      setTyped('');
      await queryClient.invalidateQueries({ queryKey: ['token', targetId] });
      toast(done);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  const save = () => {
    const read = v.safeParse(TokenSchema, { token: typed });
    if (!read.success) return setFault(read.issues[0].message);
    const body = read.output;
    return void doing(
      () => requestJson('put /targets/{id}/token', TokenSetSchema, { path, body }),
      `The ${secret} is set. It is not shown again.`,
    );
  };
  const since = data?.since ?? null;
  if (!isEditable)
    return (
      <p className="text-soft">
        {since ? `Its ${secret} was set on ${sayDate(since)}.` : `It has no ${secret} yet.`}
      </p>
    );
  return (
    <div className="flex flex-wrap items-end gap-2.5">
      <div className="min-w-50 flex-1">
        <Field
          name={since ? `Another ${secret}` : `${secret.slice(0, 1).toUpperCase()}${secret.slice(1)}`}
          hint={
            since
              ? `One was set on ${sayDate(since)}.`
              : 'As the site gave it to the house. It is not shown again.'
          }
          fault={fault}
        >
          {(control) => (
            <Input
              {...control}
              type="password"
              autoComplete="off"
              value={typed}
              // A private key has lines, which a field of one line would lose.
              onPaste={(event) => {
                const pasted = event.clipboardData.getData('text');
                if (!pasted.includes('\n')) return;
                event.preventDefault();
                setTyped(pasted);
              }}
              onChange={(event) => setTyped(event.target.value)}
            />
          )}
        </Field>
      </div>
      <Button disabled={typed.trim() === ''} onClick={save}>
        Set {secret}
      </Button>
      {since ? (
        <Button
          kind="link"
          onClick={() =>
            void doing(() => requestVoid('delete /targets/{id}/token', { path }), `The ${secret} is removed.`)
          }
        >
          Remove it
        </Button>
      ) : null}
    </div>
  );
}
