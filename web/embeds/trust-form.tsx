import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import * as v from 'valibot';
import { may } from '#api/people.ts';
import { HostDecisionSchema } from '#core/embed/host.ts';
import { meQuery } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { RadioList } from '../ui/radio-list.tsx';
import { trustHost } from './held-embeds.ts';

const ReasonSchema = v.pick(HostDecisionSchema, ['reason']);

/** The site owner's decision to trust an address or its whole host, with the reason that is recorded. */
export function TrustForm({ address }: { readonly address: string }) {
  const me = useQuery(meQuery);
  const [scope, setScope] = useState<'address' | 'host'>('address');
  const form = useSaveForm({
    schema: ReasonSchema,
    defaults: { reason: '' },
    refusedAt: 'reason',
    save: ({ reason }) => trustHost(address, scope, reason),
  });
  if (!me.data || !may(me.data.role, 'set-rules'))
    return <p className="text-soft">Only the site owner can decide to trust {new URL(address).host}.</p>;
  return (
    <Form of={form} className="mb-4.5 grid justify-items-start gap-1.75">
      <h3 className="text-lg">Trust it?</h3>
      <RadioList
        about="Trust it?"
        value={scope}
        choices={[
          ['address', 'Only this address'],
          ['host', `Everything at ${new URL(address).host}`],
        ]}
        onChoose={setScope}
      />
      <Line of={form} className="w-full" name="reason" label="Why" maxLength={300} />
      <Button type="submit">Trust it from now on</Button>
    </Form>
  );
}
