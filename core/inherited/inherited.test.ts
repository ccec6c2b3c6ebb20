import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { madeUpHosts } from '../embed/made-up-hosts.ts';
import type { Block } from '../page/blocks/block.ts';
import { plainText } from '../page/inline.ts';
import { PageDocSchema } from '../page/model.ts';
import { allFaults, type InheritedFacts, type LinkFact } from './facts.ts';
import { type FaultCode, outcomeOf } from './fault.ts';
import { readInherited } from './read.ts';
import type { Inherited, InheritedPart } from './reading.ts';
import { sayFault, sayFaults } from './say.ts';
import { toPage, type Wishes } from './to-page.ts';

const SITE = 'https://saltmere.example';
const BASE = `${SITE}/old/eels.htm`;
const HOSTS = { entries: [...madeUpHosts((name) => `https://${name}.example`)], decisions: [] };
const RULES = { column: 720, language: 'en-GB', siteAddress: SITE };
const FILM = 'https://lanternreel.example/watch/eel-pass-71';

let ids = 0;
const newId = () => `read-${++ids}`;

const read = (html: string, css = ''): Inherited =>
  readInherited({ html, css, base: BASE, hosts: HOSTS, language: 'en-GB' }, newId);

/** A body of a page that says its title and language. */
const page = (body: string, head = '') =>
  `<!DOCTYPE html><html lang="en-GB"><head><title>Eels</title>${head}</head><body>${body}</body></html>`;

const lineOf = (part: InheritedPart, { uses, embeds }: Inherited): string => {
  if (part.kind === 'picture') {
    const use = uses[part.use];
    return `(${[use?.side, use?.caption, use?.link, use?.opensLarger && 'larger'].filter(Boolean).join(' ')})`;
  }
  if (part.kind === 'embed') return `<${embeds[part.embed]?.embed.page}>`;
  return blockLine(part.block);
};

const blockLine = (block: Block): string => {
  if (block.type === 'heading') return `${'#'.repeat(block.attrs.level)} ${plainText(block.content)}`;
  return block.type === 'paragraph' ? plainText(block.content) : block.type;
};

const lines = (reading: Inherited, parts = reading.mended) => parts.map((part) => lineOf(part, reading));

/** Files of a size, none of them on the shelf. */
const factsOf = (
  { files }: Inherited,
  size = { width: 1600, height: 1200 },
  links: Readonly<Record<string, LinkFact>> = {},
): InheritedFacts => ({ files: files.map(() => ({ size, held: null })), links });

const codes = (reading: Inherited, facts = factsOf(reading)) =>
  allFaults(reading, facts).map(({ code }) => code);

const IMG = '<img src="eel.jpg" alt="Eels in a bucket, seen from above" width="400" height="300">';

