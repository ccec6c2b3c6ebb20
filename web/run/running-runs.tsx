import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { may } from '#api/people.ts';
import type { RunSummary } from '#api/runs.ts';
import { meQuery } from '../api/queries.ts';
import { Progress } from '../ui/progress.tsx';
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
    <Link
      className="flex items-center gap-2 text-sm whitespace-nowrap text-bar-ink"
      to={open.length === 1 ? `/shelf/runs/${first.id}` : '/shelf/runs'}
    >
      {ended} of {of} in a run
      <Progress
        name="Runs under way"
        onBar
        className="w-17.5 max-narrow:hidden"
        value={of > 0 ? (ended / of) * 100 : 0}
      />
    </Link>
  );
}
