import { altHere, captionHere } from '../../page/words.ts';
import { altFault, sayAltFault, withoutImageOf } from '../../words/alt.ts';
import type { Found, Remedy } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Alt text by the W3C WAI decision tree; WCAG 2.2, 1.1.1. */
export function checkWords(input: ProofInput): readonly Found[] {
  return placedOf(input).flatMap((placed) => {
    // The poster of an embed says nothing; the frame has a title of its own.
    if (placed.piece.embed) return [];
    const alt = altHere(placed.placement, placed.piece);
    const fault = altFault(alt, {
      linked: isLinked(placed),
      caption: captionHere(placed.placement, placed.piece),
    });
    if (!fault) return [];
    const missing = fault === 'missing' || fault === 'decorative-linked';
    return [
      {
        code: missing ? 'alt-missing' : 'alt-poor',
        sentence: missing
          ? `${callPiece(placed.piece)} has no alt text yet.`
          : `The words of ${callPiece(placed.piece)} need another look.`,
        why:
          fault === 'missing'
            ? 'Nobody has said yet whether it is decorative or what it shows.'
            : sayAltFault(fault),
        place: atPlacement(placed.placement),
        remedies: remediesOf(placed, fault),
      },
    ];
  });
}

function isLinked({ placement }: Placed): boolean {
  return placement.click.kind !== 'nothing';
}

function remediesOf(placed: Placed, fault: string): readonly Remedy[] {
  const { placement, piece } = placed;
  const alt = altHere(placement, piece);
  const write: Remedy = {
    kind: 'write-alt',
    words: 'Write alt text',
    placementId: placement.id,
    assetId: piece.id,
  };
  if (fault === 'image-of' && alt.kind === 'text') {
    const text = withoutImageOf(alt.text);
    return [
      {
        kind: 'placement',
        words: 'Drop those words',
        placementId: placement.id,
        change: { alt: { kind: 'text', text } },
      },
      write,
    ];
  }
  if (fault !== 'missing' || isLinked(placed)) return [write];
  return [
    write,
    {
      kind: 'placement',
      words: 'It is decorative',
      placementId: placement.id,
      change: { alt: { kind: 'decorative' } },
    },
  ];
}
