import { describe, expect, it } from 'vitest';
import type { SaidAbout, SaidBy, Statement } from '../gather/statement.ts';
import { differencesOf, sayDifference } from './differences.ts';
import { EMPTY_LABEL, type LabelPatch, withPatch } from './label.ts';

const label = (patch: LabelPatch) => withPatch(EMPTY_LABEL, patch);
const says = (by: SaidBy, about: SaidAbout, value: string): Statement => ({ by, about, value });
const about = (patch: LabelPatch, ...said: readonly Statement[]) =>
  differencesOf(label(patch), said, null).map((one) => one.about);

describe('what a file says otherwise than its label', () => {
  it('is another maker, another notice, another licence', () => {
    expect(about({ creator: 'Tomas Reill' }, says('file', 'maker', 'Ines Okonjo'))).toEqual(['maker']);
    expect(about({ copyrightNotice: '© House' }, says('file', 'notice', '© Ines Okonjo'))).toEqual([
      'notice',
    ]);
    expect(about({ licence: 'cc-by-4.0' }, says('file', 'licence', 'CC BY-NC 4.0'))).toEqual(['licence']);
    expect(about({ licence: 'cc0' }, says('file', 'licence', 'All rights reserved'))).toEqual(['licence']);
  });

  it('is nothing where the label is silent, or says the same in another spelling', () => {
    expect(about({}, says('file', 'maker', 'Ines Okonjo'), says('file', 'licence', 'CC0'))).toEqual([]);
    for (const value of ['INES OKONJO', 'Ines Okonjo, Saltmere', 'Ines  Ókonjo'])
      expect(about({ creator: 'Ines Okonjo' }, says('file', 'maker', value))).toEqual([]);
    expect(about({ creator: 'Ines Okonjo and Tomas Reill' }, says('file', 'maker', 'Tomas Reill'))).toEqual(
      [],
    );
    for (const value of ['(C) Ines Okonjo', 'Copyright Ines Okonjo'])
      expect(about({ copyrightNotice: '© Ines Okonjo' }, says('file', 'notice', value))).toEqual([]);
    expect(about({ licence: 'cc-by-4.0' }, says('file', 'licence', 'Attribution 4.0 International'))).toEqual(
      [],
    );
  });

  it('is nothing where somebody gave the house a licence that the file cannot know', () => {
    for (const licence of ['own', 'hire', 'permission', 'agency', 'comp'] as const)
      expect(about({ licence }, says('file', 'licence', 'All rights reserved'))).toEqual([]);
  });

  it('is not what a page or a drive said when it came: that was seen', () => {
    expect(about({ creator: 'Tomas Reill' }, says('page', 'maker', 'Ines Okonjo'))).toEqual([]);
  });

  it('says what the label would say instead', () => {
    const [one] = differencesOf(
      label({ licence: 'cc-by-4.0', licenceAddress: 'https://creativecommons.org/licenses/by/3.0/de/' }),
      [says('file', 'licence', 'https://creativecommons.org/licenses/by-nc/4.0/')],
      null,
    );
    expect(one?.patch).toEqual({ licence: 'cc-by-nc-4.0', houseLicence: null, licenceAddress: '' });
    expect(one && sayDifference(one)).toBe(
      'The file says of its licence: CC BY-NC 4.0. The label says: CC BY 4.0.',
    );
  });
});

describe('what a source says by now', () => {
  const kept = label({ licence: 'cc-by-4.0', creator: 'Ines Okonjo' });
  const then = [says('json-ld', 'licence', 'CC BY 4.0'), says('json-ld', 'maker', 'Ines Okonjo')];
  const asked = (...now: readonly Statement[]) =>
    differencesOf(kept, [], { before: then, now }).map(({ about: what, says: words }) => [what, words]);

  it('is told where it is another thing than it said then, and than the label says', () => {
    expect(asked(...then)).toEqual([]);
    expect(
      asked(says('json-ld', 'licence', 'CC BY-ND 4.0'), says('json-ld', 'maker', 'Ines Okonjo')),
    ).toEqual([['licence', 'CC BY-ND 4.0']]);
    expect(asked(says('json-ld', 'maker', 'Tomas Reill'))).toEqual([['maker', 'Tomas Reill']]);
    // That it says nothing any more is no other thing said.
    expect(asked()).toEqual([]);
  });

  it('is not told again where a person had decided otherwise over the same words', () => {
    const decided = label({ licence: 'copyright' });
    expect(differencesOf(decided, [], { before: then, now: then })).toEqual([]);
  });

  it('is not told where it disagrees with itself: nothing is clear then', () => {
    expect(
      asked(says('json-ld', 'licence', 'CC BY-ND 4.0'), says('page', 'licence', 'CC0'), ...then.slice(1)),
    ).toEqual([]);
  });
});
