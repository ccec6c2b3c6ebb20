import type { Placement } from '../page/model.ts';

/** How a finding counts: it stops sending, it should be mended, or it is worth knowing. */
export const SEVERITIES = ['stops', 'mend', 'note'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** Every fault or risk that a proof looks for. */
export const FINDING_CODES = [
  'alt-missing',
  'alt-poor',
  'licence-missing',
  'credit-missing',
  'use-not-allowed',
  'piece-missing',
  'want-unfilled',
  'enlarged',
  'enlarged-sharp',
  'stretched',
  'oversized',
  'words-faint',
  'words-small',
  'words-unsaid',
  'embed-gone',
  'embed-private',
  'embed-untrusted',
  'embed-refused',
  'embed-stripped',
  'captions-missing',
  'dimensions-missing',
  'page-heavy',
  'text-squeezed',
  'heading-order',
  'heading-empty',
  'title-missing',
  'link-empty',
  'name-rule',
  'same-piece-twice',
] as const;
export type FindingCode = (typeof FINDING_CODES)[number];

/** What each finding is called where it is listed without a case, as in House rules. */
export const FINDING_NAMES: Readonly<Record<FindingCode, string>> = {
  'alt-missing': 'A picture without words for those who cannot see it',
  'alt-poor': 'Alt text that says little',
  'licence-missing': 'A piece whose licence is not known',
  'credit-missing': 'A credit that is owed and cannot be written',
  'use-not-allowed': 'A use that the licence does not allow',
  'piece-missing': 'A piece that is no longer on the shelf',
  'want-unfilled': 'A want without a piece',
  enlarged: 'A picture shown larger than it is',
  'enlarged-sharp': 'A picture too small for sharp screens',
  stretched: 'A picture shown in another shape than its own',
  oversized: 'A picture far larger than it is shown',
  'words-faint': 'Words over a picture that hardly stand out',
  'words-small': 'Words drawn too small to read',
  'words-unsaid': 'Words drawn into a picture, and not in its alt text',
  'embed-gone': 'An embed that is no longer at its host',
  'embed-private': 'An embed that its host keeps private',
  'embed-untrusted': 'An embed of a host that nobody has decided on',
  'embed-refused': 'An embed that refuses to be framed',
  'embed-stripped': 'An embed that does not come through as a frame',
  'captions-missing': 'A film without captions',
  'dimensions-missing': 'A picture without width and height',
  'page-heavy': 'A page over its weight',
  'text-squeezed': 'Text squeezed beside a picture',
  'heading-order': 'Headings that skip a level',
  'heading-empty': 'An empty heading',
  'title-missing': 'A page without a title',
  'link-empty': 'A link without words',
  'name-rule': 'A file name that breaks the rule',
  'same-piece-twice': 'The same piece twice on a page',
};

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
