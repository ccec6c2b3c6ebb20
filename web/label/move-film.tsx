import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { FilmHostsSchema, VISIBILITIES } from '#api/films.ts';
import { type Job, JobSchema } from '#api/jobs.ts';
import { may } from '#api/people.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { followJob, isUnderWay } from '../api/follow-job.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import { Progress } from '../ui/progress.tsx';
import { toast } from '../ui/toast.ts';

const hostsQuery = {
  queryKey: ['film-hosts'],
  queryFn: () => requestJson('get /film-hosts', FilmHostsSchema),
};

const VISIBILITY_WORDS = {
  public: 'everybody',
  'by-link': 'those who have its address',
  private: 'nobody else',
} as const satisfies Readonly<Record<(typeof VISIBILITIES)[number], string>>;

/** Moves a film to the film host, where one is known: what plays there takes its place on every page. */
export function MoveFilm({ asset }: { readonly asset: Extract<Asset, { readonly kind: 'film' }> }) {
  const hosts = useQuery(hostsQuery).data ?? [];
  const [isOpen, setOpen] = useState(false);
  const [host] = hosts;
  if (!host) return null;
  return (
    <p>
      <Button kind="link" onClick={() => setOpen(true)}>
        Move it to {host.name}...
      </Button>
      {isOpen ? <MovePanel assetId={asset.id} host={host} onClose={() => setOpen(false)} /> : null}
    </p>
  );
}

interface MovePanelProps {
  readonly assetId: string;
  readonly host: { readonly id: string; readonly name: string; readonly isReady: boolean };
  readonly onClose: () => void;
}

function MovePanel({ assetId, host, onClose }: MovePanelProps) {
  const me = useQuery(meQuery).data;
  const [visibility, setVisibility] = useState<(typeof VISIBILITIES)[number]>('public');
  const [token, setToken] = useState('');
  const [job, setJob] = useState<Job | null>(null);
  const jobId = job?.id;
  useEffect(() => (jobId === undefined ? undefined : followJob(jobId, setJob)), [jobId]);
  const keeping = useMutation({
    mutationFn: () =>
      requestJson('put /film-hosts/{id}/token', FilmHostsSchema, { path: { id: host.id }, body: { token } }),
    onSuccess: (hosts) => queryClient.setQueryData(hostsQuery.queryKey, hosts),
  });
  const moving = useMutation({
    mutationFn: () =>
      requestJson('post /assets/{id}/film/move', JobSchema, {
        path: { id: assetId },
        body: { host: host.id, visibility },
      }),
    onSuccess: setJob,
  });
  const isMoved = job?.state === 'done';
  const words = job?.words;
  useEffect(() => {
    if (!isMoved || words === undefined) return;
    // Its label goes with it: what was done is said where that is left.
    toast(words);
    // Every page and every list that shows it shows what took its place.
    void queryClient.invalidateQueries();
  }, [isMoved, words]);
  const isSiteOwner = me !== undefined && me !== null && may(me.role, 'set-rules');
  return (
    <Panel
      title={`Move it to ${host.name}`}
      about="Its film and its captions go there, and what plays there takes its place on every page. Its file goes to the bin."
      isOpen
      onClose={onClose}
    >
      {host.isReady ? (
        <>
          <p className="mt-3 mb-1 text-2xs font-semibold text-soft">Seen there by</p>
          <OneOf
            about="Seen there by"
            value={visibility}
            choices={VISIBILITIES.map((one) => [one, VISIBILITY_WORDS[one]] as const)}
            onChoose={setVisibility}
          />
        </>
      ) : null}
      {!host.isReady && isSiteOwner ? (
        <Field
          className="mt-3"
          name={`Token of the house at ${host.name}`}
          hint="It is kept sealed, and never shown again."
        >
          {(control) => (
            <Input
              {...control}
              type="password"
              autoComplete="off"
              value={token}
              onChange={({ target }) => setToken(target.value)}
            />
          )}
        </Field>
      ) : null}
      {!host.isReady && !isSiteOwner ? (
        <p className="mt-3 text-due">
          {host.name} does not know the house yet: the site owner gives its token first.
        </p>
      ) : null}
      {job && isUnderWay(job) ? (
        <div className="mt-3">
          <p role="status">{job.words || 'It waits for its turn.'}</p>
          <Progress name="Moving it" value={job.of > 0 ? (job.done / job.of) * 100 : null} />
        </div>
      ) : null}
      <Fault says={job?.state === 'failed' || job?.state === 'stopped' ? job.words : null} />
      <Fault says={moving.error || keeping.error ? sayFailure(moving.error ?? keeping.error) : null} />
      <Deeds>
        {host.isReady && !isMoved ? (
          <Button
            kind="action"
            disabled={moving.isPending || (job !== null && isUnderWay(job))}
            onClick={() => moving.mutate()}
          >
            Move it
          </Button>
        ) : null}
        {!host.isReady && isSiteOwner ? (
          <Button
            kind="action"
            disabled={token.trim() === '' || keeping.isPending}
            onClick={() => keeping.mutate()}
          >
            Keep the token
          </Button>
        ) : null}
        <Button onClick={onClose}>Leave it here</Button>
      </Deeds>
    </Panel>
  );
}
