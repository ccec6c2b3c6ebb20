import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import {
  type PictureStyle,
  PictureStylesSchema,
  pictureStyleCss,
  StyleClassSchema,
  styleOn,
} from './picture-style.ts';
import { styleSheet } from './style-sheet.ts';
import { examplePage, examplePiece, examplePlacement, PLAIN_RULES, placed } from './testing.ts';
import { writeFragment } from './write.ts';

const PRINT: PictureStyle = {
  className: 'print',
  name: 'Old print',
  line: { width: 6, colour: '#fdfbf5' },
  corners: 2,
  shadow: 'soft',
  tone: 'warm',
};
const PLAIN: PictureStyle = {
  ...PRINT,
  className: 'plain',
  line: { width: 0, colour: '#000000' },
  corners: 0,
  shadow: 'none',
  tone: 'as it is',
};
const rules = { ...PLAIN_RULES, pictureStyles: [PRINT, PLAIN] };
const pieces = new Map([['heron', examplePiece()]]);
const page = (pictureStyle: string | null) =>
  examplePage(placed(examplePlacement('column', { pictureStyle })));
const written = (pictureStyle: string | null, isInline = false) =>
  writeFragment(page(pictureStyle), { rules, pieces, addressOf: ({ fileName }) => fileName, isInline });

describe('a picture style', () => {
  it('is a line inside the picture, corners, a shadow and a tone', () => {
    expect(pictureStyleCss(PRINT)).toBe(
      'outline:6px solid #fdfbf5;outline-offset:-6px;border-radius:2px;box-shadow:0 1px 4px rgb(0 0 0/0.28);filter:sepia(0.35)',
    );
    expect(pictureStyleCss(PLAIN)).toBe('');
  });

  it('goes out as a class of the target, or inline where its style sheet is not taken', () => {
    expect(written('print')).toContain('<figure class="placed column print"');
    expect(written('print')).not.toContain('sepia');
    expect(written('print', true)).toContain(
      `style="display:block;width:100%;height:auto;${pictureStyleCss(PRINT)}"`,
    );
    expect(written('gone')).toBe(written(null));
    expect(written('gone', true)).toBe(written(null, true));
  });

  it('is in the style sheet of pages that use it alone', () => {
    expect(styleSheet(rules, page('print'), pieces)).toContain(
      '.placed.print img { outline:6px solid #fdfbf5; ',
    );
    expect(styleSheet(rules, page(null), pieces)).not.toContain('.print');
    expect(styleSheet(rules, page('plain'), pieces)).not.toContain('.plain');
    expect(styleSheet(rules, page(null), 'any')).toContain('.placed.print img');
  });

  it('is found by its class', () => {
    expect(styleOn(rules.pictureStyles, { pictureStyle: 'print' })).toBe(PRINT);
    expect(styleOn(rules.pictureStyles, { pictureStyle: 'gone' })).toBeNull();
    expect(styleOn(rules.pictureStyles, { pictureStyle: null })).toBeNull();
  });

  it.each([
    ['print', true],
    ['Old-print_2', true],
    ['', false],
    ['2nd', false],
    ['a b', false],
    ['a"onload="x', false],
    ['placed', false],
    ['beside-left', false],
    ['stack-300', false],
    ['is-selected', false],
    ['x'.repeat(41), false],
  ])('may have the class %j: %s', (name, isOne) => {
    expect(v.is(StyleClassSchema, name)).toBe(isOne);
  });

  it('has a class of its own among twelve', () => {
    expect(v.is(PictureStylesSchema, [PRINT, PLAIN])).toBe(true);
    expect(v.is(PictureStylesSchema, [PRINT, PRINT])).toBe(false);
    const many = Array.from({ length: 13 }, (_, at) => ({ ...PRINT, className: `p${at}` }));
    expect(v.is(PictureStylesSchema, many)).toBe(false);
  });
});
