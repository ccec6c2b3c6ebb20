import type { Editor } from '@tiptap/core';
import type { Ratio } from '#core/media/crop.ts';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { OneOf } from '../../ui/chips.tsx';
import { shapePieces } from './arrange.ts';

const OWN_SHAPE = 'own';
const SHAPES = [
  [OWN_SHAPE, 'each its own'],
  ['4:3', '4:3'],
  ['3:2', '3:2'],
  ['1:1', '1:1'],
] as const;

interface ShapeChoiceProps {
  readonly editor: Editor;
  /** The ID of the arrangement. */
  readonly id: string;
  readonly placements: readonly Placement[];
}

/** The shape that all pictures of an arrangement are cut to. */
export function ShapeChoice({ editor, id, placements }: ShapeChoiceProps) {
  if (placements.length === 0) return null;
  return (
    <OneOf
      about="Shape of the pictures"
      value={sharedShape(placements)}
      choices={SHAPES}
      onChoose={(chosen) => shapePieces(editor, id, chosen === OWN_SHAPE ? null : ratioOf(chosen))}
    />
  );
}

function ratioOf(shape: string): Ratio {
  const [across = 1, down = 1] = shape.split(':').map(Number);
  return { across, down };
}

/** The one that they share, where they do and it is one of those that are offered. */
function sharedShape(placements: readonly Placement[]) {
  const [first, ...others] = placements.map(({ ratio }) =>
    ratio === null ? OWN_SHAPE : `${ratio.across}:${ratio.down}`,
  );
  const shared = others.every((shape) => shape === first) ? first : undefined;
  return SHAPES.find(([shape]) => shape === shared)?.[0] ?? null;
}
