import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { PersonSchema, ROLE_WORDS, ROLES, SignInSchema } from '#api/people.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { beginningQuery, demoPeopleQuery, meQuery } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Mark } from '../frame/mark.tsx';
import { noteSignIn } from '../frame/screen-title.ts';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { Fault } from '../ui/fault.tsx';
import { Begin } from './begin.tsx';

/** The password of the made-up people, offered only where the server says it runs the demo. */
const DEMO_PASSWORD = 'saltmere-2026';

export function SignIn({ failure }: { readonly failure: Error | null }) {
  const client = useQueryClient();
  const demo = useQuery(demoPeopleQuery);
  const beginning = useQuery(beginningQuery);

  const form = useSaveForm({
    schema: SignInSchema,
    defaults: { email: '', password: '' },
    refusedAt: 'password',
    save: async (body) => {
      const me = await requestJson('post /session', PersonSchema, { body });
      client.setQueryData(meQuery.queryKey, me);
    },
  });
  const signInAs = (email: string) => {
    form.form.reset({ email, password: DEMO_PASSWORD });
    form.submit();
  };
  useEffect(() => {
    noteSignIn();
    document.title = 'Sign in - Placard';
  }, []);
  if (beginning.isPending && !failure) return null;
  return (
    <main className="grid min-h-dvh place-content-center p-5">
      <Card as="div" className="w-[min(400px,calc(100vw-40px))] px-6 pt-5.5 pb-6">
        <div className="mb-4.5 flex items-center gap-2.5 text-4xl font-bold font-stretch-112%">
          <Mark className="h-7.25 w-6" /> Placard
        </div>
        <h1 className="mb-3 font-serif text-4xl leading-tight font-normal italic">
          The label beside the picture
        </h1>
        <Fault says={failure ? sayFailure(failure) : null} />
        {beginning.data?.isOpen ? (
          <Begin />
        ) : (
          <Form of={form} className="gap-3">
            <Line
              of={form}
              name="email"
              label="E-mail address"
              type="email"
              autoComplete="username"
              autoFocus
            />
            <Line
              of={form}
              name="password"
              label="Password"
              type="password"
              autoComplete="current-password"
            />
            <Button kind="action" type="submit" disabled={form.isBusy}>
              Sign in
            </Button>
          </Form>
        )}
        {demo.data && demo.data.length > 0 ? (
          <div className="mt-4.5 border-t border-hairline pt-3">
            <p className="text-soft">This is the Saltmere demo. Sign in as one of its people:</p>
            <ul className="mt-2 grid grid-cols-2 gap-1.5">
              {demo.data.map((person) => (
                <li key={person.email}>
                  <Button
                    className="w-full flex-col items-start gap-0 border-line"
                    disabled={form.isBusy}
                    onClick={() => signInAs(person.email)}
                  >
                    {person.name}
                    <span className="text-soft">{roleWords(person.role)}</span>
                  </Button>
                </li>
              ))}
            </ul>
          </div>
        ) : null}
      </Card>
    </main>
  );
}

function roleWords(said: string): string {
  const role = ROLES.find((one) => one === said);
  return role ? ROLE_WORDS[role] : said;
}
