import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { InlinesSchema } from '../../inline.ts';

/** Words of an entry. They are part of the list, and so have no ID of their own. */
export const LineSchema = v.strictObject({ type: v.literal('paragraph'), content: InlinesSchema });
export type Line = v.InferOutput<typeof LineSchema>;

export interface ListItem {
  type: 'listItem';
  content: (Line | InnerList)[];
}
/** A list in an entry of another. */
export type InnerList =
  | { type: 'bulletList'; content: ListItem[] }
  | { type: 'orderedList'; attrs?: { start: number }; content: ListItem[] };

const ListItemSchema: v.GenericSchema<ListItem> = v.strictObject({
  type: v.literal('listItem'),
  content: v.array(v.lazy(() => v.union([LineSchema, InnerListSchema]))),
});
const start = v.pipe(v.number(), v.integer());
export const ItemsSchema = v.array(ListItemSchema);
const InnerListSchema: v.GenericSchema<InnerList> = v.variant('type', [
  v.strictObject({ type: v.literal('bulletList'), content: ItemsSchema }),
  v.strictObject({
    type: v.literal('orderedList'),
    attrs: v.exactOptional(v.strictObject({ start })),
    content: ItemsSchema,
  }),
]);

/**
 * How deep lists may go. What is stored as JSON is at most 32 levels deep (MariaDB, JSON_VALID), and each list takes four
 * of them; a list that deep is no longer one to a reader either.
 */
export const LIST_DEPTH_LIMIT = 5;

const TOO_DEEP = `Lists go at most ${LIST_DEPTH_LIMIT} deep. Take the innermost out of one of those round it.`;
const shallow = v.pipe(
  ItemsSchema,
  v.check((content) => depthOf(content) <= LIST_DEPTH_LIMIT, TOO_DEEP),
);

export const BulletListSchema = v.strictObject({
  type: v.literal('bulletList'),
  attrs: v.strictObject({ id: IdSchema }),
  content: shallow,
});
export const OrderedListSchema = v.strictObject({
  type: v.literal('orderedList'),
  attrs: v.strictObject({ id: IdSchema, start: v.exactOptional(start) }),
  content: shallow,
});
export type List = v.InferOutput<typeof BulletListSchema> | v.InferOutput<typeof OrderedListSchema>;

/** How many lists deep a list of these entries is, without recursion: it may come from outside. */
function depthOf(content: readonly ListItem[]): number {
  let deepest = 0;
  const waiting = [{ content, depth: 1 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    deepest = Math.max(deepest, next.depth);
    for (const item of next.content)
      for (const part of item.content)
        if (part.type !== 'paragraph') waiting.push({ content: part.content, depth: next.depth + 1 });
  }
  return deepest;
}

/** Entries that are at most as deep as lists may be: what lies deeper becomes lines of the innermost. */
export function shallowItems(content: readonly ListItem[], depth = 1): ListItem[] {
  return content.map((item) => ({
    ...item,
    content: item.content.flatMap((part): ListItem['content'] => {
      if (part.type === 'paragraph') return [part];
      return depth < LIST_DEPTH_LIMIT
        ? [{ ...part, content: shallowItems(part.content, depth + 1) }]
        : linesOf(part);
    }),
  }));
}

/** All lines of a list, those of the lists in it among them, in reading order. */
export function linesOf({ content }: { readonly content: readonly ListItem[] }): Line[] {
  return content.flatMap((item) =>
    item.content.flatMap((part) => (part.type === 'paragraph' ? [part] : linesOf(part))),
  );
}
