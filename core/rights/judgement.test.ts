import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { copyAt, decidableOf, judge } from './judgement.ts';
import { EMPTY_LABEL, type LabelPatch, LabelSchema, withPatch } from './label.ts';
import { LICENCE_IDS } from './licences.ts';
import { isWithin, sayRegions } from './regions.ts';
import { sayJudgement } from './say-judgement.ts';
import { type Decision, dayIn, isTimeZone, NO_TERMS, type Terms } from './terms.ts';
import { EXAMPLE_PLACE } from './testing.ts';

const SITE = { ...EXAMPLE_PLACE, commercial: true, territory: ['GB'] } as const;
const label = (patch: LabelPatch, terms: Partial<Terms> = {}) =>
  withPatch(EMPTY_LABEL, {
    creator: 'Ines Okonjo',
    source: 'Brackwater',
    sourceId: '88-4420',
    licence: 'agency',
    terms: { ...NO_TERMS, ...terms },
    ...patch,
  });
const codes = (one: ReturnType<typeof label>, day: string | null, site: Partial<typeof SITE> | object = {}) =>
  judge(one, copyAt({ ...SITE, ...site }, [], day)).reasons.map(({ code }) => code);

describe('what was agreed for a piece', () => {
  it('holds on its first and on its last day, and not on the days before and after', () => {
    const agreed = label({}, { begins: '2025-12-14', ends: '2026-12-14' });
    expect(codes(agreed, '2025-12-13')).toEqual(['not-yet']);
    expect(codes(agreed, '2025-12-14')).toEqual([]);
    expect(codes(agreed, '2026-12-14')).toEqual([]);
    expect(codes(agreed, '2026-12-15')).toEqual(['over']);
    // Where no day is asked about, as for its credit, none refuses.
    expect(codes(agreed, null)).toEqual([]);
    const judged = judge(agreed, copyAt(SITE, [], '2026-12-01'));
    expect(judged.until).toBe('2026-12-14');
    expect(sayJudgement(judged)).toBe('May be used here until 14 December 2026. The credit is owed.');
    expect(sayJudgement(judge(agreed, copyAt(SITE, [], '2026-12-15')))).toBe(
      'May not be used here. What was agreed ended on 14 December 2026. Renew it, or put another in its place.',
    );
  });

  it('ends with its day where the target is, whatever day it is elsewhere', () => {
    const moment = new Date('2026-12-14T23:30:00Z');
    expect(dayIn('Europe/London', moment)).toBe('2026-12-14');
    expect(dayIn('Europe/Berlin', moment)).toBe('2026-12-15');
    expect(dayIn('Pacific/Auckland', new Date('2026-12-14T11:00:00Z'))).toBe('2026-12-15');
    expect(dayIn('UTC', new Date('1899-12-31T23:59:59Z'))).toBe('1899-12-31');
    expect(dayIn('UTC', new Date('2101-01-01T00:00:00Z'))).toBe('2101-01-01');
    expect(isTimeZone('Europe/London')).toBe(true);
    expect(isTimeZone('Saltmere/Marsh')).toBe(false);
  });

  it('holds where it was agreed for, countries and what holds them', () => {
    expect(codes(label({}, { territory: ['GB', 'IE'] }), null)).toEqual([]);
    expect(codes(label({}, { territory: ['150'] }), null)).toEqual([]);
    expect(codes(label({}, { territory: ['EU'] }), null)).toEqual(['territory']);
    // Read everywhere, no list of countries is enough.
    expect(codes(label({}, { territory: ['150'] }), null, { territory: [] })).toEqual(['territory']);
    expect(isWithin([], [])).toBe(true);
    expect(isWithin(['EU'], ['150', 'CY'])).toBe(true);
    expect(isWithin(['EU'], ['150'])).toBe(false);
    expect(sayRegions(['GB', 'IE', '150'])).toBe('the United Kingdom, Ireland and Europe');
  });

  it('holds for the ways of publishing that were agreed', () => {
    expect(codes(label({}, { uses: ['web', 'social'] }), null)).toEqual([]);
    expect(codes(label({}, { uses: ['print'] }), null)).toEqual(['use-not-agreed']);
    expect(codes(label({}, { uses: ['web'] }), null, { publishing: 'newsletter' })).toEqual([
      'use-not-agreed',
    ]);
  });

  it('may be shown on the days on which the house wants it shown', () => {
    const shown = label({ licence: 'own' }, { shownFrom: '2026-12-01', shownUntil: '2026-12-24' });
    expect(codes(shown, '2026-11-30')).toEqual(['not-yet']);
    expect(codes(shown, '2026-12-24')).toEqual([]);
    expect(codes(shown, '2026-12-25')).toEqual(['over']);
  });

  it('stops where people shown have not consented, or do no more', () => {
    for (const consent of ['missing', 'withdrawn'] as const) {
      expect(codes(label({ licence: 'own' }, { consent }), null)).toEqual(['consent']);
      // Nobody else can decide that for them.
      const everything: Decision[] = (['publish', 'commercial', 'changes', 'territory'] as const).map(
        (about) => decision({ about }),
      );
      expect(codes(label({ licence: 'own', decisions: everything }, { consent }), null)).toEqual(['consent']);
    }
    for (const consent of ['unsaid', 'not-needed', 'given'] as const)
      expect(codes(label({ licence: 'own' }, { consent }), null)).toEqual([]);
  });

  it.each([
    [{ begins: '2026-12-14', ends: '2026-12-13' }],
    [{ shownFrom: '2026-12-14', shownUntil: '2026-01-01' }],
    [{ ends: '2026-02-30' }],
    [{ ends: '14 December' }],
    [{ territory: ['Europe'] }],
    [{ price: { amount: -1, currency: 'GBP' } }],
  ])('is refused as %j', (terms) => {
    expect(v.safeParse(LabelSchema, { ...EMPTY_LABEL, terms: { ...NO_TERMS, ...terms } }).success).toBe(
      false,
    );
  });
});

