import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import * as v from 'valibot';
import { GALLERY_GAP, GALLERY_LIMIT, GallerySchema } from '#core/page/blocks/gallery/schema.ts';
import { toast } from '../../../ui/toast.ts';
import { blockOfType, takeApart } from '../arrange.ts';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { ROW_GROUP } from '../placement/node.ts';
import { makeGallery } from './commands.ts';
import { GalleryRow } from './row.tsx';
import { galleryShares } from './shares.ts';

const NO_GALLERY = `A gallery is made of pictures that follow one another with no text between them, at most ${GALLERY_LIMIT}. Nothing was changed.`;

const { id: _id, ...ENTRIES } = GallerySchema.entries.attrs.entries;
const AttributesSchema = v.object(ENTRIES);
type Attributes = v.InferOutput<typeof AttributesSchema>;
const USUAL: Attributes = { perRow: 3, gap: GALLERY_GAP, caption: '' };

const GalleryNode = EditorNode.create({
  name: 'gallery',
  group: `block ${ROW_GROUP}`,
  content: 'placement*',
  addAttributes: () => ({
    perRow: { default: USUAL.perRow, rendered: false },
    gap: { default: USUAL.gap, rendered: false },
    caption: { default: USUAL.caption, rendered: false },
  }),
  parseHTML: () => [{ tag: 'div.gallery', contentElement: '.row', getAttrs: readAttributes }],
  renderHTML({ node, HTMLAttributes }) {
    const attrs = attributesOf(node.attrs);
    const said = {
      class: `gallery in-${attrs.perRow}`,
      style: `--gap:${attrs.gap}px`,
      'data-gallery': JSON.stringify(attrs),
    };
    const caption =
      attrs.caption === '' ? [] : [['figcaption', { contenteditable: 'false' }, attrs.caption] as const];
    return [
      // A piece is a figure on the sheet, and nothing else is.
      'div',
      mergeAttributes(HTMLAttributes, OF_SHEET, said),
      ['div', { class: 'row' }, 0],
      ...caption,
    ];
  },
});

/** Attributes as a page has them; the usual ones for what cannot be read. */
function attributesOf(said: unknown): Attributes {
  const read = v.safeParse(AttributesSchema, said);
  return read.success ? read.output : USUAL;
}

function readAttributes(element: HTMLElement): Attributes {
  try {
    return attributesOf(JSON.parse(element.dataset.gallery ?? ''));
  } catch (error) {
    if (error instanceof SyntaxError) return USUAL;
    throw error;
  }
}

export const gallery: SheetKind = {
  types: ['gallery'],
  nodes: () => [GalleryNode, galleryShares],
  kept: ({ perRow, gap, caption }) => ({ perRow, gap, caption }),
  says: { caption: 'what is said under a gallery' },
  call: () => 'the gallery',
  words: ({ attrs }) => String(attrs.caption),
  title: 'Pictures in a gallery',
  ways: [
    {
      words: 'gallery',
      sort: 'around',
      isOn: (editor) => editor.isActive('gallery'),
      apply: (editor) => {
        const around = blockOfType(editor, 'gallery');
        if (around) takeApart(editor, around, 'taking the gallery apart');
        else if (!makeGallery(editor)) toast.error(NO_GALLERY);
        editor.view.focus();
      },
    },
  ],
  Row: GalleryRow,
};
