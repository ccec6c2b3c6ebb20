import type { Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { chosenPlaced, lettingGo } from '../chosen-pieces.ts';
import { afterSelection, named } from '../commands.ts';
import { insideOf, putArranged, usesOf } from './arrange.ts';
import { lastPlace } from './walk.ts';

/** Pieces that become an arrangement: new uses of what lies on the tray, or uses that stand on the sheet already. */
export interface Gathered {
  readonly pieces: readonly Node[];
  /** Where an arrangement of a type will stand. */
  readonly placeFor: (type: string) => number;
  /** Puts what was made of them onto the sheet, as a step of its own. */
  readonly put: (made: Node, name: string) => void;
}

export function ofTray(editor: Editor, assetIds: readonly string[]): Gathered {
  return {
    pieces: usesOf(editor.schema, assetIds, {}),
    placeFor: (type) => afterSelection(editor, type),
    put: (made, name) => putArranged(editor, made, assetIds, name),
  };
}

/** What is chosen on the sheet leaves where it stands, and stands in the arrangement where the first of it stood. */
export function ofSheet(editor: Editor): Gathered {
  const placed = chosenPlaced(editor.state);
  const [first] = placed;
  const at = first ? placeAt(editor, first.pos) : lastPlace(editor.state.doc);
  return {
    pieces: placed.map(({ node }) => node),
    placeFor: () => at,
    put: (made, name) => {
      const tr = named(editor, name);
      tr.insert(at, made);
      for (const { pos, node } of [...placed].reverse()) {
        const from = tr.mapping.map(pos, 1);
        tr.delete(from, from + node.nodeSize);
      }
      const stands = tr.mapping.slice(1).map(at, -1);
      editor.view.dispatch(lettingGo(tr).setSelection(insideOf(tr, stands)).scrollIntoView());
      editor.view.focus();
    },
  };
}

/** Before the block of the page that a place is in: arrangements do not stand in one another. */
function placeAt({ state: { doc } }: Editor, pos: number): number {
  const $pos = doc.resolve(pos);
  return $pos.depth === 0 ? pos : $pos.before(1);
}
