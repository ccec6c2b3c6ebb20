import fc from 'fast-check';
import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { EN } from '../messages/en.ts';
import { creditParts } from './attribution.ts';
import {
  type HouseLicence,
  HouseLicenceSchema,
  houseKey,
  LicenceKeySchema,
  licenceByKey,
  licenceKeyOf,
  maybeHouseLicence,
  termsOf,
} from './house-licence.ts';
import { copyAt, decidableOf, judge } from './judgement.ts';
import { EMPTY_LABEL, type Label, withPatch } from './label.ts';
import { readLedger } from './ledger-file.ts';
import { LICENCE_IDS } from './licences.ts';
import { sayHouseLicence } from './say-house-licence.ts';
import { sayJudgement } from './say-judgement.ts';
import { EXAMPLE_LICENCE, EXAMPLE_PLACE } from './testing.ts';

const under = (patch: Partial<HouseLicence> = {}): Label =>
  withPatch(EMPTY_LABEL, {
    title: 'Reed cutters',
    creator: 'Tomas Reill',
    copyrightNotice: '© Saltmere Town Archive',
    licence: 'house',
    houseLicence: { ...EXAMPLE_LICENCE, ...patch },
  });
const codes = (label: Label, place: object = {}, changes: readonly 'cropped'[] = []) =>
  judge(label, copyAt({ ...EXAMPLE_PLACE, commercial: false, ...place }, changes)).reasons.map(
    ({ code }) => code,
  );

