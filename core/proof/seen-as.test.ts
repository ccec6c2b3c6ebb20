import { describe, expect, it } from 'vitest';
import { documentStyle, styleSheet } from '../page/style-sheet.ts';
import { examplePage, PLAIN_RULES } from '../page/testing.ts';
import { readSeenAs, SEEN_AS, SEEN_AS_WORDS, styleSeenAs, viewportAs } from './seen-as.ts';

const rules = { ...PLAIN_RULES, dark: true };
const css = `${documentStyle(rules)}${styleSheet(rules, examplePage(), 'any')}`;
const rulesUnder = (condition: string, text: string) => text.split(condition).length - 1;

describe('a page that is seen otherwise', () => {
  it('is dark, or on paper, by the rules that it goes out with', () => {
    const dark = '@media screen and (prefers-color-scheme: dark)';
    expect(rulesUnder(dark, css)).toBeGreaterThan(0);
    expect(styleSeenAs('dark', css)).toBe(css.replaceAll(dark, '@media all'));
    const printed = styleSeenAs('printed', css);
    expect(rulesUnder('@media print', css)).toBeGreaterThan(0);
    expect(rulesUnder('@media print', printed)).toBe(0);
    // Paper is white whatever the device is set to.
    expect(rulesUnder('@media not all', printed)).toBe(rulesUnder(dark, css));
  });

  it('has its text spaced out over whatever the page says', () => {
    expect(styleSeenAs('spaced', css)).toContain('letter-spacing: 0.12em !important');
    expect(styleSeenAs('usual', css)).toBe(css);
  });

  it('is laid out for half of the window where its text is twice as large, and for a sheet of paper', () => {
    expect([viewportAs('large', 1280), viewportAs('printed', 390), viewportAs('usual', 390)]).toEqual([
      640, 794, 390,
    ]);
  });

  it('is asked for by name, and is as usual where nobody knows that name', () => {
    expect(SEEN_AS.map(readSeenAs)).toEqual(SEEN_AS);
    expect([readSeenAs('upside-down'), readSeenAs(undefined), readSeenAs(['dark'])]).toEqual([
      'usual',
      'usual',
      'usual',
    ]);
    expect(Object.keys(SEEN_AS_WORDS)).toEqual([...SEEN_AS]);
  });
});
