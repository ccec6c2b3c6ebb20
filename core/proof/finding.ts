import type { Placement } from '../page/model.ts';
import type { FindingCode, Severity } from './codes.ts';

type Place =
  | { readonly kind: 'page' }
  | { readonly kind: 'placement'; readonly placementId: string }
  | { readonly kind: 'block'; readonly index: number }
  | { readonly kind: 'want'; readonly wantId: string };

/** The change that mends a finding. `words` are what its button says. */
export type Remedy =
  | {
      readonly kind: 'placement';
      readonly words: string;
      readonly placementId: string;
      readonly change: Partial<Placement>;
    }
  | { readonly kind: 'remove'; readonly words: string; readonly placementId: string }
  | {
      readonly kind: 'heading-level';
      readonly words: string;
      readonly index: number;
      readonly level: 2 | 3 | 4;
    }
  | { readonly kind: 'remove-block'; readonly words: string; readonly index: number }
  | { readonly kind: 'drop-want'; readonly words: string; readonly wantId: string }
  | {
      readonly kind: 'write-alt';
      readonly words: string;
      readonly placementId: string;
      readonly assetId: string;
    }
  | { readonly kind: 'rename'; readonly words: string; readonly assetId: string; readonly stem: string }
  | {
      readonly kind: 'open';
      readonly words: string;
      readonly place: Place;
      readonly row: 'rights' | 'words' | 'fit' | 'name' | 'none';
    };

/** One fault or risk: what, how bad, where, why it matters and what mends it. */
export interface Finding {
  readonly code: FindingCode;
  readonly severity: Severity;
  readonly sentence: string;
  readonly why: string;
  readonly place: Place;
  /** Viewports in px at which it shows; empty when it shows at all of them. */
  readonly viewports: readonly number[];
  readonly remedies: readonly Remedy[];
}

/** What a check finds, before House rules say how it counts. */
export type Found = Omit<Finding, 'severity' | 'viewports'> & { readonly viewports?: readonly number[] };
