import { useEffect, useRef, useState } from 'react';
import type { Job } from '#api/jobs.ts';
import { followJob, isUnderWay } from './follow-job.ts';

/** Work that is followed while it goes on; `onEnd` is told once it has ended. Asked anew when the state of what it works on changes. */
export function useJob(
  jobId: string | undefined,
  state: string | undefined,
  onEnd: () => unknown,
): Job | null {
  const [job, setJob] = useState<Job | null>(null);
  const end = useRef(onEnd);
  useEffect(() => {
    end.current = onEnd;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when a job goes on.
  useEffect(() => {
    if (jobId === undefined) return;
    return followJob(jobId, (told) => {
      setJob(told);
      if (!isUnderWay(told)) end.current();
    });
  }, [jobId, state]);
  return job?.id === jobId ? job : null;
}
