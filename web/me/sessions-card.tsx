import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type OwnSession, OwnSessionsSchema } from '#api/people.ts';
import { ask, sayFailure, tell } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';
import { sayAgent } from './say-agent.ts';

const sessionsQuery = { queryKey: ['sessions'], queryFn: () => ask(OwnSessionsSchema, '/me/sessions') };

/** Where one is signed in, and ending that. */
export function SessionsCard() {
  const sessions = useQuery(sessionsQuery);
  const [fault, setFault] = useState<string | null>(null);
  if (!sessions.data) return null;
  const end = async (session: OwnSession) => {
    setFault(null);
    await tell(`/me/sessions/${session.key}`, { method: 'DELETE' }).catch((error: unknown) =>
      setFault(sayFailure(error)),
    );
    await queryClient.invalidateQueries({ queryKey: sessionsQuery.queryKey });
  };
  return (
    <section className="card sessions" aria-labelledby="sessions">
      <h2 id="sessions">Where you are signed in</h2>
      <Fault says={fault} />
      <ul>
        {sessions.data.map((session) => (
          <li key={session.key}>
            <div>
              <b>{sayAgent(session.agent)}</b>
              <span className="soft"> from </span>
              <span className="mono">{session.address || 'this machine'}</span>
              <p className="soft">
                {session.isThis ? 'Here, now' : `Used last ${sayTime(session.seenAt)}`}, since{' '}
                {sayTime(session.signedInAt)}
              </p>
            </div>
            {session.isThis ? null : (
              <Button
                kind="link"
                aria-label={`Sign out ${sayAgent(session.agent)} from ${session.address}`}
                onClick={() => void end(session)}
              >
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
