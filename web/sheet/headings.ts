import type { Node } from '@tiptap/pm/model';
import type { Anchored } from '#core/page/anchored.ts';
import { anchorsOf } from '#core/page/anchors.ts';
import type { Heading } from '#core/page/blocks/heading/schema.ts';
import { HEADING_LEVELS } from '#core/page/blocks/heading/schema.ts';
import { forEachBlock } from './blocks/walk.ts';

interface Known {
  readonly doc: Node;
  readonly language: string;
  readonly headings: readonly Node[];
  readonly anchored: readonly Anchored[];
}

/** Asked by each list of contents at each letter that is typed: to name 150 headings anew took 3 ms. */
let known: Known | null = null;

/** The headings of the sheet as places that a link can lead to. */
export function headingsOf(doc: Node, language: string): readonly Anchored[] {
  if (known?.doc === doc && known.language === language) return known.anchored;
  const headings = headingsIn(doc);
  const before = known?.language === language ? known : null;
  const isSame =
    before?.headings.length === headings.length && headings.every((one, at) => one === before.headings[at]);
  const anchored =
    before && isSame ? before.anchored : anchorsOf({ blocks: headings.map(headingOf) }, language);
  known = { doc, language, headings, anchored };
  return anchored;
}

function headingsIn(doc: Node): readonly Node[] {
  const headings: Node[] = [];
  forEachBlock(doc, (node) => {
    if (node.type.name === 'heading') headings.push(node);
  });
  return headings;
}

function headingOf({ attrs, textContent }: Node): Heading {
  const { id, level, anchor } = attrs;
  return {
    type: 'heading',
    attrs: {
      id: String(id),
      level: HEADING_LEVELS.find((one) => one === level) ?? 2,
      ...(typeof anchor === 'string' && anchor !== '' ? { anchor } : {}),
    },
    content: textContent === '' ? [] : [{ type: 'text', text: textContent }],
  };
}
