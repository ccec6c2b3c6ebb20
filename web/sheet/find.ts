import { type Editor, Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { type EditorState, Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import * as v from 'valibot';
import { type Placement, PlacementSchema } from '#core/page/blocks/placement/schema.ts';
import { isPicture, type Piece } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { altHere, captionHere, titleHere } from '#core/page/words.ts';
import { findAll, replaceAll } from '#core/words/find.ts';
import { sheetKindOf } from './blocks/kinds.ts';
import { named } from './commands.ts';

/** Where something that is looked for stands: in the text, in what a block says besides, or in the words of a placed piece. */
export type FoundOnSheet =
  | { readonly kind: 'text'; readonly from: number; readonly to: number }
  | {
      readonly kind: 'said';
      readonly from: number;
      readonly to: number;
      readonly attribute: string;
      readonly where: string;
    }
  | {
      readonly kind: 'piece';
      readonly from: number;
      readonly to: number;
      readonly placement: Placement;
      readonly where: 'alt text' | 'caption' | 'title';
    };

/** Every place of some words on the sheet, in reading order. */
export function findOnSheet(
  doc: Node,
  sought: string,
  pieces: ReadonlyMap<string, Piece>,
  rules: HouseRules,
): readonly FoundOnSheet[] {
  const found: FoundOnSheet[] = [];
  doc.descendants((node, pos) => {
    if (node.isTextblock) {
      // A line break is one place long, as it is one letter here.
      const text = node.textBetween(0, node.content.size, '', '\n');
      for (const { from, to } of findAll(text, sought))
        found.push({ kind: 'text', from: pos + 1 + from, to: pos + 1 + to });
      return false;
    }
    for (const [attribute, where] of Object.entries(sheetKindOf(node.type.name)?.says ?? {}))
      if (findAll(String(node.attrs[attribute]), sought).length > 0)
        found.push({ kind: 'said', from: pos, to: pos + node.nodeSize, attribute, where });
    const read = v.safeParse(PlacementSchema, node.attrs);
    const piece = read.success ? pieces.get(read.output.asset) : undefined;
    if (!read.success || !piece) return true;
    for (const [where, words] of wordsOf(read.output, piece, rules))
      if (findAll(words, sought).length > 0)
        found.push({ kind: 'piece', from: pos, to: pos + node.nodeSize, placement: read.output, where });
    return false;
  });
  return found;
}

function wordsOf(
  placement: Placement,
  piece: Piece,
  rules: HouseRules,
): readonly (readonly ['alt text' | 'caption' | 'title', string])[] {
  const alt = altHere(rules, placement, piece);
  return [
    ['title', titleHere(rules, piece)],
    ['alt text', alt.kind === 'text' && isPicture(piece) ? alt.text : ''],
    ['caption', captionHere(rules, placement, piece)],
  ];
}

interface Marked {
  readonly found: readonly FoundOnSheet[];
  readonly at: number;
}

const FOUND = new PluginKey<DecorationSet>('found');

/** Marks on the sheet what was found, and what of it is looked at. */
export const foundMarks = Extension.create({
  name: 'found',
  addProseMirrorPlugins: () => [
    new Plugin<DecorationSet>({
      key: FOUND,
      state: {
        init: () => DecorationSet.empty,
        apply: (tr, before) => {
          const next: Marked | undefined = tr.getMeta(FOUND);
          return next ? marks(tr.doc, next) : before.map(tr.mapping, tr.doc);
        },
      },
      props: { decorations: (state: EditorState) => FOUND.getState(state) },
    }),
  ],
});

function marks(doc: Node, { found, at }: Marked): DecorationSet {
  return DecorationSet.create(
    doc,
    found.map((one, index) => {
      const attributes = { class: index === at ? 'is-found is-looked-at' : 'is-found' };
      return one.kind === 'text'
        ? Decoration.inline(one.from, one.to, attributes)
        : Decoration.node(one.from, one.to, attributes);
    }),
  );
}

/** Marks what was found and brings the one that is looked at into sight; the hand stays where it is. */
export function markFound(editor: Editor, marked: Marked): void {
  editor.view.dispatch(editor.state.tr.setMeta(FOUND, marked).setMeta('addToHistory', false));
  editor.view.dom.querySelector('.is-looked-at')?.scrollIntoView({ block: 'center' });
}

/**
 * Puts other words in the place of those that were found, as one step; what pieces say is theirs and stays. Answers in how
 * many places.
 */
export function replaceFound(
  editor: Editor,
  found: readonly FoundOnSheet[],
  sought: string,
  words: string,
): number {
  const own = found.filter(({ kind }) => kind !== 'piece');
  if (own.length === 0) return 0;
  const { schema } = editor;
  const tr = named(editor, own.length === 1 ? 'replacing words' : `replacing words in ${own.length} places`);
  // From the last to the first: those that are still to come keep their places.
  for (const one of [...own].sort((a, b) => b.from - a.from)) {
    if (one.kind === 'said') {
      const now = String(tr.doc.nodeAt(one.from)?.attrs[one.attribute] ?? '');
      tr.setNodeAttribute(one.from, one.attribute, replaceAll(now, sought, words));
    } else if (one.kind === 'text') {
      const before = tr.doc.textBetween(one.from, one.to, '', '\n');
      const next = replaceAll(before, sought, words);
      // As its first letter is set: bold stays bold, and a link a link.
      const marks = tr.doc.nodeAt(one.from)?.marks ?? [];
      if (next === '') tr.delete(one.from, one.to);
      else tr.replaceWith(one.from, one.to, schema.text(next, marks));
    }
  }
  editor.view.dispatch(tr);
  return own.length;
}
