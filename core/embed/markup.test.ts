import fc from 'fast-check';
import { type Token, Tokenizer, TokenizerMode } from 'parse5';
import { describe, expect, it } from 'vitest';
import { CORPUS } from './corpus.ts';
import { readMarkup } from './markup.ts';

const RAW: Readonly<Record<string, number>> = {
  script: TokenizerMode.SCRIPT_DATA,
  style: TokenizerMode.RAWTEXT,
  iframe: TokenizerMode.RAWTEXT,
  xmp: TokenizerMode.RAWTEXT,
  noembed: TokenizerMode.RAWTEXT,
  noframes: TokenizerMode.RAWTEXT,
};

/** The tags as the widely used parser parts them. */
function tagsByParser(source: string): unknown[] {
  const tags: unknown[] = [];
  const say = (kind: string, token: Token.TagToken) => {
    const {
      startOffset: from,
      endOffset: to,
      attrs: places,
    } = token.location ?? { startOffset: 0, endOffset: 0 };
    const attributes =
      kind === 'end'
        ? []
        : token.attrs.map(({ name, value }) => [
            name,
            value,
            places?.[name]?.startOffset,
            places?.[name]?.endOffset,
          ]);
    tags.push([kind, token.tagName, from, to, attributes]);
  };
  const nothing = () => undefined;
  const tokenizer = new Tokenizer(
    { sourceCodeLocationInfo: true },
    {
      onStartTag(token) {
        say('start', token);
        const raw = RAW[token.tagName];
        if (raw !== undefined) tokenizer.state = raw;
      },
      onEndTag: (token) => say('end', token),
      onCharacter: nothing,
      onWhitespaceCharacter: nothing,
      onNullCharacter: nothing,
      onComment: nothing,
      onDoctype: nothing,
      onEof: nothing,
    },
  );
  tokenizer.write(source, true);
  return tags;
}

function tagsByUs(source: string): unknown[] {
  return [...readMarkup(source)].flatMap((piece) =>
    piece.kind === 'text'
      ? []
      : [
          [
            piece.kind,
            piece.name,
            piece.from,
            piece.to,
            piece.attributes.map(({ name, value, from, to }) => [name, value, from, to]),
          ],
        ],
  );
}

const texts = Object.values(CORPUS).flat();

describe('tags', () => {
  it.each(texts)('of $name are parted as the parser of the standard does', ({ text }) => {
    expect(tagsByUs(text)).toEqual(tagsByParser(text));
  });

  it.each([
    '<script><!--<script></script>--></script><p>',
    '<script><!--<script></script></script><p>',
    '<script><!--></script><p></script>',
    '<script><!--<scripty></script><p>',
    '<!--><p><!---><p><!----!><p><!-- -- ><p>-->',
    '<!doctype html "><p>',
    '<?php echo "<p>" ?><p>',
    '</ p><p></><p></1>',
    '<p =a=b ="c" d= e f = g h =\'i\'j>',
    '<p a="1"b=2/c/ /d=//>',
    '<p a=x"y z=\'"\'>',
    '<style></styl></style ><p></style>',
    '<P CLASS=A İ=1 K=2>',
    '<p a=&amp;b c="&notit;" d="&lt" e=&copy=1>',
  ])('of %s too', (text) => {
    expect(tagsByUs(text)).toEqual(tagsByParser(text));
  });

  it('of any mixture too', () => {
    const part = fc.constantFrom(
      '<',
      '>',
      '/',
      '"',
      "'",
      '=',
      '-',
      '!',
      '!--',
      '-->',
      ' ',
      '\n',
      'a',
      'B',
      'src',
      '&',
      '&lt;',
      'p',
      'script',
      '</script',
      '<script',
      'style',
      '</style>',
      'iframe',
      '</iframe>',
      '?',
      '[CDATA[',
      '\u00A0',
      'ß',
      ';',
    );
    fc.assert(
      fc.property(
        fc.array(part, { maxLength: 40 }).map((parts) => parts.join('')),
        (text) => {
          expect(tagsByUs(text)).toEqual(tagsByParser(text));
        },
      ),
      { numRuns: 4000, seed: 5 },
    );
  });
});
