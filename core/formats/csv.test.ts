import { describe, expect, it } from 'vitest';
import { writeCsv } from './csv.ts';

describe('CSV', () => {
  it('quotes what parts fields, in whatever language a spreadsheet reads it', () => {
    expect(writeCsv([['a', 'b, c', 'd; e', 'f "g"', 7]])).toBe('a,"b, c","d; e","f ""g""",7\r\n');
  });

  it.each([
    '=1+1',
    '+1',
    '-1',
    '@SUM(A1)',
    ' =1+1',
    '\t=1+1',
    'a;=1+1',
    'a; =1+1',
    'a\t=1+1',
    'a\n=1+1',
    '"a";=1+1',
    '＝1+1',
    '|cmd',
  ])('%j is run by no spreadsheet, parted by commas, semicolons or tabs', (value) => {
    const [line = ''] = writeCsv([['x', value]]).split('\r\n');
    for (const field of line.split(/[,;\t\n]/)) expect(field).not.toMatch(/^["\s]*[=+\-@|＝＋－＠]/);
  });
});
