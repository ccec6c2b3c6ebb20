import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { may } from '#api/people.ts';
import { sayFailure } from '../api/client.ts';
import { meQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { RadioList } from '../ui/radio-list.tsx';
import { trustHost } from './held-embeds.ts';

/** The site owner's decision to trust an address or its whole host, with the reason that is recorded. */
export function TrustForm({ address }: { readonly address: string }) {
  const me = useQuery(meQuery);
  const [reason, setReason] = useState('');
  const [scope, setScope] = useState<'address' | 'host'>('address');
  const [fault, setFault] = useState<string | null>(null);
  if (!me.data || !may(me.data.role, 'set-rules'))
    return <p className="text-soft">Only the site owner can decide to trust {new URL(address).host}.</p>;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await trustHost(address, scope, reason);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <form className="mb-4.5 grid justify-items-start gap-1.75" onSubmit={(event) => void submit(event)}>
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
      <Field className="w-full" name="Why" fault={fault}>
        {(control) => (
          <Input
            {...control}
            maxLength={300}
            required
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        )}
      </Field>
      <Button type="submit">Trust it from now on</Button>
    </form>
  );
}
