import { describe, expect, it } from 'vitest';
import { tableFromText } from './from-text.ts';

/** A table as lines of its cells; headings begin with "!". */
const said = (text: string) =>
  tableFromText(text, () => 't')?.content.map(({ content }) =>
    content
      .map(
        ({ type, content: lines }) =>
          (type === 'tableHeader' ? '!' : '') +
          lines
            .map((line) => (line.content ?? []).map((one) => (one.type === 'text' ? one.text : '')).join(''))
            .join('/'),
      )
      .join(' ; '),
  ) ?? null;

describe('plain text as a table', () => {
  it.each([
    ['a sheet, by tabs', 'Day\tTide\nMon\t4.1\nTue\t4.2\n', ['!Day ; !Tide', 'Mon ; 4.1', 'Tue ; 4.2']],
    ['two lines of one', 'Mon\t06:12\r\nTue\t07:01', ['Mon ; 06:12', 'Tue ; 07:01']],
    [
      'an empty first cell over headings',
      '\tMon\tTue\nHigh\t4.1\t4.2',
      ['! ; !Mon ; !Tue', 'High ; 4.1 ; 4.2'],
    ],
    [
      'words alone, without headings',
      'Piet\twarden\nInes\tphotographer',
      ['Piet ; warden', 'Ines ; photographer'],
    ],
    ['quotes, breaks and separators in fields', 'a;b\n"x;\n""y""";2', ['!a ; !b', 'x;/"y" ; 2']],
    ['a file by commas', 'Day,Tide\nMon,4.1\nTue,"4,2"', ['!Day ; !Tide', 'Mon ; 4.1', 'Tue ; 4,2']],
    ['empty fields', 'a\t\n\tb', ['a ; ', ' ; b']],
    ['a mark of byte order', '\uFEFFDay;m\nMon;1', ['!Day ; !m', 'Mon ; 1']],
  ])('is one for %s', (_what, text, rows) => {
    expect(said(text)).toEqual(rows);
  });

  it.each([
    ['a letter', 'Dear Mara,\nthe reed is cut,\nwarmly,'],
    ['sentences that part alike', 'Herons, they say\nEels, we know\nReeds, who asked'],
    ['one line', 'Mon\t4.1'],
    ['two lines by commas', 'a,b\nc,d'],
    ['lines that part otherwise', 'a\tb\nc'],
    ['a line without any between', 'a;b\n\nc;d'],
    ['nothing', ''],
    ['more columns than tables have', `${'a\t'.repeat(100)}b\n${'a\t'.repeat(100)}b`],
  ])('is none for %s', (_what, text) => {
    expect(said(text)).toBeNull();
  });

  it('an open quote is read to the end, in one go', () => {
    expect(said(`a;b\n"${'x;\n'.repeat(50_000)}`)).toBeNull();
  });
});
