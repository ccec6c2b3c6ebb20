import type { JSONContent } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import * as v from 'valibot';
import { type Block, BlockSchema } from '#core/page/blocks/block.ts';
import { kindOf } from '#core/page/blocks/kinds.ts';
import { ItemsSchema, shallowItems } from '#core/page/blocks/list/schema.ts';
import { COMPARED_FACTS, saidFacts } from '#core/page/compare.ts';
import { MarkSchema } from '#core/page/inline.ts';
import { type PageDoc, PageOfBlocksSchema } from '#core/page/model.ts';
import { withBlocks } from '#core/page/walk.ts';
import { keptOfPart, sheetKindOf } from './blocks/kinds.ts';
import { PICTURE_OFFER } from './rich-text.ts';

/** The page as the editor's document. It ends in a paragraph, so that there is always somewhere to write. */
export function toEditor(page: PageDoc): JSONContent {
  return {
    type: 'doc',
    attrs: factsOf(page),
    content: withLastParagraph(withBlocks(page, writable).blocks),
  };
}

/**
 * What holds others and is left with none, as when two people each took the other half out: a line to write in where words
 * may stand in it, and nothing where only pieces may. The editor knows no such thing.
 */
function writable(block: Block): Block | null {
  const { inside } = kindOf(block);
  if (!inside || inside.of(block).length > 0) return block;
  const line: Block = { type: 'paragraph', attrs: { id: crypto.randomUUID() } };
  const filled = inside.with(block, [line]);
  return inside.of(filled).length > 0 ? filled : null;
}

/** The page's own facts as attributes of the document. */
export function factsOf({ title, wants, tray, language, ...page }: PageDoc) {
  const said = OPTIONAL_FACTS.map((fact) => [fact, page[fact] ?? null] as const);
  return { title, wants, tray, ...Object.fromEntries(said), language: language ?? null };
}

/** What a page says of itself where somebody has said it. */
export const OPTIONAL_FACTS = COMPARED_FACTS.filter((fact) => fact !== 'title');

function withLastParagraph(blocks: readonly Block[]): JSONContent[] {
  const last = blocks.at(-1);
  const line = { type: 'paragraph', attrs: { id: crypto.randomUUID() } };
  return last?.type === 'paragraph' ? [...blocks] : [...blocks, line];
}

/**
 * The editor's document as a page. Attributes of its own that a page does not have are left away. A block that was read
 * before is the very same one again: of a page of 300 placements only what was typed in is read at a pause of typing.
 */
export function fromEditor({ attrs, children }: Node): PageDoc {
  const { title, wants, tray, language, ...facts } = attrs;
  return v.parse(PageOfBlocksSchema, {
    title,
    wants,
    tray,
    ...saidFacts((fact) => (typeof facts[fact] === 'string' ? facts[fact] : undefined)),
    ...(typeof language === 'string' ? { language } : {}),
    blocks: children.flatMap(blocksRead),
  });
}

const BlocksSchema = v.array(BlockSchema);
/** The blocks of nodes of the editor, which never change: what is typed makes others. */
const readBefore = new WeakMap<Node, readonly Block[]>();

function blocksRead(node: Node): readonly Block[] {
  const known = readBefore.get(node);
  if (known) return known;
  const read = v.parse(BlocksSchema, blockOf(node.toJSON()));
  readBefore.set(node, read);
  return read;
}

/** A block with its ID; none for what is the sheet's alone. */
function blockOf(node: JSONContent): JSONContent[] {
  const kind = sheetKindOf(node.type ?? '');
  if (node.type === PICTURE_OFFER) return [];
  const attrs = { id: node.attrs?.id, ...kind?.kept(node.attrs ?? {}) };
  const { content } = node;
  return [{ type: node.type ?? '', attrs, ...(content ? { content: contentOf(content) } : {}) }];
}

/** What stands in a block: blocks, entries of a list, or words. */
function contentOf(content: JSONContent[]): JSONContent[] {
  if (content.some(({ type = '' }) => type === PICTURE_OFFER || sheetKindOf(type)))
    return content.flatMap(blockOf);
  const plain = content.map(partOf);
  // What was pasted may hold lists within lists without end.
  const items = v.safeParse(ItemsSchema, plain);
  return items.success ? shallowItems(items.output) : plain;
}

/** What is part of a block and has no ID: entries with their lines and lists, and words with their marks. */
function partOf(node: JSONContent): JSONContent {
  const content = node.content?.map(partOf);
  const marks = node.marks?.flatMap(plainMark);
  const kept = keptOfPart(node.type ?? '', node.attrs ?? {});
  return {
    type: node.type ?? '',
    ...(Object.keys(kept).length > 0 ? { attrs: kept } : {}),
    ...(node.text === undefined ? {} : { text: node.text }),
    ...(marks && marks.length > 0 ? { marks } : {}),
    ...(content ? { content } : {}),
  };
}

/** What a page keeps of the attributes of a mark; a mark that says nothing without them is left away. */
const KEPT_OF_MARK: Readonly<Record<string, (attrs: Readonly<Record<string, unknown>>) => object>> = {
  link: ({ href, newWindow }) => ({ href: String(href ?? ''), ...(newWindow === true ? { newWindow } : {}) }),
  abbreviation: ({ title }) => ({ title: String(title ?? '') }),
  language: ({ lang }) => ({ lang: String(lang ?? '') }),
};

function plainMark(mark: { type: string; attrs?: Record<string, unknown> }) {
  const kept = KEPT_OF_MARK[mark.type];
  const plain = { type: mark.type, ...(kept ? { attrs: kept(mark.attrs ?? {}) } : {}) };
  return v.is(MarkSchema, plain) ? [plain] : [];
}
