import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { TokenSchema, TokenSetSchema } from '#api/deliveries.ts';
import { WAY_WORDS, WAYS } from '#core/deliver/sending.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient, tokenQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { sayDate } from '../ui/dates.ts';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { toast } from '../ui/toast.ts';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

/** How pages come to the target, and what has to be written otherwise so that it survives there. */
export function SendingCard({
  rules,
  change,
  targetId,
  isEditable,
}: RulesPart & { readonly targetId: string; readonly isEditable: boolean }) {
  const { sending } = rules;
  const set = (part: Partial<typeof sending>) => change({ sending: { ...sending, ...part } });
  return (
    <RulesCard
      id="rules-sending"
      title="Sending"
      about={
        sending.by === 'none'
          ? 'Its pages are taken away by hand, as code or as a ZIP.'
          : 'Its pages are sent from here, read back, and compared.'
      }
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
        {sending.by === 'none' ? null : (
          <Field
            name="Address that takes pages"
            hint="Left empty, the site is asked: it names it at its head."
          >
            {(control) => (
              <Input
                {...control}
                className="font-mono text-mono"
                value={sending.address}
                onChange={(event) => set({ address: event.target.value })}
              />
            )}
          </Field>
        )}
      </div>
      {sending.by === 'none' ? null : (
        <div className="mt-3 grid gap-3">
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
          <Token targetId={targetId} isEditable={isEditable} />
        </div>
      )}
    </RulesCard>
  );
}

/** What opens the target to the house: set or removed at once, and never shown again. */
function Token({ targetId, isEditable }: { readonly targetId: string; readonly isEditable: boolean }) {
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
      'The token is set. It is not shown again.',
    );
  };
  const since = data?.since ?? null;
  if (!isEditable)
    return (
      <p className="text-soft">
        {since ? `Its token was set on ${sayDate(since)}.` : 'It has no token yet.'}
      </p>
    );
  return (
    <div className="flex flex-wrap items-end gap-2.5">
      <div className="min-w-50 flex-1">
        <Field
          name={since ? 'Another token' : 'Token'}
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
              onChange={(event) => setTyped(event.target.value)}
            />
          )}
        </Field>
      </div>
      <Button disabled={typed.trim() === ''} onClick={save}>
        Set token
      </Button>
      {since ? (
        <Button
          kind="link"
          onClick={() =>
            void doing(() => requestVoid('delete /targets/{id}/token', { path }), 'The token is removed.')
          }
        >
          Remove it
        </Button>
      ) : null}
    </div>
  );
}
