import { describe, expect, it } from 'vitest';
import { CORPUS, UNTRUSTED } from './corpus.ts';
import { MOST_PASTED } from './limits.ts';
import { identityOf } from './model.ts';
import { readPasted } from './reading.ts';
import { sayShape } from './shape.ts';
import { HOSTS, readOne } from './testing.ts';

const inputs = Object.values(CORPUS).flat();

describe('what is pasted', () => {
  it('is tried in at least two hundred ways', () => {
    expect(new Set(inputs.map(({ text }) => text)).size + UNTRUSTED.length).toBeGreaterThanOrEqual(200);
  });

  it.each(CORPUS.ordinary)('$name is read', ({ text, addresses }) => {
    expect(readPasted(text, HOSTS).embeds.map(({ embed }) => embed.address)).toEqual(addresses);
  });

  it.each(CORPUS.odd)('$name is read or refused with a reason', ({ text, addresses }) => {
    const { embeds, refusals } = readPasted(text, HOSTS);
    expect(embeds.map(({ embed }) => embed.address)).toEqual(addresses);
    if (addresses.length === 0 && text.trim() !== '') expect(refusals.join(' ')).toMatch(/^[A-Z].*\.$/);
  });

  it.each(CORPUS.hostile)('$name gives nothing but an address at most', ({ text, addresses }) => {
    expect(readPasted(text, HOSTS).embeds.map(({ embed }) => embed.address)).toEqual(addresses);
  });

  it.each(UNTRUSTED)('%s is not taken for a known host', (address) => {
    for (const { embed, trust } of readPasted(address, HOSTS).embeds)
      expect({ host: embed.host, trust }).toEqual({ host: null, trust: 'none' });
  });
});

describe('a messy frame', () => {
  const messy = `<div style="position:relative;padding-bottom:56.25%;height:0">
<iframe width="560" height="315" src="http://lanternreel.example/play/eel-pass-71?start=42&trk=mail_0311&pace=2" frameborder="0" allow="camera; microphone; autoplay; clipboard-write; fullscreen" onload="track()"></iframe>
<script src="//lanternreel.example/w.js"></script></div>`;

  it('keeps its facts and says what it asked for', () => {
    const read = readOne(messy);
    expect(read.embed).toMatchObject({
      kind: 'film',
      carrier: 'frame',
      host: 'lanternreel',
      page: 'https://lanternreel.example/watch/eel-pass-71',
      parameters: { start: '42', more: '0', chrome: 'less' },
      shape: { kind: 'ratio', across: 16, down: 9 },
    });
    expect(read.notGiven).toEqual(['camera', 'microphone', 'autoplay', 'clipboard-write']);
    expect(read.tracking).toEqual(['trk']);
    expect(read.unknown).toEqual([{ name: 'pace', value: '2', means: '' }]);
  });

  it('is tied part by part to the pasted text', () => {
    const said = readPasted(messy, HOSTS).marks.map(({ from, to, as }) => [as, messy.slice(from, to)]);
    expect(said).toEqual([
      ['dropped', 'style="position:relative;padding-bottom:56.25%;height:0"'],
      ['fact', 'width="560"'],
      ['fact', 'height="315"'],
      ['dropped', 'http:'],
      ['fact', '//lanternreel.example/play/eel-pass-71'],
      ['fact', 'start=42'],
      ['dropped', 'trk=mail_0311'],
      ['dropped', 'pace=2'],
      ['dropped', 'frameborder="0"'],
      ['dropped', 'camera'],
      ['dropped', 'microphone'],
      ['dropped', 'autoplay'],
      ['dropped', 'clipboard-write'],
      ['fact', 'fullscreen'],
      ['dropped', 'onload="track()"'],
      ['dropped', '<script src="//lanternreel.example/w.js"></script>'],
    ]);
  });

  it('that was escaped is tied to the text as it was pasted', () => {
    const escaped = messy.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');
    const said = readPasted(escaped, HOSTS).marks.map(({ from, to }) => escaped.slice(from, to));
    expect(said).toContain('onload=&quot;track()&quot;');
    expect(said).toContain('trk=mail_0311');
  });
});

describe('sizes', () => {
  it.each([
    ['width="560" height="315"', { kind: 'ratio', across: 16, down: 9 }],
    ['width="640" height="480"', { kind: 'ratio', across: 4, down: 3 }],
    ['width="854" height="480"', { kind: 'ratio', across: 16, down: 9 }],
    ['width="500" height="300"', { kind: 'ratio', across: 5, down: 3 }],
    ['width="1" height="9000"', { kind: 'height', px: 4000 }],
    ['width="100%" height="300"', { kind: 'height', px: 300 }],
    ['', { kind: 'ratio', across: 16, down: 9 }],
  ])('%s makes the shape', (attributes, shape) => {
    const { embed } = readOne(`<iframe src="https://lanternreel.example/play/a" ${attributes}></iframe>`);
    expect(embed.shape).toEqual(shape);
  });

  it('of a thing without a shape of its own is a height', () => {
    const { embed } = readOne(
      '<iframe src="https://corkline.example/b/a/frame" width="640" height="620"></iframe>',
    );
    expect(embed.shape).toEqual({ kind: 'height', px: 620 });
  });
});

