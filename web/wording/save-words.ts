import type { Asset } from '#api/assets.ts';
import type { LabelPatch } from '#core/rights/label.ts';
import { translationIn } from '#core/rights/label-in.ts';
import { requestVoid } from '../api/client.ts';
import { changePiece, pieces } from '../pieces/pieces.ts';
import { altOf, type Draft, draftOf } from './decisions.ts';

/** What is said of a piece in a language: its own for the empty text. */
export function saidOf(asset: Asset, language: string): Draft {
  if (language === '' || asset.label.alt.kind === 'decorative') return draftOf(asset.label);
  const said = translationIn(asset.label, language);
  return draftOf({
    alt: said?.alt ? { kind: 'text', text: said.alt } : { kind: 'unsaid' },
    extendedDescription: said?.extendedDescription ?? '',
  });
}

const isSame = (one: Draft, other: Draft): boolean =>
  JSON.stringify([altOf(one), one.long.trim()]) === JSON.stringify([altOf(other), other.long.trim()]);

/** Saves a draft where it says something new; as a proposal where the piece is somebody else's. */
export async function saveWords(
  asset: Asset,
  draft: Draft,
  language: string,
  isProposal: boolean,
): Promise<void> {
  const current = pieces.state.get(asset.id) ?? asset;
  if (isSame(draft, saidOf(current, language))) return;
  const extendedDescription = draft.decision === 'too-much' ? draft.long.trim() : '';
  if (isProposal)
    await requestVoid('post /assets/{id}/proposals', {
      path: { id: asset.id },
      body: { alt: altOf(draft), extendedDescription },
    });
  else
    await changePiece(
      asset.id,
      { label: patchOf(current, draft, language, extendedDescription) },
      'its words',
    );
}

function patchOf(asset: Asset, draft: Draft, language: string, extendedDescription: string): LabelPatch {
  const alt = altOf(draft);
  // That there is nothing to say holds in every language.
  if (language === '' || alt.kind === 'decorative') return { alt, extendedDescription };
  const { translations } = asset.label;
  const before = translations.find((one) => one.language === language);
  const said = {
    language,
    title: before?.title ?? '',
    caption: before?.caption ?? '',
    alt: alt.kind === 'text' ? alt.text : '',
    extendedDescription,
  };
  return { translations: [...translations.filter((one) => one.language !== language), said] };
}
