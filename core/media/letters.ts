/**
 * Advance widths of the face that words over a picture are set in (Archivo, weight 600, width 100), in thousandths of
 * its size. Every side measures by this table, so that lines break at the same place wherever they are set. An
 * accented letter is as wide as its own letter; pairs are not kerned for the measure.
 */
const WIDTHS: readonly (readonly [width: number, letters: string])[] = [
  [200, ' '],
  [209, '`'],
  [245, '|'],
  [246, "'"],
  [250, 'jilıłŀ'],
  [282, 'I‘’'],
  [292, '!¡'],
  [298, '/\\'],
  [300, ',.'],
  [307, 'f'],
  [314, 'tŧ'],
  [333, '-·'],
  [336, ':;'],
  [339, '[]'],
  [357, '()²³¹ªº'],
  [362, 'r'],
  [394, '{}'],
  [407, '*°'],
  [425, '•'],
  [444, '"'],
  [482, '“”„'],
  [507, '_–'],
  [529, 'vyz'],
  [545, '$skxc'],
  [556, 'a'],
  [561, 'e'],
  [570, 'L'],
  [577, '0123456789€'],
  [584, '#uhnJ'],
  [592, 'gbdpqo'],
  [613, 'FT?'],
  [636, 'Z+<=>^~'],
  [671, 'SPVEY'],
  [690, 'XKÞ'],
  [709, 'BA'],
  [724, 'RCUDÐĐ'],
  [732, '&HNĦŊ'],
  [764, 'wØ©®'],
  [788, 'OQG'],
  [855, 'M¼½¾'],
  [895, 'mæ'],
  [954, 'W…œ'],
  [1000, '%@—ÆŒ'],
];

const WIDTH_OF = new Map(
  WIDTHS.flatMap(([width, letters]) => [...letters].map((letter) => [letter, width] as const)),
);

/** Letters that the table does not know are taken for ordinary ones. */
const OTHER = 600;

/** How wide a line of text is, as a share of its size. */
export function advanceOf(text: string): number {
  let sum = 0;
  for (const letter of text)
    sum += WIDTH_OF.get(letter) ?? WIDTH_OF.get(letter.normalize('NFD').charAt(0)) ?? OTHER;
  return sum / 1000;
}
