import { describe, expect, it } from 'vitest';
import { proofInput } from '../proof/input.ts';
import { proofPage } from '../proof/proof.ts';
import type { Block } from './blocks/block.ts';
import { linkedPictures } from './linked-pictures.ts';
import { pageScript } from './on-page.ts';
import { styleSheet } from './style-sheet.ts';
import { A_DAY, examplePage, examplePiece, PLAIN_RULES } from './testing.ts';
import { cutsOfPage, writeFragment } from './write.ts';

const words = (...assets: readonly string[]): Block => ({
  type: 'paragraph',
  attrs: { id: 'words' },
  content: assets.map((asset) => ({
    type: 'text',
    text: `See ${asset}`,
    marks: [{ type: 'link', attrs: { href: `file:${asset}` } }],
  })),
});
const pieces = new Map([['heron', examplePiece()]]);
const context = {
  rules: PLAIN_RULES,
  pieces,
  addressOf: ({ fileName }: { fileName: string }) => `media/${fileName}`,
};

describe('words alone that open a picture', () => {
  const page = examplePage(words('heron'));

  it('lead to its large file, say that it is a picture and whose, and what it shows where it is not seen', () => {
    expect(writeFragment(page, context)).toContain(
      '<a class="larger" data-alt="A heron stands in the reeds." href="media/heron--2400.jpg" type="image/jpeg">See heron<span class="link-says"> (picture. Photo: Ines Okonjo, CC BY 4.0)</span></a>',
    );
  });

  it('take one file with them, and the script and style that open it over the page', () => {
    expect(cutsOfPage(page, context).map(({ fileName }) => fileName)).toEqual(['heron--2400.jpg']);
    expect(linkedPictures(examplePage(words('heron', 'heron')), pieces)).toHaveLength(1);
    expect(pageScript(page, pieces)).toContain('a.larger');
    expect(styleSheet(PLAIN_RULES, page, pieces)).toContain('.shown-large');
    expect(pageScript(page, new Map())).toBe('');
    expect(styleSheet(PLAIN_RULES, page, new Map())).not.toContain('.shown-large');
  });

  it('are found where the picture is gone, may not be used, or says nothing to those who cannot see it', () => {
    const codes = (piece: ReturnType<typeof examplePiece> | null) =>
      proofPage(proofInput(page, PLAIN_RULES, piece ? new Map([['heron', piece]]) : new Map(), A_DAY)).map(
        ({ code }) => code,
      );
    expect(codes(examplePiece())).toEqual([]);
    expect(codes(null)).toContain('file-link-broken');
    expect(codes(examplePiece({ label: { licence: 'unknown' } }))).toContain('licence-missing');
    expect(codes(examplePiece({ label: { alt: { kind: 'unsaid' } } }))).toContain('alt-missing');
    expect(codes(examplePiece({ label: { alt: { kind: 'decorative' } } }))).toContain('alt-missing');
  });

  it('go out as words alone where nobody knows where files lie', () => {
    const { addressOf: _, ...rest } = context;
    expect(writeFragment(page, { ...rest, pieces: new Map(), addressOf: context.addressOf })).toContain(
      '<p>See heron</p>',
    );
  });
});
