import { describe, expect, it } from 'vitest';
import { compareReadBack } from './deliver/compared.ts';
import { declarationsOf, keptOf } from './deliver/filter.ts';
import { linksAs } from './deliver/link-header.ts';
import { compareListing } from './deliver/listing.ts';
import { learnFilter } from './deliver/probe.ts';
import { shownDocument } from './deliver/shown.ts';
import { readWebAddress } from './embed/address.ts';
import { framingOf } from './embed/framing.ts';
import { madeUpHosts } from './embed/made-up-hosts.ts';
import { readMarkup } from './embed/markup.ts';
import { readDuration, readPageFacts } from './embed/page-facts.ts';
import { askedPermissions } from './embed/permissions.ts';
import { readQuery } from './embed/query.ts';
import { readPasted } from './embed/reading.ts';
import { unwrap } from './embed/unwrap.ts';
import { readProbed } from './film/probe.ts';
import { readCaptions } from './film/read-captions.ts';
import { maybeProfileName } from './formats/icc.ts';
import { maybeJpegQuality } from './formats/jpeg.ts';
import { draftFromMetadata } from './formats/metadata.ts';
import { readOembed } from './formats/oembed.ts';
import { readPagePictures } from './gather/page-pictures.ts';
import { wordsOfPurpose } from './gather/purpose.ts';
import { labelFrom, readLicence } from './gather/reading.ts';
import { maybeStatement } from './gather/statement.ts';
import { readInherited } from './inherited/read.ts';
import { maybeRecipe } from './media/recipe-key.ts';
import { EN } from './messages/en.ts';
import { folderPath } from './naming/folders.ts';
import { goodStem, webSafe } from './naming/names.ts';
import { nameFault } from './naming/rule.ts';
import { anchorsOf } from './page/anchors.ts';
import { gapIn } from './page/blocks/gap.ts';
import { tableFromText } from './page/blocks/table/from-text.ts';
import { describedParts } from './page/long-description.ts';
import { readBrought } from './page/read-brought.ts';
import { styleRules } from './page/style-rules.ts';
import { readCreditWords } from './rights/credit-words.ts';
import { differencesOf } from './rights/differences.ts';
import { maybeHouseLicence } from './rights/house-licence.ts';
import { EMPTY_LABEL } from './rights/label.ts';
import { readLedger } from './rights/ledger-file.ts';
import { maybeLicenceByWords } from './rights/recognise.ts';
import { readRegions } from './rights/regions.ts';
import { isSameName } from './rights/same-name.ts';
import { readPrice } from './rights/say-terms.ts';
import { EXAMPLE_LICENCE } from './rights/testing.ts';
import { isWebAddress } from './rights/web-address.ts';
import { altFault, withoutImageOf, withoutMarkup } from './words/alt.ts';
import { replaceAll } from './words/find.ts';

/**
 * Everything of `core` that reads what comes from outside, on text that was made to be slow to read. A reader whose time
 * grows with the square of the length stops a server with a hundred kilobytes; no limit on the length helps against it.
 * So what is compared is how the time grows, not the time.
 */

const BASE = 'https://saltmere.example/walks/';
const HOSTS = { entries: [...madeUpHosts((name) => `https://${name}.example`)], decisions: [] };
const bytesOf = (text: string) => new TextEncoder().encode(text);

