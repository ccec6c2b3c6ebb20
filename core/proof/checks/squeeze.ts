import { heightAtWidth } from '../../media/dimensions.ts';
import { sizeAfter } from '../../media/recipe.ts';
import {
  isBeside,
  lettersPerLine,
  SMALL_TEXT_BELOW_PX,
  shownWidth,
  stackingWidth,
  textBeside,
  textSizeAt,
} from '../../page/layout.ts';
import { type Block, paragraphsOf, plainText } from '../../page/model.ts';
import { marginsOf } from '../../page/target.ts';
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
  { placement, piece }: Placed,
  viewports: readonly number[],
): readonly Found[] {
  const { rules } = input;
  const squeezed = squeezedAt(input, viewports, (viewport) => textBeside(rules, placement, viewport));
  if (squeezed.length === 0) return [];
  const stackBelow = firstRoomy(input, Math.max(...squeezed.map(({ viewport }) => viewport)), (viewport) =>
    textBeside(rules, placement, viewport),
  );
  return [
    {
      code: 'text-squeezed',
      sentence: `Only ${fewestOf(squeezed)} letters fit beside ${callPiece(piece)}.`,
      why: 'The text beside it breaks into single words.',
      place: atPlacement(placement),
      viewports: squeezed.map(({ viewport }) => viewport),
      remedies: [
        {
          kind: 'placement',
          words: `Stack it under ${stackBelow} px`,
          placementId: placement.id,
          change: { stackBelow },
        },
        {
          kind: 'placement',
          words: 'Make it a third',
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
  const pairs: Pair[] = [];
  let first: Placed | undefined;
  let letters = 0;
  for (const block of input.page.blocks) {
    if (block.type === 'placement') {
      const second = placed.get(block.attrs.id);
      const isFloat = second !== undefined && isBeside(second.placement);
      if (first && isFloat && second.placement.position !== first.placement.position)
        pairs.push({ first, second, letters });
      [first, letters] = [isFloat ? second : undefined, 0];
    } else if (block.type === 'heading') first = undefined;
    else letters += lettersOf(block);
  }
  return pairs;
}

function lettersOf(block: Block): number {
  if (block.type === 'paragraph') return plainText(block.content).length;
  if (block.type !== 'bulletList' && block.type !== 'orderedList') return 0;
  const ofPart = (part: ReturnType<typeof paragraphsOf>[number]) =>
    part.type === 'paragraph' ? plainText(part.content).length : 0;
  return paragraphsOf(block).reduce((sum, part) => sum + ofPart(part), 0);
}

function betweenTwo(
  input: ProofInput,
  { first, second, letters }: Pair,
  viewports: readonly number[],
): readonly Found[] {
  const { rules } = input;
  const room = (viewport: number) => {
    const beside = textBeside(rules, first.placement, viewport);
    if (beside === null || textBeside(rules, second.placement, viewport) === null) return null;
    const lines = Math.ceil(letters / Math.max(1, lettersPerLine(rules, beside, viewport)));
    // The second stands under the first where the text between them is longer than the first is high.
    if (lines * textSizeAt(rules, viewport) * LINE >= heightOf(input, first, viewport)) return null;
    const { left, right } = marginsOf(second.placement);
    return beside - shownWidth(rules, second.placement, viewport) - left - right;
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
      sentence: `Only ${fewestOf(squeezed)} letters fit between ${callPiece(first.piece)} and ${callPiece(second.piece)}.`,
      why: 'The text between them breaks into single words.',
      place: atPlacement(second.placement),
      viewports: squeezed.map(({ viewport }) => viewport),
      remedies: [
        {
          kind: 'placement',
          words: 'Put both on the same side',
          placementId: second.placement.id,
          change: { position: first.placement.position },
        },
        {
          kind: 'placement',
          words: 'Put it in the column',
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

function heightOf({ rules }: ProofInput, { placement, piece, plan }: Placed, viewport: number): number {
  const width = Math.round(shownWidth(rules, placement, viewport));
  const { top, bottom } = marginsOf(placement);
  return heightAtWidth(sizeAfter(piece.size, plan.recipe), width) + CAPTION_PX + top + bottom;
}
