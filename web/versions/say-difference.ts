import type { Block } from '#core/page/blocks/block.ts';
import { type ComparedFact, type Difference, saidBy } from '#core/page/compare.ts';
import { plainText } from '#core/page/inline.ts';
import type { Want } from '#core/page/model.ts';
import type { Piece } from '#core/page/piece.ts';
import { runsOf } from '#core/page/walk.ts';
import { SHAPE_WORDS } from '../pages/want-lines.tsx';
import { sheetKindOf } from '../sheet/blocks/kinds.ts';

type Pieces = ReadonlyMap<string, Piece>;

const MOST_LETTERS = 60;

/** What a block is called among others: a piece by its name, words by how they begin. */
export function sayBlock(block: Block, pieces: Pieces): string {
  if (block.type === 'placement') {
    const piece = pieces.get(block.attrs.asset);
    return piece ? piece.label.title || piece.stem : 'A piece that is gone';
  }
  const name = sheetKindOf(block.type)?.title ?? 'A part';
  const said = runsOf({ blocks: [block] })
    .map(plainText)
    .join(' ');
  const words = (said || saidBy(block)).replace(/\s+/g, ' ').trim();
  if (words === '') return block.type === 'paragraph' ? 'An empty line' : name;
  const begins = words.length > MOST_LETTERS ? `${words.slice(0, MOST_LETTERS).trimEnd()}…` : words;
  return `${name} “${begins}”`;
}

const FACTS: Readonly<Record<ComparedFact, string>> = {
  title: 'The title',
  lead: 'What leads the article',
  address: 'The address on the site',
  headTitle: 'The title in listings',
  summary: 'The summary',
  keyPhrase: 'The key phrase',
};

export const sayFact = (fact: ComparedFact): string => FACTS[fact];

/** A want as it stands: "Lead of the page, landscape, at least 1600 px, filled by Heron at dawn". */
export function sayWant({ purpose, shape, leastWidth, filledBy }: Want, pieces: Pieces): string {
  const piece = filledBy === null ? undefined : pieces.get(filledBy);
  const filled = piece ? piece.label.title || piece.stem : 'a piece';
  return [
    purpose,
    SHAPE_WORDS[shape],
    ...(leastWidth > 0 ? [`at least ${leastWidth} px`] : []),
    filledBy === null ? 'not filled' : `filled by ${filled}`,
  ].join(', ');
}

/** What a difference is about. */
export function sayWhere(difference: Difference, pieces: Pieces): string {
  switch (difference.kind) {
    case 'fact':
      return sayFact(difference.id);
    case 'changed':
      return sayBlock(difference.after, pieces);
    default:
      return sayBlock(difference.block, pieces);
  }
}

/** Attributes of blocks as the label calls them; one that is not here is called by its own name. */
const SETTINGS: Readonly<Record<string, string>> = {
  alt: 'alt text',
  asset: 'another piece',
  backgroundColour: 'background',
  click: 'what a press does',
  deepest: 'how deep it lists',
  gap: 'gap',
  href: 'link',
  leads: 'what comes first on a phone',
  level: 'level',
  perRow: 'how many in a row',
  pictureStyle: 'picture style',
  prep: 'how it is prepared',
  ratio: 'shape',
  settings: 'settings of the embed',
  stackBelow: 'from which window it stands beside',
};

/** What became of it, in a few words. */
export function sayWhat(difference: Difference): string {
  switch (difference.kind) {
    case 'added':
      return 'added';
    case 'removed':
      return 'taken out';
    case 'moved':
      return 'moved';
    case 'fact':
      return difference.before === '' ? 'said' : difference.after === '' ? 'taken out' : 'changed';
    case 'changed':
      return [
        ...(difference.words ? ['reworded'] : []),
        ...(difference.isSetOtherwise ? ['set otherwise'] : []),
        ...difference.settings.map(
          (name) => SETTINGS[name] ?? name.replace(/[A-Z]/g, (big) => ` ${big.toLowerCase()}`),
        ),
        ...(difference.isMoved ? ['moved'] : []),
      ].join(', ');
  }
}
