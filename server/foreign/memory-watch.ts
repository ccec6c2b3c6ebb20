import { readFileSync } from 'node:fs';

const LOOK_MILLIS = 50;
/** Linux counts in pages of this many bytes on the machines that Debian is for. */
const PAGE_BYTES = 4096;

/** Memory that a process holds, in bytes; 0 where the system does not tell (anything but Linux). */
function heldBytes(pid: number): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'latin1').split(' ')[1] ?? 0) * PAGE_BYTES;
  } catch {
    return 0;
  }
}

/**
 * Looks at the memory of processes and tells of each that holds more than `limitBytes`. The limits that an operating
 * system sets by itself count addresses that are only reserved, of which Node takes gigabytes. Answers how to end it.
 */
export function watchMemory(
  pids: () => readonly number[],
  limitBytes: number,
  tell: (pid: number) => void,
): () => void {
  const timer = setInterval(() => {
    for (const pid of pids()) if (heldBytes(pid) > limitBytes) tell(pid);
  }, LOOK_MILLIS);
  timer.unref();
  return () => clearInterval(timer);
}