describe('the wrong one of several variants', () => {
  it('is recognised, and the same thing comes in a frame', () => {
    const { embed, notes } = readOne(
      '<div class="corkline-board" data-board="reed-days"></div><script src="https://corkline.example/w.js"></script>',
    );
    expect(embed.carrier).toBe('frame');
    expect(notes.join(' ')).toContain('script variant');
  });

  it('that says by itself nothing is refused with what to ask for', () => {
    expect(
      readPasted('<script src="https://corkline.example/w.js"></script>', HOSTS).refusals.join(' '),
    ).toContain('Under “Share” take the code called “Frame”');
  });

  it('that is the front page of the host says what to open', () => {
    expect(readOne('https://lanternreel.example/').notes.join(' ')).toContain('names no film');
  });
});

describe('a host that somebody decided on', () => {
  const decided = (scope: 'address' | 'host', value: string) => ({
    ...HOSTS,
    decisions: [
      { scope, value, reason: 'It is our own.', by: 'Sunniva Brandt', at: '2026-03-12T09:00:00.000Z' },
    ],
  });

  it('is trusted for its whole name, or for one address', () => {
    expect(readOne('https://elsewhere.example/a?b=1', decided('host', 'elsewhere.example')).trust).toBe(
      'decision',
    );
    expect(
      readOne('https://elsewhere.example/a?b=1', decided('address', 'https://elsewhere.example/a')).trust,
    ).toBe('decision');
    expect(
      readOne('https://elsewhere.example/b', decided('address', 'https://elsewhere.example/a')).trust,
    ).toBe('none');
    expect(readOne('https://more.elsewhere.example/a', decided('host', 'elsewhere.example')).trust).toBe(
      'none',
    );
  });
});

describe('reading', () => {
  it('refuses more than a million letters, and says so', () => {
    const { embeds, refusals } = readPasted('x'.repeat(MOST_PASTED + 1), HOSTS);
    expect(embeds).toEqual([]);
    expect(refusals.join(' ')).toContain('Nothing was taken');
  });

  // Deep nesting, many names in one tag, many openings: each kind grows tenfold in time with ten times the length.
  it.each([
    ['nested elements', '<div>'],
    ['nested frames', '<iframe src="https://lanternreel.example/play/a">'],
    ['openings', '<'],
    ['equals and blanks', '= '],
    ['typographic quotes', '=“'],
    ['escapes', '&lt;'],
    ['addresses', 'https://elsewhere.example/a '],
    ['brackets', '[x](https://a.example/'],
    ['punctuation', 'https://a.example/)))))))))'],
  ])('of a megabyte of %s ends', (_name, part) => {
    const text = part.repeat(Math.floor(MOST_PASTED / part.length));
    expect(readPasted(text, HOSTS).embeds.length).toBeLessThanOrEqual(50);
  });

  it('of a tag with a hundred thousand attributes ends', () => {
    const names = Array.from({ length: 100_000 }, (_, at) => `a${at}`).join(' ');
    expect(readOne(`<iframe ${names} src="https://lanternreel.example/play/a"></iframe>`).embed.host).toBe(
      'lanternreel',
    );
  });
});

describe('the query of an address that no entry knows', () => {
  const read = (text: string) => readPasted(text, HOSTS).embeds.map(({ embed }) => embed);
  const A = 'https://tidewatch.example/watch?v=ab12&list=marsh';

  it.each([
    [A, A],
    [
      'https://tidewatch.example/watch?v=ab12&utm_source=mail&fbclid=x1',
      'https://tidewatch.example/watch?v=ab12',
    ],
    [
      'https://tidewatch.example/find?q=grey%20heron+hide&lang=cy',
      'https://tidewatch.example/find?q=grey%20heron+hide&lang=cy',
    ],
    ['https://tidewatch.example/plain', 'https://tidewatch.example/plain'],
    [`<a href="https://tidewatch.example/watch?v=ab12&amp;list=marsh">The pass</a>`, A],
    [`<iframe src="https://tidewatch.example/watch?v=ab12&amp;list=marsh"></iframe>`, A],
    [`<blockquote cite="${A}"><a href="${A}">The pass</a></blockquote>`, A],
  ])('comes along to readers who follow it: %s', (text, page) => {
    expect(read(text).map((embed) => embed.page)).toEqual([page]);
  });

  it('tells two things apart, and what tracks does not', () => {
    const two = read('https://tidewatch.example/watch?v=1\nhttps://tidewatch.example/watch?v=2');
    expect(two.map(({ page }) => new URL(page).search)).toEqual(['?v=1', '?v=2']);
    const [one, other] = ['?v=1', '?v=2'].map(
      (query) => read(`<iframe src="https://tidewatch.example/play${query}"></iframe>`)[0],
    );
    expect(one && other && identityOf(one) !== identityOf(other)).toBe(true);
    const [bare, tracked] = ['', '?utm_source=mail'].map(
      (query) => read(`https://tidewatch.example/a${query}`)[0],
    );
    expect(bare && tracked && identityOf(bare) === identityOf(tracked)).toBe(true);
  });

  it('is no setting that a known host does not know', () => {
    const [film] = read('https://lanternreel.example/watch/eel-pass-71?start=42&odd=1');
    expect(film?.page).toBe('https://lanternreel.example/watch/eel-pass-71');
    expect(film?.parameters.start).toBe('42');
  });
});

