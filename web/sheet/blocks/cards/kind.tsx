import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import * as v from 'valibot';
import { CARD_GAP, CARDS_LIMIT, CARDS_PER_ROW } from '#core/page/blocks/cards/schema.ts';
import { gapIn } from '#core/page/blocks/gap.ts';
import { WholeLinkSchema } from '#core/page/blocks/whole-link.ts';
import { toast } from '../../../ui/toast.ts';
import { blockOfType, PART_GROUP, takeApart } from '../arrange.ts';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { cardAround, makeCards, moveCard } from './commands.ts';
import { CardRow, CardsRow } from './row.tsx';

const NO_CARDS = `Cards are made of pictures, headings, text and lists, at most ${CARDS_LIMIT} in a row. Nothing was changed.`;

/** Before lists are asked, whose element a row of cards has. */
const PRIORITY = 60;

const CardsNode = EditorNode.create({
  name: 'cards',
  group: 'block',
  content: 'card+',
  defining: true,
  addAttributes: () => ({
    perRow: { default: 3, rendered: false },
    gap: { default: CARD_GAP, rendered: false },
  }),
  parseHTML: () => [
    {
      tag: 'ul.cards',
      priority: PRIORITY,
      getAttrs: (element) => ({
        perRow: CARDS_PER_ROW.find((perRow) => element.classList.contains(`in-${perRow}`)) ?? 3,
        gap: gapIn(element.getAttribute('style') ?? '', CARD_GAP),
      }),
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [
    'ul',
    mergeAttributes(HTMLAttributes, OF_SHEET, {
      class: `cards in-${node.attrs.perRow}`,
      style: `--gap:${node.attrs.gap}px`,
    }),
    0,
  ],
});

const CardNode = EditorNode.create({
  name: 'card',
  group: PART_GROUP,
  content: '(paragraph | heading | placement | pictureOffer | bulletList | orderedList)+',
  defining: true,
  isolating: true,
  addAttributes: () => ({ link: { default: '', rendered: false } }),
  parseHTML: () => [
    {
      tag: 'ul.cards > li',
      priority: PRIORITY,
      getAttrs: (element) => ({ link: linkOf(element) }),
      contentElement: withoutCardLink,
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => [
    'li',
    mergeAttributes(HTMLAttributes, { class: 'card', 'data-link': String(node.attrs.link) }),
    0,
  ],
  addKeyboardShortcuts() {
    const move = (by: -1 | 1) => () => {
      const id = cardAround(this.editor);
      if (id === null) return false;
      moveCard(this.editor, id, by);
      return true;
    };
    return { 'Alt-ArrowLeft': move(-1), 'Alt-ArrowRight': move(1) };
  },
});

/** Where a card leads: as the sheet says it, or, as a page goes out, where its first linked words do. */
function linkOf(element: HTMLElement): string {
  const linked = element.classList.contains('linked')
    ? element.querySelector('a')?.getAttribute('href')
    : null;
  const read = v.safeParse(WholeLinkSchema, element.getAttribute('data-link') ?? linked ?? '');
  return read.success ? read.output : '';
}

/** What stands on a card, without the link that is the card's own. */
function withoutCardLink(element: HTMLElement): HTMLElement {
  const link = linkOf(element);
  const copy = element.cloneNode(true);
  if (link === '' || !(copy instanceof HTMLElement)) return element;
  for (const one of copy.querySelectorAll('a'))
    if (one.getAttribute('href') === link) one.replaceWith(...one.childNodes);
  return copy;
}

export const cards: SheetKind = {
  types: ['cards'],
  nodes: () => [CardsNode],
  kept: ({ perRow, gap }) => ({ perRow, gap }),
  call: () => 'the row of cards',
  title: 'Cards in a row',
  ways: [
    {
      words: 'row of cards',
      sort: 'around',
      isOn: (editor) => editor.isActive('cards'),
      apply: (editor) => {
        const around = blockOfType(editor, 'cards');
        if (around) takeApart(editor, around, 'taking the cards apart');
        else if (!makeCards(editor)) toast.error(NO_CARDS);
        editor.view.focus();
      },
    },
  ],
  Row: CardsRow,
};

export const card: SheetKind = {
  types: ['card'],
  nodes: () => [CardNode],
  kept: ({ link }) => ({ link }),
  call: (words) => `the card ${words}`,
  title: 'A card',
  ways: [],
  Row: CardRow,
};
