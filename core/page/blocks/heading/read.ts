import { Flow, type ReadElement } from '../../reading.ts';
import type { HeadingLevel } from './schema.ts';

/** The levels of a page begin under its title, and end at the fourth. */
const LEVELS: Readonly<Record<string, HeadingLevel>> = { h1: 2, h2: 2, h3: 3 };

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
      attrs: { id: reader.newId(), level: LEVELS[node.name] ?? 4 },
      content,
    });
  for (const part of inside.parts) if (part.kind !== 'block') flow.put(part);
};
