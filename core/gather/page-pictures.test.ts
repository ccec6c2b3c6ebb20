import { describe, expect, it } from 'vitest';
import { type PagePicture, readPagePictures } from './page-pictures.ts';
import { labelFrom, readLicence } from './reading.ts';

const BASE = 'https://saltmere.example/walks/index.html';
const CC = 'https://creativecommons.org/licenses';
const read = (body: string, head = '') =>
  readPagePictures(
    `<!DOCTYPE html><html><head><title>Walks</title>${head}</head><body>${body}</body></html>`,
    BASE,
  ).pictures;

const short = ({ address }: PagePicture) =>
  address.startsWith('data:')
    ? 'data'
    : address.replace('https://saltmere.example/walks/', '').replace('https://saltmere.example', '');
const said = (picture: PagePicture | undefined, about: string) =>
  (picture?.statements ?? []).filter((one) => one.about === about).map(({ value }) => value);
const licenceOf = (picture: PagePicture | undefined) => readLicence(picture?.statements ?? []);

/** A picture of one colour as a page carries it, 64 px square (PNG). */
const PNG_64 =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAEAAAABACAIAAAAlC+aJAAAASklEQVR42u3PQQkAAAgAsetfWiP4FgYrsKZeS0BAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBAQEBA4GABgvU/AYHL1BsAAAAASUVORK5CYII=';
const PIXEL = 'data:image/gif;base64,R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7';
const DRAWN_PLACE =
  "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 1600 900'%3E%3C/svg%3E";

