import type { JSONContent } from '@tiptap/core';
import * as v from 'valibot';
import {
  type Block,
  isLinkAddress,
  ListSchema,
  type PageDoc,
  PageDocSchema,
  PlacementSchema,
  shallowList,
} from '#core/page/model.ts';
import { PICTURE_OFFER } from './rich-text.ts';

/** The page as the editor's document. It ends in a paragraph, so that there is always somewhere to write. */
export function toEditor(page: PageDoc): JSONContent {
  return {
    type: 'doc',
    attrs: { title: page.title, wants: page.wants, tray: page.tray },
    content: withLastParagraph(page.blocks),
  };
}

function withLastParagraph(blocks: readonly Block[]): JSONContent[] {
  const last = blocks.at(-1);
  return last?.type === 'paragraph' ? [...blocks] : [...blocks, { type: 'paragraph' }];
}

/** The editor's document as a page. Attributes of its own that a page does not have are left away. */
export function fromEditor(json: JSONContent): PageDoc {
  const { title, wants, tray } = json.attrs ?? {};
  return v.parse(PageDocSchema, {
    title,
    wants,
    tray,
    blocks: (json.content ?? [])
      .filter(({ type }) => type !== PICTURE_OFFER)
      .map(plainNode)
      .map(shallow),
  });
}

/** What was pasted may hold lists within lists without end. */
function shallow(node: JSONContent): JSONContent {
  const list = v.safeParse(ListSchema, node);
  return list.success ? shallowList(list.output) : node;
}

function plainNode(node: JSONContent): JSONContent {
  const content = node.content?.map(plainNode);
  const marks = node.marks?.flatMap(plainMark);
  const attrs = plainAttributes(node);
  return {
    type: node.type ?? '',
    ...(attrs ? { attrs } : {}),
    ...(node.text === undefined ? {} : { text: node.text }),
    ...(marks && marks.length > 0 ? { marks } : {}),
    ...(content ? { content } : {}),
  };
}

function plainAttributes(node: JSONContent): Record<string, unknown> | undefined {
  switch (node.type) {
    case 'heading':
      return { level: node.attrs?.level };
    case 'orderedList':
      return { start: node.attrs?.start ?? 1 };
    case 'placement':
      return v.parse(PlacementSchema, node.attrs);
    default:
      return undefined;
  }
}

function plainMark(mark: { type: string; attrs?: Record<string, unknown> }) {
  if (mark.type !== 'link') return [{ type: mark.type }];
  const href = String(mark.attrs?.href ?? '');
  return isLinkAddress(href) ? [{ type: 'link', attrs: { href } }] : [];
}
