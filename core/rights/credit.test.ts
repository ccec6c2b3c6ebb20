import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EN } from '../messages/en.ts';
import { writeCredit } from '../page/write-credit.ts';
import { creditParts } from './attribution.ts';
import { type Credit, creditFacts, creditMarkdown, creditOf, creditText } from './credit.ts';
import { type CreditPartKind, readCreditWords } from './credit-words.ts';
import { copyAt, judge } from './judgement.ts';
import { EMPTY_LABEL, type Label, type LabelPatch, withPatch } from './label.ts';
import { LICENCE_IDS } from './licences.ts';
import { EXAMPLE_PLACE } from './testing.ts';

const WORK = 'https://commonfield.example/p/42';
const labelled = (patch: LabelPatch = {}) =>
  withPatch(EMPTY_LABEL, {
    creator: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    source: 'Commonfield',
    sourceAddress: WORK,
    ...patch,
  });

function credited(
  label: Label,
  { changes = [] as readonly 'cropped'[], form = 'full' as 'full' | 'short', language = 'en' } = {},
): Credit {
  const judgement = judge(label, copyAt(EXAMPLE_PLACE, changes));
  return creditOf(label, judgement, { made: 'photo', messages: EN, language, form });
}

/** The label with its credit typed by hand. */
function worded(text: string, patch: LabelPatch = {}): Label {
  const label = labelled(patch);
  const facts = creditFacts(label, creditParts(label, judge(label, copyAt(EXAMPLE_PLACE)), EN));
  return { ...label, creditWords: [{ language: 'en', runs: [...readCreditWords(text, facts)] }] };
}

describe('a credit in own words', () => {
  const typed = 'Seen by Ines Okonjo for Commonfield (CC BY 4.0)';

  it('is read as it was typed, with its links', () => {
    const credit = credited(worded(typed));
    expect(creditText(credit)).toBe(typed);
    expect(writeCredit(credit)).toBe(
      `Seen by Ines Okonjo for <a href="${WORK}">Commonfield</a> (<a href="https://creativecommons.org/licenses/by/4.0/" rel="license" property="license">CC BY 4.0</a>)`,
    );
    expect(credit.leftOut).toEqual([]);
  });

  it('follows the label', () => {
    const label = { ...worded(typed), creator: 'Ada Reed', licence: 'cc-by-sa-4.0' as const };
    expect(creditText(credited(label))).toBe('Seen by Ada Reed for Commonfield (CC BY-SA 4.0)');
  });

  it('says what was changed where that is owed, in one sentence', () => {
    expect(creditText(credited(worded(`${typed}.`), { changes: ['cropped'] }))).toBe(`${typed}, cropped.`);
    expect(
      creditText(credited(worded('By Ines Okonjo, Commonfield, CC BY 4.0'), { changes: ['cropped'] })),
    ).toBe('By Ines Okonjo, Commonfield, CC BY 4.0, cropped.');
  });

  it('is put together by the licence again where it names what is no longer known', () => {
    const label = { ...worded(typed), source: '', sourceAddress: '' };
    expect(creditText(credited(label))).toBe('Photo: Ines Okonjo, CC BY 4.0.');
  });

  it('stands in its own language alone', () => {
    expect(creditText(credited(worded(typed), { language: 'en-GB' }))).toBe(typed);
    expect(creditText(credited(worded(typed), { language: 'de' }))).toContain('Photo: ');
  });

  it.each<[string, LabelPatch, readonly CreditPartKind[]]>([
    ['Ines Okonjo', {}, ['licence']],
    ['CC BY 4.0', {}, ['maker', 'source']],
    ['A friend of the house', {}, ['maker', 'source', 'licence']],
    ['Ines Okonjo, CC BY 4.0', {}, []],
    ['Ines Okonjo, CC BY 3.0', { licence: 'cc-by-3.0', title: 'Heron' }, ['title']],
    ['“Heron” by Ines Okonjo, CC BY 3.0', { licence: 'cc-by-3.0', title: 'Heron' }, []],
    ['Ines Okonjo, CC BY 4.0', { copyrightNotice: '© Saltmere' }, ['notice']],
    ['Ines Okonjo', { licence: 'agency', source: 'Brackwater', sourceId: '88' }, ['source', 'id']],
    ['Brackwater 88, Ines Okonjo', { licence: 'agency', source: 'Brackwater', sourceId: '88' }, []],
    ['Somebody', { licence: 'cc0' }, []],
  ])('%s leaves out %j what is owed', (text, patch, leftOut) => {
    expect(credited(worded(text, patch)).leftOut).toEqual(leftOut);
  });

  it('does not take a part of a longer name for the name', () => {
    const label = worded('Ines Okonjola, CC BY 4.0');
    expect(label.creditWords[0]?.runs).toEqual([
      { kind: 'words', text: 'Ines Okonjola, ' },
      { kind: 'part', part: 'licence' },
    ]);
    expect(credited(label).leftOut).toEqual(['maker', 'source']);
  });

  it('writes what is typed as text, whatever is in it', () => {
    const label = worded('<b>Ines Okonjo</b> & *CC BY 4.0*');
    expect(writeCredit(credited(label))).toMatch(/^&lt;b&gt;<a [^>]*>Ines Okonjo<\/a>&lt;\/b&gt; &amp; \*/);
    expect(creditMarkdown(credited(label))).toMatch(/^\\<b\\>\[Ines Okonjo\]/);
  });

  it('is read back as it was typed, whatever was typed', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 60 }),
        fc.constantFrom('', 'Ines Okonjo', 'CC BY 4.0'),
        (noise, fact) => {
          const text = `${noise}${fact}${noise}`;
          expect(creditText(credited(worded(text)))).toBe(text);
        },
      ),
    );
  });
});

describe('the short form', () => {
  it('says maker, licence and changes, and leads to the work', () => {
    const credit = credited(labelled({ title: 'Heron' }), { changes: ['cropped'], form: 'short' });
    expect(creditText(credit)).toBe('Ines Okonjo, CC BY 4.0, cropped');
    expect(credit.runs[0]).toMatchObject({ kind: 'maker', address: WORK });
  });

  it('names an agency and its ID, and leaves out to whom and when', () => {
    const label = labelled({
      licence: 'agency',
      source: 'Brackwater',
      sourceId: '88',
      licensedTo: 'Saltmere',
    });
    expect(creditText(credited(label, { form: 'short' }))).toBe('Ines Okonjo, Brackwater, 88');
  });

  it('names the source where nobody else is known', () => {
    expect(creditText(credited(labelled({ creator: '' }), { form: 'short' }))).toBe('Commonfield, CC BY 4.0');
  });

  it.each(LICENCE_IDS)('%s: nothing that is owed is left out, in neither form', (licence) => {
    const label = labelled({
      licence,
      title: 'Heron',
      copyrightNotice: '© Saltmere',
      sourceId: '88',
      licensedTo: 'S',
    });
    expect(credited(label, { changes: ['cropped'], form: 'short' }).leftOut).toEqual([]);
    expect(credited(label, { changes: ['cropped'] }).leftOut).toEqual([]);
  });
});
