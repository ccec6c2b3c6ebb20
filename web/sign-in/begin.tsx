import { useQueryClient } from '@tanstack/react-query';
import { BeginSchema, LEAST_PASSWORD, PersonSchema } from '#api/people.ts';
import { requestJson } from '../api/client.ts';
import { meQuery } from '../api/queries.ts';
import { Box, Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';

/** The first person of an empty house, who becomes its site owner, and the site that its pages are for. */
export function Begin() {
  const client = useQueryClient();
  const form = useSaveForm({
    schema: BeginSchema,
    defaults: {
      code: new URLSearchParams(window.location.search).get('code') ?? '',
      name: '',
      email: '',
      password: '',
      target: { name: '', siteAddress: '', commercial: false },
    },
    keepAs: 'beginning',
    neverKept: ['password'],
    save: async (body) => {
      const me = await requestJson('post /beginning', PersonSchema, { body });
      window.history.replaceState(null, '', '/');
      client.setQueryData(meQuery.queryKey, me);
    },
  });
  return (
    <>
      <p className="mb-3.5">
        Nobody works here yet. You begin as its site owner: you set the house rules and say who else works
        here.
      </p>
      <Form of={form} className="gap-3">
        <Line
          of={form}
          name="code"
          label="Code"
          hint="It was printed where Placard was started."
          autoComplete="off"
        />
        <Line of={form} name="name" label="Your name" autoComplete="name" />
        <Line of={form} name="email" label="E-mail address" type="email" autoComplete="username" />
        <Line
          of={form}
          name="password"
          label="Password"
          type="password"
          hint={`At least ${LEAST_PASSWORD} letters.`}
          autoComplete="new-password"
        />
        <Line
          of={form}
          name="target.name"
          label="Site that the pages are for"
          placeholder="What you call it"
          maxLength={60}
        />
        <Line of={form} name="target.siteAddress" label="Its address" placeholder="https://" />
        <Box of={form} name="target.commercial">
          It is a commercial site
        </Box>
        <Button kind="action" type="submit" disabled={form.isBusy}>
          Begin
        </Button>
      </Form>
    </>
  );
}