describe('a licence of the house', () => {
  it.each([
    ['commercial use', { commercial: false }, { commercial: true }, [], 'not-commercial'],
    ['changes', { allowsDerivatives: false }, {}, ['cropped'], 'no-changes'],
    ['other than education', { educationalOnly: true }, {}, [], 'educational-only'],
    ['other countries', { onlyIn: 'GB' }, { territory: ['FR'] }, [], 'territory'],
    ['being published', { publish: false }, {}, [], 'licence-refuses'],
  ] as const)('is judged by its own columns: forbids %s', (_, column, place, changes, code) => {
    const opposite = Object.fromEntries(
      Object.entries(column).map(([field, value]) => [field, typeof value === 'boolean' ? !value : null]),
    );
    expect(codes(under({ ...column }), place, [...changes])).toEqual([code]);
    expect(codes(under(opposite), place, [...changes])).toEqual([]);
  });

  it('that is not for publishing is decided upon only where it leaves that open', () => {
    const refused = (decision: boolean) => {
      const [reason] = judge(under({ publish: false, decision }), copyAt(EXAMPLE_PLACE)).reasons;
      return reason ? decidableOf(reason) : undefined;
    };
    expect([refused(true), refused(false)]).toEqual(['publish', null]);
    expect(sayJudgement(judge(under({ publish: false }), copyAt(EXAMPLE_PLACE)))).toBe(
      'May not be used here. Town Archive agreement does not let it be published.',
    );
  });

  it('is credited by its own columns: title, maker, notice, its name and its address', () => {
    const judged = (label: Label) => judge(label, copyAt({ ...EXAMPLE_PLACE, commercial: false }));
    const parts = (label: Label) =>
      creditParts(label, judged(label), EN).map(({ kind, text, address }) => [kind, text, address]);
    expect(parts(under())).toEqual([
      ['title', EN.quoted('Reed cutters'), null],
      ['maker', 'Tomas Reill', null],
      ['notice', '© Saltmere Town Archive', null],
      ['licence', 'Town Archive agreement', 'https://archive.example/terms/'],
    ]);
    const plain = under({ titleInCredit: 'no', keepsNotice: false, address: '' });
    expect(parts(plain)).toEqual([
      ['maker', 'Tomas Reill', null],
      ['licence', 'Town Archive agreement', null],
    ]);
    expect(parts(under({ owesCredit: 'no' }))).toEqual([]);
  });

  it('without its terms lets nothing be done', () => {
    const label = withPatch(EMPTY_LABEL, { licence: 'house' });
    expect(judge(label, copyAt(EXAMPLE_PLACE)).verdict).toBe('not-allowed');
  });

  it('is known by its name, its short form and its address, and by nothing less', () => {
    for (const said of [EXAMPLE_LICENCE.name, 'town archive agreement', ' https://archive.example/terms '])
      expect(maybeHouseLicence(said, [EXAMPLE_LICENCE])?.id).toBe('town-archive');
    for (const said of ['', 'archive', 'https://archive.example/'])
      expect(maybeHouseLicence(said, [EXAMPLE_LICENCE])).toBeUndefined();
    // One without an address is not what nothing is said of.
    expect(maybeHouseLicence('', [{ ...EXAMPLE_LICENCE, address: '' }])).toBeUndefined();
  });

  it('has a key by which lists offer it, beside those of the catalogue', () => {
    expect(licenceKeyOf(under())).toBe('house:town-archive');
    expect(licenceByKey(houseKey('town-archive'), [EXAMPLE_LICENCE])).toEqual({
      licence: 'house',
      houseLicence: EXAMPLE_LICENCE,
    });
    expect(licenceByKey(houseKey('gone'), [EXAMPLE_LICENCE])).toBeNull();
    for (const id of LICENCE_IDS) {
      expect(v.is(LicenceKeySchema, id)).toBe(true);
      expect(licenceByKey(id, [])).toEqual({ licence: id, houseLicence: null });
      expect(termsOf({ licence: id, houseLicence: EXAMPLE_LICENCE }).name === EXAMPLE_LICENCE.name).toBe(
        id === 'house',
      );
    }
    expect(v.is(LicenceKeySchema, 'house:Town Archive')).toBe(false);
  });

  it('is read from a ledger by its name where the house has it, and is a fault where not', () => {
    const file = new TextEncoder().encode('id,licence\nheron,Town Archive agreement\n');
    const labels = (ofHouse: readonly HouseLicence[]) => {
      const read = readLedger(file, ofHouse);
      return read.kind === 'read' ? read.lines.map(({ label, faults }) => [label, faults.length]) : [];
    };
    expect(labels([EXAMPLE_LICENCE])).toEqual([[{ licence: 'house', houseLicence: EXAMPLE_LICENCE }, 0]]);
    expect(labels([])).toEqual([[{}, 1]]);
  });

  it('says in sentences what it allows', () => {
    expect(sayHouseLicence(EXAMPLE_LICENCE)).toBe(
      'For uses that are not commercial. Not to be changed. Asks for a credit.',
    );
    expect(
      sayHouseLicence({
        ...EXAMPLE_LICENCE,
        commercial: true,
        onlyIn: 'GB',
        allowsDerivatives: true,
        sayChanges: true,
        shareAlike: true,
      }),
    ).toBe(
      'For any use in the United Kingdom. May be cropped and changed. Asks for a credit, that changes are said and the same licence for what was changed.',
    );
  });

  it('is never taken for one that allows more than its columns do', () => {
    const flags = fc.record({
      publish: fc.boolean(),
      commercial: fc.boolean(),
      educationalOnly: fc.boolean(),
      allowsDerivatives: fc.boolean(),
      onlyIn: fc.constantFrom(null, 'GB', 'EU'),
    });
    fc.assert(
      fc.property(flags, fc.boolean(), fc.boolean(), (columns, isCommercial, isChanged) => {
        const label = under({ ...columns });
        v.parse(HouseLicenceSchema, label.houseLicence);
        const place = { ...EXAMPLE_PLACE, commercial: isCommercial, educational: false, territory: ['GB'] };
        const { verdict } = judge(label, copyAt(place, isChanged ? ['cropped'] : []));
        const isOpen =
          columns.publish &&
          (columns.commercial || !isCommercial) &&
          !columns.educationalOnly &&
          (columns.allowsDerivatives || !isChanged) &&
          columns.onlyIn !== 'EU';
        expect(verdict !== 'not-allowed').toBe(isOpen);
      }),
    );
  });
});
