import type { Editor } from '@tiptap/core';
import { fileHref } from '#core/page/page-address.ts';
import { pieces } from '../../../pieces/pieces.ts';
import type { Gathered } from '../gathered.ts';

/** Makes a list of links, one to the file of each gathered document or picture; false where there are none. */
export function listOfFiles(editor: Editor, gathered: Gathered): boolean {
  const { schema } = editor;
  const items = gathered.pieces.flatMap(({ attrs }) => {
    const id = String(attrs.asset);
    const asset = pieces.state.get(id);
    if (!asset || asset.kind === 'embed') return [];
    const mark = schema.mark('link', { href: fileHref(id) });
    const words = schema.text(asset.label.title || asset.stem, [mark]);
    return [schema.node('listItem', null, schema.node('paragraph', null, words))];
  });
  if (items.length === 0) return false;
  gathered.put(schema.node('bulletList', null, items), 'making a list of files');
  return true;
}
