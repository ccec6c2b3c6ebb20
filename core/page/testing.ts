import { parseFragment } from 'parse5';
import { AS_IT_CAME } from '../media/recipe.ts';
import { EMPTY_LABEL, type LabelPatch, withPatch } from '../rights/label.ts';
import type { Block } from './blocks/block.ts';
import type { Heading, HeadingLevel } from './blocks/heading/schema.ts';
import type { Paragraph } from './blocks/paragraph/schema.ts';
import type { PlacedBlock } from './blocks/placement/schema.ts';
import { newPlacement, type Placement, type Position } from './blocks/placement/schema.ts';
import type { TableRow } from './blocks/table/schema.ts';
import type { HtmlNode } from './html-tree.ts';
import type { PageDoc } from './model.ts';
import { treeOfParsed } from './parsed-tree.ts';
import type { OfKind, Piece } from './piece.ts';
import { columnRoom } from './room.ts';
import type { Standing } from './standing.ts';
import type { HouseRules } from './target.ts';
import { usualRules } from './usual-rules.ts';

/** House rules as plain as they can be, for examples in tests. */
export const PLAIN_RULES: HouseRules = {
  ...usualRules({ name: 'Reserve site', siteAddress: '', commercial: true }),
  cutPresets: [],
  namePattern: [{ part: 'subject' }],
  weightBudget: 50_000_000,
  severities: {},
};

/** A day on which nothing of the examples begins or ends. */
export const A_DAY = new Date('2026-11-28T12:00:00Z');

/** A piece that nothing is wrong with, with some of its facts changed. */
export function examplePiece(
  change: Partial<Omit<Piece, 'label' | 'kind'>> & { readonly label?: LabelPatch } = {},
  own: OfKind = { kind: 'picture' },
): Piece {
  const good = withPatch(EMPTY_LABEL, {
    title: 'Heron',
    creator: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    alt: { kind: 'text', text: 'A heron stands in the reeds.' },
  });
  const { label, ...facts } = change;
  return {
    id: 'heron',
    stem: 'heron',
    extension: 'jpg',
    size: { width: 6000, height: 4000 },
    trim: null,
    prep: AS_IT_CAME,
    bytes: 9_000_000,
    alpha: false,
    animated: false,
    isLicenceClaimed: false,
    ...facts,
    ...own,
    label: withPatch(good, label ?? {}),
  };
}

export function examplePlacement(position: Position, change: Partial<Placement> = {}): Placement {
  return { ...newPlacement('one', 'heron', position), ...change };
}

/** A placement as it stands in the column of its page. */
export function inColumn(placement: Placement, rules: HouseRules = PLAIN_RULES): Standing {
  return { placement, room: columnRoom(rules) };
}

/** The ID of a block in an example: its words, so that the same words are the same block. */
const idOf = (words: string) =>
  words
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 60) || 'blank';

/** A row of a table with cells of one line each. */
export function tableRow(...words: readonly string[]): TableRow {
  return {
    type: 'tableRow',
    content: words.map((text) => ({
      type: 'tableCell',
      content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
    })),
  };
}

export function paragraph(words: string, id = idOf(words)): Paragraph {
  return { type: 'paragraph', attrs: { id }, content: [{ type: 'text', text: words }] };
}

/** An empty line. */
export function blank(id = 'blank'): Paragraph {
  return { type: 'paragraph', attrs: { id } };
}

export function heading(words: string, level: HeadingLevel = 2, id = idOf(words)): Heading {
  return {
    type: 'heading',
    attrs: { id, level },
    content: words === '' ? [] : [{ type: 'text', text: words }],
  };
}

export function placed(placement: Placement): PlacedBlock {
  return { type: 'placement', attrs: placement };
}

/** A titled page of these blocks. */
export function examplePage(...blocks: Block[]): PageDoc {
  return { title: 'Bitterns', wants: [], tray: [], blocks };
}

/** HTML as the reader is given it, parsed as the standard says. */
export const htmlTree = (html: string): HtmlNode[] => treeOfParsed(parseFragment(html).childNodes);
