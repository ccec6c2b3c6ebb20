import { AS_IT_CAME } from '../media/recipe.ts';
import { EMPTY_LABEL, type LabelPatch, withPatch } from '../rights/label.ts';
import { type Block, newPlacement, type PageDoc, type Placement, type Position } from './model.ts';
import type { Piece } from './picture.ts';
import type { HouseRules } from './target.ts';
import { usualRules } from './usual-rules.ts';

/** House rules as plain as they can be, for examples in tests. */
export const PLAIN_RULES: HouseRules = {
  ...usualRules({ name: 'Reserve site', siteAddress: '', commercial: true }),
  cutPresets: [],
  namePattern: [{ part: 'subject' }],
  weightBudget: 50_000_000,
  severities: {},
};

/** A piece that nothing is wrong with, with some of its facts changed. */
export function examplePiece(
  change: Partial<Omit<Piece, 'label'>> & { readonly label?: LabelPatch } = {},
): Piece {
  const good = withPatch(EMPTY_LABEL, {
    title: 'Heron',
    maker: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    alt: { kind: 'text', text: 'A heron stands in the reeds.' },
  });
  const { label, ...facts } = change;
  return {
    id: 'heron',
    stem: 'heron',
    extension: 'jpg',
    size: { width: 6000, height: 4000 },
    trim: null,
    prep: AS_IT_CAME,
    bytes: 9_000_000,
    alpha: false,
    animated: false,
    ...facts,
    label: withPatch(good, label ?? {}),
  };
}

export function examplePlacement(position: Position, change: Partial<Placement> = {}): Placement {
  return { ...newPlacement('one', 'heron', position), ...change };
}

export function paragraph(words: string): Block {
  return { type: 'paragraph', content: [{ type: 'text', text: words }] };
}

/** A titled page of these blocks. */
export function examplePage(...blocks: Block[]): PageDoc {
  return { title: 'Bitterns', wants: [], tray: [], blocks };
}
