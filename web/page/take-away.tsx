import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import * as v from 'valibot';
import { type Job, JobSchema } from '#api/jobs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { ApiProblem, ask, sayFailure } from '../api/client.ts';
import { fragmentQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { copyText } from '../ui/copy.ts';
import { Panel } from '../ui/panel.tsx';

interface TakeAwayProps {
  readonly pageId: string;
  /** Saves what is not saved yet. */
  readonly beforeTaking: () => Promise<void>;
}

/** The ways out: the fragment for another program's code view, or everything as a ZIP. */
export function TakeAway({ pageId, beforeTaking }: TakeAwayProps) {
  const [shown, setShown] = useState<'fragment' | 'zip' | null>(null);
  const open = async (which: 'fragment' | 'zip') => {
    await beforeTaking();
    setShown(which);
  };
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger asChild>
          <Button kind="action">Take away...</Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="popover" align="end" sideOffset={6}>
            <DropdownMenu.Item className="menu-item" onSelect={() => void open('fragment')}>
              The HTML, to paste elsewhere
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" onSelect={() => void open('zip')}>
              Everything as a ZIP
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {shown === 'fragment' ? <FragmentPanel pageId={pageId} onClose={() => setShown(null)} /> : null}
      {shown === 'zip' ? <ZipPanel pageId={pageId} onClose={() => setShown(null)} /> : null}
    </>
  );
}

function FragmentPanel({ pageId, onClose }: { readonly pageId: string; readonly onClose: () => void }) {
  const [isKnowing, setKnowing] = useState(false);
  const fragment = useQuery({ ...fragmentQuery(pageId, isKnowing), staleTime: 0 });
  const isStopped = fragment.error instanceof ApiProblem && fragment.error.status === 409;
  return (
    <Panel
      title={isKnowing ? 'The unfinished HTML of this page' : 'The HTML of this page'}
      about="Semantic figures, pictures in several widths and formats, captions with their credits. Its files are in the ZIP."
      isOpen
      onClose={onClose}
    >
      {fragment.error ? (
        <div className="take-card">
          <p className="fault" role="alert">
            {sayFailure(fragment.error)}
          </p>
          {isStopped ? (
            <div className="dialog-actions">
              <Link className="button" data-kind="action" to={`/pages/${pageId}/proof`}>
                See the proof
              </Link>
              <Button onClick={() => setKnowing(true)}>Look at the unfinished code</Button>
            </div>
          ) : null}
        </div>
      ) : null}
      {fragment.data ? <Code {...fragment.data} onClose={onClose} /> : null}
    </Panel>
  );
}

interface CodeProps {
  readonly html: string;
  readonly css: string;
  /** What stops the page from going out; its code says so too. */
  readonly stops: readonly string[];
  readonly onClose: () => void;
}

function Code({ html, css, stops, onClose }: CodeProps) {
  const [first] = stops;
  const rest = stops.length > 1 ? ` And ${stops.length - 1} more.` : '';
  return (
    <div className="take-card">
      {first ? (
        <p className="fault">
          Not to go out yet: {first}
          {rest} The code is marked as unfinished.
        </p>
      ) : null}
      <textarea className="fragment" readOnly rows={14} aria-label="HTML" value={html} />
      <div className="dialog-actions">
        <Button kind={first ? 'plain' : 'action'} onClick={() => void copyText(html, 'The HTML is')}>
          {first ? 'Copy the unfinished HTML' : 'Copy the HTML'}
        </Button>
        <Button onClick={() => void copyText(css, 'The style sheet is')}>Copy its style sheet</Button>
        <Button kind="quiet" onClick={onClose}>
          Done
        </Button>
      </div>
    </div>
  );
}

function ZipPanel({ pageId, onClose }: { readonly pageId: string; readonly onClose: () => void }) {
  const [job, setJob] = useState<Job | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const following = useRef<EventSource | null>(null);
  useEffect(() => {
    let isLeft = false;
    ask(JobSchema, `/pages/${pageId}/take-away`, { method: 'POST', body: {} }).then(
      (ordered) => {
        if (isLeft) return;
        setJob(ordered);
        following.current = follow(ordered.id, setJob);
      },
      (error: unknown) => setFault(sayFailure(error)),
    );
    return () => {
      isLeft = true;
      following.current?.close();
    };
  }, [pageId]);
  const stop = async () => {
    if (job) await ask(JobSchema, `/jobs/${job.id}/stop`, { method: 'POST', body: {} });
  };
  const goOn = async () => {
    if (!job) return;
    setJob(await ask(JobSchema, `/jobs/${job.id}/go-on`, { method: 'POST', body: {} }));
    following.current?.close();
    following.current = follow(job.id, setJob);
  };
  const isUnderWay = job?.state === 'waiting' || job?.state === 'running';
  return (
    <Panel
      title="Everything as a ZIP"
      about="The page, its style sheet, every cut under its house name with its label inside, the credits, and media.jsonld."
      isOpen
      onClose={onClose}
    >
      {fault ? (
        <div className="take-card">
          <p className="fault" role="alert">
            {fault}
          </p>
          <div className="dialog-actions">
            <Link className="button" data-kind="action" to={`/pages/${pageId}/proof`}>
              See the proof
            </Link>
            <Button onClick={onClose}>Back to the sheet</Button>
          </div>
        </div>
      ) : (
        <div className="take-card" style={{ marginTop: 12 }}>
          <div
            className="bar-progress"
            role="progressbar"
            aria-label="Making the ZIP"
            aria-valuemin={0}
            aria-valuemax={job?.of ?? 0}
            aria-valuenow={job?.done ?? 0}
          >
            <span
              style={{
                width:
                  job && job.of > 0 ? `${(job.done / job.of) * 100}%` : job?.state === 'done' ? '100%' : 0,
              }}
            />
          </div>
          <p role="status">{job ? sayJob(job) : 'Ordered'}</p>
          <div className="dialog-actions">
            {job?.state === 'done' && job.file ? (
              <a className="button" data-kind="action" href={job.file} download>
                Download, {sayBytes(job.bytes ?? 0)}
              </a>
            ) : null}
            {isUnderWay ? (
              <Button onClick={() => void stop()}>Stop</Button>
            ) : (
              <>
                {job && job.state !== 'done' ? (
                  <Button kind="action" onClick={() => void goOn()}>
                    Go on
                  </Button>
                ) : null}
                <Button onClick={onClose}>Done</Button>
              </>
            )}
          </div>
        </div>
      )}
    </Panel>
  );
}

function sayJob(job: Job): string {
  switch (job.state) {
    case 'waiting':
      return 'Waits for a worker';
    case 'running':
      return job.of > 0 ? `${job.words}, ${job.done} of ${job.of}` : 'Begins';
    case 'done':
      return `Ready: ${job.words}.`;
    case 'failed':
    case 'stopped':
      return job.words || 'Stopped. Nothing was changed.';
  }
}

function follow(jobId: string, onJob: (job: Job) => void): EventSource {
  const events = new EventSource(`/api/jobs/${jobId}/events`);
  events.onmessage = (event) => {
    const job = v.safeParse(JobSchema, JSON.parse(String(event.data)));
    if (!job.success) return;
    onJob(job.output);
    if (job.output.state !== 'waiting' && job.output.state !== 'running') events.close();
  };
  return events;
}
