/** Why work on bytes or text from outside was given up, as a closed list. */
export type ForeignFault = 'too-long' | 'too-much-memory' | 'ended' | 'stopped';

/** Work on bytes or text from outside that did not come to its end; whoever asked says what of. */
export class ForeignProblem extends Error {
  readonly fault: ForeignFault;

  constructor(fault: ForeignFault, options?: ErrorOptions) {
    super(`Work on foreign bytes was given up: ${fault}.`, options);
    this.name = 'ForeignProblem';
    this.fault = fault;
  }
}

const FAULT_SENTENCES: Readonly<Record<ForeignFault, string>> = {
  'too-long': 'takes longer to be read than is given to one file',
  'too-much-memory': 'takes more memory to be read than is given to one file',
  ended: 'ends the program that reads it',
  stopped: 'was not read to its end, since nobody waits for it',
};

/** What was too much, after the name of the thing. */
export function sayForeignFault(fault: ForeignFault): string {
  return FAULT_SENTENCES[fault];
}
