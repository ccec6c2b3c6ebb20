import { isPicture } from '../../page/piece.ts';
import { altHere, captionHere } from '../../page/words.ts';
import { languageOf } from '../../words/language.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Alt text and captions in another language than the page says it is in: screen readers read them out in its sounds (WCAG 2.2, 3.1.2). */
export function checkLanguage(input: ProofInput): readonly Found[] {
  const [ofPage = ''] = input.rules.language.toLowerCase().split('-');
  return placedOf(input).flatMap((placed) => {
    const other = wordsOf(input, placed)
      .map(({ words, text }) => ({ words, language: languageOf(text) }))
      .find(({ language }) => language !== null && language !== ofPage);
    if (!other?.language) return [];
    const found: Found = {
      code: 'language-differs',
      values: { name: callPiece(placed.piece), words: other.words, language: other.language, ofPage },
      place: atPlacement(placed.placement),
      remedies:
        other.words === 'alt'
          ? [
              {
                kind: 'write-alt',
                placementId: placed.placement.id,
                assetId: placed.piece.id,
              },
            ]
          : [],
    };
    return [found];
  });
}

function wordsOf(
  { rules }: ProofInput,
  { placement, piece }: Placed,
): readonly { readonly words: 'alt' | 'caption'; readonly text: string }[] {
  const alt = altHere(rules, placement, piece);
  const caption = { words: 'caption' as const, text: captionHere(rules, placement, piece) };
  return alt.kind === 'text' && isPicture(piece) ? [{ words: 'alt', text: alt.text }, caption] : [caption];
}
