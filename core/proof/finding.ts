import type { HeadingLevel } from '../page/blocks/heading/schema.ts';
import type { Placement } from '../page/blocks/placement/schema.ts';
import type { Severity } from './codes.ts';
import type { Coded } from './values.ts';

type Place =
  | { readonly kind: 'page' }
  | { readonly kind: 'placement'; readonly placementId: string }
  | { readonly kind: 'block'; readonly blockId: string }
  | { readonly kind: 'want'; readonly wantId: string };

/** What a change to a placement does, where what is changed does not say it by itself. */
export type PlacementRemedy =
  | 'own-shape'
  | 'show-whole'
  | 'shape-of-first'
  | 'frame-at-once'
  | 'link-in-words'
  | 'narrow'
  | 'stack'
  | 'third'
  | 'same-side'
  | 'in-column'
  | 'lay-plate'
  | 'set-larger'
  | 'add-to-alt'
  | 'drop-image-of'
  | 'drop-markup'
  | 'decorative'
  | 'no-style'
  | 'words-of-piece';

/** The change that mends a finding. What its button says is `sayRemedy`. */
export type Remedy =
  | {
      readonly kind: 'placement';
      readonly does: PlacementRemedy;
      readonly placementId: string;
      readonly change: Partial<Placement>;
    }
  | { readonly kind: 'remove'; readonly which: 'it' | 'the-second'; readonly placementId: string }
  | { readonly kind: 'heading-level'; readonly blockId: string; readonly level: HeadingLevel }
  | { readonly kind: 'head-row'; readonly blockId: string }
  | { readonly kind: 'make-lead'; readonly placementId: string }
  | { readonly kind: 'make-teaser'; readonly placementId: string; readonly ratio: Placement['ratio'] }
  | { readonly kind: 'banner-plate'; readonly blockId: string; readonly plate: string }
  | { readonly kind: 'remove-block'; readonly blockId: string }
  | { readonly kind: 'drop-want'; readonly wantId: string }
  | { readonly kind: 'write-alt'; readonly placementId: string; readonly assetId: string }
  | { readonly kind: 'rename'; readonly assetId: string; readonly stem: string }
  /** Its own words in a language are dropped. */
  | { readonly kind: 'credit-by-licence'; readonly assetId: string; readonly language: string }
  | { readonly kind: 'set-licence'; readonly placementId: string }
  | { readonly kind: 'find-piece'; readonly wantId: string };

/** What a check finds, before House rules say how it counts. */
export type Found = Coded & {
  readonly place: Place;
  readonly viewports?: readonly number[];
  readonly remedies: readonly Remedy[];
};

/** One fault or risk: what it is and with which values, how bad, where, and what mends it. Its words are `sayFinding`. */
export type Finding = Coded & {
  readonly severity: Severity;
  readonly place: Place;
  /** Viewports in px at which it shows; empty when it shows at all of them. */
  readonly viewports: readonly number[];
  readonly remedies: readonly Remedy[];
};