const decision = (change: Partial<Decision> = {}): Decision => ({
  about: 'publish',
  target: '',
  by: 'Piet Hallam',
  on: '2026-11-03',
  why: 'The museum wrote that we may.',
  document: null,
  ...change,
});

describe('who may see and use a piece', () => {
  it('goes out where readers may see it, and nowhere else', () => {
    expect(codes(label({}, { seenBy: { who: 'readers' } }), null)).toEqual([]);
    const house = label({}, { seenBy: { who: 'house' } });
    expect(codes(house, null)).toEqual(['not-public']);
    expect(sayJudgement(judge(house, copyAt(SITE)))).toBe(
      'May not be used here. It is for the house alone, and not for readers.',
    );
    expect(codes(label({}, { seenBy: { who: 'group', people: ['piet'] } }), null)).toEqual(['not-public']);
  });

  it('is used on the page that it is kept for, and on no other', () => {
    const kept = label({}, { usableBy: { who: 'page', page: 'autumn' } });
    expect(codes(kept, null, { onPage: 'autumn' })).toEqual([]);
    expect(codes(kept, null, { onPage: 'winter' })).toEqual(['other-page']);
    // Where no page is spoken of, as for a figure that is copied, it is on none.
    expect(codes(kept, null)).toEqual(['other-page']);
  });

  it('waits for the rights keeper where they are asked first, and goes out once they have decided', () => {
    const asked = label({}, { usableBy: { who: 'rights-keeper' } });
    const [reason] = judge(asked, copyAt(SITE)).reasons;
    expect(reason?.code).toBe('ask-first');
    expect(reason && decidableOf(reason)).toBe('use');
    const decision: Decision = {
      about: 'use',
      target: '',
      by: 'Piet Maas',
      on: '2026-11-30',
      why: 'Agreed with the maker for the autumn pages.',
      document: null,
    };
    expect(judge({ ...asked, decisions: [decision] }, copyAt(SITE)).verdict).toBe('allowed');
  });
});

