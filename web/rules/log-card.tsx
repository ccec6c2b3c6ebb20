import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { AUDIT_DEEDS, type AuditLine, AuditListSchema, isAuditDeed } from '#api/audit.ts';
import { ask, sayFailure } from '../api/client.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';

/** Who did what has to be answered for, asked with one sentence, and taken away as it was asked. */
export function LogCard() {
  const [question, setQuestion] = useState({ what: 'any', words: '', from: '', to: '' });
  const asked = new URLSearchParams(Object.entries(question).filter(([, value]) => value !== ''));
  const log = useInfiniteQuery({
    queryKey: ['audit', question],
    queryFn: ({ pageParam }) =>
      ask(AuditListSchema, `/audit?${asked}${pageParam === '' ? '' : `&cursor=${pageParam}`}`),
    initialPageParam: '',
    getNextPageParam: ({ cursor }) => cursor,
    placeholderData: keepPreviousData,
  });
  const set = (change: Partial<typeof question>) => setQuestion({ ...question, ...change });
  const lines = log.data?.pages.flatMap((page) => page.lines) ?? [];
  return (
    <section className="card hosts-card" aria-labelledby="rules-log">
      <h2 id="rules-log">Log</h2>
      <p className="soft">Sign-ins, rights, roles, rules, what went out and what was removed.</p>
      <div className="log-question">
        Show{' '}
        <select
          className="input"
          aria-label="What was done"
          value={question.what}
          onChange={(event) => set({ what: event.target.value })}
        >
          <option value="any">everything</option>
          {Object.entries(AUDIT_DEEDS).map(([what, words]) => (
            <option key={what} value={what}>
              who {words.replace(/:$/, '')}
            </option>
          ))}
        </select>{' '}
        with{' '}
        <input
          className="input"
          aria-label="Name, subject or address"
          placeholder="any name"
          value={question.words}
          onChange={(event) => set({ words: event.target.value })}
        />{' '}
        from{' '}
        <input
          className="input"
          type="date"
          aria-label="From"
          value={question.from}
          onChange={(event) => set({ from: event.target.value })}
        />{' '}
        to{' '}
        <input
          className="input"
          type="date"
          aria-label="To"
          value={question.to}
          onChange={(event) => set({ to: event.target.value })}
        />
      </div>
      <Fault says={log.error ? sayFailure(log.error) : null} />
      {log.data && lines.length === 0 ? <p className="soft">Nothing of this was done.</p> : null}
      <ol className="log-lines">
        {lines.map((line) => (
          <LogLine key={line.id} line={line} />
        ))}
      </ol>
      <div className="hosts-deeds">
        {log.hasNextPage ? <Button onClick={() => void log.fetchNextPage()}>Earlier ones</Button> : null}
        {lines.length > 0 ? (
          <a className="button" href={`/api/audit.csv?${asked}`} download>
            Take it away as CSV
          </a>
        ) : null}
      </div>
    </section>
  );
}

/** Done to oneself, so that nobody need be named twice. */
const OF_ONESELF = new Set(['signed-in', 'signed-out', 'sign-in-ended', 'password', 'clipper']);

function LogLine({ line }: { readonly line: AuditLine }) {
  const { at, who, what, subject, detail, address } = line;
  const isRefused = what === 'sign-in-refused';
  return (
    <li>
      <time className="mono" dateTime={at} title={at}>
        {sayTime(at)}
      </time>
      <span>
        <b>{isRefused ? subject : who}</b> {isAuditDeed(what) ? AUDIT_DEEDS[what] : what}
        {isRefused || OF_ONESELF.has(what) ? '' : ` ${subject}`}
        {detail ? <span className="soft">, {detail}</span> : null}
      </span>
      <span className="soft mono">{address}</span>
    </li>
  );
}
