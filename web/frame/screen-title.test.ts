import { describe, expect, it } from 'vitest';
import { screenTitle } from './screen-title.ts';

describe('the title of a screen', () => {
  it.each([
    ['/', 'Two things wait for you, Mara', 'Two things wait for you, Mara - Desk - Placard'],
    ['/pages', 'Pages', 'Pages - Placard'],
    ['/pages/abc', 'Tides this week', 'Tides this week - Sheet - Placard'],
    ['/pages/abc/proof', 'Tides this week', 'Tides this week - Proof - Placard'],
    ['/shelf/abc/bench', 'Grey heron', 'Grey heron - Bench - Placard'],
    ['/shelf/runs/new', 'A run over many pictures', 'A run over many pictures - Runs - Placard'],
    ['/nowhere', 'There is nothing at this address', 'There is nothing at this address - Placard'],
  ])('at %s with the heading "%s" is "%s"', (path, heading, title) => {
    expect(screenTitle(path, heading)).toBe(title);
  });
});
