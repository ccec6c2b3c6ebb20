/** A page that is to be read: fetched by its address, or as it was handed in. */
export interface ToRead {
  readonly source: string;
  readonly address: string | null;
  readonly base: string;
  readonly html: string | null;
  readonly encoding?: string;
  /** Where the pictures beside it are kept, by their paths in its ZIP. */
  readonly beside?: Readonly<Record<string, string>>;
}
