import { heightAtWidth, type Size } from '../media/dimensions.ts';
import { wholeSize } from '../media/recipe.ts';
import { copyAt, judge } from '../rights/judgement.ts';
import type { Label, LabelField, LabelPatch } from '../rights/label.ts';
import { sayJudgement } from '../rights/say-judgement.ts';
import { dayIn } from '../rights/terms.ts';
import type { PageDoc } from './model.ts';
import type { Piece } from './piece.ts';
import { placementsOf } from './walk.ts';

/** Parts of a label that may go over to the piece that takes another's place. Rights never do: they are the piece's own. */
const CARRIED = ['title', 'alt', 'caption', 'translations', 'keywords'] as const;
export type Carried = (typeof CARRIED)[number];

/** What it means to put one piece in the place of another, to be read before it is done. */
export interface Replacing {
  /** What the new piece has not and the old one has, and can be carried over. */
  readonly mayCarry: readonly Carried[];
  /** What is not as it was, in sentences. */
  readonly differs: readonly string[];
}

type Target = Parameters<typeof copyAt>[0] & { readonly timeZone: string };

/** What differs between a piece and the one that is to take its place, on a target at a moment. Sizes in px. */
export function replacing(
  old: Pick<Piece, 'label' | 'size' | 'trim' | 'prep'>,
  fresh: Pick<Piece, 'label' | 'size' | 'trim' | 'prep' | 'isLicenceClaimed'>,
  target: Target,
  now: Date,
): Replacing {
  return {
    mayCarry: CARRIED.filter((field) => isSaid(old.label, field) && !isSaid(fresh.label, field)),
    differs: [...shapes(old, fresh), ...rights(fresh, target, now)],
  };
}

function isSaid(label: Label, field: Carried): boolean {
  if (field === 'alt') return label.alt.kind !== 'unsaid';
  return label[field].length > 0;
}

/** The label's parts that are carried over, as a change to the new piece. */
export function carriedOver(old: Label, fields: readonly Carried[]): LabelPatch {
  const parts: readonly (readonly [LabelField, unknown])[] = fields.map((field) => [field, old[field]]);
  return Object.fromEntries(parts);
}

/** Whether uses of a piece on a page have words of their own, which would still describe it under another. */
export interface OwnWords {
  readonly alt: boolean;
  readonly caption: boolean;
}

export function ownWordsOf(page: PageDoc, assetId: string): OwnWords {
  const uses = placementsOf(page).filter(({ asset }) => asset === assetId);
  return {
    alt: uses.some(({ alt }) => alt !== null && alt.kind !== 'unsaid'),
    caption: uses.some(({ caption }) => caption !== null && caption.trim() !== ''),
  };
}

/** "alt text", "caption", "alt text and caption". */
export function sayOwnWords({ alt, caption }: OwnWords): string {
  return [alt && 'alt text', caption && 'caption'].filter(Boolean).join(' and ');
}

/** A difference of shape under this is not seen. */
const SAME_SHAPE = 0.01;

/** Whether two sizes are of one shape, as far as can be seen. */
export const isSameShape = (one: Size, other: Size): boolean =>
  Math.abs(one.width / one.height / (other.width / other.height) - 1) <= SAME_SHAPE;

function shapes(
  old: Parameters<typeof wholeSize>[0],
  fresh: Parameters<typeof wholeSize>[0],
): readonly string[] {
  const [was, is] = [wholeSize(old), wholeSize(fresh)];
  const lines: string[] = [];
  if (!isSameShape(was, is)) {
    const high = heightAtWidth(is, 300) - heightAtWidth(was, 300);
    lines.push(
      `Its shape is another: where it is shown whole it is ${high > 0 ? 'higher' : 'lower'}, and the text round it moves.`,
    );
  }
  if (is.width < was.width)
    lines.push(`It is smaller: ${is.width} × ${is.height} px in the place of ${was.width} × ${was.height}.`);
  return lines;
}

function rights(
  { label, isLicenceClaimed }: Pick<Piece, 'label' | 'isLicenceClaimed'>,
  target: Target,
  now: Date,
): readonly string[] {
  const judgement = judge(label, copyAt(target, [], dayIn(target.timeZone, now)), isLicenceClaimed);
  return judgement.verdict === 'allowed' ? [] : [sayJudgement(judgement)];
}
