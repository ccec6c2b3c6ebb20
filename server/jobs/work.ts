/** What a job is given to work with. `report` throws `Stopped` when it has been asked to stop. */
export interface JobTools {
  readonly report: (done: number, of: number, words: string) => Promise<void>;
}

export interface JobResult {
  readonly words: string;
  readonly resultKey: string;
  readonly resultBytes: number;
}
