import * as v from 'valibot';
import { attribute, type HtmlElement } from '../../html-tree.ts';
import { Flow, type ReadElement } from '../../reading.ts';
import { AnchorSchema, type HeadingLevel } from './schema.ts';

/** The levels of a page begin under its title, and end at the fourth. */
const LEVELS: Readonly<Record<string, HeadingLevel>> = { h1: 2, h2: 2, h3: 3 };

/** The anchor that it has, where it is one that a page may have. */
function anchorIn(node: HtmlElement): { readonly anchor?: string } {
  const read = v.safeParse(AnchorSchema, attribute(node, 'id'));
  return read.success ? { anchor: read.output } : {};
}

/** Its words in one line; what else stands in it comes behind. */
export const readHeading: ReadElement = (node, flow, reader) => {
  flow.endParagraph();
  const inside = new Flow(reader.newId);
  reader.readAll(node.children, inside, []);
  const last = inside.takeInlines();
  const before = inside.parts.flatMap((part) =>
    part.kind === 'block' && part.block.type === 'paragraph' ? (part.block.content ?? []) : [],
  );
  const content = [...before, ...last];
  if (content.length > 0)
    flow.putBlock({
      type: 'heading',
      attrs: { id: reader.newId(), level: LEVELS[node.name] ?? 4, ...anchorIn(node) },
      content,
    });
  for (const part of inside.parts) if (part.kind !== 'block') flow.put(part);
};
