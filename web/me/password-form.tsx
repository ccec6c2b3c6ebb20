import { type FormEvent, useState } from 'react';
import { LEAST_PASSWORD } from '#api/people.ts';
import { sayFailure, tell } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/text-field.tsx';

/** Taking another password. `onDone` is told when it was taken. */
export function PasswordForm({ onDone }: { readonly onDone?: () => void }) {
  const [now, setNow] = useState('');
  const [next, setNext] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [isDone, setDone] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setFault(null);
    setDone(false);
    try {
      await tell('/me/password', { method: 'PUT', body: { now, next } });
      await queryClient.invalidateQueries({ queryKey: ['sessions'] });
      setNow('');
      setNext('');
      setDone(true);
      onDone?.();
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <form className="mt-4 grid justify-items-start gap-3" onSubmit={(event) => void submit(event)}>
      <TextField
        className="w-full"
        name="Password now"
        type="password"
        autoComplete="current-password"
        required
        value={now}
        onChange={setNow}
      />
      <TextField
        className="w-full"
        name="New password"
        type="password"
        autoComplete="new-password"
        hint={`At least ${LEAST_PASSWORD} letters. Four words make a good one.`}
        required
        fault={fault}
        value={next}
        onChange={setNext}
      />
      <Button kind="action" type="submit">
        Change password
      </Button>
      <p role="status" className="text-soft">
        {isDone ? 'Changed. Wherever else you were signed in, you are no more.' : ''}
      </p>
    </form>
  );
}
