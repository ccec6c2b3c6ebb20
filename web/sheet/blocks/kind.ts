import type { AnyExtension, Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import type { ComponentType } from 'react';
import type { Block } from '#core/page/blocks/block.ts';
import type { HouseRules } from '#core/page/target.ts';

/** What the nodes of the editor are made for. */
interface SheetContext {
  readonly rules: HouseRules;
  readonly targetId: string;
}

/** A way to make text into a block of a kind, as a chip of the text's label. */
export interface TextWay {
  readonly words: string;
  readonly isOn: (editor: Editor) => boolean;
  readonly apply: (editor: Editor) => void;
  /** Whether it says what the text is, what it is set apart in, or adds something behind it. */
  readonly sort: 'is' | 'around' | 'adds';
}

/** All that is particular to one kind of block on the sheet; what it is in a page is said in `core/page/blocks`. */
export interface SheetKind {
  /** The types of its blocks in a page, which are the names of its nodes. */
  readonly types: readonly string[];
  /** Its nodes, and what belongs to them. The ID of a block is given by `ids.ts`. */
  readonly nodes: (context: SheetContext) => readonly AnyExtension[];
  /** What a page keeps of a node's attributes besides the ID. */
  readonly kept: (attrs: Node['attrs']) => Readonly<Record<string, unknown>>;
  /** Nodes that are part of one and have no ID, as the cells of a table, with what a page keeps of their attributes. */
  readonly parts?: Readonly<
    Record<string, (attrs: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>>
  >;
  /** Lines of words stand in it and nothing else: they are not made into anything, nor set apart. */
  readonly holdsWordsAlone?: true;
  /** One as somebody is told of it who puts something before it: "the heading Tides". */
  readonly call: (words: string, doc: Node, node: Node) => string;
  /** What it says, where that is not the text in it. */
  readonly words?: (node: Node) => string;
  /** Attributes that say something to readers, each as it is called: "the title of a side box". */
  readonly says?: Readonly<Record<string, string>>;
  /** What the label is called while the caret is in one. */
  readonly title: string;
  readonly ways: readonly TextWay[];
  /** What the label of the text says and asks of one besides, while the caret is in it. */
  readonly Row?: ComponentType<BlockRowProps>;
}

/** What the row of a kind on the label is told. */
export interface BlockRowProps {
  readonly editor: Editor;
  readonly block: Block;
  readonly rules: HouseRules;
}
