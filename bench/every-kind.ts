import { USUAL_BANNER } from '#core/page/blocks/banner/schema.ts';
import type { Block } from '#core/page/blocks/block.ts';
import type { InPart } from '#core/page/blocks/kept-part/schema.ts';
import type { PlacedBlock } from '#core/page/blocks/placement/schema.ts';
import { examplePlacement, heading, paragraph, placed, tableRow } from '#core/page/testing.ts';
import { placementsOf } from '#core/page/walk.ts';

const WORDS = 'You hear them long before you see one: a note like breath across the neck of a bottle.';

/** Blocks of every kind in turns, until so many pieces stand in them. */
export function everyKind(assetIds: readonly string[], placements: number): Block[] {
  let count = 0;
  const id = () => `every-${++count}`;
  const piece = (): PlacedBlock =>
    placed(examplePlacement('column', { id: id(), asset: assetIds[count % assetIds.length] ?? '' }));
  const pieces = (length: number) => Array.from({ length }, piece);
  const text = () => paragraph(WORDS, id());
  const head = () => heading('Eleven males', 2, id());
  const arranged: readonly (() => InPart)[] = [
    () => ({ type: 'gallery', attrs: { id: id(), perRow: 3, gap: 8, caption: '' }, content: pieces(12) }),
    () => ({
      type: 'cards',
      attrs: { id: id(), perRow: 4, gap: 24 },
      content: Array.from({ length: 8 }, () => ({
        type: 'card' as const,
        attrs: { id: id(), link: '' },
        content: [piece(), head(), text()],
      })),
    }),
    () => ({
      type: 'columns',
      attrs: { id: id(), gap: 28 },
      content: [1, 2].map(() => ({
        type: 'column' as const,
        attrs: { id: id(), share: 50, leads: false },
        content: [piece(), piece(), text()],
      })),
    }),
    () => ({
      type: 'sideBox',
      attrs: { id: id(), title: 'Boots', position: 'beside-right', share: 40 },
      content: [text(), piece()],
    }),
    () => ({ type: 'details', attrs: { id: id(), summary: 'More' }, content: [text(), piece()] }),
    () => ({
      type: 'quotation',
      attrs: { id: id(), attribution: 'Ines Okonjo', cite: '' },
      content: [text()],
    }),
    () => ({ type: 'beforeAfter', attrs: { id: id(), divider: 50 }, content: pieces(2) }),
    () => ({
      type: 'banner',
      attrs: { id: id(), ...USUAL_BANNER },
      content: [piece(), { type: 'bannerWords', attrs: { id: id() }, content: [text()] }],
    }),
    () => ({
      type: 'table',
      attrs: { id: id(), caption: '' },
      content: Array.from({ length: 8 }, () => tableRow('Monday', '06:12', '4.1', '18:40', '4.3')),
    }),
    () => ({ type: 'codeBlock', attrs: { id: id() }, content: [{ type: 'text', text: 'level = 4' }] }),
    () => ({ type: 'rule', attrs: { id: id() } }),
  ];
  const kinds: readonly (() => Block)[] = [
    text,
    head,
    piece,
    ...arranged,
    () => ({ type: 'keptPart', attrs: { id: id(), part: '' }, content: [head(), text(), piece()] }),
    () => ({ type: 'contents', attrs: { id: id(), deepest: 2 } }),
  ];
  const blocks: Block[] = [text()];
  for (let at = 0; placementsOf({ blocks }).length < placements; at += 1)
    blocks.push(...[kinds[at % kinds.length]?.()].flatMap((block) => block ?? []));
  return blocks;
}
