import {
  type MadePassword,
  MadePasswordSchema,
  NewPersonSchema,
  ROLE_WORDS,
  ROLES,
  type Role,
} from '#api/people.ts';
import { requestJson } from '../api/client.ts';
import { Form, Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import type { SelectChoices } from '../ui/select.tsx';

const ROLE_CHOICES: SelectChoices<Role> = ROLES.map((one) => [one, ROLE_WORDS[one]]);
const WIDE = 'max-w-70 flex-[1_1_200px]';

/** Adds somebody; their first password comes back to be handed over. */
export function NewPersonForm({ onAdded }: { readonly onAdded: (made: MadePassword) => void }) {
  const form = useSaveForm({
    schema: NewPersonSchema,
    defaults: { name: '', email: '', role: 'editor' },
    refusedAt: 'email',
    keepAs: 'new-person',
    save: async (body) => {
      onAdded(await requestJson('post /people', MadePasswordSchema, { body }));
      form.form.reset({ name: '', email: '', role: body.role });
    },
  });
  return (
    <Form of={form} className="mb-3 flex flex-wrap items-start gap-2.5" aria-label="Add a person">
      <Line of={form} className={WIDE} name="name" label="Name" autoComplete="off" maxLength={100} />
      <Line of={form} className={WIDE} name="email" label="E-mail address" type="email" autoComplete="off" />
      <OneOfList of={form} className={WIDE} name="role" label="Role" choices={ROLE_CHOICES} />
      <Button className="mt-5" type="submit">
        Add
      </Button>
    </Form>
  );
}
