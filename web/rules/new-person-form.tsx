import { type FormEvent, useState } from 'react';
import { type MadePassword, MadePasswordSchema, ROLE_WORDS, ROLES, type Role } from '#api/people.ts';
import { ask, sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';
import { TextField } from '../ui/text-field.tsx';

/** Adds somebody; their first password comes back to be handed over. */
export function NewPersonForm({ onAdded }: { readonly onAdded: (made: MadePassword) => void }) {
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<Role>('editor');
  const [fault, setFault] = useState<string | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setFault(null);
    try {
      onAdded(await ask(MadePasswordSchema, '/people', { method: 'POST', body: { name, email, role } }));
      setName('');
      setEmail('');
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <form
      className="mb-3 flex flex-wrap items-start gap-2.5"
      aria-label="Add a person"
      onSubmit={(event) => void submit(event)}
    >
      <TextField
        className="max-w-70 flex-[1_1_200px]"
        name="Name"
        required
        autoComplete="off"
        maxLength={100}
        value={name}
        onChange={setName}
      />
      <TextField
        className="max-w-70 flex-[1_1_200px]"
        name="E-mail address"
        type="email"
        required
        autoComplete="off"
        fault={fault}
        value={email}
        onChange={setEmail}
      />
      <Field className="max-w-70 flex-[1_1_200px]" name="Role">
        {(control) => (
          <Select
            {...control}
            value={role}
            choices={ROLES.map((one) => [one, ROLE_WORDS[one]] as const)}
            onChoose={setRole}
          />
        )}
      </Field>
      <Button className="mt-5" type="submit">
        Add
      </Button>
    </form>
  );
}
