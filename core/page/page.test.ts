import fc from 'fast-check';
import { parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5';
import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { AS_IT_CAME } from '../media/recipe.ts';
import { changesOf } from '../media/recipe-says.ts';
import type { Block } from './blocks/block.ts';
import { type Placement, POSITIONS } from './blocks/placement/schema.ts';
import { creditsOfPage, writeCredits } from './credits.ts';
import { escapeHtml } from './escape.ts';
import { isLinkAddress } from './inline.ts';
import { shownWidth, sizesAttribute, textBeside, widthSegments } from './layout.ts';
import { type PageDoc, PageDocSchema } from './model.ts';
import { planPicture, recipeHere } from './picture.ts';
import { columnRoom } from './room.ts';
import { stationsOf } from './stations.ts';
import { styleSheet } from './style-sheet.ts';
import type { HouseRules } from './target.ts';
import {
  A_DAY,
  blank,
  examplePage,
  examplePiece,
  examplePlacement,
  heading,
  inColumn,
  PLAIN_RULES,
  paragraph,
} from './testing.ts';
import { withPlacement } from './walk.ts';
import { wantMisfit } from './wants.ts';
import { cutsOfPage, writeDocument, writeFragment } from './write.ts';

const RULES = PLAIN_RULES;
const COLUMN = columnRoom(RULES);
const PIECES = new Map([['heron', examplePiece()]]);
const CONTEXT = {
  rules: RULES,
  pieces: PIECES,
  addressOf: (cut: { fileName: string }) => `media/${cut.fileName}`,
};
const figure = (placement: ReturnType<typeof examplePlacement>): Block => ({
  type: 'placement',
  attrs: placement,
});

const px = fc.integer({ min: 0, max: 200 });
const anyPlacement = fc.record({
  position: fc.constantFrom(...POSITIONS),
  width: fc.option(
    fc.oneof(
      fc.record({ unit: fc.constant('px' as const), value: fc.integer({ min: 40, max: 1500 }) }),
      fc.record({ unit: fc.constant('%' as const), value: fc.integer({ min: 5, max: 100 }) }),
    ),
  ),
  margins: fc.option(fc.record({ top: px, right: px, bottom: px, left: px })),
  stackBelow: fc.option(fc.integer({ min: 0, max: 1200 })),
});

describe('shown width', () => {
  it.each([
    ['beside-left', 1280, 331.2],
    ['beside-left', 390, 350],
    ['centred', 1280, 504],
    ['column', 1280, 720],
    ['column', 390, 350],
    ['breakout', 1280, 960],
    ['breakout', 834, 794],
    ['bleed', 834, 834],
  ] as const)('of %s at %i px is %f px', (position, viewport, width) => {
    expect(shownWidth(RULES, examplePlacement(position), COLUMN, viewport)).toBeCloseTo(width);
  });

  it('is less its margins, and in px or percent of the column', () => {
    const margins = { top: 0, right: 30, bottom: 0, left: 10 };
    expect(shownWidth(RULES, examplePlacement('column', { margins }), COLUMN, 1280)).toBe(680);
    expect(
      shownWidth(RULES, examplePlacement('centred', { width: { unit: 'px', value: 480 } }), COLUMN, 1280),
    ).toBe(480);
    expect(
      shownWidth(RULES, examplePlacement('centred', { width: { unit: 'px', value: 480 } }), COLUMN, 390),
    ).toBe(350);
    expect(
      shownWidth(RULES, examplePlacement('beside-right', { width: { unit: '%', value: 50 } }), COLUMN, 1280),
    ).toBe(360);
  });

  it('is said by `sizes` for every viewport', () => {
    fc.assert(
      fc.property(anyPlacement, fc.integer({ min: 330, max: 2500 }), (change, viewport) => {
        const placement = examplePlacement(change.position, change);
        const segment = widthSegments(RULES, placement, COLUMN).find(
          ({ below }) => below === null || viewport < below,
        );
        expect(segment && segment.share * viewport + segment.px).toBeCloseTo(
          shownWidth(RULES, placement, COLUMN, viewport),
          -0.5,
        );
      }),
    );
  });

  it('is written as lengths', () => {
    expect(sizesAttribute(widthSegments(RULES, examplePlacement('column'), COLUMN))).toBe(
      '(max-width: 759.98px) calc(100vw - 40px), 720px',
    );
    expect(sizesAttribute(widthSegments(RULES, examplePlacement('bleed'), COLUMN))).toContain('100vw');
  });

  it('leaves room for text beside only where text runs beside', () => {
    expect(textBeside(RULES, examplePlacement('beside-left'), COLUMN, 1280)).toBeCloseTo(720 - 331.2 - 22);
    expect(textBeside(RULES, examplePlacement('beside-left'), COLUMN, 390)).toBeNull();
    expect(textBeside(RULES, examplePlacement('column'), COLUMN, 1280)).toBeNull();
  });
});

describe('HTML of a page', () => {
  const page = examplePage(
    heading('Eleven <males>'),
    paragraph('You hear them & see none.'),
    figure(examplePlacement('beside-left', { ratio: { across: 1, down: 1 }, caption: 'Below "Hide 3"' })),
    blank(),
    {
      type: 'bulletList',
      attrs: { id: 'list' },
      content: [
        {
          type: 'listItem',
          content: [
            {
              type: 'paragraph',
              content: [
                {
                  type: 'text',
                  text: 'One',
                  marks: [{ type: 'bold' }, { type: 'link', attrs: { href: '/one?a=1&b=2' } }],
                },
              ],
            },
          ],
        },
      ],
    },
  );
  const html = writeFragment(page, CONTEXT);

  it('is semantic: figure, picture, img with all it needs, caption with credit', () => {
    expect(html).toMatch(
      /<figure class="placed beside-left" style="[^"]+" vocab="https:\/\/schema\.org\/" typeof="ImageObject" resource="media\/heron--1x1-\d+\.jpg">/,
    );
    expect(html).toContain('<source type="image/avif"');
    expect(html).toContain('<source type="image/webp"');
    expect(html).toMatch(
      /<img src="media\/heron--1x1-\d+\.jpg" srcset="[^"]+ \d+w" sizes="[^"]+" width="\d+" height="\d+" alt="A heron stands in the reeds\."/,
    );
    expect(html).toContain(
      '<figcaption>Below &quot;Hide 3&quot; <span class="credit">Photo: Ines Okonjo, <a href="https://creativecommons.org/licenses/by/4.0/" rel="license" property="license">CC BY 4.0</a>, cropped.</span></figcaption>',
    );
  });

  it('escapes text, keeps marks, and leaves out what is empty', () => {
    expect(html).toContain('<h2>Eleven &lt;males&gt;</h2>');
    expect(html).toContain('<a href="/one?a=1&amp;b=2"><strong>One</strong></a>');
    expect(html).not.toContain('<p></p>');
  });

  it('loads the first picture at once and the others when they are near', () => {
    const two = writeFragment(
      examplePage(figure(examplePlacement('column')), figure(examplePlacement('column', { id: 'two' }))),
      CONTEXT,
    );
    expect(two.match(/loading="lazy"/g)).toHaveLength(1);
    expect(two.indexOf('fetchpriority="high"')).toBeLessThan(two.indexOf('loading="lazy"'));
  });

  it('links, or opens larger', () => {
    expect(
      writeFragment(
        examplePage(
          figure(examplePlacement('column', { click: { kind: 'link', href: 'https://a.example/' } })),
        ),
        CONTEXT,
      ),
    ).toContain('<a href="https://a.example/"><picture>');
    expect(
      writeFragment(examplePage(figure(examplePlacement('column', { click: { kind: 'larger' } }))), CONTEXT),
    ).toMatch(
      /<a class="larger" href="media\/heron--2400\.jpg">[\s\S]+ alt="A heron stands in the reeds\. Opens larger"/,
    );
    const silent = figure(
      examplePlacement('column', { click: { kind: 'larger' }, alt: { kind: 'decorative' } }),
    );
    expect(writeFragment(examplePage(silent), CONTEXT)).toContain('alt="Opens larger"');
  });

  it('has its long description under the figure, to which the picture points', () => {
    const described = examplePiece({
      label: { title: 'Eels counted', extendedDescription: 'In May <12>.\nIn June 40.\n\nThen none.' },
    });
    const written = writeFragment(examplePage(figure(examplePlacement('column', { id: 'chart' }))), {
      ...CONTEXT,
      pieces: new Map([[described.id, described]]),
    });
    expect(written).toMatch(/<img [^>]+ aria-details="described-chart"/);
    expect(written).toContain(
      '<details class="described" id="described-chart"><summary>Description of Eels counted</summary>\n<p>In May &lt;12&gt;.<br>In June 40.</p>\n<p>Then none.</p>\n</details></figcaption>',
    );
    const charted = examplePiece({
      label: { title: 'Eels counted', extendedDescription: '# By year\n- few\n\nYear\tEels\n2024\t812' },
    });
    const under = writeFragment(
      examplePage(heading('Counts', 2), figure(examplePlacement('column', { id: 'chart' }))),
      { ...CONTEXT, pieces: new Map([[charted.id, charted]]) },
    );
    expect(under).toContain('<h3>By year</h3>\n<ul>\n<li>few</li>\n</ul>');
    expect(under).toContain(
      '<thead>\n<tr><th scope="col">Year</th><th scope="col">Eels</th></tr>\n</thead>\n<tbody>\n<tr><th scope="row">2024</th><td>812</td></tr>\n</tbody>',
    );
    expect(html).not.toContain('<details');
    expect(html).not.toContain('aria-details');
  });

  it('stands alone where the page that takes it has no style sheet: sides, sizes and pictures in the HTML itself', () => {
    const page = examplePage(
      figure(examplePlacement('beside-right', { width: { unit: '%', value: 40 } })),
      paragraph('Words'),
    );
    const pieces = new Map([['heron', examplePiece({ label: { caption: 'At dawn.' } })]]);
    const html = writeFragment(page, {
      rules: RULES,
      pieces,
      addressOf: (cut) => `https://files.example/spring/${cut.fileName}`,
      isInline: true,
      withoutTitle: true,
    });
    expect(html).toMatch(
      /<figure [^>]*style="float:right;clear:right;width:40%;max-width:100%;margin:4px 0px 12px 22px"/,
    );
    expect(html).toContain('style="display:block;width:100%;height:auto"');
    expect(html).toContain('src="https://files.example/spring/');
    expect(html).not.toContain('--w');
    expect(html).not.toContain('<h1>');
  });

  it('names only files that are made, each once', () => {
    const cuts = cutsOfPage(page, CONTEXT);
    const named = new Set([...html.matchAll(/media\/([a-z0-9.-]+)/g)].map(([, name]) => name));
    expect(new Set(cuts.map((cut) => cut.fileName))).toEqual(named);
    expect(cuts).toHaveLength(named.size);
  });

  it('never lets anything but the model through, whatever the words are', () => {
    const hostile = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 80 }),
      fc.constantFrom(
        '"><script>alert(1)</script>',
        '</p><img src=x onerror=a>',
        "' onmouseover='",
        '<!--',
        ']]>',
      ),
    );
    fc.assert(
      fc.property(hostile, hostile, hostile, (words, alt, caption) => {
        const text = words === '' ? 'x' : words;
        const piece = examplePiece({
          label: { alt: { kind: 'text', text: alt || 'x' }, creator: words, title: caption },
        });
        const out = writeDocument(
          { ...examplePage(paragraph(text), figure(examplePlacement('column', { caption }))), title: words },
          { ...CONTEXT, pieces: new Map([['heron', piece]]), styleSheet: 'style.css' },
        );
        const elements = elementsOf(parseFragment(out.replace(/^[\s\S]*<main>/, '')));
        expect(elements.every((element) => ALLOWED.has(element.tagName))).toBe(true);
        expect(
          elements.flatMap((element) => element.attrs).filter(({ name }) => name.startsWith('on')),
        ).toEqual([]);
      }),
    );
  });
});