const READERS: Readonly<Record<string, (text: string) => unknown>> = {
  'tags of HTML': (text) => [...readMarkup(text)],
  'tags and texts of HTML': (text) => [...readMarkup(text, 'text')],
  'tags and texts of XML': (text) => [...readMarkup(text, 'xml')],
  'text that may be a table': (text) => tableFromText(text, () => 'id'),
  'a page that is read back': (text) =>
    compareReadBack({ sent: '<p>a</p>', html: text, title: 'a', language: 'en' }),
  'a listing that is read back': (text) =>
    compareListing(
      { html: `<a href="${BASE}">a</a>${text}`, base: BASE },
      { address: BASE, title: 'a', summary: 'b '.repeat(150), photo: { address: BASE, alt: 'c' } },
    ),
  'a probe that is read back': (text) =>
    learnFilter(`<p>placardprobe0x</p>${text}`, { picture: `${BASE}/a.png`, frames: [BASE] }),
  'a style of an element': (text) => declarationsOf(text),
  'a page that a site keeps in parts': (text) =>
    keptOf(text, { unwrapped: ['div', 'a'], dropped: ['p'], attributes: ['class'], styles: ['a float'] }),
  'a page that is brought in': (text) => {
    let ids = 0;
    return readInherited(
      { html: text, css: text, base: BASE, hosts: HOSTS, language: 'en' },
      () => `b${ids++}`,
    );
  },
  'a page to be looked at': (text) => shownDocument(text, BASE, ''),
  'a header of links': (text) => linksAs('micropub', text),
  'a long description': (text) => describedParts(text),
  'a credit in own words': (text) =>
    readCreditWords(
      text,
      new Map([
        ['maker', 'reed'],
        ['licence', text.slice(0, 3)],
      ]),
    ),
  'words that are replaced': (text) => replaceAll(text, text.slice(0, 2), 'reed'),
  'rules of a style sheet': (text) => styleRules(text),
  'paragraphs and styles of a paste': (text) =>
    readBrought(
      (text.match(/[\s\S]{1,1024}/g) ?? []).map((value) => ({
        name: 'p',
        attributes: [{ name: 'style', value }],
        children: [value],
      })),
      `p{${text}}`,
      () => 'id',
    ),
  'a gap in a style': (text) => gapIn(text, 8),
  'headings of one name': (text) =>
    anchorsOf({
      blocks: [...text.slice(0, 4000)].map((_letter, at) => ({
        type: 'heading',
        attrs: { id: `h${at}`, level: 2 },
        content: [{ type: 'text', text: text.slice(0, 3) || 'x' }],
      })),
    }),
  'the pictures of a page': (text) => readPagePictures(text, BASE),
  'the facts of a page': (text) => readPageFacts(text, BASE),
  captions: (text) => readCaptions(`WEBVTT\n\n00:01.000 --> 00:02.000\n${text}`),
  'a film’s facts': (text) =>
    readProbed(
      {
        streams: [{ codec_type: 'video', sample_aspect_ratio: text, avg_frame_rate: text, width: 1 }],
        format: { format_name: text },
      },
      1,
    ),
  'pasted code': (text) => readPasted(text, HOSTS),
  'an oEmbed answer': (text) => readOembed(text),
  'escaped code': (text) => unwrap(text),
  'the permissions of a frame': (text) => askedPermissions(text),
  'an address': (text) => readWebAddress(text),
  'the query of an address': (text) => readQuery(new URL(`https://a.example/?${text}`), HOSTS.entries[0]),
  'whether an address is one': (text) => isWebAddress(text),
  'headers about framing': (text) =>
    framingOf({ address: BASE, status: 200, frameOptions: [text], policies: [text] }, BASE),
  'headers about framing, named': (text) =>
    framingOf({ address: BASE, status: 200, frameOptions: [], policies: [`frame-ancestors ${text}`] }, BASE),
  'a statement': (text) => maybeStatement('page', 'caption', text),
  'a licence': (text) => readLicence([{ by: 'page', about: 'licence', value: text }]),
  'an alt text': (text) => [
    altFault({ kind: 'text', text }, { linked: true, caption: text, neighbours: [text] }),
    withoutImageOf(text),
    withoutMarkup(text),
  ],
  'a title that quotes': (text) => EN.quoted(text),
  regions: (text) => readRegions(text),
  'a price': (text) => readPrice(text),
  'names that may be the same': (text) => isSameName(text, `${text}.`),
  'a licence in words': (text) => maybeLicenceByWords(text),
  'a label': (text) =>
    labelFrom([
      { by: 'page', about: 'words', value: text },
      { by: 'page', about: 'taken', value: text },
      { by: 'page', about: 'maker-address', value: text },
    ]),
  'what a file says of itself': (text) =>
    draftFromMetadata({
      'XMP-dc:Title': text,
      'XMP-dc:Subject': text.split(',').slice(0, 100_000),
      'XMP-photoshop:DateCreated': text,
      'XMP-xmpRights:UsageTerms': text,
      'XMP-xmpRights:WebStatement': text,
      'XMP-iptcCore:ExtDescrAccessibility': text,
      'XMP-dc:Description-de': text,
      [`XMP-dc:Title-${text}`]: text,
    }),
  'what a file says otherwise than a label': (text) =>
    differencesOf(
      { ...EMPTY_LABEL, creator: text.slice(0, 300), copyrightNotice: text.slice(0, 300), licence: 'cc0' },
      (['maker', 'notice', 'licence'] as const).map((about) => ({ by: 'file', about, value: text })),
      null,
    ),
  'a licence of the house': (text) => maybeHouseLicence(text, [EXAMPLE_LICENCE]),
  'a ledger as a file': (text) => readLedger(bytesOf(`id,seen by,used by\n1,group: ${text},page: ${text}`)),
  'a name': (text) => [webSafe(text), goodStem(text, 'piece'), nameFault(text)],
  'a folder': (text) => folderPath(text),
  'what a want is for': (text) => wordsOfPurpose(text),
  'a duration': (text) => readDuration(text),
  'the key of a recipe': (text) => maybeRecipe(text),
  'a colour profile': (text) => maybeProfileName(bytesOf(text)),
  'a JPEG': (text) => maybeJpegQuality(bytesOf(text)),
};