describe('what an inherited page says', () => {
  it.each<readonly [what: string, html: string, said: readonly string[]]>([
    ['its own part alone', page('<nav>Home</nav><main><p>a</p></main><footer>c 2004</footer>'), ['a']],
    [
      'no ways of the site in a body',
      page('<div id="nav">Home</div><p>a</p><div id="footer">b</div>'),
      ['a'],
    ],
    [
      'a head that holds the page',
      page(`<div id="header"><p>${'Reeds and water. '.repeat(60)}</p></div>`),
      ['Reeds and water. '.repeat(60).trim()],
    ],
    [
      'what a layout table lays out',
      page('<h1>x</h1><table><tr><td><h2>A</h2>b</td><td>c</td></tr></table>'),
      ['## A', 'b', 'c'],
    ],
    [
      'a picture in one cell and text in the other, beside each other',
      page(`<table><tr><td>${IMG}</td><td>Eels cannot jump.</td></tr></table>`),
      ['(left)', 'Eels cannot jump.'],
    ],
    [
      'text in one cell and its picture in the other',
      page(`<table><tr><td>Eels cannot jump.</td><td>${IMG}</td></tr></table>`),
      ['(right)', 'Eels cannot jump.'],
    ],
    [
      'what text runs beside before it',
      page(`<p>Eels. ${IMG.replace('<img', '<img align="right"')}</p>`),
      ['(right)', 'Eels.'],
    ],
    [
      'a side that a style sheet gives',
      page(`<style>.r{float:right}</style><p>${IMG.replace('<img', '<img class="r"')}a</p>`),
      ['(right)', 'a'],
    ],
    [
      'a caption with its picture',
      page(`<figure>${IMG}<figcaption>Counted</figcaption></figure>`),
      ['(Counted)'],
    ],
    [
      'a picture that a link opens larger',
      page(`<a href="eel.jpg">${IMG.replace('eel.jpg', 'thumbs/eel.jpg')}</a>`),
      ['(larger)'],
    ],
    ['a picture that leads somewhere', page(`<a href="count.htm">${IMG}</a>`), [`(${SITE}/old/count.htm)`]],
    [
      'a lazy picture once',
      page(
        `<img src="data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP" data-src="eel.jpg" alt="Eels in a bucket"><noscript><img src="eel.jpg" alt="Eels in a bucket"></noscript>`,
      ),
      ['()'],
    ],
    [
      'no dots and marks',
      page(
        '<p>a<img src="spacer.gif" width="1" height="40"><img src="icons/home.gif" width="16" height="16"></p>',
      ),
      ['a'],
    ],
    [
      'a film in a frame',
      page('<iframe src="https://lanternreel.example/play/eel-pass-71"></iframe>'),
      [`<${FILM}>`],
    ],
    [
      'what a dead player played',
      page(
        `<object classid="clsid:D27CDB6E"><param name="flashvars" value="file=${encodeURIComponent(FILM)}&amp;x=1"><embed src="p.swf"></object>`,
      ),
      [`<${FILM}>`],
    ],
    [
      'nothing of a player whose film is gone',
      page('<object data="p.swf" type="application/x-shockwave-flash"></object><p>a</p>'),
      ['a'],
    ],
    [
      'embed code that stands in the text',
      page(`<p>See &lt;iframe src="https://lanternreel.example/play/eel-pass-71"&gt;&lt;/iframe&gt;</p>`),
      ['See', `<${FILM}>`],
    ],
    [
      'code that is shown as code',
      page(`<pre>&lt;iframe src="https://lanternreel.example/play/eel-pass-71"&gt;</pre>`),
      ['codeBlock'],
    ],
    [
      'what stands there for those without frames',
      '<title>Map</title><frameset><frame src="a.htm"><noframes><p>The map.</p></noframes></frameset>',
      ['The map.'],
    ],
    ['the title over it, and not once more in it', page('<h1>The Eel Pass</h1><h2>a</h2>'), ['## a']],
    [
      'headings from the second level on, once the title was one of them',
      page(
        '<p><font size="6"><b>The pass</b></font></p><p>Eels climb the ramp at night.</p><p><font size="5"><b>Counts</b></font></p><p>Four hundred came this year.</p>',
      ),
      ['Eels climb the ramp at night.', '## Counts', 'Four hundred came this year.'],
    ],
  ])('%s', (_what, html, said) => {
    expect(lines(read(html))).toEqual(said);
  });

  it('as it was read, headings stay the letters that they are', () => {
    const reading = read(
      page(
        '<h1>x</h1><p>Eels climb the ramp at night.</p><p><font size="5"><b>Counts</b></font></p><p>Four hundred came.</p>',
      ),
    );
    expect(lines(reading)).toContain('## Counts');
    expect(lines(reading, reading.asRead)).toContain('Counts');
  });

  it('takes the title of its first heading, else of its tab; summary and language where it says them', () => {
    expect(read(page('<h1>The  pass</h1>'))).toMatchObject({ title: 'The pass', language: 'en-GB' });
    expect(read(page('<p>a</p>', '<meta name="description" content=" About eels. ">'))).toMatchObject({
      title: 'Eels',
      summary: 'About eels.',
    });
  });

  it('reads addresses from its base', () => {
    const reading = read(
      page(`${IMG}<p><a href="b.htm">b</a> <a href="c.pdf">c</a></p>`, '<base href="/new/">'),
    );
    expect(reading.files[0]?.address).toBe(`${SITE}/new/eel.jpg`);
    expect(reading.links[0]?.address).toBe(`${SITE}/new/b.htm`);
    expect(reading.documents[0]?.address).toBe(`${SITE}/new/c.pdf`);
  });

  it('lists what does not come along', () => {
    const { left } = read(
      page('<nav>Home</nav><p>a<s>old</s></p><img src="spacer.gif" width="1" height="9"><svg></svg>'),
    );
    expect(left.map(({ kind, examples: [first] }) => `${kind} ${first}`)).toEqual([
      'furniture Home',
      'decoration spacer.gif',
      'drawing a',
      'text old',
    ]);
  });
});

