import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type OwnSession, OwnSessionsSchema } from '#api/people.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { sayTime } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';
import { sayAgent } from './say-agent.ts';

const sessionsQuery = {
  queryKey: ['sessions'],
  queryFn: () => requestJson('get /me/sessions', OwnSessionsSchema),
};

/** Where one is signed in, and ending that. */
export function SessionsCard() {
  const sessions = useQuery(sessionsQuery);
  const [fault, setFault] = useState<string | null>(null);
  if (!sessions.data) return <Unanswered of={sessions} />;
  const end = async (session: OwnSession) => {
    setFault(null);
    await requestVoid('delete /me/sessions/{key}', { path: { key: session.key } }).catch((error: unknown) =>
      setFault(sayFailure(error)),
    );
    await queryClient.invalidateQueries({ queryKey: sessionsQuery.queryKey });
  };
  return (
    <Card className="mx-auto mt-4 max-w-105 px-5.5 pt-4.5 pb-5" aria-labelledby="sessions">
      <h2 className="text-lg" id="sessions">
        Where you are signed in
      </h2>
      <Fault says={fault} />
      <ul className="mt-2">
        {sessions.data.map((session) => (
          <li
            className="flex items-baseline justify-between gap-3 border-t border-hairline py-2"
            key={session.key}
          >
            <div>
              <b>{sayAgent(session.agent)}</b>
              <span className="text-soft"> from </span>
              <span className="font-mono text-mono">{session.address || 'this machine'}</span>
              <p className="text-soft">
                {session.isThis ? 'Here, now' : `Used last ${sayTime(session.seenAt)}`}, since{' '}
                {sayTime(session.signedInAt)}
              </p>
            </div>
            {session.isThis ? null : (
              <Button
                kind="link"
                aria-label={`Sign out there: ${sayAgent(session.agent)} from ${session.address}`}
                onClick={() => void end(session)}
              >
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Card>
  );
}
