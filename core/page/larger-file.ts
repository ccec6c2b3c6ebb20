import { newPlacement } from './blocks/placement/schema.ts';
import { type Cut, planPicture } from './picture.ts';
import type { Piece } from './piece.ts';
import { columnRoom } from './room.ts';
import type { HouseRules } from './target.ts';

/** The file that opens where words lead to a picture: as large as one that opens from its own thumbnail. */
export function largerFile(rules: HouseRules, piece: Piece): Cut | null {
  if (piece.kind !== 'picture') return null;
  const placement = { ...newPlacement(`words to ${piece.id}`, piece.id), click: { kind: 'larger' } as const };
  return planPicture(rules, { placement, room: columnRoom(rules) }, piece).larger;
}
