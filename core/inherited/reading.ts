import type { Embed } from '../embed/model.ts';
import type { Statement } from '../gather/statement.ts';
import type { Block } from '../page/blocks/block.ts';
import type { Fault } from './fault.ts';

/** One thing of a page in its place: a block of text, or a picture or an embed by its place in the lists of the reading. */
export type InheritedPart =
  | { readonly kind: 'block'; readonly block: Block }
  | { readonly kind: 'picture'; readonly use: number }
  | { readonly kind: 'embed'; readonly embed: number };

/** A file of a picture, and what the page says of it. Sizes in px; 0 where none is said. */
export interface InheritedFile {
  readonly address: string;
  readonly preview: string;
  readonly statements: readonly Statement[];
}

/** A width as the page says it; null where it says none. */
export type SaidWidth = { readonly unit: 'px' | '%'; readonly value: number } | null;

/** One use of a picture on the page. */
export interface PictureUse {
  /** Its place in the list of files. */
  readonly file: number;
  readonly spot: number;
  /** As it stands in the page; null where there is no `alt` at all. */
  readonly alt: string | null;
  readonly caption: string;
  readonly width: SaidWidth;
  /** Px as the page says them, 0 where it says none. */
  readonly height: number;
  readonly side: 'left' | 'right' | 'centre' | null;
  /** What a link round it leads to; empty for none, or where it opens the picture itself. */
  readonly link: string;
  readonly opensLarger: boolean;
}

/** Something framed or played, and where it stood. */
export interface InheritedEmbed {
  readonly spot: number;
  readonly embed: Embed;
}

export interface InheritedLink {
  readonly address: string;
  readonly words: string;
  readonly spot: number;
}

/** What does not come along, by what it is: furniture of the site, decoration, what runs or counts. */
export type LeftKind = 'furniture' | 'decoration' | 'program' | 'drawing' | 'form' | 'text' | 'picture';
export interface Left {
  readonly kind: LeftKind;
  readonly count: number;
  /** The first words of it, or the names of its files. */
  readonly examples: readonly string[];
}

/** A page that somebody else made, as it can be taken over. */
export interface Inherited {
  readonly title: string;
  readonly summary: string;
  /** BCP 47, as the page says it; empty where it says none. */
  readonly language: string;
  /** What it says, with its faults mended as far as that is safe. */
  readonly mended: readonly InheritedPart[];
  /** The same with nothing mended that a page of Placard can hold. */
  readonly asRead: readonly InheritedPart[];
  readonly files: readonly InheritedFile[];
  readonly uses: readonly PictureUse[];
  readonly embeds: readonly InheritedEmbed[];
  /** Documents that its text links to, each once. */
  readonly documents: readonly InheritedLink[];
  /** The other links of its text to the web. */
  readonly links: readonly InheritedLink[];
  /** Addresses of the pages that it is made of by frames, each once; absent in what was read before they were told. */
  readonly framed?: readonly string[];
  /** What can be told of the page alone; what its files and links are is told of them (`facts.ts`). */
  readonly faults: readonly Fault[];
  readonly left: readonly Left[];
}
