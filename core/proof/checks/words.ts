import { linkedFiles } from '../../page/linked.ts';
import { isPicture } from '../../page/piece.ts';
import { altHere, captionHere } from '../../page/words.ts';
import { type AltFault, altFault, withoutImageOf, withoutMarkup } from '../../words/alt.ts';
import type { Found, Remedy } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Alt text by the W3C WAI decision tree; WCAG 2.2, 1.1.1. */
export function checkWords(input: ProofInput): readonly Found[] {
  return [...checkPlaced(input), ...checkLinked(input)];
}

/** A picture that words lead to is shown by itself, and says then what it shows. */
function checkLinked({ page, pieces, rules }: ProofInput): readonly Found[] {
  return linkedFiles(page).flatMap(({ blockId, placement }): Found[] => {
    const piece = pieces.get(placement.asset);
    if (piece?.kind !== 'picture') return [];
    const fault = altFault(altHere(rules, placement, piece), { linked: true, caption: '' });
    if (fault !== 'missing' && fault !== 'decorative-linked') return [];
    const place = { kind: 'block', blockId } as const;
    return [{ code: 'alt-missing', values: { name: callPiece(piece), fault }, place, remedies: [] }];
  });
}

function checkPlaced(input: ProofInput): readonly Found[] {
  const all = placedOf(input);
  return all.flatMap((placed, at): readonly Found[] => {
    // What shows an embed or a document says nothing; the frame and the link have names of their own.
    if (!isPicture(placed.piece)) return [];
    const alt = altHere(input.rules, placed.placement, placed.piece);
    const fault = altFault(alt, {
      linked: isLinked(placed),
      caption: captionHere(input.rules, placed.placement, placed.piece),
      neighbours: [all[at - 1], all[at + 1]].flatMap((other) => altBeside(input, placed, other)),
    });
    if (!fault) return [];
    const name = callPiece(placed.piece);
    const rest = { place: atPlacement(placed.placement), remedies: remediesOf(input, placed, fault) };
    return fault === 'missing' || fault === 'decorative-linked'
      ? [{ code: 'alt-missing', values: { name, fault }, ...rest }]
      : [{ code: 'alt-poor', values: { name, fault }, ...rest }];
  });
}

/** The alt text of a neighbour that is another picture: the same picture shown twice says the same twice. */
function altBeside({ rules }: ProofInput, { piece }: Placed, other: Placed | undefined): readonly string[] {
  if (!other || other.piece.id === piece.id || !isPicture(other.piece)) return [];
  const alt = altHere(rules, other.placement, other.piece);
  return alt.kind === 'text' ? [alt.text] : [];
}

function isLinked({ placement }: Placed): boolean {
  return placement.click.kind !== 'nothing';
}

function remediesOf(input: ProofInput, placed: Placed, fault: AltFault): readonly Remedy[] {
  const { placement, piece } = placed;
  const alt = altHere(input.rules, placement, piece);
  const write: Remedy = {
    kind: 'write-alt',
    placementId: placement.id,
    assetId: piece.id,
  };
  if (fault === 'image-of' && alt.kind === 'text') {
    const text = withoutImageOf(alt.text);
    return [
      {
        kind: 'placement',
        does: 'drop-image-of',
        placementId: placement.id,
        change: { alt: { kind: 'text', text } },
      },
      write,
    ];
  }
  if (fault === 'markup' && alt.kind === 'text' && withoutMarkup(alt.text) !== '')
    return [
      {
        kind: 'placement',
        does: 'drop-markup',
        placementId: placement.id,
        change: { alt: { kind: 'text', text: withoutMarkup(alt.text) } },
      },
      write,
    ];
  if ((fault !== 'missing' && fault !== 'decorative-said') || isLinked(placed)) return [write];
  return [
    write,
    {
      kind: 'placement',
      does: 'decorative',
      placementId: placement.id,
      change: { alt: { kind: 'decorative' } },
    },
  ];
}
