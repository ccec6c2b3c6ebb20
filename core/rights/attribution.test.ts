import { describe, expect, it } from 'vitest';
import { DE } from '../messages/de.ts';
import { EN } from '../messages/en.ts';
import { writeCredit } from '../page/write-credit.ts';
import { creditParts } from './attribution.ts';
import { creditOf, creditText } from './credit.ts';
import { copyAt, judge } from './judgement.ts';
import { EMPTY_LABEL, type LabelPatch, withPatch } from './label.ts';
import { LICENCE_IDS, licenceTerms } from './licences.ts';
import { NO_TERMS } from './terms.ts';
import { EXAMPLE_PLACE } from './testing.ts';

const label = (patch: LabelPatch) => withPatch(EMPTY_LABEL, { creator: 'Ines Okonjo', ...patch });
const parts = (patch: LabelPatch, changes: readonly 'cropped'[] = [], messages = EN) =>
  creditParts(label(patch), judge(label(patch), copyAt(EXAMPLE_PLACE, changes)), messages);
const whole = (patch: LabelPatch, changes: readonly 'cropped'[] = [], messages = EN) =>
  creditOf(label(patch), judge(label(patch), copyAt(EXAMPLE_PLACE, changes)), {
    made: 'photo',
    messages,
    language: messages === DE ? 'de' : 'en',
    form: 'full',
  });
const credit = (patch: LabelPatch, changes: readonly 'cropped'[] = [], messages = EN) =>
  creditText(whole(patch, changes, messages));

const WORK = 'https://commonfield.example/p/42';

describe('the credit of each licence of Creative Commons, by its clauses', () => {
  const all = LICENCE_IDS.filter((id) => id.startsWith('cc-'));

  it.each(all)('%s: maker, notice, licence with its address, address of the work, changes', (licence) => {
    const said = {
      licence,
      title: 'Heron at dawn',
      copyrightNotice: '© 2026 Saltmere Trust',
      sourceAddress: WORK,
    };
    const made = parts(said, ['cropped']);
    const of = (kind: string) => made.find((part) => part.kind === kind);
    // 4.0 s3(a)(1)(A)(i) and 1.0 to 3.0 s4: the creator.
    expect(of('maker')?.text).toBe('Ines Okonjo');
    // (ii), and s4: the copyright notice, kept as it is.
    expect(of('notice')?.text).toBe('© 2026 Saltmere Trust');
    // (iii) and (iv): the licence, by the address of its text, in which the disclaimer stands.
    expect(of('licence')).toMatchObject({ address: licenceTerms(licence).address });
    // (v): where the work is.
    expect(made.some(({ address }) => address === WORK)).toBe(true);
    // (B), and s4: that it was changed.
    expect(of('changes')?.text).toBe('cropped');
    // Up to 3.0 s4 the title, if it was supplied; 4.0 asks for it no more.
    expect(of('title')?.text).toBe(licence.endsWith('-4.0') ? undefined : '“Heron at dawn”');
    expect(writeCredit(whole(said, ['cropped']))).toContain(
      `<a href="${licenceTerms(licence).address}" rel="license" property="license">`,
    );
  });

  it('leads to the work where its source has no name, and says by its host where that is', () => {
    expect(credit({ licence: 'cc-by-4.0', sourceAddress: WORK })).toBe(
      'Photo: Ines Okonjo, commonfield.example, CC BY 4.0.',
    );
    expect(writeCredit(whole({ licence: 'cc-by-sa-4.0', sourceAddress: WORK }))).toContain(
      `<a href="${WORK}">commonfield.example</a>`,
    );
  });

  it('names the port, and leads to its text', () => {
    const licenceAddress = 'https://creativecommons.org/licenses/by/3.0/de/';
    expect(parts({ licence: 'cc-by-3.0', licenceAddress }).at(-1)).toEqual({
      kind: 'licence',
      text: 'CC BY 3.0 DE',
      address: licenceAddress,
    });
  });

  it('says the same in German', () => {
    expect(credit({ licence: 'cc-by-3.0', title: 'Der „alte“ Reiher' }, ['cropped'], DE)).toBe(
      '„Der ‚alte‘ Reiher“, Ines Okonjo, CC BY 3.0, beschnitten.',
    );
  });
});

