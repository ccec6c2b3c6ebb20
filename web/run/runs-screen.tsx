import './run.css';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { sayFailure } from '../api/client.ts';
import { sayTime } from '../ui/dates.ts';
import { runsQuery } from './run-queries.ts';
import { sayProgress } from './run-words.ts';

/** The runs of the last month: each can be looked at, gone on with, and taken back. */
export function RunsScreen() {
  const runs = useQuery(runsQuery);
  return (
    <div className="run-list">
      <h1>Runs</h1>
      <p className="soft">
        Everything that was done to many pictures at once, for a month.{' '}
        <Link to="/shelf/runs/new">Begin one</Link>
      </p>
      {runs.error ? <p className="fault">{sayFailure(runs.error)}</p> : null}
      {runs.data?.length === 0 ? (
        <p className="empty">No run yet. Choose pictures on the shelf and press Run.</p>
      ) : null}
      <ul>
        {runs.data?.map((run) => (
          <li key={run.id}>
            <Link to={`/shelf/runs/${run.id}`}>{run.title}</Link>
            <span className="soft">{sayTime(run.createdAt)}</span>
            <span>{sayProgress(run)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}
