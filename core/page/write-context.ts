import type { Anchored } from './anchored.ts';
import type { Block } from './blocks/block.ts';
import type { LinkedPages } from './page-address.ts';
import type { Cut } from './picture.ts';
import type { Piece } from './piece.ts';
import type { Room } from './room.ts';
import type { HouseRules } from './target.ts';

/** What the writer needs besides the page: its target, its pieces, and where each cut will be found. */
export interface WriteContext {
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly addressOf: (cut: Cut) => string;
  /** Where the own file of a document will be found, by its name and piece; absent where no file goes along. */
  readonly fileOf?: (fileName: string, assetId: string) => string;
  /** Whether sizes and sides stand in the HTML itself, for pages that do not take the style sheet. */
  readonly isInline?: boolean;
  /** Whether the page's title is left out, where the page that takes it has one. */
  readonly withoutTitle?: boolean;
  /** Whether each picture is one file alone, instead of one for each width and format. */
  readonly oneFileEach?: boolean;
  /** How many times as sharp the reader's screen is as the one that a preview is looked at on; 1 where it is not said. */
  readonly screen?: number;
  /** The pages that it may link to. */
  readonly pages?: LinkedPages;
  /** Whether each block carries its ID (`data-block`), by which a preview and its proof are told what stands where. */
  readonly isMarked?: boolean;
  /** Whether it is written to be read back (`source.ts`): pieces and credits as signs, links as they are kept. */
  readonly isSource?: boolean;
  /** What is written for a listing instead of the page itself: where its teaser leads, and the page's title. */
  readonly listing?: { readonly href: string; readonly title: string };
}

/** What one block needs to be written. */
export interface BlockContext extends WriteContext {
  /** The room that it stands in. */
  readonly room: Room;
  /** The ID of the first placement of the page, which is likely in sight at once. */
  readonly first: string | undefined;
  /** The headings of the page, and the anchors that go out, by the IDs of their blocks. */
  readonly headings: readonly Anchored[];
  readonly anchors: ReadonlyMap<string, string>;
  /** The level of the heading that each placement stands under, by its ID; 1 where no heading comes before it. */
  readonly levels: ReadonlyMap<string, number>;
  /** Writes the blocks that stand in this one, each in a line of its own. */
  readonly inside: (blocks: readonly Block[], room: Room) => string;
}
