import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { BANNER_POSITIONS, isInWords, USUAL_BANNER } from '#core/page/blocks/banner/schema.ts';
import { pieces } from '../../../pieces/pieces.ts';
import { afterSelection, findPlacement } from '../../commands.ts';
import { chosenBlocks, isEmptyLine, putArranged, putInPlace, usesOf } from '../arrange.ts';
import { levelUnder } from '../levels.ts';

const isPiece = ({ type }: Node) => type.name === 'placement';

const isPicture = ({ attrs }: Node) => {
  const held = pieces.state.get(String(attrs.asset));
  return held === undefined || held.kind === 'picture';
};

/** Makes a banner of one picture among the chosen blocks, with the headings and lines among them over it; false where that is not all. */
export function makeBanner(editor: Editor): boolean {
  const chosen = chosenBlocks(editor);
  const said = chosen?.blocks.filter((block) => !isEmptyLine(block)) ?? [];
  const [piece, ...more] = said.filter(isPiece);
  const words = said.filter((block) => !isPiece(block));
  if (!chosen || !piece || more.length > 0 || !isPicture(piece)) return false;
  if (!words.every(({ type }) => isInWords({ type: type.name }))) return false;
  return putInPlace(editor, chosen, bannerOf(editor.schema, piece, words), 'making a banner');
}

/** Makes a banner of a picture behind the caret, with its title over it; false for several. */
export function bannerOfPieces(editor: Editor, assetIds: readonly string[]): boolean {
  const { schema, doc } = editor.state;
  const [piece, ...more] = usesOf(schema, assetIds, {});
  if (!piece || more.length > 0 || !isPicture(piece)) return false;
  const words = wordsOf(schema, piece, levelUnder(doc, afterSelection(editor, 'banner')));
  putArranged(editor, bannerOf(schema, piece, words), assetIds, 'making a banner');
  return true;
}

/** Makes a banner of a piece where it stands, with its title over it; false where none can stand there. */
export function bannerOfPlaced(editor: Editor, placementId: string): boolean {
  const found = findPlacement(editor, placementId);
  if (!found || !isPicture(found.node)) return false;
  const { node, pos } = found;
  const { schema, doc } = editor.state;
  const $pos = doc.resolve(pos);
  const place = { blocks: [node], from: pos, to: pos + node.nodeSize, holder: $pos.parent };
  const made = bannerOf(schema, node, wordsOf(schema, node, levelUnder(doc, pos)));
  return putInPlace(
    editor,
    { ...place, start: $pos.index(), end: $pos.index() + 1 },
    made,
    'making a banner',
  );
}

/** As wide as the picture stood, where it broke out of the column. */
function bannerOf(schema: Schema, piece: Node, words: readonly Node[]): Node {
  const position = BANNER_POSITIONS.find((one) => one === piece.attrs.position) ?? USUAL_BANNER.position;
  const lines = words.length > 0 ? [...words] : [schema.node('paragraph')];
  return schema.node('banner', { position }, [piece, schema.node('bannerWords', null, lines)]);
}

/** The title of a piece as a heading. */
function wordsOf(schema: Schema, piece: Node, level: number): readonly Node[] {
  const title = pieces.state.get(String(piece.attrs.asset))?.label.title ?? '';
  return [schema.node('heading', { level }, title === '' ? [] : [schema.text(title)])];
}
