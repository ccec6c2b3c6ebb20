import {
  GALLERY_PER_ROW,
  GalleryCaptionSchema,
  galleryNarrowBelow,
  PER_ROW_NARROW,
} from '#core/page/blocks/gallery/schema.ts';
import { LabelRow } from '../../../label/row.tsx';
import { OneOf } from '../../../ui/chips.tsx';
import { changeBlock } from '../../commands.ts';
import { GapField } from '../gap-field.tsx';
import type { BlockRowProps } from '../kind.ts';
import { LineForm } from '../line-form.tsx';
import { ShapeChoice } from '../shape-choice.tsx';
import { TakeApartLink } from '../take-apart-link.tsx';

/** How the pictures of a gallery share their rows, and what is said under them. */
export function GalleryRow({ editor, block, rules }: BlockRowProps) {
  if (block.type !== 'gallery') return null;
  const { id, perRow, gap, caption } = block.attrs;
  const placements = block.content.map(({ attrs }) => attrs);
  const isEven = placements.every(({ ratio }) => ratio !== null);
  const below = galleryNarrowBelow(perRow, rules);
  return (
    <LabelRow name="Gallery">
      <OneOf
        about="Pictures in a row"
        value={String(perRow)}
        choices={GALLERY_PER_ROW.map(
          (count) => [String(count), count === 2 ? '2 in a row' : String(count)] as const,
        )}
        onChoose={(chosen) =>
          changeBlock(editor, id, { perRow: Number(chosen) }, 'how many pictures stand in a row')
        }
      />
      <ShapeChoice editor={editor} id={id} placements={placements} />
      <GapField
        gap={gap}
        onKeep={(kept) => changeBlock(editor, id, { gap: kept }, 'the gap between pictures')}
      />
      <p>
        {isEven ? 'An even grid.' : 'Each row is of one height.'}
        {below > 0 ? ` Under ${below} px ${PER_ROW_NARROW} stand in a row.` : ''}
      </p>
      <LineForm
        editor={editor}
        id={id}
        attribute="caption"
        value={caption}
        schema={GalleryCaptionSchema}
        label="Said under all of them"
        placeholder="Nothing"
        maxLength={2000}
        change="what is said under the gallery"
      />
      <div>
        <TakeApartLink editor={editor} id={id} change="taking the gallery apart" />
      </div>
    </LabelRow>
  );
}