describe('a title with marks that turn its direction', () => {
  it('goes out as it is written', () => {
    const hidden = 'The pass \u202emoc.live\u202c at low water';
    const [embed] = readPasted(
      `<iframe title="${hidden}" src="https://tidewatch.example/a"></iframe>`,
      HOSTS,
    ).embeds;
    expect(embed?.embed.title).toBe('The pass moc.live at low water');
  });
});

describe('code in the condition in which it comes', () => {
  const read = (text: string) =>
    readPasted(text, HOSTS).embeds.map(
      ({ embed: { carrier, address, title, shape } }) =>
        `${carrier} ${address} “${title}” ${sayShape(shape)}`,
    );
  const A = 'https://tidewatch.example/a';
  const FRAMED = [`frame ${A} “” 16 : 9`];

  it.each([
    ['escaped in a paragraph', `<p>&lt;iframe src="${A}" width="640" height="360"&gt;&lt;/iframe&gt;</p>`],
    [
      'escaped twice in a table',
      `<table><td>&amp;lt;iframe src=&amp;quot;${A}&amp;quot; width=&amp;quot;640&amp;quot; height=&amp;quot;360&amp;quot;&amp;gt;</td></table>`,
    ],
    ['cut off before its last letter', `<iframe src="${A}" width="640" height="360"`],
    ['with sizes for a script', `<iframe data-src="${A}" data-width="640" data-height="360"></iframe>`],
    [
      'with its shape in a style',
      `<iframe src="${A}" style="border:0; aspect-ratio: 16 / 9; width:100%"></iframe>`,
    ],
    ['with its shape as one number', `<iframe src="${A}" style="aspect-ratio:1.7778"></iframe>`],
    ['with its sizes in a style', `<iframe src="${A}" style="width:640px;height: 360px"></iframe>`],
    [
      'in a box of its shape',
      `<div style="position:relative;padding-top:56.25%"><iframe src="${A}"></iframe></div>`,
    ],
    ['behind a byte-order mark', `\ufeff<iframe src="${A}" width="640" height="360"></iframe>`],
  ])('is read %s', (_how, code) => {
    expect(read(code)).toEqual(FRAMED);
  });

  it('with a quote that was never closed keeps its address', () => {
    expect(read(`<iframe src="${A} width="640" height="360"></iframe>`)[0]).toMatch(`frame ${A} “”`);
  });

  it.each([
    [
      `<video><source src="${A}.webm"><source src="${A}.mp4"><track src="${A}.vtt" kind="captions"></video>`,
      'video',
      'mp4',
    ],
    [`<video src="${A}.webm"><source src="${A}.ogv"></video>`, 'video', 'webm'],
    [`<audio><source src="${A}.ogg"><source src="${A}.mp3"></audio>`, 'audio', 'mp3'],
    [`${A}.mp4`, 'video', 'mp4'],
    [`${A}.mp3`, 'audio', 'mp3'],
    [`<iframe src="${A}.webm"></iframe>`, 'video', 'webm'],
  ])('is one film or recording, in a player: %s', (code, carrier, ending) => {
    expect(read(code).map((one) => one.split(' ').slice(0, 2))).toEqual([[carrier, `${A}.${ending}`]]);
  });

  it('that is a picture is sent to where pictures are fetched', () => {
    for (const code of [`${A}.jpg`, `<iframe src="${A}.png"></iframe>`, `<embed src="${A}.webp">`])
      expect(readPasted(code, HOSTS)).toMatchObject({
        embeds: [],
        refusals: [expect.stringContaining('Gather')],
      });
  });

  it('that only links is a link, under its own words', () => {
    expect(read(`<a href="${A}?v=1"><b>How the</b> eel\n pass &amp; ramp work</a>`)).toEqual([
      `link ${A}?v=1 “How the eel pass & ramp work” 480 px`,
    ]);
    expect(read(`<a href="${A}">${A}</a>`)).toEqual([`link ${A} “” 480 px`]);
    expect(read(`<a title="Said" href="${A}">words</a>`)).toEqual([`link ${A} “Said” 480 px`]);
    expect(read(JSON.stringify({ type: 'link', version: '1.0', title: 'The pass', url: A }))).toEqual([
      `link ${A} “The pass” 480 px`,
    ]);
  });
});
