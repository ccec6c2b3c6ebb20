import { useState } from 'react';
import { JobSchema } from '#api/jobs.ts';
import { addressOf, requestJson, sayFailure } from '../api/client.ts';
import { isUnderWay, sayJob } from '../api/follow-job.ts';
import { useJob } from '../api/use-job.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Fault } from '../ui/fault.tsx';

/** What was live by a sending, packed and signed, to be handed over in a dispute. */
export function Evidence({ deliveryId }: { readonly deliveryId: string }) {
  const [jobId, setJobId] = useState<string | undefined>(undefined);
  const [fault, setFault] = useState<string | null>(null);
  const job = useJob(jobId, undefined, () => undefined);
  const order = async () => {
    setFault(null);
    try {
      const path = { id: deliveryId };
      const ordered = await requestJson('post /deliveries/{id}/evidence', JobSchema, { path });
      setJobId(ordered.id);
    } catch (error) {
      setFault(sayFailure(error));
    }
  };
  return (
    <section className="mt-5 border-t border-hairline pt-2.75" aria-labelledby="evidence">
      <h3 className="font-semibold" id="evidence">
        In a dispute
      </h3>
      <p className="text-soft">
        The page, its files and what was known of them on that day, in a ZIP whose list is signed by the
        house.
      </p>
      {job ? (
        <p role="status">{sayJob(job)}</p>
      ) : (
        <Button kind="link" onClick={() => void order()}>
          Pack what was live
        </Button>
      )}
      {job && job.state === 'done' ? (
        <a
          className={buttonLook({ kind: 'link' })}
          download
          href={addressOf('get /jobs/{id}/file', { path: { id: job.id } })}
        >
          Take the ZIP
        </a>
      ) : null}
      {job && !isUnderWay(job) && job.state !== 'done' ? (
        <Button kind="link" onClick={() => void order()}>
          Try it again
        </Button>
      ) : null}
      <Fault says={fault} />
    </section>
  );
}
