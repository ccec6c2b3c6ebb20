import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EMPTY_LABEL, type Label, withPatch } from './label.ts';
import type { LedgerSubject } from './ledger-columns.ts';
import {
  type LedgerLine,
  ledgerCsv,
  ledgerCsvHead,
  ledgerEffect,
  ledgerJsonLine,
  MOST_LEDGER_ROWS,
  readLedger,
} from './ledger-file.ts';
import { isCatalogued, isOfCopies, LICENCE_IDS } from './licences.ts';
import { NO_TERMS, type SeenBy, type UsableBy } from './terms.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const subject = (label: Label, id = 'heron'): LedgerSubject => ({
  id,
  stem: 'heron-hide-3',
  extension: 'jpg',
  label,
});
const lines = (text: string | Uint8Array): readonly LedgerLine[] => {
  const read = readLedger(typeof text === 'string' ? bytes(text) : text);
  if (read.kind === 'refused') throw new Error(read.why);
  return read.lines;
};
const effect = (text: string, label: Label = EMPTY_LABEL, drafted: readonly string[] = []) => {
  const [line] = lines(text);
  if (!line) throw new Error('No line.');
  return ledgerEffect(line, label, drafted);
};

const text = (most: number) =>
  fc
    .oneof(
      fc.string({ maxLength: most }),
      fc.constantFrom(
        '=1+1',
        "'=1+1",
        '+44 20',
        '- dash',
        '@x',
        'a;=b',
        'a"b',
        'line\nline',
        'Ünïcode',
        "''-1",
      ),
    )
    .map((one) => one.replaceAll('\r', '').trim().slice(0, most).trim());
const anyLabel: fc.Arbitrary<Label> = fc
  .record({
    title: text(60),
    creator: text(60),
    source: text(60),
    copyrightNotice: text(60),
    caption: text(200),
    licence: fc.constantFrom(...LICENCE_IDS.filter((id) => isOfCopies(id) && isCatalogued(id))),
    alt: fc.oneof(
      fc.constant({ kind: 'unsaid' } as const),
      fc.constant({ kind: 'decorative' } as const),
      text(80)
        .filter((said) => said !== '' && said.toLowerCase() !== '(decorative)')
        .map((said) => ({ kind: 'text', text: said }) as const),
    ),
    keywords: fc
      .uniqueArray(fc.constantFrom('heron', 'reed bed', 'dawn', 'Ööö'), { maxLength: 4 })
      .map((words) => [...words]),
    terms: fc
      .record({
        begins: fc.constantFrom('', '2026-01-01'),
        ends: fc.constantFrom('', '2027-12-31'),
        territory: fc.constantFrom([], ['GB'], ['150', 'US'], ['IE', 'GB']),
        uses: fc.constantFrom([], ['web'], ['web', 'print']),
        copies: fc.constantFrom(null, 50_000),
        price: fc.constantFrom(null, { amount: 48.5, currency: 'EUR' }),
        agreed: text(100),
        consent: fc.constantFrom('unsaid', 'given', 'missing', 'withdrawn', 'not-needed'),
        seenBy: fc.constantFrom<SeenBy>(
          { who: 'readers' },
          { who: 'house' },
          { who: 'group', people: [] },
          { who: 'group', people: ['Piet-1', 'mara-2'] },
        ),
        usableBy: fc.constantFrom<UsableBy>(
          { who: 'everybody' },
          { who: 'rights-keeper' },
          { who: 'page', page: 'Autumn-1' },
        ),
      })
      .map(({ territory, uses, ...said }) => ({
        ...NO_TERMS,
        ...said,
        territory: [...territory],
        uses: [...uses],
      })),
  })
  .map((said) => withPatch(EMPTY_LABEL, said));