describe('the file of a picture', () => {
  it.each<readonly [what: string, html: string, address: string]>([
    ['its source', '<img src="heron.jpg">', 'heron.jpg'],
    ['a source with blanks', '<img src=" heron.jpg\n">', 'heron.jpg'],
    ['a source without a type in its name', '<img src="/media/8841?v=2" alt="Heron">', '/media/8841?v=2'],
    ['a source from elsewhere', '<img src="//files.example/heron.jpg">', 'https://files.example/heron.jpg'],
    // srcset
    [
      'the widest',
      '<img src="h-400.jpg" srcset="h-400.jpg 400w, h-1600.jpg 1600w, h-800.jpg 800w">',
      'h-1600.jpg',
    ],
    [
      'the widest, without blanks',
      '<img src="h-400.jpg" srcset="h-400.jpg 400w,h-1600.jpg 1600w">',
      'h-1600.jpg',
    ],
    ['the widest, over lines', '<img srcset="\n  h-400.jpg 400w,\n  h-1600.jpg 1600w\n">', 'h-1600.jpg'],
    ['the widest, with a comma at the end', '<img srcset="h-400.jpg 400w, h-1600.jpg 1600w,">', 'h-1600.jpg'],
    ['the densest', '<img src="h.jpg" srcset="h.jpg 1x, h@2x.jpg 2x, h@3x.jpg 3x">', 'h@3x.jpg'],
    ['the densest, pressed', '<img src="h.jpg" srcset="h.jpg,h@2x.jpg 2x">', 'h@2x.jpg'],
    ['the densest by a half', '<img src="h.jpg" srcset="h-15.jpg 1.5x">', 'h-15.jpg'],
    ['one without a descriptor', '<img srcset="h.jpg">', 'h.jpg'],
    [
      'one with commas in it',
      '<img srcset="/f/w_400,h_300/h.jpg 400w, /f/w_1600,h_1200/h.jpg 1600w">',
      '/f/w_1600,h_1200/h.jpg',
    ],
    ['the source where the set is smaller', '<img src="h-1600.jpg" srcset="h-400.jpg 400w">', 'h-1600.jpg'],
    // picture
    [
      'a wider source',
      '<picture><source srcset="h-1600.webp 1600w"><img src="h-800.jpg"></picture>',
      'h-1600.webp',
    ],
    [
      'a source for wide screens',
      '<picture><source media="(min-width: 900px)" srcset="wide.jpg"><img src="narrow.jpg"></picture>',
      'wide.jpg',
    ],
    [
      'the widest of sources',
      '<picture><source media="(min-width:600px)" srcset="m.jpg"><source media="(min-width:1200px)" srcset="l.jpg"><img src="s.jpg"></picture>',
      'l.jpg',
    ],
    [
      'no source for narrow screens',
      '<picture><source media="(max-width: 600px)" srcset="narrow.jpg"><img src="wide.jpg"></picture>',
      'wide.jpg',
    ],
    [
      'its own file beside other formats',
      '<picture><source type="image/avif" srcset="h.avif"><source type="image/webp" srcset="h.webp"><img src="h.jpg"></picture>',
      'h.jpg',
    ],
    [
      'the densest source',
      '<picture><source srcset="h.webp, h@2x.webp 2x"><img src="h.jpg"></picture>',
      'h@2x.webp',
    ],
    [
      'a late source',
      '<picture><source data-srcset="h-1600.jpg 1600w"><img data-src="h-400.jpg" src="spacer.gif"></picture>',
      'h-1600.jpg',
    ],
    // loaded late
    ['data-src', `<img src="${PIXEL}" data-src="heron.jpg">`, 'heron.jpg'],
    ['data-src over a drawn place', `<img src="${DRAWN_PLACE}" data-src="heron.jpg">`, 'heron.jpg'],
    ['data-original', '<img src="blank.gif" data-original="heron.jpg">', 'heron.jpg'],
    ['data-lazy-src', '<img src="/img/placeholder.png" data-lazy-src="heron.jpg">', 'heron.jpg'],
    ['data-srcset', '<img data-srcset="h-400.jpg 400w, h-1600.jpg 1600w" src="loading.gif">', 'h-1600.jpg'],
    [
      'data-lazy-srcset',
      '<img data-lazy-srcset="h-400.jpg 400w,h-900.jpg 900w" data-lazy-src="h-400.jpg">',
      'h-900.jpg',
    ],
    ['no source at all', '<img class="lazy" data-src="heron.jpg">', 'heron.jpg'],
    ['a name for zooming', '<img src="h-small.jpg" data-zoom-image="h-big.jpg">', 'h-big.jpg'],
    ['a full file', '<img src="h-300x200.jpg" data-large-file="h-1024x683.jpg">', 'h-1024x683.jpg'],
    ['a small one that is named too', '<img src="heron.jpg" data-thumb="h-thumb.jpg">', 'heron.jpg'],
    [
      'what stands without scripts',
      `<img class="lazy" src="${PIXEL}"><noscript><img src="heron.jpg"></noscript>`,
      'heron.jpg',
    ],
    [
      'the same without scripts',
      '<img class="lazy" data-src="heron.jpg"><noscript><img src="heron.jpg"></noscript>',
      'heron.jpg',
    ],
    [
      'a sharper one without scripts',
      '<a href="/p/1"><img class="blur" src="h-20.jpg" width="600" height="400"></a><noscript><img src="h-1200.jpg"></noscript>',
      'h-1200.jpg',
    ],
    ['only without scripts', '<noscript><img src="heron.jpg"></noscript>', 'heron.jpg'],
    // links
    ['what a link opens', '<a href="h-full.jpg"><img src="h-small.jpg"></a>', 'h-full.jpg'],
    [
      'what a link opens in a frame of the page',
      '<a href="big/h.jpg#view"><img src="thumbs/h.jpg"></a>',
      'big/h.jpg',
    ],
    [
      'no page about it',
      '<a href="/wiki/File:Heron.jpg"><img src="/up/300px-Heron.jpg"></a>',
      '/up/300px-Heron.jpg',
    ],
    [
      'no page of a program',
      '<a href="/show.php/heron.jpg"><img src="heron-small.jpg"></a>',
      'heron-small.jpg',
    ],
    ['no other page', '<a href="/herons/"><img src="heron.jpg"></a>', 'heron.jpg'],
    [
      'what an entry of a list names',
      '<ul><li data-src="big/h.jpg"><a href="#"><img src="t/h.jpg"></a></li></ul>',
      'big/h.jpg',
    ],
    // elsewhere than in img
    ['a poster', '<video poster="film.jpg"><source src="film.mp4"></video>', 'film.jpg'],
    ['an element of a script', '<tide-image src="heron.jpg" width="600"></tide-image>', 'heron.jpg'],
    [
      'an element of a script with a set',
      '<tide-img src="h-400.jpg" srcset="h-1200.jpg 1200w"></tide-img>',
      'h-1200.jpg',
    ],
    ['an element that loads late', '<lazy-photo data-src="heron.jpg"></lazy-photo>', 'heron.jpg'],
    [
      'a background that is a picture',
      '<div role="img" aria-label="Heron" style="background-image:url(\'heron.jpg\')"></div>',
      'heron.jpg',
    ],
    [
      'a background without quotes',
      '<span role="img" style="width:100%; background: #fff url(heron.jpg) no-repeat"></span>',
      'heron.jpg',
    ],
    ['a background that loads late', '<div role="img" data-bg="heron.jpg"></div>', 'heron.jpg'],
    [
      'a drawn picture',
      '<svg viewBox="0 0 9 9"><image href="heron.jpg" width="900" height="600"/></svg>',
      'heron.jpg',
    ],
    ['a drawn picture of before', '<svg><image xlink:href="heron.jpg"></image></svg>', 'heron.jpg'],
    ['an object', '<object data="heron.jpg" type="image/jpeg">A heron</object>', 'heron.jpg'],
    ['what is written into the page', `<img alt="Ground" src="${PNG_64}">`, 'data'],
    ['a preview', '<meta property="og:image" content="/share.jpg">', '/share.jpg'],
    ['a preview in a link', '<link rel="image_src" href="/share.jpg">', '/share.jpg'],
    // data for machines
    [
      'JSON-LD',
      '<script type="application/ld+json">{"@type":"ImageObject","contentUrl":"heron.jpg"}</script>',
      'heron.jpg',
    ],
    [
      'JSON-LD in a text',
      '<script type="application/ld+json">{"@type":"Article","image":"heron.jpg"}</script>',
      'heron.jpg',
    ],
    [
      'JSON-LD in a list',
      '<script type="application/ld+json; charset=utf-8">{"@type":"Article","image":["heron.jpg"]}</script>',
      'heron.jpg',
    ],
    [
      'JSON-LD with an address alone',
      '<script type="application/ld+json">{"@type":"Place","photo":{"url":"heron.jpg"}}</script>',
      'heron.jpg',
    ],
    [
      'microdata',
      '<div itemscope itemtype="https://schema.org/ImageObject"><meta itemprop="contentUrl" content="heron.jpg"></div>',
      'heron.jpg',
    ],
    [
      'microdata about what is shown',
      '<div itemscope itemtype="https://schema.org/Photograph"><img itemprop="thumbnailUrl" src="h-s.jpg"><a itemprop="contentUrl" href="h-full.jpg">Full</a></div>',
      'h-full.jpg',
    ],
    [
      'microdata of a thing',
      '<div itemscope itemtype="https://schema.org/Event"><link itemprop="image" href="heron.jpg"></div>',
      'heron.jpg',
    ],
    // the same picture once
    [
      'one of two sizes',
      '<img src="h-thumb.jpg"><a href="h.jpg">Large</a><script type="application/ld+json">{"@type":"ImageObject","contentUrl":"h.jpg"}</script>',
      'h.jpg',
    ],
    [
      'one shown twice',
      '<img src="h-300x200.jpg" width="300" height="200"><img src="h-1200x800.jpg" width="1200" height="800">',
      'h-1200x800.jpg',
    ],
  ])('is %s', (_what, html, address) => {
    const inHead = /^<(?:meta|link|script type="application)/.test(html);
    const pictures = inHead ? read('', html) : read(html);
    expect(pictures.map(short)).toEqual([address]);
  });

  it('is made whole by the first base, and by no other', () => {
    const head = '<base target="_top"><base href="/media/"><base href="https://elsewhere.example/">';
    expect(read('<img src="heron.jpg">', head).map(short)).toEqual(['/media/heron.jpg']);
    expect(read('<img src="heron.jpg"><base href="/late/">').map(short)).toEqual(['/late/heron.jpg']);
    expect(read('<img src="heron.jpg">', '<base href="javascript:1">').map(short)).toEqual(['heron.jpg']);
  });
});

describe('what is no picture of the page', () => {
  it.each<readonly [what: string, html: string]>([
    ['a spacer', '<img src="spacer.gif" width="120" height="80">'],
    [
      'a spacer by another name',
      '<img src="/gfx/clear.gif"><img src="blank.png"><img src="1x1.png"><img src="trans-pixel.gif">',
    ],
    ['a rule', '<img src="gfx/reed.gif" width="600" height="3">'],
    ['a rule by its name', '<img src="gfx/hr.gif"><img src="divider-2.png"><img src="line-separator.png">'],
    ['a counting pixel', '<img src="https://count.example/c?id=7" width="1" height="1" alt="">'],
    [
      'a counting pixel without scripts',
      '<noscript><img src="https://count.example/c?id=7" height="1" width="1" style="display:none"></noscript>',
    ],
    [
      'what is hidden',
      '<img src="heron.jpg" style="position:absolute; left:-9999px"><img src="b.jpg" hidden><img src="c.jpg" width="0" height="0">',
    ],
    [
      'a place of a late picture',
      `<img src="${PIXEL}"><img src="${DRAWN_PLACE}"><img src="loading.gif"><img src="lazy.png">`,
    ],
    [
      'a small picture written into the page',
      '<img src="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAYAAADED76LAAAA" alt="x">',
    ],
    ['data that is none', '<img src="data:image/png;base64,AAAA"><img src="data:text/html,x">'],
    ['an arrow', '<img src="arrow-left.png"><img src="/img/arrow_next_2.gif"><img src="chevron-down.svg">'],
    ['a button', '<img src="btn-more.png"><a href="/"><img src="button_home.gif"></a>'],
    ['a bullet', '<ul><li><img src="bullet.gif"> Tides</ul>'],
    [
      'an icon',
      '<img src="icons/icon-mail-24.png"><img class="icon" src="/i/mail.png"><img src="rss_icon.png">',
    ],
    [
      'an icon by its size',
      '<img src="mail.png" width="24" height="24"><img src="m.png" style="width:20px;height:20px">',
    ],
    ['a smiley', '<p>Seen one <img class="emoji" alt="🦆" src="/e/1f986.png"></p>'],
    ['a portrait beside a comment', '<img class="avatar" src="/a/77.png">'],
    ['a mark in the head', '<header><a href="/"><img src="/gfx/saltmere.png" alt="Saltmere"></a></header>'],
    [
      'a mark in a head of before',
      '<div id="header"><img src="gfx/masthead.jpg" width="180" height="60" alt="Saltmere"></div>',
    ],
    [
      'a mark in a table at the top',
      '<table><tr><td class="topbar"><img src="gfx/mark.gif"></td></tr></table>',
    ],
    [
      'a mark in the foot',
      '<footer><img src="/gfx/partner-fund.png" alt="Supported by the Fund" width="160"></footer>',
    ],
    ['a mark in a foot of before', '<div class="site-footer"><p><img src="fund.jpg"></p></div>'],
    [
      'what supporters ask for',
      '<div class="sponsors"><img src="fund.png" alt="The Fund"></div><aside id="ad"><img src="boots.jpg"></aside>',
    ],
    ['ways in a list', '<nav><a href="/a"><img src="walks.jpg"></a></nav>'],
    [
      'a mark that leads to the front',
      '<div><a href="https://saltmere.example/"><img src="saltmere.jpg"></a></div>',
    ],
    ['a mark by its name', '<img src="/assets/logo-white.svg"><img src="site_logo.png">'],
    [
      'a sign of a licence',
      `<a rel="license" href="${CC}/by/4.0/"><img src="/cc/88x31.png" alt="CC BY"></a>`,
    ],
    [
      'a mark in data',
      '<script type="application/ld+json">{"@type":"Article","publisher":{"logo":{"@type":"ImageObject","url":"logo.png"}},"author":{"image":"joss.jpg"}}</script>',
    ],
    ['a button of a form', '<form><input type="image" src="send.png"></form>'],
    ['a background for looks', '<div style="background:url(paper.jpg)">Text</div>'],
  ])('is not offered: %s', (_what, html) => {
    expect(read(html).map(short)).toEqual([]);
  });

  it.each<readonly [what: string, html: string]>([
    ['a wide picture in the head', '<header><img src="hero.jpg" width="1600" height="600"></header>'],
    [
      'a picture in the head of an article',
      '<main><article><header><h1>Eels</h1><img src="eel.jpg"></header></article></main>',
    ],
    [
      'a picture in the head that is described',
      '<header><img src="hero.jpg" alt="The hide in winter fog"></header>',
    ],
    ['a plant called arrowhead', '<img src="arrowhead-plant.jpg">'],
    ['a star of the sea', '<img src="star.jpg">'],
    [
      'a figure in the foot',
      '<footer><figure><img src="map.jpg"><figcaption>The way</figcaption></figure></footer>',
    ],
    ['a button of a coat', '<img src="brass-button-1840.jpg">'],
    [
      'a logo that is what the page shows',
      '<img src="logo-1920.png" width="800" height="600" alt="The first mark of the reserve">',
    ],
    ['a mere line of birds', '<img src="line-of-geese.jpg">'],
    ['a picture with an empty alt', '<img src="reeds.jpg" alt="">'],
  ])('is not mistaken: %s', (_what, html) => {
    expect(read(html)).toHaveLength(1);
  });
});

describe('alternative text', () => {
  it.each<readonly [what: string, html: string, alt: readonly string[]]>([
    ['of an image', '<img src="a.jpg" alt="A heron">', ['A heron']],
    [
      'with letters by their names',
      '<img src="a.jpg" alt="The hide&#39;s door &amp; steps">',
      ["The hide's door & steps"],
    ],
    ['over lines', '<img src="a.jpg" alt="A\n   heron ">', ['A heron']],
    ['of a late image', `<img class="lazy" src="${PIXEL}" data-src="a.jpg" alt="A heron">`, ['A heron']],
    [
      'of what stands without scripts',
      `<img class="lazy" src="${PIXEL}"><noscript><img src="a.jpg" alt="A heron"></noscript>`,
      ['A heron'],
    ],
    [
      'in a picture',
      '<picture><source srcset="a.webp"><img src="a.jpg" alt="A heron"></picture>',
      ['A heron'],
    ],
    [
      'by a label',
      '<div role="img" aria-label="A heron" style="background-image:url(a.jpg)"></div>',
      ['A heron'],
    ],
    [
      'by a label that stands elsewhere',
      '<p id="w">A <b>heron</b></p><img src="a.jpg" aria-labelledby="w">',
      ['A heron'],
    ],
    ['of an element of a script', '<tide-img src="a.jpg" alt="A heron"></tide-img>', ['A heron']],
    ['of a poster', '<video poster="a.jpg" aria-label="A heron"></video>', ['A heron']],
    ['of a drawn picture', '<svg aria-label="A heron"><image href="a.jpg"/></svg>', ['A heron']],
    ['of a drawing’s title', '<svg><title>A heron</title><image href="a.jpg"/></svg>', ['A heron']],
    ['of an object', '<object data="a.jpg" type="image/jpeg">A <i>heron</i></object>', ['A heron']],
    ['of a title alone', '<img src="a.jpg" title="A heron">', ['A heron']],
    ['that says there is nothing to say', '<img src="a.jpg" alt="" title="A heron">', []],
    ['of none', '<img src="a.jpg">', []],
  ])('%s', (_what, html, alt) => {
    const [picture] = read(html);
    expect(said(picture, 'alt')).toEqual(alt);
    expect(labelFrom(picture?.statements ?? []).alt).toEqual(
      alt[0] ? { kind: 'text', text: alt[0] } : undefined,
    );
  });

  it('that is only a name of a file, or a word for any picture, goes on no label', () => {
    for (const alt of ['DSC_0042.JPG', 'image', 'Photo'])
      expect(labelFrom(read(`<img src="a.jpg" alt="${alt}">`)[0]?.statements ?? []).alt).toBeUndefined();
  });
});

describe('a caption', () => {
  it.each<readonly [what: string, html: string, caption: readonly string[]]>([
    [
      'of a figure',
      '<figure><img src="a.jpg"><figcaption>Reeds at noon</figcaption></figure>',
      ['Reeds at noon'],
    ],
    [
      'before the picture',
      '<figure><figcaption>Reeds at noon</figcaption><img src="a.jpg"></figure>',
      ['Reeds at noon'],
    ],
    [
      'with words in it set apart',
      '<figure><img src="a.jpg"><figcaption>Alder<em>’s</em> leaf, <a href="/x">seen</a> close.</figcaption></figure>',
      ['Alder’s leaf, seen close.'],
    ],
    [
      'in two paragraphs',
      '<figure><img src="a.jpg"><figcaption><p>Reeds</p><p>at noon</p></figcaption></figure>',
      ['Reeds at noon'],
    ],
    [
      'over a line',
      '<figure><img src="a.jpg"><figcaption>Reeds<br>at noon</figcaption></figure>',
      ['Reeds at noon'],
    ],
    [
      'of a figure whose end is missing',
      '<article><figure><img src="a.jpg"><figcaption>Reeds at noon</figcaption></article><p>Text',
      ['Reeds at noon'],
    ],
    [
      'by its class',
      '<div class="wide"><img src="a.jpg"><p class="photo-caption">Reeds at noon</p></div>',
      ['Reeds at noon'],
    ],
    [
      'by its class, in a box',
      '<div class="imgbox caption"><img src="a.jpg"><p class="caption-text">Reeds at noon</p></div>',
      ['Reeds at noon'],
    ],
    [
      'by its class, before the picture',
      '<div><p class="caption">Reeds at noon</p><img src="a.jpg"></div>',
      ['Reeds at noon'],
    ],
    ['in a box for a picture', '<div class="photo"><img src="a.jpg"> Reeds at noon</div>', ['Reeds at noon']],
    [
      'in small print under it',
      '<p><img src="a.jpg"><br><small>Reeds at noon</small></p>',
      ['Reeds at noon'],
    ],
    [
      'in slanted print under it',
      '<td><a href="/x"><img src="a.jpg"></a><br>\n<i>Reeds at noon</i></td>',
      ['Reeds at noon'],
    ],
    [
      'in a table about it',
      '<table><tr><td><img src="a.jpg"></td></tr><tr><td>Reeds at <b>noon</b></td></tr></table>',
      ['Reeds at noon'],
    ],
    [
      'of a figure in a table',
      '<table><tr><td><figure><img src="a.jpg"><figcaption>Reeds at noon</figcaption></figure></td></tr></table>',
      ['Reeds at noon'],
    ],
    [
      'of microdata',
      '<div itemscope itemtype="http://schema.org/ImageObject"><img src="a.jpg"><span itemprop="caption">Reeds at noon</span></div>',
      ['Reeds at noon'],
    ],
    ['of none', '<p><img src="a.jpg"> The reeds are cut in winter.</p>', []],
    [
      'of none beside the text of a page',
      '<table><tr><td><img src="a.jpg"></td><td>The reeds are cut in winter.</td></tr></table>',
      [],
    ],
    [
      'of none in a table of text',
      `<table><tr><td><img src="a.jpg"></td><td>${'The reeds are cut in winter. '.repeat(20)}</td></tr></table>`,
      [],
    ],
  ])('%s', (_what, html, caption) => {
    expect(said(read(html)[0], 'caption')).toEqual(caption);
  });

  it('is that of all pictures of its figure, and of none beside it', () => {
    const pictures = read(
      '<figure><img src="a.jpg"><img src="b.jpg"><figcaption>Both</figcaption></figure><img src="c.jpg">',
    );
    expect(pictures.map((one) => said(one, 'caption'))).toEqual([['Both'], ['Both'], []]);
  });
});

describe('a licence', () => {
  const LINK = `<a rel="license" href="${CC}/by/4.0/">CC BY</a>`;
  const kinds = (html: string, head = '') => read(html, head).map((one) => licenceOf(one).kind);

  it.each<readonly [what: string, html: string, kinds: readonly string[]]>([
    [
      'in a figure is its picture’s',
      `<figure><img src="a.jpg"><figcaption>Reeds, ${LINK}</figcaption></figure><img src="b.jpg">`,
      ['clear', 'silent'],
    ],
    [
      'beside a picture is that one’s',
      `<div><img src="a.jpg"><p>${LINK}</p></div><div><img src="b.jpg"></div>`,
      ['clear', 'silent'],
    ],
    [
      'in a cell is the cell’s',
      `<table><tr><td><img src="a.jpg">${LINK}<td><img src="b.jpg"></table>`,
      ['clear', 'silent'],
    ],
    [
      'in an entry is the entry’s',
      `<ul><li><img src="a.jpg">${LINK}<li><img src="b.jpg"></ul>`,
      ['clear', 'silent'],
    ],
    [
      'beside two is nobody’s for sure',
      `<div><img src="a.jpg"><img src="b.jpg">${LINK}</div>`,
      ['unclear', 'unclear'],
    ],
    [
      'of a figure of two is nobody’s for sure',
      `<figure><img src="a.jpg"><img src="b.jpg"><figcaption>${LINK}</figcaption></figure>`,
      ['unclear', 'unclear'],
    ],
    ['in the foot is the page’s', `<main><img src="a.jpg"></main><footer>${LINK}</footer>`, ['unclear']],
    [
      'in a foot of before is the page’s',
      `<div><img src="a.jpg"><div id="footer">${LINK}</div></div>`,
      ['unclear'],
    ],
    [
      'in the foot of an article is its text’s',
      `<article><img src="a.jpg"><p>Text</p><footer>${LINK}</footer></article>`,
      ['unclear'],
    ],
    [
      'under a long text is the text’s',
      `<div><img src="a.jpg"><p>${'Eels come in spring. '.repeat(60)}</p>${LINK}</div>`,
      ['unclear'],
    ],
    ['straight in the body is the page’s', `<img src="a.jpg">${LINK}`, ['unclear']],
    [
      'that names its picture is that one’s',
      `<img src="a.jpg"><img src="b.jpg"><p about="b.jpg">${LINK}</p>`,
      ['silent', 'clear'],
    ],
    [
      'that names its figure by a word is in it',
      `<figure about="#f1"><img src="a.jpg"><figcaption>${LINK}</figcaption></figure>`,
      ['clear'],
    ],
    [
      'as our own pages write it',
      `<figure vocab="https://schema.org/" typeof="ImageObject" resource="a.jpg"><img src="a.jpg"><figcaption><a rel="license" property="license" href="${CC}/by/4.0/">CC BY</a></figcaption></figure>`,
      ['clear'],
    ],
    [
      'of microdata is its picture’s',
      `<div itemscope itemtype="https://schema.org/ImageObject"><img src="a.jpg"><a itemprop="license" href="${CC}/by/4.0/">x</a></div><img src="b.jpg">`,
      ['clear', 'silent'],
    ],
    [
      'of JSON-LD is its picture’s',
      `<img src="a.jpg"><img src="b.jpg"><script type="application/ld+json">{"@type":"ImageObject","contentUrl":"b.jpg","license":"${CC}/by/4.0/"}</script>`,
      ['silent', 'clear'],
    ],
    [
      'with a sign in it counts',
      `<figure><img src="a.jpg"><figcaption><a rel="license" href="${CC}/by/4.0/"><img src="/cc/by.png" alt="CC BY" width="88" height="31"></a></figcaption></figure>`,
      ['clear'],
    ],
  ])('%s', (_what, html, expected) => {
    expect(kinds(html)).toEqual(expected);
  });

  it('in the head is the page’s, and no picture is cleared by it', () => {
    const pictures = read('<img src="a.jpg">', `<link rel="license" href="${CC}/by/4.0/">`);
    expect(pictures.map((one) => labelFrom(one.statements).licence)).toEqual([undefined]);
    expect(said(pictures[0], 'page-licence')).toEqual([`${CC}/by/4.0/`]);
  });

  it.each([
    ['/terms/open', 'https://saltmere.example/terms/open'],
    ['../terms.html', 'https://saltmere.example/terms.html'],
    ['//terms.example/open', 'https://terms.example/open'],
    [`${CC}/by/4.0/`, `${CC}/by/4.0/`],
    ['CC BY 4.0', 'CC BY 4.0'],
    ['All rights reserved', 'All rights reserved'],
  ])('%s is made whole where it is an address', (licence, whole) => {
    const data = JSON.stringify({ '@type': 'ImageObject', contentUrl: 'a.jpg', license: licence });
    expect(said(read(`<script type="application/ld+json">${data}</script>`)[0], 'licence')).toEqual([whole]);
  });
});

describe('a size', () => {
  it.each<readonly [what: string, html: string, size: readonly [number, number]]>([
    ['as declared', '<img src="a.jpg" width="600" height="400">', [600, 400]],
    ['of the widest file', '<img src="a.jpg" srcset="b.jpg 1800w" width="600" height="400">', [1800, 1200]],
    ['of the densest file', '<img src="a.jpg" srcset="b.jpg 2x" width="600" height="400">', [1200, 800]],
    ['not from a share', '<img src="a.jpg" width="100%" height="400">', [0, 0]],
    ['not from nothing', '<img src="a.jpg" width="0" height="400">', [0, 0]],
    ['not from one edge', '<img src="a.jpg" width="600">', [0, 0]],
    [
      'not from the small one that a link is about',
      '<a href="big.jpg"><img src="a.jpg" width="150" height="100"></a>',
      [0, 0],
    ],
    [
      'not from the small one beside a full file',
      '<img src="a.jpg" data-full="big.jpg" width="150" height="100">',
      [0, 0],
    ],
    ['of what is loaded late', `<img src="${PIXEL}" data-src="a.jpg" width="600" height="400">`, [600, 400]],
    [
      'of what is written into the page, as it is',
      `<img src="${PNG_64}" width="600" height="400">`,
      [64, 64],
    ],
    [
      'of data',
      '<script type="application/ld+json">{"@type":"ImageObject","contentUrl":"a.jpg","width":"1800px","height":1200}</script>',
      [1800, 1200],
    ],
  ])('%s', (_what, html, size) => {
    expect(read(html).map(({ width, height }) => [width, height])).toEqual([size]);
  });
});

describe('a page as it was left', () => {
  it('of tables gives its pictures and nothing else', () => {
    const pictures = read(`
<table width="780" border="0" cellpadding="0"><tr><td colspan="2" class="header"><a href="/"><img src="gfx/saltmere_logo.gif" width="220" height="60" alt="Saltmere"></a></td></tr>
<tr><td width="160" valign="top"><img src="gfx/spacer.gif" width="160" height="1"><br><img src="gfx/bullet.gif"> <a href="a.htm">Walks</a><br><img src="gfx/arrow.gif" width="9" height="9"></td>
<td><h1>Walks</h1><a href="pix/boardwalk_gross.jpg"><img src="pix/boardwalk_klein.jpg" width="180" height="120" border="1" alt="The boardwalk at noon"></a>
<table align="right"><tr><td><img src="pix/hide.jpg" width="240" height="180" alt="Hide 3"></td></tr><tr><td><font size="1">The hide, seen from the bank&nbsp;.</font></td></tr></table>
<p>It is a mile.</p><img src="gfx/hr.gif" width="560" height="2"></td></tr>
<tr><td colspan="2" id="footer"><img src="gfx/fund.gif" width="90" height="40"> <a rel="license" href="${CC}/by/4.0/">Text</a></td></tr></table>
<img src="https://count.example/n.gif?p=walks" width="1" height="1">`);
    expect(pictures.map(short)).toEqual(['pix/hide.jpg', 'pix/boardwalk_gross.jpg']);
    expect(pictures.map((one) => said(one, 'alt'))).toEqual([['Hide 3'], ['The boardwalk at noon']]);
    expect(said(pictures[0], 'caption')).toEqual(['The hide, seen from the bank .']);
    expect(pictures.map((one) => licenceOf(one).kind)).toEqual(['unclear', 'unclear']);
  });

  it('of late pictures gives each once, with its words', () => {
    const late = (name: string, alt: string) =>
      `<figure class="block"><img class="lazyload" src="${DRAWN_PLACE}" data-src="${name}-800.jpg" data-srcset="${name}-400.jpg 400w,${name}-1600.jpg 1600w" width="800" height="600" alt="${alt}"><noscript><img src="${name}-800.jpg" alt="${alt}"></noscript><figcaption>${alt}.</figcaption></figure>`;
    const pictures = read(
      `<header><img src="${PIXEL}" data-src="/logo.svg" alt="Saltmere"></header><main>${late('heron', 'A heron')}${late('eel', 'An eel')}</main>`,
      `<script type="application/ld+json">{"@graph":[{"@type":"Organization","logo":"/logo.png"},{"@type":"Article","image":["https://saltmere.example/walks/heron-1600.jpg"]}]}</script>`,
    );
    expect(pictures.map(short)).toEqual(['heron-1600.jpg', 'eel-1600.jpg']);
    expect(pictures.map(({ width, height }) => [width, height])).toEqual([
      [1600, 1200],
      [1600, 1200],
    ]);
    expect(pictures.map((one) => [said(one, 'alt'), said(one, 'caption')])).toEqual([
      [['A heron'], ['A heron.']],
      [['An eel'], ['An eel.']],
    ]);
  });

  it('takes 10 MB of what is written into it, and no more', () => {
    const large = `${PNG_64}${'A'.repeat(8_000_000)}`;
    const body = `<img src="${large}" alt="One"><img src="${large}B" alt="Two">`;
    expect(read(body).map((one) => said(one, 'alt'))).toEqual([['One']]);
  });
});
