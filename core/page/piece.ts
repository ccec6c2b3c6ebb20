import type { DocumentFacts } from '../document/formats.ts';
import type { Framing } from '../embed/framing.ts';
import type { Hosts } from '../embed/host.ts';
import type { Embed } from '../embed/model.ts';
import type { Cue } from '../film/cue.ts';
import type { HeldFilm } from '../film/made.ts';
import type { CropRect } from '../media/crop.ts';
import type { Size } from '../media/dimensions.ts';
import type { Lights } from '../media/over-contrast.ts';
import type { Prep } from '../media/recipe.ts';
import type { Label } from '../rights/label.ts';

export const ASSET_KINDS = ['picture', 'embed', 'document', 'film'] as const;
export type AssetKind = (typeof ASSET_KINDS)[number];

/** What a piece embeds, with the hosts that bear on it and what its host said to the origins of targets. */
export interface HeldEmbed {
  readonly embed: Embed;
  readonly hosts: Hosts;
  /** By the origin of a target's site; the empty text for a target without one. */
  readonly framing: Readonly<Record<string, Framing>>;
  /** Whose picture its poster is: its host's, or one that was drawn here, since none was to be had. */
  readonly poster: 'host' | 'drawn';
}

/** Its chapters, or its transcript by paragraphs, in one language. */
export interface FilmText {
  readonly kind: 'chapters' | 'transcript';
  readonly language: string;
  readonly cues: readonly Cue[];
}

/** What each kind has of its own. */
export type OfKind =
  | { readonly kind: 'picture' }
  | { readonly kind: 'embed'; readonly embed: HeldEmbed }
  | { readonly kind: 'document'; readonly document: DocumentFacts }
  /** A film or a recording of the house's own, with its file. */
  | ({
      readonly kind: 'film';
      /** The languages that it has captions in (BCP 47). */
      readonly captions: readonly string[];
      /** The languages of its chapters, and of its transcripts. */
      readonly chapters: readonly string[];
      readonly transcripts: readonly string[];
      /** What they say, where a page is written that shows it; times as in what is made of it. */
      readonly texts?: readonly FilmText[];
      /** Those of them whose captions say something where nothing is heard. */
      readonly outOfStep: readonly string[];
    } & HeldFilm);

/**
 * What all kinds share: a name, a label, and the picture that shows it, which is the piece itself, the poster of an embed,
 * the first page of a document or a still of a film. `size` of the original as seen, in px; `bytes` of the original.
 */
interface Shared {
  readonly id: string;
  readonly stem: string;
  readonly extension: string;
  readonly size: Size;
  /** The part inside a border that was baked in, in fractions, or null: nothing outside it is ever shown. */
  readonly trim: CropRect | null;
  /** What is done to it wherever it is shown. */
  readonly prep: Prep;
  readonly bytes: number;
  readonly alpha: boolean;
  readonly animated: boolean;
  readonly label: Label;
  /** Its licence is only said by the file or the place it came from: nobody has kept it yet. */
  readonly isLicenceClaimed: boolean;
  /** Known where words stand over it, for their contrast. */
  readonly lights?: Lights;
}

/** What a page has to know of a piece. */
export type Piece = Shared & OfKind;

/** What it embeds, or null. */
export function embedOf(piece: OfKind): HeldEmbed | null {
  return piece.kind === 'embed' ? piece.embed : null;
}

/** Whether it is a picture by itself, so that what only pictures have is asked of it: alt text, cuts, recipes, lookalikes. */
export function isPicture({ kind }: Pick<OfKind, 'kind'>): boolean {
  return kind === 'picture';
}
