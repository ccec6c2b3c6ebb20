import * as v from 'valibot';
import { type Job, JobSchema } from '#api/jobs.ts';
import { addressOf } from './client.ts';

export const isUnderWay = ({ state }: Job): boolean => state === 'waiting' || state === 'running';

/** Tells of a job as it goes on, until it ends; answers how that is stopped. */
export function followJob(jobId: string, onJob: (job: Job) => void): () => void {
  const events = new EventSource(addressOf('get /jobs/{id}/events', { path: { id: jobId } }));
  events.onmessage = (event) => {
    const job = v.safeParse(JobSchema, JSON.parse(String(event.data)));
    if (!job.success) return;
    onJob(job.output);
    if (!isUnderWay(job.output)) events.close();
  };
  return () => events.close();
}

/** How far a job is, in words. */
export function sayJob(job: Job): string {
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
