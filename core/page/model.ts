import * as v from 'valibot';
import { LanguageTagSchema } from '../words/language-tag.ts';
import { type Block, BlockSchema } from './blocks/block.ts';
import { IdSchema } from './id.ts';
import { PageAddressSchema } from './page-address.ts';

/** A piece that the page needs and may not have yet. `filledBy` names the piece that fills it. */
export const WantSchema = v.strictObject({
  id: IdSchema,
  purpose: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say what the piece is for.'), v.maxLength(200)),
  shape: v.picklist(['any', 'landscape', 'portrait', 'square']),
  leastWidth: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(20_000)),
  filledBy: v.nullable(IdSchema),
});
export type Want = v.InferOutput<typeof WantSchema>;

const oneLine = (most: number) =>
  v.pipe(v.string(), v.trim(), v.maxLength(most, `At most ${most} letters fit here.`));

/** Whether no ID stands twice among blocks and what is in them. */
function haveOwnIds(blocks: Block[]): boolean {
  const ids = idsIn(blocks);
  return new Set(ids).size === ids.length;
}

function idsIn(nodes: readonly unknown[]): readonly string[] {
  return nodes.flatMap((node) => {
    if (typeof node !== 'object' || node === null) return [];
    const { attrs, content } = { attrs: null, content: null, ...node };
    const { id } = { id: null, ...(typeof attrs === 'object' ? attrs : {}) };
    return [...(typeof id === 'string' ? [id] : []), ...(Array.isArray(content) ? idsIn(content) : [])];
  });
}

/** Blocks that stand on one page, without those in others. */
export const MOST_BLOCKS = 5000;

const notTooMany = v.maxLength<Block[], number, string>(
  MOST_BLOCKS,
  'A page has at most 5,000 blocks. Part it in two.',
);
const withOwnIds = v.check<Block[], string>(
  haveOwnIds,
  'Two blocks of this page have the same ID. Give each one of its own.',
);

/** A page: its title, what it wants, the pieces gathered for it, and what stands on the sheet. */
export const PageDocSchema = v.strictObject({
  title: v.pipe(v.string(), v.maxLength(300)),
  wants: v.pipe(v.array(WantSchema), v.maxLength(200)),
  tray: v.pipe(v.array(IdSchema), v.maxLength(2000)),
  /** The placement that leads the article, where one was chosen. */
  lead: v.exactOptional(IdSchema),
  /** Where it stands on its site, once that is known. */
  address: v.exactOptional(PageAddressSchema),
  /** What listings, searches and shared links call it, where that is another than the title over it. */
  headTitle: v.exactOptional(oneLine(300)),
  /** What they say of it. */
  summary: v.exactOptional(oneLine(1000)),
  /** What people would ask for who look for it. */
  keyPhrase: v.exactOptional(oneLine(100)),
  /** The language that it is in, where that is another than its target's. */
  language: v.exactOptional(LanguageTagSchema),
  blocks: v.pipe(v.array(BlockSchema), notTooMany, withOwnIds),
});
export type PageDoc = v.InferOutput<typeof PageDocSchema>;

/** A page whose blocks have been read already, each by itself: only what they have to be together is looked at. */
export const PageOfBlocksSchema = v.strictObject({
  ...PageDocSchema.entries,
  blocks: v.pipe(
    v.custom<Block[]>((blocks) => Array.isArray(blocks)),
    notTooMany,
    withOwnIds,
  ),
});

export function emptyPage(title: string, wants: readonly Want[] = []): PageDoc {
  return {
    title,
    wants: [...wants],
    tray: [],
    blocks: [{ type: 'paragraph', attrs: { id: 'first' } }],
  };
}
