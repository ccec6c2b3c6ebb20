import { describe, expect, it } from 'vitest';
import { newPlacement } from './blocks/placement/schema.ts';
import { emptyPage } from './model.ts';
import { headTitleOf, writePageHead } from './page-head.ts';
import { examplePiece, PLAIN_RULES } from './testing.ts';

const piece = examplePiece({ id: 'heron' });
const context = {
  rules: { ...PLAIN_RULES, siteAddress: 'https://reserve.example' },
  pieces: new Map([[piece.id, piece]]),
  addressOf: () => 'media/heron.jpg',
};
const page = {
  ...emptyPage('Hides </script> & more'),
  address: '/visit/hides',
  summary: 'Where to sit, & when.',
  keyPhrase: 'bird hides',
  blocks: [{ type: 'placement' as const, attrs: newPlacement('one', 'heron') }],
};

describe('the head of a page', () => {
  it('says what listings and shared links show, escaped, with whole addresses', () => {
    const head = writePageHead(page, context);
    expect(head).toContain('<meta name="description" content="Where to sit, &amp; when.">');
    expect(head).toContain('<meta property="og:title" content="Hides &lt;/script&gt; &amp; more">');
    expect(head).toContain('<meta property="og:url" content="https://reserve.example/visit/hides">');
    expect(head).toContain(
      '<meta property="og:image" content="https://reserve.example/visit/media/heron.jpg">',
    );
    const json = /<script type="application\/ld\+json">(.*)<\/script>/.exec(head)?.[1] ?? '';
    expect(JSON.parse(json)).toMatchObject({
      '@type': 'Article',
      headline: 'Hides </script> & more',
      description: 'Where to sit, & when.',
      keywords: 'bird hides',
      image: 'https://reserve.example/visit/media/heron.jpg',
    });
    expect(json).not.toContain('</script');
  });

  it('leaves out what nobody has said, and what needs an address that is not known', () => {
    const { address: _a, summary: _s, keyPhrase: _k, ...rest } = page;
    const head = writePageHead(rest, context);
    expect(head).not.toMatch(/description|og:url|og:image|keywords/);
    expect(writePageHead({ ...rest, title: '' }, context)).toBe('');
  });

  it('has a title of its own where the one over the page is another', () => {
    expect(headTitleOf({ title: 'Hides', headTitle: 'Bird hides of the marsh' })).toBe(
      'Bird hides of the marsh',
    );
    expect(headTitleOf({ title: 'Hides' })).toBe('Hides');
  });
});
