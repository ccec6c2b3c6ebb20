import { type KnownPlacement, signOf } from '../blocks/placement/sign.ts';
import { attribute, changedNodes, type HtmlElement, type HtmlNode, withChildren } from '../html-tree.ts';
import type { LeftOut } from '../left-out.ts';
import type { PageDoc } from '../model.ts';
import { type HtmlReading, readSeen } from '../read-html.ts';
import type { ReadPart } from '../reading.ts';
import { withoutHidden } from '../silent.ts';
import { standsIn } from '../standing.ts';
import { walkRooms } from '../walk.ts';
import type { WriteContext } from '../write-context.ts';
import { kept } from './kept.ts';

type Context = Pick<WriteContext, 'rules' | 'pieces'>;

/** What source says, on the page that it was written from. */
export interface SourceReading {
  readonly page: PageDoc;
  readonly leftOut: readonly LeftOut[];
  /** Pictures and frames that stood there as code: they come onto a page by Gather and Embeds, and are none of it yet. */
  readonly others: readonly Exclude<ReadPart, { readonly kind: 'block' }>[];
}

/**
 * Reads a tree of source (`write.ts`) onto the page that it was written from, by the reader of all HTML (`read-html.ts`).
 * Blocks that say what they said are the very blocks of that page; those that say otherwise keep their IDs where they stand
 * where they stood. What source does not show stays: wants, tray, and blank lines.
 */
export function readSource(
  nodes: readonly HtmlNode[],
  page: PageDoc,
  context: Context,
  newId: () => string,
): SourceReading {
  const { parts, leftOut } = readAnew(nodes, page, context, newId);
  const blocks = parts.flatMap((part) => (part.kind === 'block' ? [part.block] : []));
  const others = parts.flatMap((part) => (part.kind === 'block' ? [] : [part]));
  return { page: { ...page, blocks: kept(page, blocks, context) }, leftOut, others };
}

/** What source says, each block read anew from it, with the settings of the pieces that it names. */
export function readAnew(
  nodes: readonly HtmlNode[],
  page: PageDoc,
  context: Context,
  newId: () => string,
): HtmlReading {
  const tree = withoutHidden(saidToOpen(nodes));
  return readSeen(tree, newId, new Map(), signsOf(page, context, newId));
}

/** The pieces of a page by their signs. One that is named again is one more use of its piece, with the same settings. */
function signsOf(page: PageDoc, context: Context, newId: () => string) {
  const known = new Map<string, KnownPlacement>();
  for (const { block, room } of walkRooms(page, context))
    if (block.type === 'placement')
      known.set(block.attrs.id, {
        placement: block.attrs,
        styles: context.rules.pictureStyles.map(({ className }) => className),
        sign: signOf(standsIn(block.attrs, room), { ...context, room }),
      });
  const named = new Set<string>();
  return (id: string): KnownPlacement | null => {
    const found = known.get(id);
    if (!found) return null;
    if (!named.has(id)) {
      named.add(id);
      return found;
    }
    return { ...found, placement: { ...found.placement, id: newId() } };
  };
}

/** In source the address alone says that a link opens a new window; the words that say so to all are written by Placard. */
function saidToOpen(nodes: readonly HtmlNode[]): readonly HtmlNode[] {
  return changedNodes(nodes, (node) => {
    if (typeof node === 'string') return node;
    const inside = withChildren(node, saidToOpen);
    if (node.name !== 'a' || attribute(node, 'target') !== '_blank') return inside;
    return { ...inside, children: [...inside.children, SAYS] };
  });
}

const SAYS: HtmlElement = {
  name: 'span',
  attributes: [{ name: 'class', value: 'link-says' }],
  children: [],
};
