import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_RULES } from '../page/testing.ts';
import { isLicenceId } from '../rights/licences.ts';
import { readPagePictures } from './page-pictures.ts';
import { wordsOfPurpose } from './purpose.ts';
import { type GatherQuestion, misfitOf, sayMisfits, sayUse } from './question.ts';
import { labelFrom, readLicence, sayLicenceReading } from './reading.ts';
import { maybeStatement, type SaidAbout, type SaidBy, type Statement, statements } from './statement.ts';

const say = (by: SaidBy, about: SaidAbout, value: string): Statement => ({ by, about, value });
const CC = 'https://creativecommons.org/licenses';

describe('a licence that is read from what is said', () => {
  it.each([
    ['clear', [say('collection', 'licence', `${CC}/by/4.0/`)]],
    ['clear', [say('collection', 'licence', 'CC BY 4.0'), say('json-ld', 'licence', `${CC}/by/4.0/deed.de`)]],
    [
      'contradicting',
      [say('collection', 'licence', 'CC BY 4.0'), say('file', 'licence', `${CC}/by-nc/4.0/`)],
    ],
    ['unclear', [say('collection', 'licence', 'Free for good causes')]],
    ['silent', [say('collection', 'title', 'Heron')]],
  ] as const)('%s', (kind, said) => {
    expect(readLicence(said).kind).toBe(kind);
  });

  it('is never guessed: only a clear one is drafted', () => {
    const two = [say('collection', 'licence', 'CC BY 4.0'), say('rdfa', 'licence', `${CC}/by-nc/4.0/`)];
    expect(labelFrom(two).licence).toBeUndefined();
    expect(labelFrom([say('collection', 'licence', 'CC BY-SA 4.0')]).licence).toBe('cc-by-sa-4.0');
    expect(sayLicenceReading(readLicence(two))).toBe(
      'What is said of its licence disagrees: The collection says CC BY 4.0. A licence link beside the picture says CC BY-NC 4.0.',
    );
  });

  it('whatever is said, the label that is drafted fits, and its licence is one that exists', () => {
    const by = fc.constantFrom<SaidBy>('agency', 'collection', 'json-ld', 'page', 'file');
    const about = fc.constantFrom<SaidAbout>('title', 'maker', 'licence', 'taken', 'words', 'maker-address');
    fc.assert(
      fc.property(fc.array(fc.tuple(by, about, fc.string({ unit: 'grapheme', maxLength: 400 }))), (raw) => {
        const patch = labelFrom(statements(...raw.map(([b, a, value]) => maybeStatement(b, a, value))));
        expect(patch.licence === undefined || isLicenceId(patch.licence)).toBe(true);
        expect((patch.title ?? '').length).toBeLessThanOrEqual(300);
        expect(patch.makerAddress ?? 'https://').toMatch(/^https?:/);
      }),
    );
  });
});

describe('a label drafted from statements', () => {
  it('believes those nearest to the maker first', () => {
    const patch = labelFrom([
      say('file', 'maker', 'Somebody Else'),
      say('open-graph', 'title', 'A page'),
      say('collection', 'maker', 'Ines Okonjo'),
      say('json-ld', 'title', 'Heron'),
      say('collection', 'taken', '2025-01-03T10:00:00Z'),
      say('collection', 'words', 'heron, dawn ,, reed'),
      say('collection', 'maker-address', 'javascript:alert(1)'),
    ]);
    expect(patch).toEqual({
      creator: 'Ines Okonjo',
      title: 'Heron',
      dateCreated: '2025-01-03',
      keywords: ['heron', 'dawn', 'reed'],
    });
  });

  it('leaves control characters and emptiness out', () => {
    expect(maybeStatement('page', 'title', ' a\u0000b\u202e  c ')?.value).toBe('a b c');
    expect(maybeStatement('page', 'title', '\n\t')).toBeNull();
    expect(maybeStatement('page', 'title', { name: 'x' })).toBeNull();
  });
});

const QUESTION: GatherQuestion = {
  words: '',
  commercial: true,
  changes: true,
  shape: 'landscape',
  leastWidth: 1600,
};
const found = (licence: string, width = 3000, height = 2000) => ({
  width,
  height,
  statements: [say('collection', 'licence', licence), say('collection', 'maker', 'T. Veraldi')],
});