/** Text that is one thing again and again. */
const UNITS = [
  '<!---->',
  '<!--',
  '<!-- --!',
  '<!',
  '<?',
  '</',
  '</a',
  '<a ',
  '<a b',
  '<a b=',
  '<a b="',
  "<a b='>",
  '<a b="c" b="d">',
  '<div>',
  '<div><p>',
  '<b><p>',
  '<table><tr><td>',
  '<figure><figcaption>',
  '<figcaption>reeds',
  '<figure><img src=a.jpg>',
  '<figure><a rel=license href=/l><img src=b.jpg>',
  '<a rel=license href=/x>',
  '<link rel=license href=/y>',
  '<base href=/a/>',
  '<meta property="og:image" content="/a.jpg">',
  '<title>',
  '<script>',
  '<script><!--',
  '<script><!--<script>',
  '</script>',
  '<script type="application/ld+json">{}</script>',
  '<noscript><img data-src=a.jpg>',
  '<img class=lazy src=data:image/gif;base64,R0lG>',
  '<div class=photo><img src=a.jpg>reeds',
  '<div id=header>',
  '<td class=caption>reeds',
  '<p><img src=a.jpg><br><i>reeds',
  '<div itemscope itemtype=https://schema.org/ImageObject>',
  '<i itemprop=name>reeds',
  '<svg><image href=a.jpg>',
  '<picture><source srcset=a.jpg>',
  '<div role=img style=background:url(a.jpg)>',
  '<object><param name=movie value=//a.example/b>',
  '<div style=padding-top:56%>',
  '<style>.a{padding-top:56%}',
  '<h2 id=a><iframe src=//a.example/b aria-labelledby=a>',
  '<a href=//a.example/watch/abcd>reeds</a>',
  '<iframe srcdoc="<iframe src=//a.example/b>">',
  '<tide-player src=//a.example/b>',
  '<style>',
  '<iframe src=//a.example/b>',
  '<iframe allow="camera;a">',
  '<video><source src=//a.example/b.mp4>',
  '<blockquote cite=//a.example/b>',
  '<svg><title>',
  '<![CDATA[',
  ']]>',
  '<oembed><html>',
  '<a href="//a.example/?a=b&amp;c=d">',
  '&lt;iframe ',
  '&amp;lt;',
  '&#x3c;',
  '&',
  '[',
  '{"a":',
  '[{"name":',
  '=“',
  '“',
  "'",
  '"',
  ' ',
  '\n\t',
  ';',
  ',',
  ', ',
  'a;',
  '*.a.',
  "'self' ",
  'a:b@',
  'http://',
  '//',
  'a=b&',
  '%',
  '%41',
  '../',
  '-',
  'a-',
  'cc by ',
  'cc-by',
  'creativecommons.org/',
  'ß',
  'e\u0301',
  '\u202e',
  '\0',
  '\ud800',
  'P1DT',
  '9',
  'x1.',
  '\u00ff\u00db\u0000\u0002',
] as const;

/** What is slow only with something round it: what comes before, what is repeated, what comes behind. */
const WRAPPED: readonly (readonly [string, string, string])[] = [
  ['<img src=a width="1', ' ', 'x">'],
  ['<img srcset="', 'a.jpg 1w, ', '">'],
  ['<img srcset="', ', ', '">'],
  ['<img srcset="', 'a.jpg,', '">'],
  ['<img src="data:image/png;base64,', 'iVBO', '">'],
  ['<img class="', 'icon ', '" src=a.jpg>'],
  ['<img src="arrow', '-left', '.gif">'],
  ['<img style="', 'width:1px;', '" src=a.jpg>'],
  ['<img ', 'data-full=a.jpg ', '>'],
  ['<p id=a>', '<b>', '<img src=a.jpg aria-labelledby=a>'],
  ['<style>', '.a{', '}</style><div class=a><iframe src=//a.example/b>'],
  ['<style>', '.a ', '{padding:50%}</style>'],
  ['<div class="', 'ratio-16x', '"><iframe src=//a.example/b>'],
  ['<iframe src="https://a.example/?', 'start=1m&', '">'],
  ['<iframe src="https://a.example/#', '1/', '">'],
  ['<iframe src="//a.example/a', ' b="', '>'],
  ['{"a":', '[{"url":', ''],
  ['%3Ciframe%20', '%20a%3D', '%3E'],
  ['<iframe src=3D"', '=\n', '">'],
  ['[', '[a](//a.example/', ')'],
  ['<img alt="', '\u0007 ', '">'],
  ['<iframe allow="', 'camera;', '">'],
  ['<iframe style="padding-bottom:', ' ', '">'],
  ['<iframe width="1', '0', '">'],
  ['<iframe src="https://a.example/?', 'a=b&', '">'],
  ['<script type="application/ld+json">', '[', ''],
  ['<script type="application/ld+json">', '{"@type":"ImageObject","name":', ''],
  ['<script type="application/ld+json">[', '{"@type":"ImageObject","url":"/a"},', '{}]</script>'],
  ['<figure>', '<figcaption>a</figcaption>', '</figure>'],
  ['<figure>', '<img src=a.jpg>', '<figcaption>a</figcaption></figure>'],
  ['<?xml version="1.0"?><oembed>', '<html>a', '</oembed>'],
  ['{"version":"1.0","type":"rich","html":"', '<iframe src=//a.example/b>', '"}'],
  ['https://a.example/', '?', ' '],
  ['"', 'https://a.example/ ', '"'],
  ['cc by', ' ', '4'],
  ['P', '1', 'D'],
];