describe('the faults of an inherited page', () => {
  const DEAD: InheritedFacts['links'] = { [`${SITE}/old/gone.htm`]: { state: 'dead' } };
  const MOVED: InheritedFacts['links'] = {
    [`${SITE}/old/tide.htm`]: { state: 'moved', to: `${SITE}/tides`, title: 'The tides this week' },
  };
  const small = { width: 200, height: 150 };
  type Case = readonly [FaultCode, string, Parameters<typeof factsOf>[1]?, InheritedFacts['links']?];
  const CASES: readonly Case[] = [
    [
      'letter-heading',
      page('<h1>x</h1><p><font size="5"><b>Counts</b></font></p><p>Four hundred came this year.</p>'),
    ],
    ['layout-table', page('<table><tr><td>a</td></tr></table>')],
    ['spacing', page('<p>a</p><p>&nbsp;</p>')],
    ['spacing', page('<p>a<br><br>b</p>')],
    ['obsolete', page('<center>a</center>')],
    ['obsolete', page('<p align="center">a</p>')],
    ['inline-style', page('<p style="color:red">a</p>')],
    ['language-missing', '<title>Eels</title><p>Eels climb up at night.</p>'],
    ['title-missing', '<html lang="en"><p>a</p></html>'],
    [
      'mixed-content',
      page('<img src="http://saltmere.example/eel.jpg" alt="Eels in a bucket" width="400" height="300">'),
    ],
    [
      'code-as-text',
      page(`<p>&lt;iframe src="https://lanternreel.example/play/eel-pass-71"&gt;&lt;/iframe&gt;</p>`),
    ],
    ['dead-player', page('<applet code="Tide.class"></applet>')],
    ['embed-refused', page('<iframe src="javascript:1"></iframe>')],
    ['frames', '<html lang="en"><title>a</title><frameset><frame src="a.htm"></frameset></html>'],
    ['script-written', page('<script>document.write("a")</script><p>b</p>')],
    ['alt-missing', page('<img src="eel.jpg" width="400" height="300">')],
    ['alt-file-name', page('<img src="eel.jpg" alt="IMG_2214.jpg" width="400" height="300">')],
    ['linked-decorative', page('<a href="b.htm"><img src="eel.jpg" alt="" width="400" height="300"></a>')],
    ['link-vague', page('<p>For tides <a href="tide.htm">click here</a></p>')],
    ['link-dead', page('<p><a href="gone.htm">the warden</a></p>'), undefined, DEAD],
    ['link-moved', page('<p><a href="tide.htm">the tides</a></p>'), undefined, MOVED],
    ['stretched', page(IMG.replace('300"', '152"'))],
    ['enlarged', page(IMG), small],
    ['oversized', page(IMG)],
    ['file-name', page(IMG.replace('eel.jpg', 'DSC00471 (1).JPG'))],
    ['licence-unknown', page(IMG)],
    ['captions-missing', page('<video src="https://saltmere.example/eels.mp4"></video>')],
    ['form', page('<form><input></form><p>a</p>')],
  ];
  it.each(CASES.map(([code, html, size, links]) => ({ code, html, size, links })))(
    '$code',
    ({ code, html, size, links }) => {
      const reading = read(html);
      const fault = allFaults(reading, factsOf(reading, size, links)).find((one) => one.code === code);
      expect(fault).toBeDefined();
      if (!fault) return;
      const { sentence, became } = sayFault(fault);
      expect(sentence).toMatch(/^[“A-Z0-9].*\.$/);
      expect(became).toMatch(/^[“A-Z0-9h].*\.$/);
    },
  );

  it('finds none in a page that has none', () => {
    const reading = read(
      page(
        '<main><h1>Eels</h1><p>Eels climb. See <a href="/tides">the tides this week</a>.</p><figure><img src="eels-in-a-bucket.jpg" alt="Eels in a bucket, seen from above" width="1600" height="1200"><figcaption>Photo: R. Alder. <a rel="license" href="https://creativecommons.org/licenses/by/4.0/">CC BY 4.0</a></figcaption></figure></main>',
      ),
    );
    expect(codes(reading)).toEqual([]);
    expect(sayFaults([])).toBe('No faults');
  });

  it('says of a file that does not answer that it is gone, and of one on the shelf that it is there', () => {
    const reading = read(page(IMG));
    expect(codes(reading, { files: [null], links: {} })).toEqual(['picture-gone']);
    const held = { files: [{ size: { width: 400, height: 300 }, held: 'piece-1' }], links: {} };
    expect(codes(reading, held)).toEqual(['held']);
  });

  it('marks each where it stands in the document', () => {
    const html = page('<p>a</p><p>&nbsp;</p>');
    // html 0, head 1, title 2, body 3, p 4, p 5.
    expect(allFaults(read(html), factsOf(read(html)))).toMatchObject([{ code: 'spacing', spots: [5] }]);
  });

  it('a rounded height is no stretch, and what opens larger was never shown itself', () => {
    const rounded = read(page(IMG.replace('width="400" height="300"', 'width="333" height="250"')));
    expect(codes(rounded)).not.toContain('stretched');
    const thumb = read(page(`<a href="eel.jpg">${IMG.replace('eel.jpg', 'thumbs/eel.jpg')}</a>`));
    expect(codes(thumb)).not.toContain('oversized');
  });

  it('a link that says nothing is mended where what it leads to has a name', () => {
    const reading = read(page('<p><a href="tide.htm">click here</a></p>'));
    const [unnamed] = allFaults(reading, factsOf(reading));
    const [named] = allFaults(reading, factsOf(reading, undefined, MOVED)).filter(
      ({ code }) => code === 'link-vague',
    );
    expect(unnamed && outcomeOf(unnamed)).toBe('asks');
    expect(named && outcomeOf(named)).toBe('mended');
  });
});

