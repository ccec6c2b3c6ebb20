import { describe, expect, it } from 'vitest';
import { readRegions, writeRegions } from './regions.ts';
import { hasTerms, readPrice, sayPrice, sayTerms } from './say-terms.ts';
import { NO_TERMS } from './terms.ts';

describe('what was agreed', () => {
  it('is said in sentences, and not at all where nothing was', () => {
    expect(hasTerms(NO_TERMS)).toBe(false);
    expect(sayTerms(NO_TERMS)).toBe('');
    expect(
      sayTerms({
        ...NO_TERMS,
        begins: '2025-12-14',
        ends: '2026-12-14',
        territory: ['150'],
        uses: ['web', 'newsletter'],
        copies: 5000,
        price: { amount: 48, currency: 'GBP' },
        agreed: 'By letter.',
        consent: 'given',
        shownUntil: '2026-12-01',
      }),
    ).toBe(
      'From 14 December 2025 until 14 December 2026, in Europe, for the web and newsletters, up to 5,000 copies, for 48.00 GBP. By letter. To be shown until 1 December 2026. Those who are shown have consented.',
    );
  });

  it.each([
    ['', { regions: [], unknown: [] }],
    ['Worldwide', { regions: [], unknown: [] }],
    ['Europe, Ireland and the UK', { regions: ['150', 'IE'], unknown: ['the UK'] }],
    ['uk; us; GB', { regions: ['GB', 'US'], unknown: [] }],
    ['Germany, Saltmere', { regions: ['DE'], unknown: ['Saltmere'] }],
    ['XQ', { regions: [], unknown: ['XQ'] }],
  ])('%j is read as regions', (text, read) => {
    expect(readRegions(text)).toEqual(read);
  });

  it('writes regions so that they are read again', () => {
    const all = ['GB', '150', 'EU', 'US', 'CI'];
    expect(readRegions(writeRegions(all)).regions).toEqual(all);
  });

  it.each([
    ['', null],
    ['48 gbp', { amount: 48, currency: 'GBP' }],
    ['48,50 EUR', { amount: 48.5, currency: 'EUR' }],
    ['£48', undefined],
    ['free', undefined],
  ])('%j is read as a price', (text, price) => {
    expect(readPrice(text)).toEqual(price);
    if (price) expect(readPrice(sayPrice(price))).toEqual(price);
  });
});
