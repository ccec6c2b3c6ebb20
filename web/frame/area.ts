/** A part of Placard with an address of its own. */
export interface Area {
  readonly to: string;
  readonly name: string;
}
