import { heightAtWidth } from '../../media/dimensions.ts';
import { sizeAfter } from '../../media/recipe.ts';
import type { Block } from '../../page/blocks/block.ts';
import { kindOf } from '../../page/blocks/kinds.ts';
import { plainText } from '../../page/inline.ts';
import {
  isBeside,
  lettersPerLine,
  SMALL_TEXT_BELOW_PX,
  shownWidth,
  stackingWidth,
  textBeside,
  textSizeAt,
} from '../../page/layout.ts';
import { marginsOf } from '../../page/target.ts';
import { blocksIn, walkPage } from '../../page/walk.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** No reader has a narrower page (WCAG 2.2, 1.4.10). */
const NARROWEST_PX = 320;

/** Text squeezed into lines of a few letters: beside a picture, or between two. */
export function checkSqueeze(input: ProofInput): readonly Found[] {
  const viewports = viewportsOf(input);
  return [
    ...placedOf(input).flatMap((placed) => besideOne(input, placed, viewports)),
    ...pairsOf(input).flatMap((pair) => betweenTwo(input, pair, viewports)),
  ];
}

/**
 * Where lines may be shortest: text beside a picture gets less room the narrower the page, until the picture stacks, so
 * each width at which one does counts as well as those that are looked at.
 */
function viewportsOf(input: ProofInput): readonly number[] {
  const widest = Math.max(...input.rules.proofWidths);
  const turns = placedOf(input).flatMap(({ placement }) =>
    isBeside(placement) ? [stackingWidth(input.rules, placement)] : [],
  );
  const all = [...input.rules.proofWidths, ...turns, NARROWEST_PX, SMALL_TEXT_BELOW_PX];
  return [...new Set(all)].filter((width) => width >= NARROWEST_PX && width <= widest).sort((a, b) => a - b);
}

interface Squeezed {
  readonly viewport: number;
  readonly letters: number;
}

/** The viewports at which a room for text holds too few letters, or null at those that have no such room. */
function squeezedAt(
  { rules }: ProofInput,
  viewports: readonly number[],
  room: (viewport: number) => number | null,
): readonly Squeezed[] {
  return viewports.flatMap((viewport) => {
    const width = room(viewport);
    if (width === null) return [];
    const letters = lettersPerLine(rules, Math.max(0, width), viewport);
    return letters < rules.leastLettersBeside ? [{ viewport, letters }] : [];
  });
}

const fewestOf = (squeezed: readonly Squeezed[]) => Math.min(...squeezed.map(({ letters }) => letters));

function besideOne(
  input: ProofInput,
  { placement, piece, room }: Placed,
  viewports: readonly number[],
): readonly Found[] {
  const { rules } = input;
  const squeezed = squeezedAt(input, viewports, (viewport) => textBeside(rules, placement, room, viewport));
  if (squeezed.length === 0) return [];
  const stackBelow = firstRoomy(input, Math.max(...squeezed.map(({ viewport }) => viewport)), (viewport) =>
    textBeside(rules, placement, room, viewport),
  );
  return [
    {
      code: 'text-squeezed',
      values: { letters: fewestOf(squeezed), name: callPiece(piece), other: null },
      place: atPlacement(placement),
      viewports: squeezed.map(({ viewport }) => viewport),
      remedies: [
        {
          kind: 'placement',
          does: 'stack',
          placementId: placement.id,
          change: { stackBelow },
        },
        {
          kind: 'placement',
          does: 'third',
          placementId: placement.id,
          change: { width: { unit: '%', value: 33 } },
        },
      ],
    },
  ];
}

/** The first viewport over a squeezed one at which there is room enough. */
function firstRoomy(input: ProofInput, squeezed: number, room: (viewport: number) => number | null): number {
  const widest = Math.max(...input.rules.proofWidths) + 1;
  for (let viewport = squeezed + 1; viewport < widest; viewport += 1)
    if (squeezedAt(input, [viewport], room).length === 0) return viewport;
  return widest;
}

interface Pair {
  readonly first: Placed;
  readonly second: Placed;
  /** Letters of the text that stands between them. */
  readonly letters: number;
}

/** Two pictures on different sides with nothing between them that begins under the first. */
function pairsOf(input: ProofInput): readonly Pair[] {
  const placed = new Map(placedOf(input).map((one) => [one.placement.id, one]));
  return pairsIn(input.page.blocks, placed);
}

/** Pairs of one run of blocks, and of those within each of them: what floats in one does not reach another. */
function pairsIn(blocks: readonly Block[], placed: ReadonlyMap<string, Placed>): readonly Pair[] {
  const pairs: Pair[] = [];
  let first: Placed | undefined;
  let letters = 0;
  for (const block of blocks) {
    if (block.type === 'placement') {
      const second = placed.get(block.attrs.id);
      const isFloat = second !== undefined && isBeside(second.placement);
      if (first && isFloat && second.placement.position !== first.placement.position)
        pairs.push({ first, second, letters });
      [first, letters] = [isFloat ? second : undefined, 0];
    } else if (block.type === 'heading') first = undefined;
    else letters += lettersOf(block);
    pairs.push(...pairsIn(blocksIn(block), placed));
  }
  return pairs;
}

function lettersOf(block: Block): number {
  return [...walkPage({ blocks: [block] })]
    .flatMap((one) => kindOf(one).words(one))
    .reduce((sum, run) => sum + plainText(run).length, 0);
}

function betweenTwo(
  input: ProofInput,
  { first, second, letters }: Pair,
  viewports: readonly number[],
): readonly Found[] {
  const { rules } = input;
  const room = (viewport: number) => {
    const beside = textBeside(rules, first.placement, first.room, viewport);
    if (beside === null || textBeside(rules, second.placement, second.room, viewport) === null) return null;
    const lines = Math.ceil(letters / Math.max(1, lettersPerLine(rules, beside, viewport)));
    // The second stands under the first where the text between them is longer than the first is high.
    if (lines * textSizeAt(rules, viewport) * LINE >= heightOf(input, first, viewport)) return null;
    const { left, right } = marginsOf(second.placement);
    return beside - shownWidth(rules, second.placement, second.room, viewport) - left - right;
  };
  // Where the two do not even fit beside each other, the second drops under the first by itself.
  const squeezed = squeezedAt(input, viewports, (viewport) => {
    const width = room(viewport);
    return width === null || width < 0 ? null : width;
  });
  if (squeezed.length === 0) return [];
  return [
    {
      code: 'text-squeezed',
      values: {
        letters: fewestOf(squeezed),
        name: callPiece(first.piece),
        other: callPiece(second.piece),
      },
      place: atPlacement(second.placement),
      viewports: squeezed.map(({ viewport }) => viewport),
      remedies: [
        {
          kind: 'placement',
          does: 'same-side',
          placementId: second.placement.id,
          change: { position: first.placement.position },
        },
        {
          kind: 'placement',
          does: 'in-column',
          placementId: second.placement.id,
          change: { position: 'column' },
        },
      ],
    },
  ];
}

/** Height of a line, as a share of the text's size (`style-sheet.ts`). */
const LINE = 1.5;
/** A caption of one line with the space round it, in px. */
const CAPTION_PX = 26;

function heightOf({ rules }: ProofInput, { placement, room, piece, plan }: Placed, viewport: number): number {
  const width = Math.round(shownWidth(rules, placement, room, viewport));
  const { top, bottom } = marginsOf(placement);
  return heightAtWidth(sizeAfter(piece.size, plan.recipe), width) + CAPTION_PX + top + bottom;
}
