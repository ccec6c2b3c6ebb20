import { describe, expect, it } from 'vitest';
import { writeCsv } from '../formats/csv.ts';
import { EMPTY_LABEL, withPatch } from '../rights/label.ts';
import { type ManifestLine, manifestCsv, manifestJson } from './manifest.ts';

const line: ManifestLine = {
  path: 'hides/heron-720.avif',
  file: {
    name: 'heron-720.avif',
    recipe: 'whole',
    width: 720,
    height: 480,
    format: 'avif',
    quality: 55,
    bytes: 40_000,
  },
  bytes: 41_250,
  original: 'IMG_0612.JPG',
  label: withPatch(EMPTY_LABEL, {
    title: 'Heron, “below” Hide 3',
    creator: 'Ines Okonjo',
    licence: 'cc-by-4.0',
    alt: { kind: 'text', text: 'A heron stands in the reeds.\nIt waits.' },
  }),
  credit: 'Photo: Ines Okonjo, CC BY 4.0.',
};

describe('CSV', () => {
  it.each([
    ['plain', 'plain'],
    ['with, comma', '"with, comma"'],
    ['with "quotes"', '"with ""quotes"""'],
    ['two\nlines', '"two\nlines"'],
    ['=1+1', "'=1+1"],
    ['@cmd', "'@cmd"],
    ['-2', "'-2"],
    ['', ''],
  ])('writes %j as %j', (text, field) => {
    expect(writeCsv([[text, 5]])).toBe(`${field},5\r\n`);
  });

  it('leaves numbers alone, also those below nothing', () => {
    expect(writeCsv([[-5, 0.5]])).toBe('-5,0.5\r\n');
  });
});

describe('the list of a run', () => {
  it('says of each file what it is, where it is from and what it owes', () => {
    const [head, row] = manifestCsv([line]).split('\r\n');
    expect(head).toBe('file,width_px,height_px,bytes,format,original,title,alt,maker,licence,credit');
    expect(row).toContain('hides/heron-720.avif,720,480,41250,avif,IMG_0612.JPG');
    expect(row).toContain('Creative Commons BY 4.0');
  });

  it('says the same to programs', () => {
    expect(JSON.parse(manifestJson([line])).files).toEqual([
      {
        file: 'hides/heron-720.avif',
        width: 720,
        height: 480,
        bytes: 41_250,
        format: 'avif',
        original: 'IMG_0612.JPG',
        title: 'Heron, “below” Hide 3',
        alt: 'A heron stands in the reeds.\nIt waits.',
        maker: 'Ines Okonjo',
        licence: 'Creative Commons BY 4.0',
        licenceAddress: 'https://creativecommons.org/licenses/by/4.0/',
        credit: 'Photo: Ines Okonjo, CC BY 4.0.',
      },
    ]);
  });
});