describe('a decision of the rights keeper', () => {
  it('allows what a statement leaves open, and says who decided and why', () => {
    const undecided = label({ licence: 'undetermined' });
    expect(codes(undecided, null)).toEqual(['statement']);
    const judged = judge(label({ licence: 'undetermined', decisions: [decision()] }), copyAt(SITE));
    expect(judged.verdict).toBe('allowed');
    expect(sayJudgement(judged)).toContain(
      'Piet Hallam decided so on 3 November 2026: “The museum wrote that we may.”',
    );
  });

  it('holds for what it is about, and on the target that it names', () => {
    const cropped = (decisions: Decision[]) =>
      judge(label({ licence: 'cc-by-nd-4.0', decisions }), copyAt(SITE, ['cropped'])).verdict;
    expect(cropped([])).toBe('not-allowed');
    expect(cropped([decision()])).toBe('not-allowed');
    expect(cropped([decision({ about: 'changes' })])).toBe('allowed');
    expect(cropped([decision({ about: 'changes', target: 'Reserve site' })])).toBe('allowed');
    expect(cropped([decision({ about: 'changes', target: 'November bulletin' })])).toBe('not-allowed');
  });

  it('makes no comp a bought picture, and no unknown licence a known one', () => {
    for (const licence of ['comp', 'unknown'] as const) {
      const [reason] = judge(label({ licence }), copyAt(SITE)).reasons;
      expect(reason && decidableOf(reason)).toBeNull();
      expect(judge(label({ licence, decisions: [decision()] }), copyAt(SITE)).verdict).toBe('not-allowed');
    }
  });
});

describe('each statement of RightsStatements.org has its own answer', () => {
  const NOBODY_ASKS = { ...SITE, commercial: false, territory: ['US'] };
  it.each([
    // commercial in the United Kingdom; not commercial in the United States; that, and educational
    ['in-copyright', 'statement', 'statement', 'statement'],
    ['in-copyright-orphan', 'statement', 'statement', 'statement'],
    ['in-copyright-holder-unknown', 'statement', 'statement', 'statement'],
    ['in-copyright-educational', 'not-commercial', 'educational-only', undefined],
    ['in-copyright-non-commercial', 'not-commercial', undefined, undefined],
    ['no-copyright-contract', 'statement', 'statement', 'statement'],
    ['no-copyright-non-commercial', 'not-commercial', undefined, undefined],
    ['no-copyright-other-law', 'statement', 'statement', 'statement'],
    ['no-copyright-us', 'territory', undefined, undefined],
    ['no-known-copyright', undefined, undefined, undefined],
    ['undetermined', 'statement', 'statement', 'statement'],
    ['not-evaluated', 'statement', 'statement', 'statement'],
  ] as const)('%s', (licence, commercial, free, school) => {
    const one = label({ licence });
    expect(judge(one, copyAt(SITE)).reasons[0]?.code).toBe(commercial);
    expect(judge(one, copyAt(NOBODY_ASKS)).reasons[0]?.code).toBe(free);
    expect(judge(one, copyAt({ ...NOBODY_ASKS, educational: true })).reasons[0]?.code).toBe(school);
  });
});

describe('a claim is not a clearance', () => {
  it('is allowed once somebody has kept the licence, unless the house takes the source at its word', () => {
    const claimed = label({ licence: 'cc-by-4.0', source: 'Commonfield' });
    const judged = judge(claimed, copyAt(SITE), true);
    expect(judged.verdict).toBe('allowed-if');
    expect(sayJudgement(judged)).toBe(
      'May be used here once somebody has kept its licence. That it is under CC BY 4.0 is only claimed, by Commonfield. Look, and keep it.',
    );
    expect(judge(claimed, copyAt({ ...SITE, trustedSources: ['COMMONFIELD'] }), true).verdict).toBe(
      'allowed',
    );
    expect(
      judge(label({ licence: 'cc-by-nc-4.0' }), copyAt(SITE), true).reasons.map(({ code }) => code),
    ).toEqual(['not-commercial']);
  });
});

describe('an agency picture', () => {
  it.each([
    [{ source: '' }, 'the agency is not said'],
    [{ sourceId: '' }, 'its ID there is not said'],
    [{ source: '', sourceId: '' }, 'the agency and its ID there are not said'],
  ])('does not go out with %j', (lacking, says) => {
    const judged = judge(label(lacking), copyAt(SITE));
    expect(judged.verdict).toBe('allowed-if');
    expect(sayJudgement(judged)).toContain(says);
  });
});

it('gives every licence a verdict and a sentence, in every kind of use', () => {
  for (const licence of LICENCE_IDS)
    for (const commercial of [true, false])
      for (const changes of [[], ['cropped']] as const)
        expect(sayJudgement(judge(label({ licence }), copyAt({ ...SITE, commercial }, changes)))).toMatch(
          /^May (?:not )?be used here/,
        );
});
