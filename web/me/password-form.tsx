import { useState } from 'react';
import { ChangePasswordSchema, LEAST_PASSWORD } from '#api/people.ts';
import { requestVoid } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';

/** Taking another password. `onDone` is told when it was taken. */
export function PasswordForm({ onDone }: { readonly onDone?: () => void }) {
  const [isDone, setDone] = useState(false);
  const form = useSaveForm({
    schema: ChangePasswordSchema,
    defaults: { now: '', next: '' },
    refusedAt: 'next',
    save: async (body) => {
      setDone(false);
      await requestVoid('put /me/password', { body });
      await queryClient.invalidateQueries({ queryKey: ['sessions'] });
      form.form.reset();
      setDone(true);
      onDone?.();
    },
  });
  return (
    <Form of={form} className="mt-4 justify-items-start gap-3">
      <Line
        of={form}
        className="w-full"
        name="now"
        label="Password now"
        type="password"
        autoComplete="current-password"
      />
      <Line
        of={form}
        className="w-full"
        name="next"
        label="New password"
        type="password"
        autoComplete="new-password"
        hint={`At least ${LEAST_PASSWORD} letters. Four words make a good one.`}
      />
      <Button kind="action" type="submit">
        Change password
      </Button>
      <p role="status" className="text-soft">
        {isDone ? 'Changed. Wherever else you were signed in, you are no more.' : ''}
      </p>
    </Form>
  );
}
