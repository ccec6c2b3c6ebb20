import { type Editor, Node as EditorNode, mergeAttributes } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import type { NodeView } from '@tiptap/pm/view';
import { messagesFor } from '#core/messages/messages.ts';
import type { Anchored } from '#core/page/anchored.ts';
import { type Entry, entriesOf } from '#core/page/blocks/contents/entries.ts';
import { HEADING_LEVELS, type HeadingLevel } from '#core/page/blocks/heading/schema.ts';
import { afterSelection } from '../../commands.ts';
import { headingsOf } from '../../headings.ts';
import { onSheet } from '../../on-sheet.ts';
import type { SheetKind } from '../kind.ts';
import { ContentsRow } from './row.tsx';

const USUAL: HeadingLevel = 3;

const levelOf = (said: unknown): HeadingLevel =>
  HEADING_LEVELS.find((level) => level === Number(said)) ?? USUAL;

const contentsNode = (language: string) =>
  EditorNode.create({
    name: 'contents',
    group: 'block',
    atom: true,
    addAttributes: () => ({ deepest: { default: USUAL, rendered: false } }),
    parseHTML: () => [
      {
        tag: 'nav.contents',
        getAttrs: (element) => ({
          deepest: HEADING_LEVELS.find((level) => element.classList.contains(`to-${level}`)) ?? USUAL,
        }),
      },
    ],
    // Only for the clipboard; on the sheet it is drawn with the headings as they are.
    renderHTML: ({ node, HTMLAttributes }) => [
      'nav',
      mergeAttributes(HTMLAttributes, { class: `contents to-${node.attrs.deepest}`, 'data-of-sheet': '' }),
    ],
    addNodeView:
      () =>
      ({ node, editor }) =>
        new ContentsView(node, editor, language),
  });

/** The list as readers get it, drawn anew as headings are written. */
class ContentsView implements NodeView {
  readonly dom = document.createElement('nav');
  readonly #editor: Editor;
  readonly #language: string;
  readonly #draw = () => this.#show();
  #deepest: HeadingLevel;
  #headings: readonly Anchored[] | null = null;
  #shown = '';

  constructor(node: Node, editor: Editor, language: string) {
    this.#editor = editor;
    this.#language = language;
    this.#deepest = levelOf(node.attrs.deepest);
    this.dom.contentEditable = 'false';
    this.dom.setAttribute('aria-label', messagesFor(language).contents);
    this.#show();
    editor.on('update', this.#draw);
  }

  update(node: Node): boolean {
    if (node.type.name !== 'contents') return false;
    this.#deepest = levelOf(node.attrs.deepest);
    this.#show();
    return true;
  }

  ignoreMutation(): boolean {
    return true;
  }

  destroy(): void {
    this.#editor.off('update', this.#draw);
  }

  #show(): void {
    const headings = headingsOf(this.#editor.state.doc, this.#language);
    const name = `contents to-${this.#deepest}`;
    if (headings === this.#headings && this.dom.className === name) return;
    this.#headings = headings;
    this.dom.className = name;
    const entries = entriesOf(headings, this.#deepest);
    const next = JSON.stringify(entries);
    if (next === this.#shown) return;
    this.#shown = next;
    this.dom.replaceChildren(entries.length > 0 ? listOf(entries) : emptyLine());
  }
}

function listOf(entries: readonly Entry[]): HTMLElement {
  const list = document.createElement('ul');
  for (const { heading, under } of entries) {
    const item = document.createElement('li');
    const link = document.createElement('a');
    link.textContent = heading.words;
    item.append(link, ...(under.length > 0 ? [listOf(under)] : []));
    list.append(item);
  }
  return list;
}

function emptyLine(): HTMLElement {
  const line = document.createElement('p');
  line.textContent = 'The headings of the page will stand here.';
  return line;
}

export const contents: SheetKind = {
  types: ['contents'],
  nodes: ({ rules }) => [contentsNode(rules.language)],
  kept: ({ deepest }) => ({ deepest: levelOf(deepest) }),
  call: () => 'the list of contents',
  words: () => '',
  title: 'Contents of the page',
  ways: [
    {
      words: 'contents',
      sort: 'adds',
      isOn: (editor) => editor.isActive('contents'),
      apply: (editor) => {
        if (editor.isActive('contents')) return;
        onSheet(editor).insertContentAt(afterSelection(editor, 'contents'), { type: 'contents' }).run();
      },
    },
  ],
  Row: ContentsRow,
};