describe('the page that comes of it', () => {
  const WISHES: Wishes = { mends: true, unlinksDead: true };
  const made = (html: string, wishes: Partial<Wishes> = {}, links: InheritedFacts['links'] = {}) => {
    const reading = read(html);
    const became = {
      files: reading.files.map((_, at) => ({
        id: `piece-${at}`,
        alt: { kind: 'unsaid' } as const,
        caption: '',
      })),
      embeds: reading.embeds.map((_, at) => `embed-${at}`),
      documents: Object.fromEntries(reading.documents.map(({ address }, at) => [address, `document-${at}`])),
    };
    const doc = toPage(
      reading,
      factsOf(reading, undefined, links),
      became,
      RULES,
      { ...WISHES, ...wishes },
      newId,
    );
    return v.parse(PageDocSchema, doc);
  };
  const placedIn = (html: string, wishes: Partial<Wishes> = {}) => {
    const [first] = made(html, wishes).blocks;
    return first?.type === 'placement' ? first.attrs : null;
  };
  const textIn = (html: string, wishes: Partial<Wishes> = {}, links: InheritedFacts['links'] = {}) => {
    const [first] = made(html, wishes, links).blocks;
    return first?.type === 'paragraph' ? (first.content ?? []) : [];
  };

  it('has what the pieces became on its tray, and stays in its own language where that is another', () => {
    const doc = made(`<html lang="de"><title>Aale</title>${IMG}<p><a href="a.pdf">Plan</a></p></html>`);
    expect(doc).toMatchObject({ title: 'Aale', language: 'de', tray: ['piece-0', 'document-0'] });
    expect(made(page(IMG)).language).toBeUndefined();
  });

  it('shows a picture as wide as it was, never wider than it is, and in its own shape', () => {
    expect(placedIn(page(IMG))).toMatchObject({ position: 'centred', width: { unit: 'px', value: 400 } });
    expect(placedIn(page(IMG.replace('width="400"', 'width="716"')))).toMatchObject({
      position: 'column',
      width: null,
    });
    const [reading] = [read(page(IMG))];
    const small = { files: [{ size: { width: 200, height: 150 }, held: null }], links: {} };
    const became = {
      files: [{ id: 'p', alt: { kind: 'unsaid' } as const, caption: '' }],
      embeds: [],
      documents: {},
    };
    const doc = toPage(reading, small, became, RULES, WISHES, newId);
    expect(doc.blocks[0]).toMatchObject({ attrs: { width: { value: 200 } } });
    const asRead = toPage(reading, small, became, RULES, { ...WISHES, mends: false }, newId);
    expect(asRead.blocks[0]).toMatchObject({ attrs: { width: { value: 400 } } });
  });

  it('keeps alt texts that are words, and takes names of files for none', () => {
    expect(placedIn(page(IMG))?.alt).toEqual({ kind: 'text', text: 'Eels in a bucket, seen from above' });
    const named = page('<img src="eel.jpg" alt="IMG_2214.jpg" width="400" height="300">');
    expect(placedIn(named)?.alt).toBeNull();
    expect(placedIn(named, { mends: false })?.alt).toEqual({ kind: 'text', text: 'IMG_2214.jpg' });
    expect(placedIn(page('<img src="eel.jpg" alt="" width="400" height="300">'))?.alt).toEqual({
      kind: 'decorative',
    });
  });

  it('leads where links lead today', () => {
    const tide = `${SITE}/old/tide.htm`;
    const html = page('<p><a href="tide.htm">click here</a></p>');
    const links = { [tide]: { state: 'moved', to: `${SITE}/tides`, title: 'The tides this week' } } as const;
    expect(textIn(html, {}, links)).toEqual([
      { type: 'text', text: 'The tides this week', marks: [{ type: 'link', attrs: { href: '/tides' } }] },
    ]);
    expect(plainText(textIn(html, { mends: false }, links))).toBe('click here');
    expect(textIn(html, {}, { [tide]: { state: 'dead' } })).toEqual([{ type: 'text', text: 'click here' }]);
    expect(textIn(html, { unlinksDead: false }, { [tide]: { state: 'dead' } })).toMatchObject([
      { marks: [{ attrs: { href: '/old/tide.htm' } }] },
    ]);
    expect(textIn(page('<p><a href="a.pdf">Plan</a></p>'))).toMatchObject([
      { marks: [{ attrs: { href: 'file:document-0' } }] },
    ]);
  });

  it('puts pictures that nothing stands between into one gallery, and says a caption once', () => {
    const three = ['a', 'b', 'c'].map((name) => IMG.replace('eel', name)).join('');
    expect(made(page(three)).blocks).toMatchObject([{ type: 'gallery', content: [{}, {}, {}] }]);
    expect(made(page(three), { mends: false }).blocks).toHaveLength(3);
    const said = made(page(`<p>${IMG}<br><small>The count of 2004</small></p>`));
    expect(said.blocks).toMatchObject([{ type: 'placement', attrs: { caption: 'The count of 2004' } }]);
  });
});
