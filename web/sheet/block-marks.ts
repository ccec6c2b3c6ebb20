import { type Editor, Extension } from '@tiptap/core';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { forEachBlock } from './blocks/walk.ts';

/** What is marked: the word that stands in the mark, by the ID of the block. */
type Marked = ReadonlyMap<string, string>;

const NONE: Marked = new Map();

/** A way to mark blocks on the sheet, which is no part of the page. */
interface BlockMarks {
  readonly extension: Extension;
  readonly show: (editor: Editor, marked: Marked) => void;
}

function blockMarks(name: string, attribute: string): BlockMarks {
  const key = new PluginKey<Marked>(name);
  return {
    extension: Extension.create({
      name,
      addProseMirrorPlugins: () => [
        new Plugin<Marked>({
          key,
          state: {
            init: () => NONE,
            apply: (tr, marked) => {
              const said: unknown = tr.getMeta(key);
              return said instanceof Map ? said : marked;
            },
          },
          props: {
            decorations: (state) => {
              const marked = key.getState(state) ?? NONE;
              if (marked.size === 0) return null;
              const marks: Decoration[] = [];
              forEachBlock(state.doc, (node, pos) => {
                const word = marked.get(String(node.attrs.id));
                if (word !== undefined)
                  marks.push(Decoration.node(pos, pos + node.nodeSize, { [attribute]: word }));
              });
              return DecorationSet.create(state.doc, marks);
            },
          },
        }),
      ],
    }),
    show: ({ view }, marked) =>
      view.dispatch(view.state.tr.setMeta(key, marked).setMeta('addToHistory', false)),
  };
}

const here = blockMarks('blockHere', 'data-here');
const others = blockMarks('othersHere', 'data-others');
const compared = blockMarks('compared', 'data-compared');

export const BLOCK_MARKS = [here.extension, others.extension, compared.extension];

/** How marked blocks look: outlined where one looks at beside the sheet, named where others are, with a bar where versions differ. */
export const BLOCK_MARKS_LOOK = [
  '[&_[data-here]]:outline-2 [&_[data-here]]:outline-measure [&_[data-here]]:outline-offset-3',
  '[&_[data-others]]:relative [&_[data-others]]:outline-1 [&_[data-others]]:outline-dashed [&_[data-others]]:outline-offset-4 [&_[data-others]]:outline-paper-ink [&_[data-others]]:after:absolute [&_[data-others]]:after:-top-5 [&_[data-others]]:after:right-0 [&_[data-others]]:after:z-1 [&_[data-others]]:after:bg-paper-ink [&_[data-others]]:after:px-1.5 [&_[data-others]]:after:font-sans [&_[data-others]]:after:text-2xs [&_[data-others]]:after:font-semibold [&_[data-others]]:after:text-paper [&_[data-others]]:after:content-[attr(data-others)]',
  '[&_[data-compared]]:shadow-[-6px_0_0_var(--color-paper),-9px_0_0_var(--color-measure)]',
].join(' ');

/** Marks the block that is looked at beside the sheet and brings it into sight; null marks none. */
export function showHere(editor: Editor, id: string | null): void {
  here.show(editor, id === null ? NONE : new Map([[id, '']]));
  editor.view.dom.querySelector('[data-here]')?.scrollIntoView({ block: 'nearest' });
}

/** Names who else is in which block. */
export const showOthers = others.show;

/** Marks what differs from another state of the page. */
export const showCompared = compared.show;
