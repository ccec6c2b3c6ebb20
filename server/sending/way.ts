/** A file as it goes to a target. */
export interface FileToSend {
  readonly name: string;
  readonly type: string;
  readonly bytes: Buffer;
}

/** A page as it goes to a target. */
export interface PageToSend {
  /** Names the page wherever it is sent, and stays the same (RFC 9562, as a URN). */
  readonly uid: string;
  readonly title: string;
  readonly html: string;
  readonly summary: string;
  /** The picture that a listing shows. */
  readonly photo: { readonly address: string; readonly alt: string } | null;
}

/** One way to send. Each throws `SendProblem` where the other side refuses, and `OutboundProblem` where it cannot be reached. */
export interface Way {
  /** Sends a file; answers where it is found from then on. */
  readonly putFile: (file: FileToSend) => Promise<string>;
  /**
   * Hands a page over, in the place of the one at `address` where it is out already; answers where it stands, or null where a person
   * puts it there by hand.
   */
  readonly putPage: (page: PageToSend, address: string | null) => Promise<string | null>;
  /** Where a page stands that may have been handed over without anybody hearing of it; null for nowhere. */
  readonly find: (uid: string) => Promise<string | null>;
  readonly takeDown: (address: string) => Promise<void>;
  /** Ends what it holds open, where it does; asked for once all is done. */
  readonly close?: () => Promise<void>;
}

/** The other side understood and refused. The message says what, what was kept, and what to do. */
export class SendProblem extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'SendProblem';
  }
}
