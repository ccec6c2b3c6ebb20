import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { LEAST_PASSWORD, PersonSchema } from '#api/people.ts';
import { ask, sayFailure } from '../api/client.ts';
import { meQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Fault } from '../ui/fault.tsx';
import { TextField } from '../ui/text-field.tsx';

const NOTHING = { code: '', name: '', email: '', password: '', site: '', siteAddress: '', commercial: false };

/** The first person of an empty house, who becomes its site owner, and the site that its pages are for. */
export function Begin() {
  const [said, setSaid] = useState({
    ...NOTHING,
    code: new URLSearchParams(window.location.search).get('code') ?? '',
  });
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const client = useQueryClient();
  const field = (name: Exclude<keyof typeof NOTHING, 'commercial'>) => ({
    value: said[name],
    onChange: (value: string) => setSaid({ ...said, [name]: value }),
  });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    setFault(null);
    const { site, siteAddress, commercial, ...person } = said;
    try {
      const me = await ask(PersonSchema, '/beginning', {
        method: 'POST',
        body: { ...person, target: { name: site, siteAddress, commercial } },
      });
      window.history.replaceState(null, '', '/');
      client.setQueryData(meQuery.queryKey, me);
    } catch (error) {
      setFault(sayFailure(error));
      setBusy(false);
    }
  };
  return (
    <>
      <p className="mb-3.5">
        Nobody works here yet. You begin as its site owner: you set the house rules and say who else works
        here.
      </p>
      <form onSubmit={(event) => void submit(event)}>
        <TextField
          name="Code"
          hint="It was printed where Placard was started."
          required
          autoComplete="off"
          {...field('code')}
        />
        <TextField name="Your name" required autoComplete="name" {...field('name')} />
        <TextField name="E-mail address" type="email" required autoComplete="username" {...field('email')} />
        <TextField
          name="Password"
          type="password"
          hint={`At least ${LEAST_PASSWORD} letters.`}
          required
          autoComplete="new-password"
          {...field('password')}
        />
        <TextField
          name="Site that the pages are for"
          placeholder="What you call it"
          required
          maxLength={60}
          {...field('site')}
        />
        <TextField name="Its address" placeholder="https://" {...field('siteAddress')} />
        <Checkbox checked={said.commercial} onChange={(isOn) => setSaid({ ...said, commercial: isOn })}>
          {' '}
          It is a commercial site
        </Checkbox>
        <Fault says={fault} />
        <Button kind="action" type="submit" disabled={isBusy}>
          Begin
        </Button>
      </form>
    </>
  );
}