describe('the ledger as a file', () => {
  it('goes out as CSV and comes back without a change, whatever it says', () => {
    fc.assert(
      fc.property(anyLabel, (label) => {
        const [line] = lines(ledgerCsvHead() + ledgerCsv([subject(label)]));
        expect(line).toMatchObject({ id: 'heron', file: 'heron-hide-3.jpg', faults: [] });
        expect(line && ledgerEffect(line, label, []).changes).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });

  it('goes out as JSON and comes back whole', () => {
    fc.assert(
      fc.property(anyLabel, (label) => {
        const [line] = lines(`[${ledgerJsonLine(subject(label))}]`);
        expect(line?.label).toEqual(label);
      }),
      { numRuns: 100 },
    );
  });

  it('says what a row would change, field by field', () => {
    const label = withPatch(EMPTY_LABEL, { title: 'Heron', creator: 'Ines Okonjo', licence: 'cc-by-4.0' });
    const { patch, changes, faults } = effect(
      'id,maker,licence,until\nheron,Tomas Reill,https://creativecommons.org/licenses/by-sa/4.0/,2027-01-31\n',
      label,
      ['creator'],
    );
    expect(faults).toEqual([]);
    expect(patch).toMatchObject({
      creator: 'Tomas Reill',
      licence: 'cc-by-sa-4.0',
      terms: { ends: '2027-01-31' },
    });
    expect(changes).toMatchObject([
      { name: 'maker', before: 'Ines Okonjo', after: 'Tomas Reill', contradictsFile: true },
      { name: 'licence', before: 'CC BY 4.0', after: 'CC BY-SA 4.0', contradictsFile: false },
      { name: 'what was agreed', after: 'Until 31 January 2027.' },
    ]);
  });

  it.each([
    ['semicolons', 'id;title;maker\nheron;Heron;Ines'],
    ['tabs', 'id\ttitle\tmaker\nheron\tHeron\tInes'],
    ['other names of columns', 'ID,Headline,Photographer\nheron,Heron,Ines'],
    ['a byte order mark', '\ufeffid,title,maker\nheron,Heron,Ines'],
    ['lines that end otherwise', 'id,title,maker\r\nheron,Heron,Ines\r\n'],
  ])('is read with %s', (_case, file) => {
    expect(effect(file).patch).toEqual({ title: 'Heron', creator: 'Ines' });
  });

  it('is read in UTF-16 and in what older spreadsheets write', () => {
    const said = 'id,title\nheron,Schnepfe über Röhricht';
    const utf16 = Uint8Array.from([
      0xff,
      0xfe,
      ...[...said].flatMap((letter) => [letter.charCodeAt(0) & 255, letter.charCodeAt(0) >> 8]),
    ]);
    const latin = Uint8Array.from([...said].map((letter) => letter.charCodeAt(0)));
    for (const file of [utf16, latin])
      expect(lines(file)[0]?.label).toEqual({ title: 'Schnepfe über Röhricht' });
  });

  it.each([
    ['until: There is no such day.', 'id,until\nheron,2027-02-30'],
    ['until: A date is written as 2026-03-12.', 'id,until\nheron,soon'],
    ['It ends before it begins.', 'id,from,until\nheron,2027-02-01,2027-01-01'],
    ['licence: “free”: no licence is called so.', 'id,licence\nheron,free'],
    ['where: Saltmere: no country is called so.', 'id,where\nheron,Saltmere'],
    ['price: “cheap”: a price is written as 48.00 GBP.', 'id,price\nheron,cheap'],
    ['It has more fields than the first row has headings.', 'id,title\nheron,Heron,and more'],
  ])('says %j of a row', (fault, file) => {
    expect(effect(file).faults).toEqual([fault]);
  });

  it('leaves alone what has no column, and says which headings mean nothing', () => {
    const read = readLedger(bytes('id,title,mood\nheron,Heron,calm\n\n'));
    expect(read).toMatchObject({ kind: 'read', passedOver: ['mood'] });
    expect(read.kind === 'read' && read.lines).toHaveLength(1);
    expect(effect('id,title\nheron,Heron', withPatch(EMPTY_LABEL, { creator: 'Ines' })).patch).toEqual({
      title: 'Heron',
    });
  });

  it.each([
    ['', 'The file is empty.'],
    ['title,maker\nHeron,Ines', 'No column is called “id” or “file”'],
    ['{"pieces": 7}', 'It is no list of pieces in JSON'],
    [`id,title\n${'heron,Heron\n'.repeat(MOST_LEDGER_ROWS + 1)}`, 'at most 50,000 are read at once'],
  ])('refuses %.20j with a sentence', (file, why) => {
    const read = readLedger(bytes(file));
    expect(read.kind === 'refused' && read.why).toContain(why);
  });

  it('shows a formula as the text that it is', () => {
    expect(effect('id,title\nheron,"=HYPERLINK(""x"")"').patch).toEqual({ title: '=HYPERLINK("x")' });
    expect(ledgerCsv([subject(withPatch(EMPTY_LABEL, { title: '=HYPERLINK("x")' }))])).toContain(
      `"'=HYPERLINK(""x"")"`,
    );
  });
});
