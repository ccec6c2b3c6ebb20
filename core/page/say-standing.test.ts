import { describe, expect, it } from 'vitest';
import { saySelected, sayStanding } from './say-standing.ts';
import { examplePlacement, inColumn, PLAIN_RULES } from './testing.ts';

const HERON = { name: 'Grey heron', width: 331.2, of: 6000 };

describe('what is said of a placement', () => {
  it.each([
    ['column', 'As wide as the column.'],
    ['bleed', 'From one edge of the window to the other.'],
    [
      'beside-right',
      'Beside the text, on the right, 46% of the column. Under 480 px it takes the whole width.',
    ],
  ] as const)('that stands %s: %s', (position, said) => {
    expect(sayStanding(inColumn(examplePlacement(position)), PLAIN_RULES)).toBe(said);
  });

  it('that is selected is its name, where it stands, its shown size of what, and its margins', () => {
    const placement = examplePlacement('beside-left', {
      margins: { top: 4, right: 22, bottom: 12, left: 0 },
    });
    expect(saySelected(inColumn(placement), PLAIN_RULES, HERON)).toMatch(
      /^Grey heron: beside the text, on the left, \d+% of the column, 331 px shown of 6000, margins top 4, right 22, bottom 12, left 0\.$/u,
    );
    expect(saySelected(inColumn(examplePlacement('column')), PLAIN_RULES, { ...HERON, of: null })).toMatch(
      /^Grey heron: as wide as the column, 331 px wide, margins /u,
    );
  });
});
