/** What a job is given to work with. */
export interface JobTools {
  /** Says how far it is. Throws `Stopped` when a person has asked it to stop. */
  readonly report: (done: number, of: number, words: string) => Promise<void>;
  /** Aborts when a person has asked it to stop, for work that waits long between two reports. */
  readonly signal: AbortSignal;
}

export interface JobResult {
  readonly words: string;
  /** Where the file lies that it made, if it made one. */
  readonly resultKey?: string;
  readonly resultBytes?: number;
}