const ALLOWED = new Set(['div', 'h1', 'p', 'figure', 'picture', 'source', 'img', 'figcaption', 'span', 'a']);

function elementsOf(root: Tree.ParentNode): Tree.Element[] {
  return root.childNodes.flatMap((node) => ('tagName' in node ? [node, ...elementsOf(node)] : []));
}

describe('words over a picture', () => {
  const words = { text: 'Booming\n<again> & "more"', place: 'top left', size: 65, ink: '#ffffff' } as const;
  const piece = examplePiece({ prep: { ...AS_IT_CAME, words: { ...words, plate: '#172126' } } });
  const page = examplePage(figure(examplePlacement('column')));
  const written = (rules: HouseRules) =>
    writeFragment(page, { rules, pieces: new Map([['heron', piece]]), addressOf: (cut) => cut.fileName });

  it('are text of the page, escaped, with their size and colours', () => {
    const html = written(RULES);
    expect(html).toContain(
      '<p class="over top-left plated" style="--s:6.5;--ink:#ffffff;--plate:#172126"><span>Booming<br>&lt;again&gt; &amp; &quot;more&quot;</span></p>',
    );
    expect(planPicture(RULES, inColumn(examplePlacement('column')), piece).recipe.words).toBeNull();
  });

  it('are in the file, and nowhere else, for a target that keeps no text there', () => {
    const drawn = { ...RULES, wordsOver: 'drawn' } as const;
    expect(written(drawn)).not.toContain('over');
    expect(planPicture(drawn, inColumn(examplePlacement('column')), piece).recipe.words?.text).toBe(
      words.text,
    );
  });

  it('bring their styles only to pages that have them', () => {
    const held = new Map([['heron', piece]]);
    expect(styleSheet(RULES, page, held)).toContain('.over.plated');
    expect(styleSheet({ ...RULES, wordsOver: 'drawn' }, page, held)).not.toContain('.over');
    expect(styleSheet(RULES, page, new Map([['heron', examplePiece()]]))).not.toContain('.over');
  });
});

