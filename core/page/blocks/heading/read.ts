import * as v from 'valibot';
import { attribute, type HtmlElement } from '../../html-tree.ts';
import type { Inline } from '../../inline.ts';
import { Flow, type ReadElement, type Reader } from '../../reading.ts';
import { AnchorSchema, type HeadingLevel } from './schema.ts';

/** The levels of a page begin under its title, and end at the fourth. */
const LEVELS: Readonly<Record<string, HeadingLevel>> = { h1: 2, h2: 2, h3: 3 };

/** The level of an element that is a heading: by how it stands, by its role (ARIA, `aria-level`), or by its name. */
function levelOf(node: HtmlElement, { headings }: Reader): HeadingLevel {
  const said = Number(attribute(node, 'aria-level'));
  const name = said >= 1 ? `h${Math.round(said)}` : node.name;
  return headings.get(node) ?? LEVELS[name] ?? 4;
}

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
  const said = [...before, ...last];
  // Letters that only made a line look like a heading say no more where it is one.
  const content = reader.headings.has(node) ? said.map(withoutBold) : said;
  if (content.length > 0)
    flow.putBlock({
      type: 'heading',
      attrs: { id: reader.newId(), level: levelOf(node, reader), ...anchorIn(node) },
      content,
    });
  for (const part of inside.parts) if (part.kind !== 'block') flow.put(part);
};

function withoutBold(inline: Inline): Inline {
  if (inline.type !== 'text' || !inline.marks) return inline;
  const { marks, ...text } = inline;
  const others = marks.filter(({ type }) => type !== 'bold');
  return others.length > 0 ? { ...text, marks: others } : text;
}