describe('what answers a question', () => {
  it.each([
    [undefined, found('CC BY 4.0')],
    ['no-commercial', found('CC BY-NC 4.0')],
    ['no-changes', found('CC BY-ND 4.0')],
    ['not-usable', found('https://rightsstatements.org/vocab/InC/1.0/')],
    ['too-small', found('CC BY 4.0', 900, 600)],
    ['other-shape', found('CC BY 4.0', 2000, 3000)],
    // Not clear, so a person decides; a comp, so its size is not the original's; no size, so nobody knows.
    [undefined, found('Free for good causes')],
    [undefined, found('comp', 1000, 600)],
    [undefined, found('CC BY 4.0', 0, 0)],
  ] as const)('%s', (misfit, picture) => {
    expect(misfitOf(picture, QUESTION)).toBe(misfit);
  });

  it('is said with counts and reasons', () => {
    expect(sayMisfits(['no-commercial', 'too-small', 'no-commercial'])).toBe(
      '3 more do not fit: 2 forbid commercial use, 1 is too small.',
    );
    expect(sayMisfits(['other-shape'])).toBe('1 more does not fit: 1 has another shape.');
  });

  it('says under each what it may be used for here', () => {
    expect(sayUse(found('CC BY 4.0'), PLAIN_RULES)).toEqual({ words: 'credit owed', isDue: false });
    expect(sayUse(found('CC0'), PLAIN_RULES).words).toBe('nothing owed');
    expect(sayUse(found('CC BY-NC 4.0'), PLAIN_RULES)).toEqual({ words: 'not here', isDue: true });
    expect(sayUse(found('Some rights'), PLAIN_RULES).words).toBe('licence unclear, decide');
    expect(sayUse(found('comp'), PLAIN_RULES).words).toBe('comp, free to try');
  });

  it('is looked for in the words of what a want is for', () => {
    expect(wordsOfPurpose('Portrait of the warden')).toBe('warden');
    expect(wordsOfPurpose('Lead of the page')).toBe('');
    expect(wordsOfPurpose('The tide chart')).toBe('tide chart');
  });
});

const page = (body: string, head = '') =>
  `<!DOCTYPE html><html><head><title>A page</title>${head}</head><body>${body}</body></html>`;
const BASE = 'https://saltmere.example/walks/index.html';
const read = (body: string, head = '') => readPagePictures(page(body, head), BASE);

describe('the pictures of a page', () => {
  it('are found largest first, with whole addresses', () => {
    const { pictures, title } = read(
      '<img src="small.jpg" width="300" height="200"><img src="/big.jpg" width="1200px" height="800"><img src="mark.png" width="16" height="16">',
    );
    expect(title).toBe('A page');
    expect(pictures.map(({ address }) => address)).toEqual([
      'https://saltmere.example/big.jpg',
      'https://saltmere.example/walks/small.jpg',
    ]);
  });

  it('are taken from the widest of srcset, or from the file that a link opens', () => {
    const { pictures } = read(
      '<img src="a-400.jpg" srcset="a-400.jpg 400w, a-1600.jpg 1600w" width="400" height="300"><a href="b-full.jpg"><img src="b-small.jpg"></a>',
    );
    expect(pictures.map(({ address }) => address.split('/').at(-1))).toEqual(['a-1600.jpg', 'b-full.jpg']);
    expect(pictures[0]).toMatchObject({ width: 1600, height: 1200 });
  });

  it('carry what the page says of each, and of the page as a whole', () => {
    const { pictures } = read(
      `<figure><img src="a.jpg" alt="Reeds"><figcaption>Reeds at noon</figcaption><a rel="license" href="${CC}/by/4.0/">CC</a></figure><footer><a rel="license" href="${CC}/by-sa/4.0/">Site</a></footer>`,
      '<base href="https://cdn.saltmere.example/"><meta property="og:image" content="/a.jpg"><meta property="og:site_name" content="Saltmere">',
    );
    expect(pictures).toHaveLength(1);
    expect(pictures[0]?.statements).toEqual(
      expect.arrayContaining([
        say('page', 'alt', 'Reeds'),
        say('caption', 'caption', 'Reeds at noon'),
        say('rdfa', 'licence', `${CC}/by/4.0/`),
        say('link', 'page-licence', `${CC}/by-sa/4.0/`),
        say('open-graph', 'source', 'Saltmere'),
      ]),
    );
    expect(readLicence(pictures[0]?.statements ?? [])).toMatchObject({ kind: 'clear', licence: 'cc-by-4.0' });
  });

  it('are found in JSON-LD however deep, whose odd values are passed over', () => {
    const data = {
      '@graph': [
        [
          {
            '@type': ['Thing', 'ImageObject'],
            contentUrl: 'deep.jpg',
            name: 7,
            creator: [{ name: 'Ines' }],
            width: '900',
          },
        ],
        { '@type': 'ImageObject', contentUrl: 'javascript:alert(1)' },
        { '@type': 'ImageObject', contentUrl: { nested: true }, license: [[]] },
      ],
    };
    const { pictures } = read('', `<script type="application/ld+json">${JSON.stringify(data)}</script>`);
    expect(pictures).toHaveLength(1);
    expect(pictures[0]?.statements).toEqual([say('json-ld', 'title', '7'), say('json-ld', 'maker', 'Ines')]);
  });

  it.each([
    [
      'addresses of programs and data',
      '<img src="javascript:x"><img src="data:image/png;base64,AAAA"><img src="file:///a.jpg">',
    ],
    ['nothing at all', ''],
    ['half a tag', '<img src="'],
    [
      'JSON that breaks off',
      '<script type="application/ld+json">{"@type":"ImageObject","contentUrl":</script>',
    ],
    ['nested without end', '<div>'.repeat(4000)],
  ])('%s give no picture and no error', (_kind, body) => {
    expect(read(body).pictures).toEqual([]);
  });

  it('never throws, and gives only web addresses', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), fc.webUrl(), (junk, base) => {
        const { pictures } = readPagePictures(
          `<img src="${junk}"><a href=x>${junk}<img srcset='${junk}'>`,
          base,
        );
        for (const { address } of pictures) expect(address).toMatch(/^https?:\/\//);
      }),
    );
  });
});
