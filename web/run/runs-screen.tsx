import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Unanswered } from '../api/unanswered.tsx';
import { sayTime } from '../ui/dates.ts';
import { Empty } from '../ui/empty.tsx';
import { runsQuery } from './run-queries.ts';
import { sayProgress } from './run-words.ts';

/** The runs of the last month: each can be looked at, gone on with, and taken back. */
export function RunsScreen() {
  const runs = useQuery(runsQuery);
  return (
    <div className="mx-auto max-w-215 px-6 py-6.5">
      <h1 className="text-4xl">Runs</h1>
      <p className="text-soft">
        Everything that was done to many pictures at once, for a month.{' '}
        <Link to="/shelf/runs/new">Begin one</Link>
      </p>
      <Unanswered of={runs} className="px-0" />
      {runs.data?.length === 0 ? (
        <Empty>No run yet. Choose pictures on the shelf and press Run.</Empty>
      ) : null}
      <ul className="mt-4 border-t-2 border-ink">
        {runs.data?.map((run) => (
          <li
            className="grid grid-cols-[minmax(0,1fr)_130px_minmax(0,1.4fr)] gap-3.5 border-b border-line px-1 py-2.25 max-narrow:grid-cols-1 max-narrow:gap-0.5"
            key={run.id}
          >
            <Link to={`/shelf/runs/${run.id}`}>{run.title}</Link>
            <span className="text-soft">{sayTime(run.createdAt)}</span>
            <span>{sayProgress(run)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