type Read = (text: string) => unknown;
type Make = (length: number) => string;

const MEGA = 1_000_000;
const SHAPES = [
  ...UNITS.map((unit) => [JSON.stringify(unit), (length: number) => filled('', unit, '', length)] as const),
  ...WRAPPED.map(
    ([before, unit, after]) =>
      [
        JSON.stringify([before, unit, after]),
        (length: number) => filled(before, unit, after, length),
      ] as const,
  ),
];

function filled(before: string, unit: string, after: string, length: number): string {
  return before + unit.repeat(Math.ceil((length - before.length - after.length) / unit.length)) + after;
}

/** Below this, a reader is quick enough however its time may grow. */
const QUICK_MILLIS = 250;
/** Four times the length takes four times as long, give or take what a machine does beside; its square sixteen times. */
const MOST_GROWTH = 9;
const EVEN_GROWTH = 7;

/** Time of the processor, which other work of the machine does not lengthen as it does time by the clock. */
function millis(read: Read, text: string): number {
  const start = process.cpuUsage();
  read(text);
  const { user, system } = process.cpuUsage(start);
  return (user + system) / 1000;
}

const best = (read: Read, text: string) => Math.min(millis(read, text), millis(read, text));

/** How many times as long four times the length takes, where that is too long; null otherwise. */
function tooSteep(read: Read, make: Make): number | null {
  // Even if its time grew with the square, it would be quick at the whole length.
  if (millis(read, make(MEGA / 16)) * 256 < QUICK_MILLIS) return null;
  // Most of what takes longer is seen to grow evenly at lengths that cost little; a square that is slow at the whole
  // length shows in an eighth of it already.
  if (best(read, make(MEGA / 8)) / best(read, make(MEGA / 32)) < EVEN_GROWTH) return null;
  const [quarter, half] = [best(read, make(MEGA / 4)), best(read, make(MEGA / 2))];
  // What grows too fast already is not tried at the whole length, which would take minutes.
  const isSteep = half > QUICK_MILLIS && half / quarter > MOST_GROWTH / 2.5;
  const growth = isSteep ? (half / quarter) ** 2 : best(read, make(MEGA)) / quarter;
  if (!isSteep && growth * quarter < QUICK_MILLIS) return null;
  return growth > MOST_GROWTH ? growth : null;
}

/** What grows too fast does so each time; a machine that does something beside slows now one and now another. */
const TRIES = 4;

function alwaysTooSteep(read: Read, make: Make): number | null {
  const growths: number[] = [];
  for (let tries = 0; tries < TRIES; tries += 1) {
    const growth = tooSteep(read, make);
    if (growth === null) return null;
    growths.push(growth);
  }
  return Math.min(...growths);
}

describe.each(Object.entries(READERS))('%s', (_name, read) => {
  it('is read in time that grows no faster than its length', () => {
    const slow: string[] = [];
    for (const [name, make] of SHAPES) {
      const growth = alwaysTooSteep(read, make);
      if (growth !== null) slow.push(`${name}: ${growth.toFixed(1)} times for four times the length`);
    }
    expect(slow).toEqual([]);
  }, 300_000);
});

it('a reader whose time grows with the square of the length is told of', () => {
  // What a reader does that looks for the end anew from each place: 300 places in the whole length.
  const square = (text: string) => {
    let sum = 0;
    for (let from = 0; from < text.length; from += MEGA / 300)
      for (let at = 0; at < text.length; at += 1) sum += text.charCodeAt(at);
    return sum;
  };
  // One look may be disturbed by what else the machine does; a steep reader is steep in most.
  const looks = Array.from({ length: 5 }, () => tooSteep(square, (length) => 'a'.repeat(length)));
  expect(looks.filter((growth) => growth !== null && growth > MOST_GROWTH).length).toBeGreaterThan(2);
  expect(
    alwaysTooSteep(
      (text) => text.toUpperCase(),
      (length) => 'a'.repeat(length),
    ),
  ).toBeNull();
}, 300_000);
