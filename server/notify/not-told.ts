/** Why a message could not be told, as a sentence for whoever should have been. */
export class NotTold extends Error {
  /** Whether it is not tried again: the other side said that it never will take it. */
  readonly isFinal: boolean;

  constructor(message: string, { isFinal = false, ...options }: { isFinal?: boolean } & ErrorOptions = {}) {
    super(message, options);
    this.name = 'NotTold';
    this.isFinal = isFinal;
  }
}
