import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { CARDS_LIMIT, perRowFor } from '#core/page/blocks/cards/schema.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { pieces } from '../../../pieces/pieces.ts';
import { afterSelection } from '../../commands.ts';
import { putArranged } from '../arrange.ts';
import { levelUnder } from '../levels.ts';

/**
 * Makes a row of cards of pieces behind the caret: each begins a card, with its title as heading and its caption
 * as words. False where there are too many, or none is known.
 */
export function cardsOfPieces(editor: Editor, assetIds: readonly string[]): boolean {
  const { schema, doc } = editor.state;
  if (assetIds.length === 0 || assetIds.length > CARDS_LIMIT) return false;
  const level = levelUnder(doc, afterSelection(editor, 'cards'));
  const made = assetIds.map((id) => cardOf(schema, id, level));
  const row = schema.node('cards', { perRow: perRowFor(made.length) }, made);
  putArranged(editor, row, assetIds, 'making a row of cards');
  return true;
}

/** Words that the label says already stand under the picture; on a card they are its text. */
function cardOf(schema: Schema, assetId: string, level: number): Node {
  const label = pieces.state.get(assetId)?.label;
  const line = (type: string, attrs: Readonly<Record<string, unknown>> | null, said: string) =>
    schema.node(type, attrs, said === '' ? [] : [schema.text(said)]);
  const { title = '', caption = '' } = label ?? {};
  const words = caption === '' ? {} : { caption: '' };
  return schema.node('card', null, [
    schema.node('placement', { ...newPlacement(crypto.randomUUID(), assetId), position: 'column', ...words }),
    ...(title === '' ? [] : [line('heading', { level }, title)]),
    line('paragraph', null, caption),
  ]);
}
