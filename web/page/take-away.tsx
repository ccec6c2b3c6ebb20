import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { type Job, JobSchema } from '#api/jobs.ts';
import { sayBytes } from '#core/media/weight.ts';
import { ApiProblem, requestJson, sayFailure } from '../api/client.ts';
import { followJob, isUnderWay, sayJob } from '../api/follow-job.ts';
import { fragmentQuery } from '../api/queries.ts';
import { useOffer } from '../frame/commands.ts';
import { Button, buttonLook, LinkButton } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { copyText } from '../ui/copy.ts';
import { Deeds } from '../ui/deeds.tsx';
import { FAULT_LOOK, Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input, TextArea } from '../ui/input.tsx';
import { Menu, MenuContent, MenuItem, MenuTrigger } from '../ui/menu.tsx';
import { Panel } from '../ui/panel.tsx';
import { Progress } from '../ui/progress.tsx';

interface TakeAwayProps {
  readonly pageId: string;
  /** Saves what is not saved yet. */
  readonly beforeTaking: () => Promise<void>;
}

/** The ways out: sent to its site, the fragment for another program's code view, everything as a ZIP, or one file to look at. */
export function TakeAway({ pageId, beforeTaking }: TakeAwayProps) {
  const [shown, setShown] = useState<'fragment' | 'zip' | null>(null);
  const open = async (which: 'fragment' | 'zip') => {
    await beforeTaking();
    setShown(which);
  };
  const navigate = useNavigate();
  const send = async () => {
    await beforeTaking();
    navigate(`/pages/${pageId}/sent`);
  };
  const look = async () => {
    await beforeTaking();
    location.assign(`/api/pages/${pageId}/one-file`);
  };
  useOffer([
    { words: 'Send it to its site, or see how it stands there', act: () => void send() },
    { words: 'Take the HTML away, to paste elsewhere', act: () => void open('fragment') },
    { words: 'Take everything away as a ZIP', act: () => void open('zip') },
    { words: 'Take one file away, to look at anywhere', act: () => void look() },
  ]);
  return (
    <>
      <Button kind="action" onClick={() => void send()}>
        Send...
      </Button>
      <Menu>
        <MenuTrigger asChild>
          <Button>Take away...</Button>
        </MenuTrigger>
        <MenuContent align="end">
          <MenuItem onSelect={() => void open('fragment')}>The HTML, to paste elsewhere</MenuItem>
          <MenuItem onSelect={() => void open('zip')}>Everything as a ZIP</MenuItem>
          <MenuItem onSelect={() => void look()}>One file, to look at anywhere</MenuItem>
        </MenuContent>
      </Menu>
      {shown === 'fragment' ? <FragmentPanel pageId={pageId} onClose={() => setShown(null)} /> : null}
      {shown === 'zip' ? <ZipPanel pageId={pageId} onClose={() => setShown(null)} /> : null}
    </>
  );
}

const FILES_KEY = 'placard-files-at';
/** After this pause in typing the code is written anew. */
const TYPING_MILLIS = 350;

function FragmentPanel({ pageId, onClose }: { readonly pageId: string; readonly onClose: () => void }) {
  const [isKnowing, setKnowing] = useState(false);
  const [files, setFiles] = useState(() => localStorage.getItem(FILES_KEY) ?? '');
  const [isInline, setInline] = useState(false);
  const [isUntitled, setUntitled] = useState(false);
  const settled = useSettled(files);
  const fragment = useQuery({
    ...fragmentQuery(pageId, {
      ...(settled.trim() ? { files: settled.trim() } : {}),
      ...(isKnowing ? { unfinished: 'yes' } : {}),
      ...(isInline ? { inline: 'yes' } : {}),
      ...(isUntitled ? { untitled: 'yes' } : {}),
    }),
    staleTime: 0,
  });
  const isStopped = fragment.error instanceof ApiProblem && fragment.error.status === 409;
  const isWrong = fragment.error instanceof ApiProblem && fragment.error.status === 422;
  return (
    <Panel
      title={isKnowing ? 'The unfinished HTML of this page' : 'The HTML of this page'}
      about="Semantic figures, pictures in several widths and formats, captions with their credits. Its files are in the ZIP."
      isOpen
      onClose={onClose}
    >
      <div className="my-2.5 grid gap-1.5">
        <Field
          name="Where its files will live"
          hint="The folder that the files of the ZIP are put in: https://... or /media/. Without one the code asks for media/ beside the page."
          fault={isWrong ? sayFailure(fragment.error) : null}
        >
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={files}
              onChange={(event) => {
                setFiles(event.target.value);
                localStorage.setItem(FILES_KEY, event.target.value);
              }}
            />
          )}
        </Field>
        <Checkbox checked={isInline} onChange={setInline}>
          Sizes and sides in the HTML itself, for a site that does not take the style sheet
        </Checkbox>
        <Checkbox checked={isUntitled} onChange={setUntitled}>
          Without the title, for a page that has one
        </Checkbox>
      </div>
      {fragment.error && !isWrong ? (
        <div className="grid gap-2.5">
          <Fault says={sayFailure(fragment.error)} />
          {isStopped ? (
            <Deeds>
              <LinkButton kind="action" to={`/pages/${pageId}/proof`}>
                See the proof
              </LinkButton>
              <Button onClick={() => setKnowing(true)}>Look at the unfinished code</Button>
            </Deeds>
          ) : null}
        </div>
      ) : null}
      {fragment.data && !fragment.error ? (
        <Code {...fragment.data} isInline={isInline} onClose={onClose} />
      ) : null}
    </Panel>
  );
}

