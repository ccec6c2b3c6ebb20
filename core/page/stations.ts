import { nameFault } from '../naming/rule.ts';
import type { Placement } from './blocks/placement/schema.ts';
import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import type { HouseRules } from './target.ts';
import { placementsOf } from './walk.ts';
import { altHere, judgeUses } from './words.ts';

/** How far a page is at each station of the job, and what is missing there. */
export interface Station {
  readonly id: 'wanted' | 'cleared' | 'prepared' | 'worded' | 'placed';
  readonly name: string;
  readonly done: number;
  readonly of: number;
  /** The piece or want to open: what is missing first, or a want where none is; null where there is nothing to open. */
  readonly next: { readonly kind: 'asset' | 'want'; readonly id: string } | null;
}

/** The stations of a page, counted over its wants and the pieces on its tray. */
export function stationsOf(
  page: PageDoc,
  pieces: ReadonlyMap<string, Piece>,
  rules: HouseRules,
  now: Date,
): readonly Station[] {
  const gathered = page.tray.flatMap((assetId) => pieces.get(assetId) ?? []);
  const usesOf = new Map<string, Placement[]>();
  for (const placement of placementsOf(page)) {
    const known = usesOf.get(placement.asset);
    if (known) known.push(placement);
    else usesOf.set(placement.asset, [placement]);
  }
  const uses = (piece: Piece) => usesOf.get(piece.id) ?? [];
  const isCleared = (piece: Piece) => judgeUses(rules, uses(piece), piece, now).verdict === 'allowed';
  const isWorded = (piece: Piece) => {
    const here = uses(piece);
    if (here.length > 0) return here.every((placement) => altHere(rules, placement, piece).kind !== 'unsaid');
    return piece.label.alt.kind !== 'unsaid';
  };
  const station = (id: Station['id'], name: string, isDone: (piece: Piece) => boolean): Station => {
    const open = gathered.filter((piece) => !isDone(piece));
    return {
      id,
      name,
      done: gathered.length - open.length,
      of: gathered.length,
      next: open[0] ? { kind: 'asset', id: open[0].id } : null,
    };
  };
  // All of them filled, they can still be looked at.
  const open = page.wants.find((want) => want.filledBy === null) ?? page.wants[0];
  return [
    {
      id: 'wanted',
      name: 'Wanted',
      done: page.wants.filter((want) => want.filledBy !== null).length,
      of: page.wants.length,
      next: open ? { kind: 'want', id: open.id } : null,
    },
    station('cleared', 'Cleared', isCleared),
    station(
      'prepared',
      'Prepared',
      (piece) => nameFault(piece.stem) === undefined && piece.label.title !== '',
    ),
    station('worded', 'Worded', isWorded),
    station('placed', 'Placed', (piece) => uses(piece).length > 0),
  ];
}
