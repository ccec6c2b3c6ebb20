/** What a job is given to work with. */
export interface JobTools {
  /** Says how far it is. Throws `Stopped` when a person has asked it to stop. */
  readonly report: (done: number, of: number, words: string) => Promise<void>;
  /** Aborts when a person has asked it to stop, for work that waits long between two reports. */
  readonly signal: AbortSignal;
}

/** Thrown inside a job when a person asked it to stop. */
export class Stopped extends Error {}

export interface JobResult {
  /** Where a job was stopped and has its own words for what stays done. */
  readonly state?: 'stopped' | 'failed';
  readonly words: string;
  /** Where the file lies that it made, if it made one. */
  readonly resultKey?: string;
  readonly resultBytes?: number;
}