describe('style sheet', () => {
  it('says the column, the breakout and where pictures stack', () => {
    const css = styleSheet(
      RULES,
      examplePage(figure(examplePlacement('beside-left', { stackBelow: 900 }))),
      'any',
    );
    expect(css).toContain('min(720px, 100cqw - 40px)');
    expect(css).toContain('min(960px, 100cqw - 40px)');
    expect(css).toContain('@container placard (width < 480px)');
    expect(css).toContain('.stack-900');
  });
});

describe('picture plan', () => {
  it('never asks for more than the original has', () => {
    const small = examplePiece({ size: { width: 320, height: 400 } });
    const plan = planPicture(
      RULES,
      inColumn(examplePlacement('column', { click: { kind: 'larger' } })),
      small,
    );
    expect(plan.ladder).toEqual([320]);
    expect(plan.larger?.size.width).toBe(320);
  });
});

describe('page document', () => {
  const good: PageDoc = examplePage(paragraph('Words'), figure(examplePlacement('column')));
  it('fits its schema', () => {
    expect(v.is(PageDocSchema, good)).toBe(true);
  });

  it.each([
    ['an unknown block', { ...good, blocks: [{ type: 'html', content: '<b>' }] }],
    [
      'a script in a link',
      {
        ...good,
        blocks: [
          {
            type: 'paragraph',
            content: [
              { type: 'text', text: 'x', marks: [{ type: 'link', attrs: { href: 'javascript:alert(1)' } }] },
            ],
          },
        ],
      },
    ],
    ['a heading 1', { ...good, blocks: [{ type: 'heading', attrs: { level: 1 } }] }],
    [
      'a width of nothing',
      {
        ...good,
        blocks: [
          { type: 'placement', attrs: examplePlacement('column', { width: { unit: 'px', value: 1 } }) },
        ],
      },
    ],
    ['one field more', { ...good, owner: 'somebody' }],
    ['no blocks', { title: 'x', wants: [], tray: [] }],
  ])('with %s does not', (_what, doc) => {
    expect(v.is(PageDocSchema, doc)).toBe(false);
  });

  it.each(['https://a.example/', '/pages/1', '#top', 'mailto:mara@saltmere.example'])(
    'may link to %s',
    (href) => {
      expect(isLinkAddress(href)).toBe(true);
    },
  );

  it.each(['javascript:alert(1)', '//evil.example', 'data:text/html,x', 'vbscript:x', '', 'reeds', '/a"b'])(
    'may not link to %j',
    (href) => {
      expect(isLinkAddress(href)).toBe(false);
    },
  );

  it('is the very same when no placement changed', () => {
    expect(withPlacement(good, 'nobody', { position: 'bleed' })).toBe(good);
  });
});

