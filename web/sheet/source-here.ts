import { type Editor, Extension } from '@tiptap/core';
import { Plugin, PluginKey } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { forEachBlock } from './blocks/walk.ts';

const key = new PluginKey<string | null>('sourceHere');

/** How the block looks whose source the caret is in. */
export const HERE_LOOK =
  '[&_[data-source-here]]:outline-2 [&_[data-source-here]]:outline-measure [&_[data-source-here]]:outline-offset-3';

/** Marks the block whose source the caret is in. */
export const sourceHere = Extension.create({
  name: 'sourceHere',
  addProseMirrorPlugins: () => [
    new Plugin<string | null>({
      key,
      state: {
        init: () => null,
        apply: (tr, here) => {
          const said: unknown = tr.getMeta(key);
          return said === undefined ? here : typeof said === 'string' ? said : null;
        },
      },
      props: {
        decorations: (state) => {
          const here = key.getState(state);
          const marks: Decoration[] = [];
          if (here)
            forEachBlock(state.doc, (node, pos) => {
              if (node.attrs.id === here)
                marks.push(Decoration.node(pos, pos + node.nodeSize, { 'data-source-here': '' }));
            });
          return DecorationSet.create(state.doc, marks);
        },
      },
    }),
  ],
});

/** Marks a block on the sheet and brings it into sight; null marks none. */
export function showSourceHere({ view }: Editor, id: string | null): void {
  view.dispatch(view.state.tr.setMeta(key, id).setMeta('addToHistory', false));
  view.dom.querySelector('[data-source-here]')?.scrollIntoView({ block: 'nearest' });
}
