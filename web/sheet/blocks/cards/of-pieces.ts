import type { Editor } from '@tiptap/core';
import type { Node, Schema } from '@tiptap/pm/model';
import { CARDS_LIMIT, perRowFor } from '#core/page/blocks/cards/schema.ts';
import { pieces as known } from '../../../pieces/pieces.ts';
import { inColumn } from '../arrange.ts';
import type { Gathered } from '../gathered.ts';
import { levelUnder } from '../levels.ts';

/**
 * Makes a row of cards of gathered pieces: each begins a card, with its title as heading and its caption as words. False where
 * there are too many, or none.
 */
export function cardsOfPieces(editor: Editor, { pieces, placeFor, put }: Gathered): boolean {
  const { schema, doc } = editor.state;
  if (pieces.length === 0 || pieces.length > CARDS_LIMIT) return false;
  const level = levelUnder(doc, placeFor('cards'));
  const made = pieces.map((piece) => cardOf(schema, piece, level));
  put(schema.node('cards', { perRow: perRowFor(made.length) }, made), 'making a row of cards');
  return true;
}

/** Words that the label says already stand under the picture; on a card they are its text. */
function cardOf(schema: Schema, piece: Node, level: number): Node {
  const label = known.state.get(String(piece.attrs.asset))?.label;
  const line = (type: string, attrs: Readonly<Record<string, unknown>> | null, said: string) =>
    schema.node(type, attrs, said === '' ? [] : [schema.text(said)]);
  const { title = '' } = label ?? {};
  const own: unknown = piece.attrs.caption;
  const caption = typeof own === 'string' ? own : (label?.caption ?? '');
  const words = caption === '' ? {} : { caption: '' };
  const { type, attrs } = inColumn(piece);
  return schema.node('card', null, [
    type.create({ ...attrs, ...words }),
    ...(title === '' ? [] : [line('heading', { level }, title)]),
    line('paragraph', null, caption),
  ]);
}