describe('credits and stations', () => {
  it('lists each credit once', () => {
    const page = examplePage(
      figure(examplePlacement('column')),
      figure(examplePlacement('column', { id: 'two' })),
    );
    expect(creditsOfPage(page, PIECES, RULES).map((credit) => credit.text)).toEqual([
      'Photo: Ines Okonjo, CC BY 4.0.',
    ]);
    expect(writeCredits(page, PIECES, RULES)).toContain('<cite>Heron</cite>');
  });

  it('stand once at the foot where House rules say so, and not under the pictures', () => {
    const page = examplePage(
      figure(examplePlacement('column')),
      figure(examplePlacement('column', { id: 'two' })),
    );
    const html = writeFragment(page, { ...CONTEXT, rules: { ...RULES, creditsAt: 'foot' } });
    expect(html.match(/Ines Okonjo/g)).toHaveLength(1);
    expect(html).toMatch(
      /<section class="credits">\n<h2>Picture credits<\/h2>\n<ul>\n<li><cite>Heron<\/cite>\. Photo: /,
    );
    expect(html).not.toContain('property="license"');
    expect(writeFragment(page, CONTEXT).match(/Ines Okonjo/g)).toHaveLength(2);
  });

  it('are short in a card', () => {
    const card = {
      type: 'card' as const,
      attrs: { id: 'card', link: '' },
      content: [{ type: 'placement' as const, attrs: examplePlacement('column') }],
    };
    const html = writeFragment(
      examplePage({ type: 'cards', attrs: { id: 'cards', perRow: 2, gap: 24 }, content: [card] }),
      CONTEXT,
    );
    expect(html).toContain('<span class="credit">Ines Okonjo, <a ');
  });

  it('counts how far a page is', () => {
    const page: PageDoc = {
      ...examplePage(),
      tray: ['heron'],
      wants: [{ id: 'w', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null }],
    };
    const stations = stationsOf(page, PIECES, RULES, A_DAY);
    expect(stations.map(({ id, done, of }) => `${id} ${done}/${of}`)).toEqual([
      'wanted 0/1',
      'cleared 1/1',
      'prepared 1/1',
      'worded 1/1',
      'placed 0/1',
    ]);
    expect(stations[0]?.next).toEqual({ kind: 'want', id: 'w' });
    expect(stations[4]?.next).toEqual({ kind: 'asset', id: 'heron' });
  });
});

