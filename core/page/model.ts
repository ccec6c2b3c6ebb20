import * as v from 'valibot';
import { EMBED_FORMS } from '../embed/forms.ts';
import { ColourSchema } from '../media/colour.ts';
import { PrepSchema } from '../media/recipe.ts';
import { AltSchema, isWebAddress } from '../rights/label.ts';
import { WIDTH_LIMITS } from './width-limits.ts';

/** Where a placement stands: beside the text, in the column, or out of it. */
export const POSITIONS = ['beside-left', 'beside-right', 'centred', 'column', 'breakout', 'bleed'] as const;
export type Position = (typeof POSITIONS)[number];

export const POSITION_WORDS: Readonly<Record<Position, string>> = {
  'beside-left': 'Beside left',
  'beside-right': 'Beside right',
  centred: 'Centred',
  column: 'Column',
  breakout: 'Breakout',
  bleed: 'Bleed',
};

export const MARGIN_LIMIT_PX = 200;
const margin = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(MARGIN_LIMIT_PX));

/** Margins in px. */
const MarginsSchema = v.strictObject({ top: margin, right: margin, bottom: margin, left: margin });
export type Margins = v.InferOutput<typeof MarginsSchema>;
export type Side = keyof Margins;

const within = ({ least, most }: { readonly least: number; readonly most: number }) =>
  v.pipe(v.number(), v.minValue(least), v.maxValue(most));

const WidthSchema = v.variant('unit', [
  v.strictObject({ unit: v.literal('px'), value: within(WIDTH_LIMITS.px) }),
  v.strictObject({ unit: v.literal('%'), value: within(WIDTH_LIMITS['%']) }),
]);
/** A wished width: px, or percent of the column. */
export type Width = v.InferOutput<typeof WidthSchema>;

const part = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100));
export const RatioSchema = v.strictObject({ across: part, down: part });

/** Where a link goes: a web address, an e-mail address, or a place on the same site or page. */
export function isLinkAddress(address: string): boolean {
  if (/^mailto:[^\s<>"]+@[^\s<>"]+$/i.test(address)) return true;
  if (/^[/#][^\s<>"\\]*$/.test(address)) return !address.startsWith('//');
  return isWebAddress(address);
}

const LinkAddressSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(2000),
  v.check(isLinkAddress, 'A link begins with https://, http://, mailto:, / or #.'),
);

const ClickSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('nothing') }),
  v.strictObject({ kind: v.literal('larger') }),
  v.strictObject({ kind: v.literal('link'), href: LinkAddressSchema }),
]);

const id = v.pipe(v.string(), v.regex(/^[A-Za-z0-9-]{1,64}$/));

const SettingsSchema = v.record(
  v.pipe(v.string(), v.maxLength(60)),
  v.nullable(v.pipe(v.string(), v.maxLength(1500))),
);

/** One use of a piece. `null` means "as House rules or the piece itself say". */
export const PlacementSchema = v.strictObject({
  id,
  asset: id,
  position: v.picklist(POSITIONS),
  width: v.nullable(WidthSchema),
  margins: v.nullable(MarginsSchema),
  /** The shape it is cut to round the focal point; null shows it whole. */
  ratio: v.nullable(RatioSchema),
  /** With a shape: the colour on which it is fitted into it whole; null fills the shape, cut round the focal point. */
  ground: v.optional(v.nullable(ColourSchema), null),
  /** What is done to the piece in this use alone, in place of what is done to it everywhere; null for that. */
  prep: v.optional(v.nullable(PrepSchema), null),
  /** How an embed stands here, in place of what suits the target best; null for that. */
  form: v.optional(v.nullable(v.picklist(EMBED_FORMS)), null),
  /** Settings of an embed in this use alone, by the names of its host's parameters; a null leaves the setting out. */
  settings: v.optional(v.nullable(SettingsSchema), null),
  /** A viewport width in px under which it stands in the column instead of beside the text. */
  stackBelow: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(4000))),
  click: ClickSchema,
  alt: v.nullable(AltSchema),
  caption: v.nullable(v.pipe(v.string(), v.maxLength(5000))),
});
export type Placement = v.InferOutput<typeof PlacementSchema>;

export function newPlacement(placementId: string, asset: string, position: Position = 'column'): Placement {
  return {
    id: placementId,
    asset,
    position,
    width: null,
    margins: null,
    ratio: null,
    ground: null,
    prep: null,
    form: null,
    settings: null,
    stackBelow: null,
    click: { kind: 'nothing' },
    alt: null,
    caption: null,
  };
}

const MarkSchema = v.variant('type', [
  v.strictObject({ type: v.literal('bold') }),
  v.strictObject({ type: v.literal('italic') }),
  v.strictObject({ type: v.literal('link'), attrs: v.strictObject({ href: LinkAddressSchema }) }),
]);
export type Mark = v.InferOutput<typeof MarkSchema>;

const InlineSchema = v.variant('type', [
  v.strictObject({
    type: v.literal('text'),
    text: v.pipe(v.string(), v.minLength(1)),
    marks: v.exactOptional(v.array(MarkSchema)),
  }),
  v.strictObject({ type: v.literal('hardBreak'), marks: v.exactOptional(v.array(MarkSchema)) }),
]);
export type Inline = v.InferOutput<typeof InlineSchema>;

