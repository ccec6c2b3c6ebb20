import { describe, expect, it } from 'vitest';
import { EMPTY_LABEL, type LabelPatch, withPatch } from './label.ts';
import { type LedgerPiece, ledgerStanding, sayLedgerMark } from './ledger.ts';
import { NO_TERMS, type Terms } from './terms.ts';

const TODAY = '2026-11-28';

const piece = (said: LabelPatch, more: Partial<LedgerPiece> = {}): LedgerPiece => ({
  label: withPatch(EMPTY_LABEL, { licence: 'agency', ...said }),
  isLicenceClaimed: false,
  pages: 1,
  ...more,
});
const terms = (said: Partial<Terms>): LabelPatch => ({ terms: { ...NO_TERMS, ...said } });
const says = (of: LedgerPiece) => {
  const { group, mark } = ledgerStanding(of, TODAY);
  return `${group}: ${sayLedgerMark(mark)}`;
};

describe('how a piece stands in the ledger', () => {
  it.each([
    [
      'its last day is near',
      piece(terms({ ends: '2026-12-14' })),
      'settle: ends on 14 December 2026, in 16 days',
    ],
    ['its last day is today', piece(terms({ ends: TODAY })), 'settle: ends on 28 November 2026, today'],
    ['its last day was yesterday', piece(terms({ ends: '2026-11-27' })), 'settle: ended on 27 November 2026'],
    [
      'it is to be shown less long than it may be',
      piece(terms({ ends: '2027-12-14', shownUntil: '2026-11-29' })),
      'settle: ends on 29 November 2026, tomorrow',
    ],
    [
      'no page needs it then',
      piece(terms({ ends: '2026-12-14' }), { pages: 0 }),
      'by-itself: ends on 14 December 2026; no page needs it',
    ],
    [
      'it is decided that it is taken off',
      piece(
        terms({ ends: '2026-12-14', afterwards: { do: 'take-off', by: 'Piet Hallam', personId: 'piet' } }),
      ),
      'by-itself: ends on 14 December 2026, and is taken off then',
    ],
    [
      'it is decided what takes its place',
      piece(
        terms({
          ends: '2026-12-14',
          afterwards: { do: 'replace', by: 'Piet Hallam', personId: 'piet', piece: 'other' },
        }),
      ),
      'by-itself: ends on 14 December 2026, and is replaced then',
    ],
    ['a consent is missing', piece(terms({ consent: 'missing' })), 'settle: a consent is missing'],
    [
      'a consent was withdrawn, which weighs more than its end',
      piece(terms({ consent: 'withdrawn', ends: '2026-12-14' })),
      'settle: a consent was withdrawn',
    ],
    [
      'a consent is missing and it stands nowhere',
      piece(terms({ consent: 'missing' }), { pages: 0 }),
      'quiet: agency licence',
    ],
    [
      'it is a comp on a page',
      piece({ licence: 'comp' }),
      'settle: a comp: to be bought before its pages go out',
    ],
    ['nobody cleared it', piece({ licence: 'unknown' }), 'look: not cleared: licence not known'],
    [
      'nobody cleared it and it stands nowhere',
      piece({ licence: 'unknown' }, { pages: 0 }),
      'quiet: licence not known',
    ],
    [
      'its licence is only claimed',
      piece({ licence: 'cc-by-4.0' }, { isLicenceClaimed: true }),
      'look: CC BY 4.0 is only claimed',
    ],
    ['all is in order', piece({ licence: 'cc-by-4.0' }), 'quiet: CC BY 4.0'],
  ])('%s', (_case, of, said) => {
    expect(says(of)).toBe(said);
  });
});
