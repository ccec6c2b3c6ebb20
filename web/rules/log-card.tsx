import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { AUDIT_DEEDS, type AuditLine, AuditListSchema, isAuditDeed } from '#api/audit.ts';
import { addressOf, requestJson, sayFailure } from '../api/client.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { DateInput } from '../ui/date-input.tsx';
import { sayTime } from '../ui/dates.ts';
import { Fault } from '../ui/fault.tsx';
import { Input } from '../ui/input.tsx';
import { DATE_FAULT, isDate } from '../ui/read-date.ts';
import { Select } from '../ui/select.tsx';
import { RulesCard } from './rules-card.tsx';

/** Who did what has to be answered for, asked with one sentence, and taken away as it was asked. */
export function LogCard() {
  const [question, setQuestion] = useState({ what: 'any', words: '', from: '', to: '' });
  const wrong = [question.from, question.to].filter((date) => date !== '' && !isDate(date));
  // A date is asked for once it is one.
  const asked = {
    ...question,
    from: wrong.includes(question.from) ? '' : question.from,
    to: wrong.includes(question.to) ? '' : question.to,
  };
  const log = useInfiniteQuery({
    queryKey: ['audit', asked],
    queryFn: ({ pageParam }) =>
      requestJson('get /audit', AuditListSchema, { query: { ...asked, cursor: pageParam } }),
    initialPageParam: '',
    getNextPageParam: ({ cursor }) => cursor,
    placeholderData: keepPreviousData,
  });
  const set = (change: Partial<typeof question>) => setQuestion({ ...question, ...change });
  const lines = log.data?.pages.flatMap((page) => page.lines) ?? [];
  return (
    <RulesCard
      id="rules-log"
      title="Log"
      about="Sign-ins, rights, roles, rules, what went out and what was removed."
      className="mt-5"
    >
      <div className="my-2 flex flex-wrap items-baseline gap-1.5">
        Show{' '}
        <Select
          className="w-auto"
          aria-label="What was done"
          value={question.what}
          choices={[
            ['any', 'everything'],
            ...Object.entries(AUDIT_DEEDS).map(
              ([what, words]) => [what, `who ${words.replace(/:$/, '')}`] as const,
            ),
          ]}
          onChoose={(what) => set({ what })}
        />{' '}
        with{' '}
        <Input
          className="w-auto"
          aria-label="Name, subject or address"
          placeholder="any name"
          value={question.words}
          onChange={(event) => set({ words: event.target.value })}
        />{' '}
        from{' '}
        <DateInput
          className="w-45"
          aria-label="From"
          value={question.from}
          onChange={(from) => set({ from })}
        />{' '}
        to <DateInput className="w-45" aria-label="To" value={question.to} onChange={(to) => set({ to })} />
      </div>
      <Fault says={wrong.length > 0 ? DATE_FAULT : null} />
      <Fault says={log.error ? sayFailure(log.error) : null} />
      {log.data && lines.length === 0 ? <p className="text-soft">Nothing of this was done.</p> : null}
      <ol>
        {lines.map((line) => (
          <LogLine key={line.id} line={line} />
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {log.hasNextPage ? <Button onClick={() => void log.fetchNextPage()}>Earlier ones</Button> : null}
        {lines.length > 0 ? (
          <a className={buttonLook()} href={addressOf('get /audit.csv', { query: asked })} download>
            Take it away as CSV
          </a>
        ) : null}
      </div>
    </RulesCard>
  );
}

/** Done to oneself, so that nobody need be named twice. */
const OF_ONESELF = new Set(['signed-in', 'signed-out', 'sign-in-ended', 'password', 'clipper']);

function LogLine({ line }: { readonly line: AuditLine }) {
  const { at, who, what, subject, detail, address } = line;
  const isRefused = what === 'sign-in-refused';
  return (
    <li className="grid grid-cols-[110px_1fr_auto] items-baseline gap-3 border-t border-hairline py-1.25 max-middle:grid-cols-1 max-middle:gap-0">
      <time className="font-mono text-mono" dateTime={at} title={at}>
        {sayTime(at)}
      </time>
      <span>
        <b>{isRefused ? subject : who}</b> {isAuditDeed(what) ? AUDIT_DEEDS[what] : what}
        {isRefused || OF_ONESELF.has(what) ? '' : ` ${subject}`}
        {detail ? <span className="text-soft">, {detail}</span> : null}
      </span>
      <span className="font-mono text-mono text-soft">{address}</span>
    </li>
  );
}
