import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { type Run, RunSchema } from '#api/runs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { HeadPane, PANES_LOOK } from '../frame/panes.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { Progress } from '../ui/progress.tsx';
import { toast } from '../ui/toast.ts';
import { RunCard } from './run-card.tsx';
import { forgetRun, refreshAfterRun, rememberRun } from './run-deeds.ts';
import { RunPanes } from './run-panes.tsx';
import { runQuery } from './run-queries.ts';
import { RunTable } from './run-table.tsx';
import { pictures, sayProgress } from './run-words.ts';

/** A run under way, and afterwards the report of what became of each piece. */
export function RunningScreen() {
  const { id = '' } = useParams();
  const asked = useQuery(runQuery(id));
  const run = asked.data;
  useFollowed(run);
  if (!run) return <Unanswered isScreen of={asked} />;
  return (
    <div className={PANES_LOOK}>
      <HeadPane className="pb-3" aria-label="The run">
        <h1 className="text-3xl">{run.title}</h1>
        <Progress
          name="Pieces of this run"
          value={run.of > 0 ? ((run.done + run.refused) / run.of) * 100 : 0}
          className="mt-2.5 mb-0.5"
        />
        <div className="mt-1.5 flex min-h-8.5 flex-wrap items-center gap-x-4.5 gap-y-1 text-soft">
          <span role="status">{sayProgress(run)}</span>
          <RunButtons run={run} />
        </div>
      </HeadPane>
      <RunPanes rows={<RunTable rows={run.steps} />} about="Report" side={<Report run={run} />} />
    </div>
  );
}

/** A run that ends in this sitting can be undone by a step back, and every screen shows what it did. */
function useFollowed(run: Run | undefined): void {
  const { id, done, into, undone } = run ?? { id: '', done: 0, into: 'zip', undone: 0 };
  const isOpen = run === undefined || run.state === 'waiting' || run.state === 'running';
  const [wasOpen, setWasOpen] = useState(false);
  if (run && isOpen && !wasOpen) setWasOpen(true);
  useEffect(() => {
    if (isOpen || !wasOpen) return;
    refreshAfterRun();
    if (undone === 0 && done > 0 && into === 'shelf') rememberRun(id, done);
  }, [isOpen, wasOpen, id, done, into, undone]);
}

function RunButtons({ run }: { readonly run: Run }) {
  const [isBusy, setBusy] = useState(false);
  const act = async (deed: 'stop' | 'go-on' | 'take-back') => {
    setBusy(true);
    try {
      queryClient.setQueryData(
        ['run', run.id],
        await requestJson(`post /runs/{id}/${deed}`, RunSchema, { path: { id: run.id } }),
      );
      await queryClient.invalidateQueries({ queryKey: ['run', run.id] });
      void queryClient.invalidateQueries({ queryKey: ['runs'] });
      if (deed === 'take-back') forgetRun(run.id);
    } catch (error) {
      toast.error(sayFailure(error));
    } finally {
      setBusy(false);
    }
  };
  const isOpen = run.state === 'waiting' || run.state === 'running';
  const waits = run.of - run.done - run.refused;
  return (
    <span className="ml-auto flex gap-2">
      {isOpen ? (
        <Button disabled={isBusy} onClick={() => void act('stop')}>
          Stop
        </Button>
      ) : null}
      {!isOpen && waits > 0 ? (
        <Button kind="action" disabled={isBusy} onClick={() => void act('go-on')}>
          Go on with {waits}
        </Button>
      ) : null}
      {!isOpen && run.done > 0 && run.into === 'shelf' ? (
        <Button disabled={isBusy} onClick={() => void act('take-back')}>
          Take it all back
        </Button>
      ) : null}
      {run.file ? (
        <a className={buttonLook({ kind: 'action' })} href={run.file} download>
          Download, {sayBytes(run.fileBytes ?? 0)}
        </a>
      ) : null}
    </span>
  );
}

/** What was done, in sentences. */
function Report({ run }: { readonly run: Run }) {
  const files = run.steps.filter(({ state }) => state === 'done').flatMap((step) => step.files);
  const bytes = run.steps.reduce((sum, { madeBytes }) => sum + (madeBytes ?? 0), 0);
  const before = run.steps.reduce(
    (sum, step) => sum + (step.state === 'done' && step.files.length > 0 ? step.bytes : 0),
    0,
  );
  const done = run.steps.filter(({ state }) => state === 'done');
  const renamed = done.filter((step) => step.before.stem !== step.after.stem).length;
  const wereOut = done.filter(({ warnings }) => warnings.some(({ code }) => code === 'was-out')).length;
  const moved = done.filter((step) => step.before.folder !== step.after.folder).length;
  const out = run.steps.filter(({ state }) => state === 'out').length;
  const onShelf = run.into === 'shelf';
  return (
    <RunCard id="run-report" title="Report">
      <p>{pictures(run.done)} done.</p>
      {files.length > 0 ? (
        <p>
          {files.length === 1 ? '1 file' : `${files.length} files`} made, {sayBytes(bytes)} from{' '}
          {sayBytes(before)}.
        </p>
      ) : null}
      {onShelf && renamed > 0 ? <p>{pictures(renamed)} renamed.</p> : null}
      {onShelf && wereOut > 0 ? <p>{pictures(wereOut)} go on answering under their old names.</p> : null}
      {onShelf && moved > 0 ? <p>{pictures(moved)} moved. No page is touched by that.</p> : null}
      {run.refused > 0 ? (
        <p className="text-due">{pictures(run.refused)} left as they were; each row says why.</p>
      ) : null}
      {out > 0 ? <p>{pictures(out)} took no part.</p> : null}
      <p className="mt-2.5 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Link to="/shelf">To the shelf</Link>
        <Link to="/shelf/runs">Earlier runs</Link>
      </p>
    </RunCard>
  );
}