/** What was typed, once the typing rests. */
function useSettled(typed: string): string {
  const [settled, setSettled] = useState(typed);
  useEffect(() => {
    const rest = setTimeout(() => setSettled(typed), TYPING_MILLIS);
    return () => clearTimeout(rest);
  }, [typed]);
  return settled;
}

interface CodeProps {
  readonly html: string;
  readonly css: string;
  /** What stops the page from going out; its code says so too. */
  readonly stops: readonly string[];
  /** Whether it needs no style sheet. */
  readonly isInline: boolean;
  readonly onClose: () => void;
}

function Code({ html, css, stops, isInline, onClose }: CodeProps) {
  const [first] = stops;
  const rest = stops.length > 1 ? ` And ${stops.length - 1} more.` : '';
  return (
    <div className="grid gap-2.5">
      {first ? (
        <p className={FAULT_LOOK}>
          Not to go out yet: {first}
          {rest} The code is marked as unfinished.
        </p>
      ) : null}
      <TextArea
        className="max-h-60 overflow-auto bg-ground p-2.5 font-mono text-xs leading-normal font-normal wrap-anywhere whitespace-pre-wrap"
        readOnly
        rows={14}
        aria-label="HTML"
        value={html}
      />
      <Deeds>
        <Button kind={first ? 'plain' : 'action'} onClick={() => void copyText(html, 'The HTML is')}>
          {first ? 'Copy the unfinished HTML' : 'Copy the HTML'}
        </Button>
        {isInline ? null : (
          <Button onClick={() => void copyText(css, 'The style sheet is')}>Copy its style sheet</Button>
        )}
        <Button kind="quiet" onClick={onClose}>
          Done
        </Button>
      </Deeds>
    </div>
  );
}

function ZipPanel({ pageId, onClose }: { readonly pageId: string; readonly onClose: () => void }) {
  const [job, setJob] = useState<Job | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const following = useRef<(() => void) | null>(null);
  useEffect(() => {
    let isLeft = false;
    requestJson('post /pages/{id}/take-away', JobSchema, { path: { id: pageId } }).then(
      (ordered) => {
        if (isLeft) return;
        setJob(ordered);
        following.current = followJob(ordered.id, setJob);
      },
      (error: unknown) => setFault(sayFailure(error)),
    );
    return () => {
      isLeft = true;
      following.current?.();
    };
  }, [pageId]);
  const stop = async () => {
    if (job) await requestJson('post /jobs/{id}/stop', JobSchema, { path: { id: job.id } });
  };
  const goOn = async () => {
    if (!job) return;
    setJob(await requestJson('post /jobs/{id}/go-on', JobSchema, { path: { id: job.id } }));
    following.current?.();
    following.current = followJob(job.id, setJob);
  };
  return (
    <Panel
      title="Everything as a ZIP"
      about="The page, its style sheet, every cut under its house name with its label inside, the credits, and media.jsonld."
      isOpen
      onClose={onClose}
    >
      {fault ? (
        <div className="grid gap-2.5">
          <Fault says={fault} />
          <Deeds>
            <LinkButton kind="action" to={`/pages/${pageId}/proof`}>
              See the proof
            </LinkButton>
            <Button onClick={onClose}>Back to the sheet</Button>
          </Deeds>
        </div>
      ) : (
        <div className="mt-3 grid gap-2.5">
          <Progress
            name="Making the ZIP"
            value={job?.state === 'done' ? 100 : job && job.of > 0 ? (job.done / job.of) * 100 : 0}
          />
          <p role="status">{job ? sayJob(job) : 'Ordered'}</p>
          <Deeds>
            {job?.state === 'done' && job.file ? (
              <a className={buttonLook({ kind: 'action' })} href={job.file} download>
                Download, {sayBytes(job.bytes ?? 0)}
              </a>
            ) : null}
            {job && isUnderWay(job) ? (
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
          </Deeds>
        </div>
      )}
    </Panel>
  );
}
