import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useLocation } from 'react-router';
import * as v from 'valibot';
import {
  type Colleague,
  ColleagueSchema,
  type MadePassword,
  MadePasswordSchema,
  ROLE_WORDS,
  ROLES,
} from '#api/people.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { WhereUsedButton } from '../rights/where-used.tsx';
import { Table } from '../table/table.tsx';
import { Button } from '../ui/button.tsx';
import { copyText } from '../ui/copy.ts';
import { Fault } from '../ui/fault.tsx';
import { Select } from '../ui/select.tsx';
import { ledger } from '../undo/ledger.ts';
import { NewPersonForm } from './new-person-form.tsx';
import { RulesCard } from './rules-card.tsx';

const colleaguesQuery = {
  queryKey: ['people'],
  queryFn: () => requestJson('get /people', v.array(ColleagueSchema)),
};

/** Who works here and in which role, as the site owner settles it. */
export function PeopleCard() {
  const heading = useRef<HTMLHeadingElement>(null);
  const { hash } = useLocation();
  const people = useQuery(colleaguesQuery);
  const me = useQuery(meQuery);
  const [handOver, setHandOver] = useState<MadePassword | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const isThere = people.data !== undefined;
  useEffect(() => {
    if (isThere && hash === '#rules-people') heading.current?.scrollIntoView();
  }, [isThere, hash]);
  if (!people.data || !me.data) return <Unanswered of={[people, me]} />;
  const attempt = async (work: () => Promise<unknown>) => {
    setFault(null);
    try {
      await work();
    } catch (error) {
      setFault(sayFailure(error));
    }
    await queryClient.invalidateQueries({ queryKey: colleaguesQuery.queryKey });
  };
  const change = (person: Colleague, next: Pick<Colleague, 'role'> | Pick<Colleague, 'left'>, name: string) =>
    attempt(async () => {
      await sendChange(person.id, next);
      const before = 'role' in next ? { role: person.role } : { left: person.left };
      ledger.add({
        name,
        scope: 'rules',
        undo: () => sendChange(person.id, before),
        redo: () => sendChange(person.id, next),
      });
    });
  const renew = (person: Colleague) =>
    attempt(async () =>
      setHandOver(
        await requestJson('post /people/{id}/password', MadePasswordSchema, { path: { id: person.id } }),
      ),
    );
  const [here, gone] = [people.data.filter(({ left }) => !left), people.data.filter(({ left }) => left)];
  return (
    <RulesCard
      id="rules-people"
      title="People"
      about="Editors and rights keepers work on pages and pieces. A site owner also sets these rules. A contributor only hands pieces in."
      className="mt-5"
      heading={heading}
    >
      <Fault says={fault} />
      <Table
        className="mt-2.5 mb-3.5"
        about="People"
        isSmall
        rows={here}
        keyOf={({ id }) => id}
        columns={[
          {
            id: 'name',
            heading: 'Name',
            sortBy: ({ name }) => name,
            className: 'wrap-anywhere',
            cell: (person) => (
              <>
                <b>{person.name}</b> <span className="text-soft">{person.email}</span>
              </>
            ),
          },
          {
            id: 'role',
            heading: 'Role',
            folds: true,
            sortBy: ({ role }) => ROLE_WORDS[role],
            className: 'w-42',
            cell: (person) => (
              <Select
                className="w-40"
                aria-label={`Role of ${person.name}`}
                value={person.role}
                choices={ROLES.map((role) => [role, ROLE_WORDS[role]] as const)}
                onChoose={(role) => void change(person, { role }, `the role of ${person.name}`)}
              />
            ),
          },
          {
            id: 'deeds',
            heading: 'What can be done',
            isHeadingHidden: true,
            folds: true,
            className: 'w-66',
            cell: (person) =>
              person.id === me.data?.id ? (
                <span className="flex justify-end gap-3.5 text-soft max-narrow:justify-start">
                  <WhereUsedButton of="person" value={person.id} name={person.name} />
                  you
                </span>
              ) : (
                <span className="flex justify-end gap-3.5 max-narrow:justify-start">
                  <WhereUsedButton of="person" value={person.id} name={person.name} />
                  <Button
                    kind="link"
                    aria-label={`New password for ${person.name}`}
                    onClick={() => void renew(person)}
                  >
                    New password
                  </Button>
                  <Button
                    kind="link"
                    aria-label={`Remove ${person.name}`}
                    onClick={() => void change(person, { left: true }, `removing ${person.name}`)}
                  >
                    Remove
                  </Button>
                </span>
              ),
          },
        ]}
      />
      {handOver ? (
        <HandedOver key={handOver.password} handOver={handOver} onDone={() => setHandOver(null)} />
      ) : null}
      <NewPersonForm
        onAdded={(made) => {
          setHandOver(made);
          void queryClient.invalidateQueries({ queryKey: colleaguesQuery.queryKey });
        }}
      />
      {gone.length > 0 ? (
        <p className="text-soft">
          Left, and signing in no more:{' '}
          {gone.map((person) => (
            <span key={person.id} className="ml-3 first:ml-0">
              {person.name}{' '}
              <Button
                kind="link"
                aria-label={`Reinstate ${person.name}`}
                onClick={() => void change(person, { left: false }, `the return of ${person.name}`)}
              >
                Reinstate
              </Button>
            </span>
          ))}
        </p>
      ) : null}
    </RulesCard>
  );
}

async function sendChange(
  id: string,
  change: Pick<Colleague, 'role'> | Pick<Colleague, 'left'>,
): Promise<void> {
  await requestJson('patch /people/{id}', ColleagueSchema, { path: { id }, body: change });
  await queryClient.invalidateQueries({ queryKey: colleaguesQuery.queryKey });
}

interface HandedOverProps {
  readonly handOver: MadePassword;
  readonly onDone: () => void;
}

function HandedOver({ handOver: { person, password }, onDone }: HandedOverProps) {
  const box = useRef<HTMLDivElement>(null);
  // The hand goes to what is to be done next, and then back to where it was.
  useEffect(() => {
    const before = document.activeElement;
    box.current?.querySelector('button')?.focus();
    return () => {
      if (before instanceof HTMLElement) before.focus();
    };
  }, []);
  return (
    <div className="mb-3.5 bg-action-soft px-3 py-2.5" role="status" ref={box}>
      <p>
        {person.name} signs in with {person.email} and <b className="font-mono text-mono">{password}</b>. It
        is shown this once: hand it over, to be changed at the first sign-in.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button onClick={() => void copyText(password, 'Password')}>Copy it</Button>
        <Button kind="link" onClick={onDone}>
          Done
        </Button>
      </div>
    </div>
  );
}
