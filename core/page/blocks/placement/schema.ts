import * as v from 'valibot';
import { EMBED_FORMS } from '../../../embed/forms.ts';
import { ColourSchema } from '../../../media/colour.ts';
import { PrepSchema } from '../../../media/recipe.ts';
import { AltSchema } from '../../../rights/label.ts';
import { IdSchema } from '../../id.ts';
import { LinkAddressSchema } from '../../inline.ts';
import { StyleClassSchema } from '../../picture-style.ts';
import { WIDEST_VIEWPORT_PX, WIDTH_LIMITS } from '../../width-limits.ts';

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

const ClickSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('nothing') }),
  v.strictObject({ kind: v.literal('larger') }),
  v.strictObject({ kind: v.literal('link'), href: LinkAddressSchema }),
]);

const SettingsSchema = v.record(
  v.pipe(v.string(), v.maxLength(60)),
  v.nullable(v.pipe(v.string(), v.maxLength(1500))),
);

/** One use of a piece. `null` means "as House rules or the piece itself say". */
export const PlacementSchema = v.strictObject({
  id: IdSchema,
  asset: IdSchema,
  position: v.picklist(POSITIONS),
  width: v.nullable(WidthSchema),
  margins: v.nullable(MarginsSchema),
  /** The shape it is cut to round the focal point; null shows it whole. */
  ratio: v.nullable(RatioSchema),
  /** With a shape: the colour on which it is fitted into it whole; null fills the shape, cut round the focal point. */
  backgroundColour: v.optional(v.nullable(ColourSchema), null),
  /** What is done to the piece in this use alone, in place of what is done to it everywhere; null for that. */
  prep: v.optional(v.nullable(PrepSchema), null),
  /** The class of one of its target's picture styles (`picture-style.ts`); null for none. */
  pictureStyle: v.optional(v.nullable(StyleClassSchema), null),
  /** How an embed stands here, in place of what suits the target best; null for that. */
  form: v.optional(v.nullable(v.picklist(EMBED_FORMS)), null),
  /** Settings of an embed in this use alone, by the names of its host's parameters; a null leaves the setting out. */
  settings: v.optional(v.nullable(SettingsSchema), null),
  /** A viewport width in px under which it stands in the column instead of beside the text. */
  stackBelow: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(WIDEST_VIEWPORT_PX))),
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
    backgroundColour: null,
    prep: null,
    pictureStyle: null,
    form: null,
    settings: null,
    stackBelow: null,
    click: { kind: 'nothing' },
    alt: null,
    caption: null,
  };
}

/** A placement as a block of its page. */
export const PlacedBlockSchema = v.strictObject({ type: v.literal('placement'), attrs: PlacementSchema });
export type PlacedBlock = v.InferOutput<typeof PlacedBlockSchema>;

export function isPlacedBlock(block: { readonly type: string }): block is PlacedBlock {
  return block.type === 'placement';
}