describe('a credit names nobody twice', () => {
  it.each([
    // creator, source, notice, what comes of them
    ['Ines Okonjo', 'INES OKONJO', '', 'Photo: Ines Okonjo, CC BY 4.0.'],
    ['Saltmere Trust', 'The Saltmere Trust Ltd.', '', 'Photo: Saltmere Trust, CC BY 4.0.'],
    ['Inés Okonjo', 'Ines Okonjo', '', 'Photo: Inés Okonjo, CC BY 4.0.'],
    ['Ines Okonjo', '', '© 2026 Ines Okonjo', 'Photo: © 2026 Ines Okonjo, CC BY 4.0.'],
    ['Ines', '', '© Inesita Vale', 'Photo: Ines, © Inesita Vale, CC BY 4.0.'],
    ['', '', '© 2026 Saltmere Trust', 'Photo: © 2026 Saltmere Trust, CC BY 4.0.'],
    ['', 'Commonfield', '', 'Photo: Commonfield, CC BY 4.0.'],
  ])('%j, %j, %j', (creator, source, copyrightNotice, says) => {
    expect(credit({ licence: 'cc-by-4.0', creator, source, copyrightNotice })).toBe(says);
  });

  it('leads to the maker by the notice, and to the work beside it', () => {
    const made = parts({
      licence: 'cc-by-4.0',
      makerAddress: 'https://ines.example/',
      copyrightNotice: '© Ines Okonjo',
      source: 'Ines Okonjo',
      sourceAddress: WORK,
    });
    expect(made.map(({ text, address }) => [text, address])).toEqual([
      ['© Ines Okonjo', 'https://ines.example/'],
      ['commonfield.example', WORK],
      ['CC BY 4.0', 'https://creativecommons.org/licenses/by/4.0/'],
    ]);
  });
});

describe('a credit line', () => {
  it('credits somebody, or is not there', () => {
    expect(credit({ licence: 'cc0' })).toBe('Photo: Ines Okonjo, CC0 1.0.');
    expect(credit({ licence: 'cc0', creator: '' })).toBe('');
    expect(credit({ licence: 'pdm', creator: '', source: 'Wayside Archive' })).toBe(
      'Photo: Wayside Archive, public domain.',
    );
    expect(credit({ licence: 'own' })).toBe('');
  });

  it('ends with one point', () => {
    expect(credit({ licence: 'own', creator: 'Reed & Sons Ltd.' })).toBe('');
    expect(
      credit({
        licence: 'agency',
        creator: '',
        source: 'Brackwater',
        sourceId: '88',
        licensedTo: 'Saltmere Ltd.',
      }),
    ).toBe('Photo: Brackwater, 88, licensed to Saltmere Ltd.');
    expect(writeCredit(whole({ licence: 'agency', source: 'B', sourceId: 'Nr.' }))).toBe(
      'Photo: Ines Okonjo, B, Nr.',
    );
  });

  it('quotes a title that quotes, and one that is quoted already', () => {
    expect(credit({ licence: 'cc-by-3.0', title: 'The “Old” Heron' })).toBe(
      '“The ‘Old’ Heron”, Ines Okonjo, CC BY 3.0.',
    );
    expect(credit({ licence: 'cc-by-3.0', title: '"Heron"' })).toContain('“Heron”, Ines');
    expect(credit({ licence: 'cc-by-3.0', title: 'Don’t feed the heron’s young' })).toContain(
      '“Don’t feed the heron’s young”',
    );
  });

  it('names ID, licensee and day of an agency', () => {
    expect(
      credit({
        licence: 'agency',
        source: 'Brackwater Pictures',
        sourceId: '88-4412',
        licensedTo: 'Saltmere',
        terms: { ...NO_TERMS, begins: '2025-12-14' },
      }),
    ).toBe(
      'Photo: Ines Okonjo, Brackwater Pictures, 88-4412, licensed to Saltmere, accessed 14 December 2025.',
    );
  });
});
