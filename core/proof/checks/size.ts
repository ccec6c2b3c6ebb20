import { timesEnlarged } from '../../media/fit.ts';
import { hasOwnWidth, shownWidth } from '../../page/layout.ts';
import type { Found, Remedy } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Enlarged, and too small for sharp screens: shown widths against the cuts that there are. */
export function checkSize(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    const { plan } = placed;
    const cutWidth = plan.cutSize.width;
    const shown = input.rules.proofWidths.map((viewport) => ({
      viewport,
      width: shownWidth(input.rules, placed.placement, placed.room, viewport),
    }));
    const enlarged = shown.filter(({ width }) => timesEnlarged(cutWidth, width, 1) > 1.005);
    if (enlarged.length > 0) return [enlargedFinding(placed, cutWidth, enlarged)];
    const soft = shown.filter(({ width }) => timesEnlarged(cutWidth, width, 2) > 1.005);
    if (soft.length > 0) return [softFinding(placed, cutWidth, soft)];
    return [];
  });
}

interface Shown {
  readonly viewport: number;
  readonly width: number;
}

function enlargedFinding(placed: Placed, cutWidth: number, at: readonly Shown[]): Found {
  const widest = Math.max(...at.map(({ width }) => width));
  return {
    code: 'enlarged',
    values: { name: callPiece(placed.piece), shown: widest, cut: cutWidth },
    place: atPlacement(placed.placement),
    viewports: at.map(({ viewport }) => viewport),
    remedies: narrower(placed, cutWidth),
  };
}

function softFinding(placed: Placed, cutWidth: number, at: readonly Shown[]): Found {
  const widest = Math.max(...at.map(({ width }) => width));
  return {
    code: 'enlarged-sharp',
    values: { name: callPiece(placed.piece), shown: widest, cut: cutWidth },
    place: atPlacement(placed.placement),
    viewports: at.map(({ viewport }) => viewport),
    remedies: [],
  };
}

/** Never wider than its own pixels: its own width where it has one, else centred at that width. */
function narrower({ placement }: Placed, cutWidth: number): readonly Remedy[] {
  const width = { unit: 'px', value: Math.max(40, cutWidth) } as const;
  const change = hasOwnWidth(placement)
    ? { width }
    : ({ width, position: 'centred', margins: null } as const);
  return [{ kind: 'placement', does: 'narrow', placementId: placement.id, change }];
}
