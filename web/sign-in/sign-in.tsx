import './sign-in.css';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { PersonSchema, ROLE_WORDS, ROLES } from '#api/people.ts';
import { ask, sayFailure } from '../api/client.ts';
import { beginningQuery, demoPeopleQuery, meQuery } from '../api/queries.ts';
import { Mark } from '../frame/mark.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/text-field.tsx';
import { Begin } from './begin.tsx';

/** The password of the made-up people, offered only where the server says it runs the demo. */
const DEMO_PASSWORD = 'saltmere-2026';

export function SignIn({ failure }: { readonly failure: Error | null }) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const client = useQueryClient();
  const demo = useQuery(demoPeopleQuery);
  const beginning = useQuery(beginningQuery);

  const signIn = async (asEmail: string, withPassword: string) => {
    setBusy(true);
    setFault(null);
    try {
      const me = await ask(PersonSchema, '/session', {
        method: 'POST',
        body: { email: asEmail, password: withPassword },
      });
      client.setQueryData(meQuery.queryKey, me);
    } catch (error) {
      setFault(sayFailure(error));
      setBusy(false);
    }
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void signIn(email, password);
  };
  if (beginning.isPending && !failure) return null;
  return (
    <main className="sign-in">
      <div className="card">
        <div className="sign-in-mark">
          <Mark /> Placard
        </div>
        <h1>The label beside the picture</h1>
        {failure ? <p className="fault">{sayFailure(failure)}</p> : null}
        {beginning.data?.isOpen ? (
          <Begin />
        ) : (
          <form onSubmit={submit}>
            <TextField
              name="E-mail address"
              type="email"
              autoComplete="username"
              required
              value={email}
              onChange={setEmail}
            />
            <TextField
              name="Password"
              type="password"
              autoComplete="current-password"
              required
              fault={fault}
              value={password}
              onChange={setPassword}
            />
            <Button kind="action" type="submit" disabled={isBusy}>
              Sign in
            </Button>
          </form>
        )}
        {demo.data && demo.data.length > 0 ? (
          <div className="sign-in-people">
            <p className="soft">This is the Saltmere demo. Sign in as one of its people:</p>
            <ul>
              {demo.data.map((person) => (
                <li key={person.email}>
                  <Button disabled={isBusy} onClick={() => void signIn(person.email, DEMO_PASSWORD)}>
                    {person.name}
                    <span className="soft">{roleWords(person.role)}</span>
                  </Button>
                </li>
              ))}
            </ul>
          </div>
        ) : null}
      </div>
    </main>
  );
}

function roleWords(said: string): string {
  const role = ROLES.find((one) => one === said);
  return role ? ROLE_WORDS[role] : said;
}
