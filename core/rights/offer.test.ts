import { describe, expect, it } from 'vitest';
import { EMPTY_LABEL, withPatch } from './label.ts';
import { type Offer, originalLabel, renewedTerms, sayAmount, sayOffer } from './offer.ts';
import { NO_TERMS } from './terms.ts';

const OFFER: Offer = {
  id: 'web-2',
  amount: 8400,
  currency: 'EUR',
  uses: ['web', 'newsletter'],
  territory: ['150'],
  years: 2,
  copies: null,
};
const COMP = withPatch(EMPTY_LABEL, {
  title: 'Dusk over Saltmere',
  creator: 'R. Achterberg',
  source: 'Brackwater Pictures',
  sourceId: '88-4440',
  licence: 'comp',
  alt: { kind: 'text', text: 'The marsh at dusk.' },
  terms: { ...NO_TERMS, consent: 'given', shownUntil: '2027-01-31', begins: '2026-01-01' },
  decisions: [{ about: 'publish', target: '', by: 'Piet', on: '2026-01-01', why: 'x', document: null }],
});
const bought = (offer: Offer, day: string) =>
  originalLabel(COMP, { offer, day, licensedTo: 'Saltmere Marsh Reserve' });

describe('a licence that is bought anew', () => {
  const offer = {
    id: 'web-1',
    amount: 4800,
    currency: 'EUR',
    uses: ['web' as const],
    territory: ['EU'],
    years: 1,
    copies: null,
  };
  const said = {
    ...NO_TERMS,
    begins: '2025-12-14',
    ends: '2026-12-13',
    agreed: 'By letter.',
    consent: 'given' as const,
  };
  it('goes on the day after it ends, so that no day is without it and none is paid twice', () => {
    expect(renewedTerms(said, offer, '2026-12-01')).toMatchObject({
      begins: '2025-12-14',
      ends: '2027-12-13',
      territory: ['EU'],
      uses: ['web'],
      price: { amount: 48, currency: 'EUR' },
      agreed: 'By letter.',
      consent: 'given',
    });
    // On its last day too, and over the end of a February.
    expect(renewedTerms(said, offer, '2026-12-13').ends).toBe('2027-12-13');
    expect(renewedTerms({ ...said, ends: '2028-02-28' }, offer, '2028-02-01').ends).toBe('2029-02-27');
  });

  it('begins on the day where the term is over already, or had no end', () => {
    expect(renewedTerms(said, offer, '2027-01-10')).toMatchObject({
      begins: '2027-01-10',
      ends: '2028-01-09',
    });
    expect(renewedTerms({ ...said, ends: '' }, offer, '2027-01-10')).toMatchObject({
      begins: '2025-12-14',
      ends: '2028-01-09',
    });
    expect(renewedTerms(said, { ...offer, years: null }, '2026-12-01').ends).toBe('');
  });

  it('leaves what happens at its new end to be decided anew', () => {
    const decided = { do: 'renew', offer: 'web-1', amount: 4800, by: 'Piet', personId: 'p' } as const;
    expect(renewedTerms({ ...said, afterwards: decided }, offer, '2026-12-13').afterwards).toEqual({
      do: 'unsaid',
    });
  });
});

describe('a bought original', () => {
  it('has the words of its comp, the agency licence with its terms, and none of the comp’s own', () => {
    const label = bought(OFFER, '2026-11-30');
    expect(label).toMatchObject({
      title: 'Dusk over Saltmere',
      alt: { kind: 'text', text: 'The marsh at dusk.' },
      licence: 'agency',
      licensedTo: 'Saltmere Marsh Reserve',
      sourceId: '88-4440',
      decisions: [],
    });
    expect(label.terms).toEqual({
      ...NO_TERMS,
      begins: '2026-11-30',
      ends: '2028-11-29',
      uses: ['web', 'newsletter'],
      territory: ['150'],
      price: { amount: 84, currency: 'EUR' },
      consent: 'given',
      shownUntil: '2027-01-31',
    });
  });

  it.each([
    ['2028-02-29', 1, '2029-02-27'],
    ['2026-03-01', 2, '2028-02-29'],
    ['2026-01-01', 1, '2026-12-31'],
    ['2026-11-30', null, ''],
  ])('from %s for %s years may be used until %s, that day included', (day, years, ends) => {
    expect(bought({ ...OFFER, years }, day).terms.ends).toBe(ends);
  });
});

describe('an offer in words', () => {
  it.each([
    [8400, 'EUR', '84.00 EUR'],
    [5, 'GBP', '0.05 GBP'],
    [8400, 'JPY', '8400 JPY'],
  ])('%s of %s is %s', (amount, currency, says) => {
    expect(sayAmount(amount, currency)).toBe(says);
  });

  it('says what for, where, and for how long', () => {
    expect(sayOffer(OFFER)).toBe('the web and newsletters, in Europe, for 2 years');
    expect(sayOffer({ ...OFFER, uses: [], territory: [], years: null, copies: 50_000 })).toBe(
      'any use, everywhere, without an end, up to 50,000 copies',
    );
  });
});
