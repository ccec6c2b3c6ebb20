import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { may } from '#api/people.ts';
import { sayFailure } from '../api/client.ts';
import { meQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { trustHost } from './held-embeds.ts';

/** The site owner's decision to trust an address or its whole host, with the reason that is recorded. */
export function TrustForm({ address }: { readonly address: string }) {
  const me = useQuery(meQuery);
  const [reason, setReason] = useState('');
  const [scope, setScope] = useState<'address' | 'host'>('address');
  const [fault, setFault] = useState<string | null>(null);
  if (!me.data || !may(me.data.role, 'set-rules'))
    return <p className="soft">Only the site owner can decide to trust {new URL(address).host}.</p>;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    try {
      await trustHost(address, scope, reason);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <form className="trust-form" onSubmit={(event) => void submit(event)}>
      <h3>Trust it?</h3>
      <label className="check">
        <input type="radio" name="scope" checked={scope === 'address'} onChange={() => setScope('address')} />
        Only this address
      </label>
      <label className="check">
        <input type="radio" name="scope" checked={scope === 'host'} onChange={() => setScope('host')} />
        Everything at {new URL(address).host}
      </label>
      <Field name="Why" fault={fault}>
        {(control) => (
          <input
            {...control}
            className="input"
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
