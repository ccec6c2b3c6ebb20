import type { FormFault } from '../embed/forms.ts';
import type { NameFault } from '../naming/rule.ts';
import type { CreditPartKind } from '../rights/credit-words.ts';
import type { Reason } from '../rights/judgement.ts';
import type { AltFault } from '../words/alt.ts';
import type { FindingCode } from './codes.ts';

/** What stands where an embed cannot be a frame. */
type StandIn = 'poster' | 'link';

/**
 * What each finding was found with: names as they are said, sizes in px, weights in bytes. A finding is its code and
 * these; its sentence is made of them at the very end (`say.ts`).
 */
export interface FindingValues {
  'alt-missing': { readonly name: string; readonly fault: 'missing' | 'decorative-linked' };
  'alt-poor': { readonly name: string; readonly fault: AltFault };
  'language-differs': {
    readonly name: string;
    readonly words: 'alt' | 'caption';
    /** Languages by their codes (BCP 47). */
    readonly language: string;
    readonly ofPage: string;
  };
  'licence-missing': { readonly name: string; readonly reason: Reason };
  'licence-claimed': { readonly name: string; readonly reason: Reason };
  'credit-missing': { readonly name: string; readonly reason: Reason };
  'credit-leaves-out': {
    readonly name: string;
    readonly parts: readonly CreditPartKind[];
    /** What the licence is called. */
    readonly licence: string;
  };
  'use-not-allowed': { readonly name: string; readonly reason: Reason };
  'piece-missing': Record<never, never>;
  'want-unfilled': { readonly purpose: string };
  enlarged: { readonly name: string; readonly shown: number; readonly cut: number };
  'enlarged-sharp': { readonly name: string; readonly shown: number; readonly cut: number };
  stretched: { readonly name: string };
  oversized: { readonly name: string; readonly smallest: number; readonly shown: number };
  'words-faint': {
    readonly name: string;
    /** Contrast by WCAG 2.2, 1 to 21. */
    readonly contrast: number;
    readonly needed: number;
    readonly hasPlate: boolean;
  };
  'words-small': {
    readonly name: string;
    readonly viewport: number;
    readonly em: number;
    readonly readable: number;
  };
  'words-unsaid': { readonly name: string; readonly text: string };
  'embed-gone': { readonly name: string; readonly host: string; readonly status: number };
  'embed-private': { readonly name: string };
  'embed-untrusted': { readonly name: string };
  'embed-refused': {
    readonly name: string;
    readonly by: string;
    readonly value: string;
    readonly standIn: StandIn;
  };
  'embed-stripped': { readonly name: string; readonly fault: FormFault; readonly standIn: StandIn };
  'captions-missing': { readonly name: string };
  'captions-out-of-step': { readonly name: string; readonly languages: readonly string[] };
  'film-not-made': { readonly name: string };
  'film-not-played': { readonly name: string; readonly says: string };
  'film-too-large': {
    readonly name: string;
    readonly bytes: number;
    readonly seconds: number;
    readonly mostMegabytes: number;
    readonly mostMinutes: number;
  };
  'dimensions-missing': { readonly name: string };
  'page-heavy': { readonly bytes: number; readonly budget: number };
  /** `other` is the second of two pictures with text between them. */
  'text-squeezed': { readonly letters: number; readonly name: string; readonly other: string | null };
  'heading-order': { readonly text: string; readonly level: number; readonly above: number };
  'heading-empty': Record<never, never>;
  'quotation-unattributed': Record<never, never>;
  'details-unnamed': Record<never, never>;
  'pair-broken': { readonly pictures: number };
  'pair-shapes': Record<never, never>;
  'banner-broken': { readonly pictures: number; readonly isSaid: boolean };
  'banner-full': Record<never, never>;
  'banner-faint': { readonly contrast: number; readonly needed: number; readonly hasPlate: boolean };
  'lead-missing': Record<never, never>;
  'teaser-missing': Record<never, never>;
  'teaser-unsaid': Record<never, never>;
  'card-alone': { readonly cards: number; readonly perRow: number };
  'card-unnamed': { readonly link: string };
  'table-headless': Record<never, never>;
  'title-missing': Record<never, never>;
  'link-empty': { readonly page: string };
  'anchor-missing': { readonly anchor: string };
  /** `title` is null for a page that is gone. */
  'page-link-broken': { readonly title: string | null };
  'file-link-broken': Record<never, never>;
  'contents-empty': Record<never, never>;
  'link-vague': { readonly words: string };
  'name-rule': { readonly fileName: string; readonly fault: NameFault };
  'same-piece-twice': { readonly name: string };
  'picture-style-unknown': { readonly name: string; readonly style: string };
}

/** A finding's code with the values that belong to it. */
export type Coded = {
  [C in FindingCode]: { readonly code: C; readonly values: FindingValues[C] };
}[FindingCode];
