import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { may } from '#api/people.ts';
import type { RunSummary } from '#api/runs.ts';
import { meQuery } from '../api/queries.ts';
import { runsQuery } from './run-queries.ts';

const LOOK_MILLIS = 1500;
const isOpen = ({ state }: RunSummary) => state === 'waiting' || state === 'running';

/** In the top bar, wherever one is: how far the runs under way are, and the way to them. */
export function RunningRuns() {
  const { data: me } = useQuery(meQuery);
  const mayRun = me !== undefined && me !== null && may(me.role, 'say-rights');
  const { data: runs } = useQuery({
    ...runsQuery,
    enabled: mayRun,
    refetchInterval: ({ state }) => (state.data?.some(isOpen) ? LOOK_MILLIS : false),
  });
  const open = runs?.filter(isOpen) ?? [];
  const [first] = open;
  if (!first) return null;
  const of = open.reduce((sum, run) => sum + run.of, 0);
  const ended = open.reduce((sum, run) => sum + run.done + run.refused, 0);
  return (
    <Link className="bar-running" to={open.length === 1 ? `/shelf/runs/${first.id}` : '/shelf/runs'}>
      {ended} of {of} in a run
      <span className="bar-progress">
        <span style={{ width: `${of > 0 ? (ended / of) * 100 : 0}%` }} />
      </span>
    </Link>
  );
}
