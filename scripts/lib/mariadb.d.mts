interface Database {
  /** Address of the schema `placard` for Placard's own user. */
  readonly url: string;
  /** Ends what the call has started; nothing happens to what ran before. */
  readonly stop: () => Promise<void>;
}

/** `schemas` are those that Placard's user may use besides its own, as patterns of GRANT. */
export function startDatabase(wish: {
  readonly folder: string;
  readonly port: number;
  readonly schemas?: readonly string[];
}): Promise<Database>;

/** Ends the database of `folder`, in whatever process it was started. */
export function stopDatabase(folder: string): Promise<void>;
