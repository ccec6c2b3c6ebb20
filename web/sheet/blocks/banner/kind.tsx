import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import * as v from 'valibot';
import { bannerClass, bannerStyles } from '#core/page/blocks/banner/laid-out.ts';
import { BannerSchema, USUAL_BANNER } from '#core/page/blocks/banner/schema.ts';
import { toast } from '../../../ui/toast.ts';
import { blockOfType, PART_GROUP, takeApart } from '../arrange.ts';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { ROW_GROUP } from '../placement/node.ts';
import { makeBanner } from './commands.ts';
import { BannerRow } from './row.tsx';

const NO_BANNER =
  'A banner is made of one picture and the headings and lines that go over it. Nothing was changed.';

const { id: _id, ...ENTRIES } = BannerSchema.entries.attrs.entries;
const AttributesSchema = v.object(ENTRIES);

/** Attributes as a page has them; those of a banner that nobody changed for what cannot be read. */
function attributesOf(said: unknown): v.InferOutput<typeof AttributesSchema> {
  const read = v.safeParse(AttributesSchema, said);
  return read.success ? read.output : USUAL_BANNER;
}

const BannerNode = EditorNode.create({
  name: 'banner',
  group: `block ${ROW_GROUP}`,
  content: 'placement{0,1} bannerWords{0,1}',
  defining: true,
  addAttributes: () =>
    Object.fromEntries(
      Object.entries(USUAL_BANNER).map(([name, value]) => [name, { default: value, rendered: false }]),
    ),
  parseHTML: () => [{ tag: 'div[data-banner]', getAttrs: readAttributes }],
  renderHTML: ({ node, HTMLAttributes }) => {
    const attrs = attributesOf(node.attrs);
    // Without its picture nothing lies under the words.
    const isWhole = node.firstChild?.type.name === 'placement';
    return [
      'div',
      mergeAttributes(HTMLAttributes, OF_SHEET, {
        class: isWhole ? bannerClass(attrs) : '',
        style: bannerStyles(attrs),
        'data-banner': JSON.stringify(attrs),
      }),
      0,
    ];
  },
});

function readAttributes(element: HTMLElement) {
  try {
    return attributesOf(JSON.parse(element.dataset.banner ?? ''));
  } catch (error) {
    if (error instanceof SyntaxError) return false;
    throw error;
  }
}

const BannerWordsNode = EditorNode.create({
  name: 'bannerWords',
  group: PART_GROUP,
  content: '(paragraph | heading)+',
  defining: true,
  isolating: true,
  parseHTML: () => [{ tag: 'div.banner-words' }],
  renderHTML: ({ HTMLAttributes }) => ['div', mergeAttributes(HTMLAttributes, { class: 'banner-words' }), 0],
});

export const banner: SheetKind = {
  types: ['banner'],
  nodes: () => [BannerNode],
  kept: ({ position, place, ink, plate, link }) => ({ position, place, ink, plate, link }),
  call: (words) => `the banner ${words}`.trimEnd(),
  title: 'A banner',
  ways: [
    {
      words: 'banner',
      sort: 'around',
      isOn: (editor) => editor.isActive('banner'),
      apply: (editor) => {
        const around = blockOfType(editor, 'banner');
        if (around) takeApart(editor, around, 'taking the banner apart');
        else if (!makeBanner(editor)) toast.error(NO_BANNER);
        editor.view.focus();
      },
    },
  ],
  Row: BannerRow,
};

export const bannerWords: SheetKind = {
  types: ['bannerWords'],
  nodes: () => [BannerWordsNode],
  kept: () => ({}),
  call: (words) => `the words ${words}`,
  title: 'Words of a banner',
  ways: [],
};
