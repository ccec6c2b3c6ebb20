import type { Asset } from '#api/assets.ts';
import { sayKind } from '#core/embed/model.ts';
import { sayTime } from '#core/embed/parameters.ts';
import { filmKind, sayFilmLength } from '#core/film/facts.ts';
import { isPicture } from '#core/page/piece.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import type { LicenceTerms } from '#core/rights/licences.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';

/** A short status, as it stands under a piece. `isDue` where it still needs a hand. */
export interface PieceStatus {
  readonly words: string;
  readonly isDue: boolean;
}

/** What is missing first, else what it is, what is owed and where it is used. */
export function statusOf(asset: Asset): PieceStatus {
  const { label } = asset;
  if (label.licence === 'comp') return { words: `${sayWhat(asset)} comp, not bought`, isDue: true };
  const missing = [
    label.licence === 'unknown' ? 'not cleared' : '',
    label.title === '' ? 'no title' : '',
    label.alt.kind === 'unsaid' ? 'no alt text' : '',
  ].filter(Boolean);
  if (missing.length > 0)
    return {
      words: [isPicture(asset) ? '' : sayWhat(asset), ...missing].filter(Boolean).join(', '),
      isDue: true,
    };
  const owes = OWES[termsOf(label).owesCredit];
  return {
    words: [sayWhat(asset), owes, asset.usedOn.length > 0 ? sayPageCount(asset) : '']
      .filter(Boolean)
      .join(' · '),
    isDue: false,
  };
}

const OWES: Readonly<Record<LicenceTerms['owesCredit'], string>> = {
  yes: 'credit owed',
  asked: 'credit asked',
  house: 'ours',
  no: '',
};

/** Its size in px; of an embed what it is, and how long; of a document its format and its pages. */
function sayWhat(asset: Asset): string {
  switch (asset.kind) {
    case 'picture':
      return `${asset.width} × ${asset.height}`;
    case 'embed': {
      const { kind, facts } = asset.embed.embed;
      return facts.seconds === null
        ? sayKind(kind)
        : `${sayKind(kind)} ${sayTime(Math.round(facts.seconds))}`;
    }
    case 'film':
      return `${filmKind(asset.film)} ${sayFilmLength(asset.film)}`;
    case 'document': {
      const { format, pages } = asset.document;
      const name = format.toUpperCase();
      return pages === null ? name : `${name}, ${pages === 1 ? '1 page' : `${pages} pages`}`;
    }
  }
}
