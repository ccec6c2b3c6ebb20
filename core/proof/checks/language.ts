import { altHere, captionHere } from '../../page/words.ts';
import { callLanguage, languageOf } from '../../words/language.ts';
import type { Found } from '../finding.ts';
import { atPlacement, callPiece, type Placed, type ProofInput, placedOf } from '../input.ts';

/** Alt text and captions in another language than the page says it is in: screen readers read them out in its sounds (WCAG 2.2, 3.1.2). */
export function checkLanguage(input: ProofInput): readonly Found[] {
  const [ofPage = ''] = input.rules.language.toLowerCase().split('-');
  return placedOf(input).flatMap((placed) => {
    const other = wordsOf(placed)
      .map(({ name, text }) => ({ name, language: languageOf(text) }))
      .find(({ language }) => language !== null && language !== ofPage);
    if (!other?.language) return [];
    const found: Found = {
      code: 'language-differs',
      sentence: `The ${other.name} of ${callPiece(placed.piece)} seems to be ${callLanguage(other.language)}.`,
      why: `The page says that it is ${callLanguage(ofPage)}, and screen readers read everything out as that.`,
      place: atPlacement(placed.placement),
      remedies:
        other.name === 'alt text'
          ? [
              {
                kind: 'write-alt',
                words: 'Write alt text',
                placementId: placed.placement.id,
                assetId: placed.piece.id,
              },
            ]
          : [],
    };
    return [found];
  });
}

function wordsOf({ placement, piece }: Placed): readonly { readonly name: string; readonly text: string }[] {
  const alt = altHere(placement, piece);
  const caption = { name: 'caption', text: captionHere(placement, piece) };
  return alt.kind === 'text' && !piece.embed ? [{ name: 'alt text', text: alt.text }, caption] : [caption];
}
