import type { Statement } from '#core/gather/statement.ts';
import type { NamingRules } from '#core/naming/pattern.ts';
import type { LicenceId } from '#core/rights/licences.ts';
import type { SavedEmbed } from '../embeds/saved.ts';

/** Where a file came from, and what was said of it there, as it was given. */
export interface Origin {
  readonly way: 'upload' | 'address' | 'source' | 'clip';
  readonly sourceId: string | null;
  /** Names the file within its source, and the state it was in. */
  readonly sourceKey: string | null;
  readonly stamp: string | null;
  readonly address: string | null;
  readonly pageAddress: string | null;
  readonly said: readonly Statement[];
  /** The licence that a person decided on, where the places disagree or say nothing that is clear. */
  readonly decidedLicence: LicenceId | null;
}

export const FROM_OWN_MACHINE: Origin = {
  way: 'upload',
  sourceId: null,
  sourceKey: null,
  stamp: null,
  address: null,
  pageAddress: null,
  said: [],
  decidedLicence: null,
};

export interface Incoming {
  /** Where the bytes lie now; they are left there. */
  readonly path: string;
  readonly name: string;
  readonly personId: string;
  readonly folder: string;
  /** The page that it is brought for, whose target says how it is called; null where it is for no page. */
  readonly pageId: string | null;
  readonly origin: Origin;
  /** Whose rules say how it is called, where it is brought for no page that is there yet. */
  readonly namedBy?: NamingRules;
  /** The text of the sidecar (XMP) that lay beside the file. */
  readonly sidecar?: string;
  /** What it is the poster of, where it is an embed. */
  readonly embed?: { readonly saved: SavedEmbed; readonly key: string };
}