const inlines = v.exactOptional(v.array(InlineSchema));
const ParagraphSchema = v.strictObject({ type: v.literal('paragraph'), content: inlines });

export interface ListItem {
  type: 'listItem';
  content: (v.InferOutput<typeof ParagraphSchema> | List)[];
}
export type List =
  | { type: 'bulletList'; content: ListItem[] }
  | { type: 'orderedList'; attrs?: { start: number }; content: ListItem[] };

const ListItemSchema: v.GenericSchema<ListItem> = v.strictObject({
  type: v.literal('listItem'),
  content: v.array(v.lazy(() => v.union([ParagraphSchema, ListSchema]))),
});
export const ListSchema: v.GenericSchema<List> = v.variant('type', [
  v.strictObject({ type: v.literal('bulletList'), content: v.array(ListItemSchema) }),
  v.strictObject({
    type: v.literal('orderedList'),
    attrs: v.exactOptional(v.strictObject({ start: v.pipe(v.number(), v.integer()) })),
    content: v.array(ListItemSchema),
  }),
]);

/**
 * How deep lists may go. What is stored as JSON is at most 32 levels deep (MariaDB, JSON_VALID), and each list takes four
 * of them; a list that deep is no longer one to a reader either.
 */
export const LIST_DEPTH_LIMIT = 5;

/** How many lists deep a list is, without recursion: it may come from outside. */
function listDepth(list: List): number {
  let deepest = 0;
  const waiting: { readonly list: List; readonly depth: number }[] = [{ list, depth: 1 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    deepest = Math.max(deepest, next.depth);
    for (const item of next.list.content)
      for (const part of item.content)
        if (part.type !== 'paragraph') waiting.push({ list: part, depth: next.depth + 1 });
  }
  return deepest;
}

/** A list that is at most as deep as lists may be: what lies deeper becomes paragraphs of its innermost item. */
export function shallowList(list: List, depth = 1): List {
  const content = list.content.map((item) => ({
    ...item,
    content: item.content.flatMap((part) => {
      if (part.type === 'paragraph') return [part];
      return depth < LIST_DEPTH_LIMIT ? [shallowList(part, depth + 1)] : paragraphsOf(part);
    }),
  }));
  return { ...list, content };
}

export function paragraphsOf(list: List): ListItem['content'] {
  return list.content.flatMap((item) =>
    item.content.flatMap((part) => (part.type === 'paragraph' ? [part] : paragraphsOf(part))),
  );
}

const WholeListSchema = v.pipe(
  ListSchema,
  v.check(
    (list) => listDepth(list) <= LIST_DEPTH_LIMIT,
    `Lists go at most ${LIST_DEPTH_LIMIT} deep. Take the innermost out of one of those round it.`,
  ),
);

const BlockSchema = v.union([
  ParagraphSchema,
  v.strictObject({
    type: v.literal('heading'),
    attrs: v.strictObject({ level: v.picklist([2, 3, 4]) }),
    content: inlines,
  }),
  WholeListSchema,
  v.strictObject({ type: v.literal('placement'), attrs: PlacementSchema }),
]);
export type Block = v.InferOutput<typeof BlockSchema>;

/** A piece that the page needs and may not have yet. `filledBy` names the piece that fills it. */
export const WantSchema = v.strictObject({
  id,
  purpose: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say what the piece is for.'), v.maxLength(200)),
  shape: v.picklist(['any', 'landscape', 'portrait', 'square']),
  leastWidth: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(20_000)),
  filledBy: v.nullable(id),
});
export type Want = v.InferOutput<typeof WantSchema>;

/** A page: its title, what it wants, the pieces gathered for it, and what stands on the sheet. */
export const PageDocSchema = v.strictObject({
  title: v.pipe(v.string(), v.maxLength(300)),
  wants: v.pipe(v.array(WantSchema), v.maxLength(200)),
  tray: v.pipe(v.array(id), v.maxLength(2000)),
  blocks: v.pipe(v.array(BlockSchema), v.maxLength(5000)),
});
export type PageDoc = v.InferOutput<typeof PageDocSchema>;

export function emptyPage(title: string, wants: readonly Want[] = []): PageDoc {
  return { title, wants: [...wants], tray: [], blocks: [{ type: 'paragraph' }] };
}

/** All placements of a page, in reading order. */
export function placementsOf(page: PageDoc): readonly Placement[] {
  return page.blocks.flatMap((block) => (block.type === 'placement' ? [block.attrs] : []));
}

/** The page with one placement changed; the very same page when there is none of that id. */
export function withPlacement(page: PageDoc, placementId: string, change: Partial<Placement>): PageDoc {
  if (!placementsOf(page).some((placement) => placement.id === placementId)) return page;
  const blocks = page.blocks.map((block) =>
    block.type === 'placement' && block.attrs.id === placementId
      ? { ...block, attrs: { ...block.attrs, ...change } }
      : block,
  );
  return { ...page, blocks };
}

/** The plain text of a run of inline content. */
export function plainText(content: readonly Inline[] | undefined): string {
  return (content ?? []).map((inline) => (inline.type === 'text' ? inline.text : ' ')).join('');
}