describe('wants', () => {
  const want = { id: 'w', purpose: 'Lead', shape: 'landscape', leastWidth: 1600, filledBy: null } as const;
  it.each([
    [{ width: 6000, height: 4000 }, undefined],
    [{ width: 1200, height: 800 }, 'It is 1200 px wide; “Lead” asks for at least 1600.'],
    [{ width: 4000, height: 6000 }, 'It is portrait; “Lead” asks for landscape. It can be cut to that.'],
  ])('say why %j does not suit', (size, sentence) => {
    expect(wantMisfit(want, examplePiece({ size }))).toBe(sentence);
    expect(wantMisfit({ ...want, shape: 'any', leastWidth: 0 }, examplePiece({ size }))).toBeUndefined();
  });
});

describe('several uses of one piece', () => {
  const turned = { ...AS_IT_CAME, turn: 90 } as const;
  const uses: readonly Partial<Placement>[] = [
    {},
    { ratio: { across: 1, down: 1 } },
    { ratio: { across: 1, down: 1 }, backgroundColour: '#ffffff' },
    { ratio: { across: 1, down: 1 }, backgroundColour: '#000000' },
    { prep: turned },
    { prep: { ...turned, sharpness: 20 } },
  ];

  it('have files of names of their own, each for what is done to it there', () => {
    const plans = uses.map((use) =>
      planPicture(RULES, inColumn(examplePlacement('column', use)), examplePiece()),
    );
    const names = plans.map(({ fallback }) => fallback.fileName);
    expect(new Set(names).size).toBe(uses.length);
    expect(names[2]).toContain('1x1-on-ffffff');
    expect(plans[4]?.cutSize).toEqual({ width: 4000, height: 6000 });
    expect(plans[2]?.cutSize).toEqual({ width: 6000, height: 6000 });
    for (const name of names) expect(name).toMatch(/^[a-z0-9-]+\.(avif|webp|jpg)$/);
  });

  it('say what is done to it there, and nothing of what is not', () => {
    const changes = (use: Partial<Placement>) =>
      changesOf(recipeHere(examplePlacement('column', use), examplePiece()));
    expect(changes({ ratio: { across: 1, down: 1 } })).toEqual(['cropped']);
    expect(changes({ ratio: { across: 1, down: 1 }, backgroundColour: '#ffffff' })).toEqual([]);
    expect(changes({ prep: { ...turned, sharpness: 20 } })).toEqual(['sharpened']);
  });
});

describe('escaping', () => {
  it('reads back as the same text', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('a', '<', '>', '&', '"', "'", ';', 'é') }), (text) => {
        const [node] = parseFragment(`<p>${escapeHtml(text)}</p>`).childNodes;
        const [inner] = node && 'childNodes' in node ? node.childNodes : [];
        expect(inner && 'value' in inner ? inner.value : '').toBe(text);
      }),
    );
  });
});
