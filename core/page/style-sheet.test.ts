import { describe, expect, it } from 'vitest';
import { contrastRatio, luminance, rgbOf } from '../media/colour.ts';
import { documentStyle, styleSheet } from './style-sheet.ts';
import { examplePage, PLAIN_RULES } from './testing.ts';

const sheet = (dark: boolean) => styleSheet({ ...PLAIN_RULES, dark }, examplePage(), new Map());
const DARK = 'prefers-color-scheme: dark';

/** The colours of text, links and captions in a piece of a style sheet. */
function coloursOf(css: string): readonly string[] {
  return ['.placard', '.placard a', '.placed figcaption'].map(
    (selector) =>
      new RegExp(`(?:^|\\s)${selector.replaceAll('.', '\\.')} \\{[^}]*?\\bcolor: (#[0-9a-f]{6})`).exec(
        css,
      )?.[1] ?? '',
  );
}

describe('a page where readers’ devices are dark', () => {
  it('is dark where the target says so, and nowhere else', () => {
    expect(sheet(false)).not.toContain(DARK);
    expect(documentStyle({ dark: false })).not.toContain(DARK);
    expect(sheet(true)).toContain(DARK);
    expect(documentStyle({ dark: true })).toContain('color-scheme: light dark');
  });

  it('is read as well on either ground', () => {
    const css = sheet(true);
    const dark = css.slice(css.indexOf(DARK));
    const onDark = /background: (#[0-9a-f]{6}); \} \}/.exec(documentStyle({ dark: true }))?.[1] ?? '';
    for (const [colours, ground] of [
      [coloursOf(css), '#ffffff'],
      [coloursOf(dark), onDark],
    ] as const)
      for (const colour of colours)
        expect(contrastRatio(luminance(rgbOf(colour)), luminance(rgbOf(ground)))).toBeGreaterThan(4.5);
  });
});
