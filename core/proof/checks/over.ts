import { heightAtWidth, type Size } from '../../media/dimensions.ts';
import { contrastOver, neededContrast, plateFor } from '../../media/over-contrast.ts';
import { MOST_SIZE, type OverWords, setWords } from '../../media/over-words.ts';
import { shownWidth } from '../../page/layout.ts';
import { preparedHere, recipeHere } from '../../page/picture.ts';
import { altHere } from '../../page/words.ts';
import type { Found, PlacementRemedy, Remedy } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Letters drawn into a picture that are smaller than this in px are not read on a phone. */
const LEAST_DRAWN_PX = 12;

/** Words over pictures: whether they stand out (WCAG 2.2, 1.4.3), are large enough, and are told to those who cannot see. */
export function checkOver(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    const words = recipeHere(placed.placement, placed.piece).words;
    if (!words) return [];
    const isDrawn = placed.plan.over === null;
    const shown = input.rules.proofWidths.map((viewport) => ({
      viewport,
      size: shownAt(input, placed, viewport),
    }));
    return [
      ...faint(placed, words, shown),
      ...(isDrawn ? small(placed, words, shown) : []),
      ...(isDrawn ? unsaid(input, placed, words) : []),
    ];
  });
}

interface Shown {
  readonly viewport: number;
  readonly size: Size;
}

function shownAt({ rules }: ProofInput, { placement, room, plan }: Placed, viewport: number): Size {
  const width = Math.round(shownWidth(rules, placement, room, viewport));
  return { width, height: heightAtWidth(plan.cutSize, width) };
}

function faint(placed: Placed, words: OverWords, shown: readonly Shown[]): readonly Found[] {
  const { piece, placement } = placed;
  if (!piece.lights) return [];
  const { lights } = piece;
  const cuttable = { ...preparedHere(placement, piece), focal: piece.label.focal };
  const recipe = recipeHere(placement, piece);
  const poor = shown.flatMap(({ viewport, size }) => {
    const contrast = contrastOver(cuttable, recipe, words, size, lights);
    const needed = neededContrast(words, size);
    return contrast < needed ? [{ viewport, contrast, needed }] : [];
  });
  const [worst] = [...poor].sort((one, other) => one.contrast - other.contrast);
  if (!worst) return [];
  return [
    {
      code: 'words-faint',
      values: {
        name: callPiece(piece),
        contrast: worst.contrast,
        needed: worst.needed,
        hasPlate: words.plate !== null,
      },
      place: atPlacement(placement),
      viewports: poor.map(({ viewport }) => viewport),
      remedies: [withWords(placed, 'lay-plate', { ...words, plate: plateFor(words.ink) })],
    },
  ];
}

function small(placed: Placed, words: OverWords, shown: readonly Shown[]): readonly Found[] {
  const tiny = shown.filter(({ size }) => setWords(words, size).em < LEAST_DRAWN_PX);
  const [first] = tiny;
  if (!first) return [];
  return [
    {
      code: 'words-small',
      values: {
        name: callPiece(placed.piece),
        viewport: first.viewport,
        em: setWords(words, first.size).em,
        readable: LEAST_DRAWN_PX,
      },
      place: atPlacement(placed.placement),
      viewports: tiny.map(({ viewport }) => viewport),
      remedies: [withWords(placed, 'set-larger', { ...words, size: largeEnough(first.size) })],
    },
  ];
}

function largeEnough({ width }: Size): number {
  return Math.min(MOST_SIZE, Math.ceil((LEAST_DRAWN_PX * 1000) / width));
}

/** What is drawn is not text any more: it has to be in the alt text (W3C WAI, "Images of text"). */
function unsaid(input: ProofInput, placed: Placed, words: OverWords): readonly Found[] {
  const alt = altHere(input.rules, placed.placement, placed.piece);
  const text = oneLine(words.text);
  const said = alt.kind === 'text' ? alt.text : '';
  if (oneLine(said).toLowerCase().includes(text.toLowerCase())) return [];
  const whole = said.trim() === '' ? text : `${said.trim().replace(/[.]?$/, '.')} It says: ${text}`;
  return [
    {
      code: 'words-unsaid',
      values: { name: callPiece(placed.piece), text },
      place: atPlacement(placed.placement),
      remedies: [
        {
          kind: 'placement',
          does: 'add-to-alt',
          placementId: placed.placement.id,
          change: { alt: { kind: 'text', text: whole } },
        },
      ],
    },
  ];
}

const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim();

function withWords({ placement, piece }: Placed, does: PlacementRemedy, words: OverWords): Remedy {
  const { prep } = preparedHere(placement, piece);
  return {
    kind: 'placement',
    does,
    placementId: placement.id,
    change: { prep: { ...prep, words } },
  };
}
