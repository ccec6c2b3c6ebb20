import * as v from 'valibot';
import { PlacementSchema } from '#core/page/blocks/placement/schema.ts';
import { pieces } from '../../../pieces/pieces.ts';
import type { SheetKind } from '../kind.ts';
import { placementNode } from './node.ts';

export const placement: SheetKind = {
  types: ['placement'],
  nodes: ({ rules, targetId }) => [placementNode(rules, targetId)],
  kept: (attrs) => v.parse(PlacementSchema, attrs),
  call: (words) => `the piece ${words}`,
  words: ({ attrs }) => {
    const asset = pieces.state.get(String(attrs.asset));
    return asset ? asset.label.title || asset.stem : '';
  },
  title: 'A piece',
  ways: [],
};
