import { readFileSync } from 'node:fs';

const LOOK_MILLIS = 50;
/** Linux counts processor time in hundredths of a second for whoever asks (`USER_HZ`). */
const TICK_MILLIS = 10;
/** So many times longer than it may compute something may take that waits for its turn, or for nothing. */
export const PATIENCE = 8;

/** Processor time that a process has had, with that of its ended children, in ms; endless where the system does not tell. */
function usedMillis(pid: number): number {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'latin1');
    // Fields 14 to 17 (proc_pid_stat(5)); the second is a name in brackets, in which anything may stand.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return fields.slice(11, 15).reduce((sum, ticks) => sum + Number(ticks), 0) * TICK_MILLIS;
  } catch {
    return Number.POSITIVE_INFINITY;
  }
}

/**
 * Tells once when a process took longer than `limitMillis`, and computed for as long: on a machine that is busy with other
 * things a good file is not refused because its turn did not come. What computes less is told of after `PATIENCE` times the limit.
 * Answers how to end it.
 */
export function watchTime(pid: number | undefined, limitMillis: number, tell: () => void): () => void {
  const began = Date.now();
  const before = pid === undefined ? 0 : usedMillis(pid);
  const usedSince = () => (pid === undefined ? Number.POSITIVE_INFINITY : usedMillis(pid) - before);
  let timer = setTimeout(look, limitMillis);
  function look(): void {
    const used = usedSince();
    if (Number.isNaN(used) || used >= limitMillis || Date.now() - began >= limitMillis * PATIENCE) tell();
    else timer = setTimeout(look, LOOK_MILLIS);
  }
  return () => clearTimeout(timer);
}
