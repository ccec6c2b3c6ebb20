import { describe, expect, it } from 'vitest';
import type { Hosts } from './host.ts';
import type { Embed } from './model.ts';
import { readPasted } from './reading.ts';
import { settingsOf } from './settings.ts';
import { sayShape } from './shape.ts';
import { HOSTS, TARGET } from './testing.ts';
import { frameAddress, writeEmbed } from './write.ts';

const decision = (value: string) => ({
  scope: 'host' as const,
  value,
  reason: 'It is our own.',
  by: 'Sunniva Brandt',
  at: '2026-03-12T09:00:00.000Z',
});
const DECIDED: Hosts = { ...HOSTS, decisions: [decision('tidewatch.example')] };
const NOBODY: Hosts = { entries: [], decisions: [] };

const read = (text: string, hosts: Hosts = DECIDED) =>
  readPasted(text, hosts).embeds.map(({ embed }) => embed);
const only = (text: string, hosts: Hosts = DECIDED): Embed => {
  const [embed, ...others] = read(text, hosts);
  if (!embed || others.length > 0) throw new Error(readPasted(text, hosts).refusals.join(' ') || text);
  return embed;
};

/** Letters as they are written about one embed, in whichever code. */
interface Thing {
  readonly address: string;
  readonly title: string;
}
const tag = (name: string, { address, title }: Thing, more = '') =>
  `<${name} src="${address}" width="640" height="360" title="${title}"${more}></${name}>`;

/** The codes that hosts give out, each for the same thing, 16 wide and 9 high. */
const CODES: Readonly<Record<string, (thing: Thing) => string>> = {
  'a frame': (thing) => tag('iframe', thing),
  'a frame with everything': (thing) =>
    tag(
      'iframe',
      thing,
      ' frameborder="0" scrolling="no" allow="autoplay; fullscreen" allowfullscreen loading="lazy"',
    ),
  'a frame in capitals': ({ address, title }) =>
    `<IFRAME SRC="${address}" WIDTH="640" HEIGHT="360" TITLE="${title}"></IFRAME>`,
  'a frame over lines': ({ address, title }) =>
    `<iframe\n  width="640"\n  height="360"\n  title="${title}"\n  src="${address}"\n>\n</iframe>`,
  'a frame in a box': ({ address, title }) =>
    `<div style="position:relative;padding-bottom:56.25%;height:0"><iframe style="position:absolute;width:100%;height:100%" title="${title}" src="${address}"></iframe></div>`,
  'a frame in a figure': ({ address, title }) =>
    `<figure><iframe src="${address}" width="640" height="360"></iframe><figcaption>${title}</figcaption></figure>`,
  'a frame that loads late': ({ address, title }) =>
    `<iframe data-src="${address}" src="about:blank" data-ratio="16:9" title="${title}"></iframe>`,
  'a plug-in': (thing) => tag('embed', thing),
  'an object': ({ address, title }) =>
    `<object data="${address}" width="640" height="360" title="${title}"></object>`,
  'an object that is told': ({ address, title }) =>
    `<object width="640" height="360" title="${title}"><param name="movie" value="${address}"></object>`,
  'an element of a script': (thing) => tag('tide-player', thing),
};

const numbered = (text: string) => text.replace(/[<>"&]/g, (letter) => `&#${letter.charCodeAt(0)};`);
const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** The conditions in which code comes. */
const CONDITIONS: Readonly<Record<string, (code: string) => string>> = {
  'as it is': (code) => code,
  'behind a byte-order mark': (code) => `\ufeff${code}`,
  escaped,
  'escaped twice': (code) => escaped(escaped(code)),
  'escaped by numbers': numbered,
  'escaped in a paragraph': (code) => `<p>The code: <code>${escaped(code)}</code></p>`,
  'with typographic quotes': (code) => code.replace(/="([^"]*)"/g, '=“$1”'),
  'with single quotes': (code) => code.replace(/="([^"]*)"/g, "='$1'"),
  'as a text in a program': (code) => code.replaceAll('"', '\\"').replaceAll('</', '<\\/'),
  'as it stands in a mail': (code) => code.replaceAll('=', '=3D').replaceAll(' width', ' =\r\nwidth'),
  'as an address carries it': (code) => encodeURIComponent(code),
  'in a field of a share dialog': (code) => `<textarea readonly rows="4">${code}</textarea>`,
  'for those without scripts': (code) => `<noscript>${code}</noscript>`,
  'in a note': (code) => `Here it is, from Joss:\n\n${code}\n\nCan it go up by Friday?`,
  'in a list that is open': (code) => `<ul><li>${code}`,
  'with a program behind it': (code) => `${code}<script async src="//tidewatch.example/w.js"></script>`,
  'in data': (code) => JSON.stringify({ ok: true, data: { code } }),
};

describe.each(Object.entries(CODES))('%s', (_name, codeOf) => {
  it.each(Object.entries(CONDITIONS))(
    'is read %s, of a decided, a known and an unknown host',
    (_how, condition) => {
      const title = 'How the eel pass works';
      const decided = only(condition(codeOf({ address: 'https://tidewatch.example/a?start=80', title })));
      expect([
        decided.carrier,
        frameAddress(decided, DECIDED),
        decided.title,
        sayShape(decided.shape),
      ]).toEqual(['frame', 'https://tidewatch.example/a?start=80', title, '16 : 9']);
      const known = only(
        condition(codeOf({ address: 'https://lanternreel.example/play/eel?start=80', title })),
      );
      expect([known.address, known.parameters.start, known.title, sayShape(known.shape)]).toEqual([
        'https://lanternreel.example/play/eel',
        '80',
        title,
        '16 : 9',
      ]);
      const unknown = only(condition(codeOf({ address: 'https://elsewhere.example/x', title })), NOBODY);
      expect([unknown.page, unknown.title, sayShape(unknown.shape)]).toEqual([
        'https://elsewhere.example/x',
        title,
        '16 : 9',
      ]);
    },
  );
});

describe('what many hosts share in their addresses', () => {
  const A = 'https://tidewatch.example/a';
  const kept = (address: string) =>
    frameAddress(only(`<iframe src="${escaped(address)}"></iframe>`), DECIDED);
  const START = [
    'start',
    't',
    'time',
    'start_time',
    'startTime',
    'start-at',
    'startat',
    'begin',
    'seek',
    'from',
  ];
  const TIMES = [
    ['80', '80'],
    ['80s', '80'],
    ['1m20s', '80'],
    ['1:20', '80'],
    ['1h2m3s', '3723'],
  ] as const;

  it.each(START.flatMap((name) => TIMES.map(([said, seconds]) => [name, said, seconds] as const)))(
    '%s=%s is a start at %s s, that can be set anew',
    (name, said, seconds) => {
      const embed = only(`<iframe src="${A}?${name}=${said}"></iframe>`);
      const start = settingsOf(embed, DECIDED).find(({ role }) => role === 'start');
      expect([start?.label, embed.parameters[start?.name ?? ''], embed.kind]).toEqual([
        'Start at',
        seconds,
        'film',
      ]);
      expect(kept(`${A}?${name}=${said}`)).toBe(`${A}?${name}=${seconds}`);
      const known = only(`https://lanternreel.example/watch/eel?${name}=${said}`);
      // What a host’s own entry takes for tracking is no start.
      expect(known.parameters.start).toBe(name === 'from' ? undefined : seconds);
    },
  );

  it.each([
    '?ll=54.1,-3.2&z=14',
    '?lat=54.1&lon=-3.2&zoom=12.5',
    '?center=54.1,-3.2&zoom=9&maptype=satellite',
    '?bbox=-3.3,54,-3.1,54.2&layer=tide&marker=54.1,-3.2',
    '?q=Saltmere%20hide&z=15',
    '?marker=54.1,-3.2&layers=T',
    '?heading=120&pitch=10&fov=75&location=54.1,-3.2',
    '?state=!2d-3.2041!3d54.1022!4d14',
    '?area=54.10;-3.21;54.22;-3.05',
  ])('a map stays at its place: %s', (query) => {
    expect(kept(A + query)).toBe(A + query);
  });

  it.each(['#map=14/54.1/-3.2', '#14/54.1/-3.2', '#@54.1,-3.2,14z', '#/board/7', '#!/reed'])(
    'a place in a fragment stays: %s',
    (fragment) => {
      expect(kept(A + fragment)).toBe(A + fragment);
    },
  );

  it.each(['#comments', '#:~:text=eel', '#top'])(
    'a place to scroll to does not come along: %s',
    (fragment) => {
      expect(kept(A + fragment)).toBe(A);
    },
  );

  it.each([
    ['rel=0', 'More of its things at the end'],
    ['cc=1', 'Captions on from the start'],
    ['captions=true', 'Captions on from the start'],
    ['cc_lang=cy', 'Language of captions'],
    ['subtitles=de', 'Language of captions'],
    ['loop=1', 'Begins again at its end'],
    ['mute=1', 'Without sound'],
    ['controls=0', 'Its own controls'],
    ['fs=1', 'May fill the screen'],
    ['hl=cy', 'Language of its controls'],
    ['theme=dark', 'Theme'],
    ['end=120', 'End at'],
    ['list=marsh', 'What of it is shown (list)'],
    ['id=7', 'What of it is shown (id)'],
    ['z=12', 'Zoom'],
  ])('%s is kept, and called “%s”', (query, label) => {
    const embed = only(`<iframe src="${A}?${query}"></iframe>`);
    expect(settingsOf(embed, DECIDED).map((one) => one.label)).toEqual([label]);
    expect(frameAddress(embed, DECIDED)).toBe(`${A}?${query}`);
  });

  it.each(['pace=2', 'origin=https://reserve.example', 'xk=9'])(
    '%s is a riddle, and kept when ticked',
    (query) => {
      const [thing] = readPasted(`<iframe src="${A}?${query}"></iframe>`, DECIDED).embeds;
      expect(thing?.unknown.map(({ means }) => means)).toEqual(['']);
      expect(thing && frameAddress(thing.embed, DECIDED)).toBe(A);
    },
  );

  it('that a known host calls otherwise is what it calls so', () => {
    const film = only('https://lanternreel.example/watch/eel?rel=0&captions=1&time=42');
    expect(film.parameters).toMatchObject({ more: '0', cc: '1', start: '42' });
  });

  it('that a known host does not know is offered with what it means, and a place is kept', () => {
    const [map] = readPasted('https://fathomchart.example/chart/bar?ll=54,-3&loop=1&odd=1', HOSTS).embeds;
    expect(map?.embed.kept).toEqual({ ll: '54,-3' });
    expect(map?.unknown.map(({ name, means }) => [name, means])).toEqual([
      ['ll', 'Place on the map (ll)'],
      ['loop', 'Begins again at its end'],
      ['odd', ''],
    ]);
  });

  it('and a start in a fragment starts films, files and known hosts’ things alike', () => {
    expect(kept(`${A}#t=80`)).toBe(`${A}#t=80`);
    for (const file of ['https://tidewatch.example/a.mp4#t=80', 'https://tidewatch.example/a.mp4?t=1m20s'])
      expect(frameAddress(only(file), DECIDED)).toBe('https://tidewatch.example/a.mp4#t=80');
    expect(only('https://lanternreel.example/watch/eel#t=npt:80').parameters.start).toBe('80');
  });
});

describe('the screen', () => {
  it.each([
    ['allowfullscreen', ['fullscreen']],
    ['allowfullscreen="true"', ['fullscreen']],
    ['webkitallowfullscreen mozallowfullscreen', ['fullscreen']],
    ['allow="camera; fullscreen"', ['fullscreen']],
    ['allowfullscreen="false"', []],
    ['allow="camera"', []],
  ] as const)('of a decided host may be filled where its code asks so: %s', (attributes, allowed) => {
    expect(only(`<iframe src="https://tidewatch.example/a" ${attributes}></iframe>`).allowed).toEqual(
      allowed,
    );
  });
});

describe('a shape', () => {
  const A = 'src="https://tidewatch.example/a"';
  it.each([
    ['16 : 9', `<iframe ${A} width="560" height="315"></iframe>`],
    ['16 : 9', `<iframe ${A} width="560px" height="315px"></iframe>`],
    ['4 : 3', `<iframe ${A} style="aspect-ratio: auto 4 / 3"></iframe>`],
    ['16 : 9', `<iframe ${A} style="aspect-ratio:1.7778;width:100%"></iframe>`],
    ['16 : 9', `<iframe ${A} style="width:100%;height:56.25vw"></iframe>`],
    ['480 px', `<iframe ${A} width="720" style="width:100%;height:480px"></iframe>`],
    ['16 : 9', `<div style="padding:56.25% 0 0 0;position:relative"><iframe ${A}></iframe></div>`],
    ['16 : 9', `<div style="padding: 0 0 56.25%"><iframe ${A}></iframe></div>`],
    [
      '4 : 3',
      `<div style="padding-top:75%"><div><iframe ${A} width="100%" height="100%"></iframe></div></div>`,
    ],
    ['16 : 9', `<div style="padding-bottom:calc(9 / 16 * 100%)"><iframe ${A}></iframe></div>`],
    ['4 : 3', `<div style="padding-bottom: calc(100% * 3 / 4)"><iframe ${A}></iframe></div>`],
    ['16 : 9', `<div style="padding-bottom:calc(100% / (16 / 9))"><iframe ${A}></iframe></div>`],
    ['16 : 9', `<div style="--box-ratio: 16/9"><iframe ${A}></iframe></div>`],
    ['16 : 9', `<div class="ratio ratio-16x9"><iframe ${A}></iframe></div>`],
    ['21 : 9', `<div class="box box-21by9"><iframe ${A}></iframe></div>`],
    ['4 : 3', `<div class="aspect-ratio-4-3"><iframe ${A}></iframe></div>`],
    ['1 : 1', `<div class="embed--1x1"><iframe ${A}></iframe></div>`],
    ['3 : 4', `<div data-ratio="3:4"><iframe ${A}></iframe></div>`],
    ['16 : 9', `<div data-aspect-ratio="1.7778"><iframe ${A}></iframe></div>`],
    ['16 : 9', `<div data-ratio="0.5625"><iframe ${A}></iframe></div>`],
    [
      '4 : 3',
      `<div style="width:640px;height:480px"><iframe ${A} style="width:100%;height:100%"></iframe></div>`,
    ],
    [
      '16 : 9',
      `<style>.v{position:relative;padding-bottom:56.25%}.v iframe{width:100%}</style><div class="v"><iframe ${A}></iframe></div>`,
    ],
    [
      '4 : 3',
      `<style>.v::before{content:"";padding-top:75%}</style><p class="v"></p><div class="v"><iframe ${A}></iframe></div>`,
    ],
    ['480 px', `<div style="padding-bottom:5%"><iframe ${A}></iframe></div>`],
    ['480 px', `<div class="col-md-6-12"><iframe ${A}></iframe></div>`],
    ['480 px', `<div style="padding-bottom:56.25%"></div><iframe ${A}></iframe>`],
    ['54 px', '<audio src="https://tidewatch.example/a.mp3"></audio>'],
  ])('of %s is read from %s', (shape, code) => {
    expect(sayShape(only(code).shape)).toBe(shape);
  });
});

describe('what a thing is called', () => {
  const A = 'https://tidewatch.example/embed/eel-71';
  it.each([
    [`<iframe src="${A}" title="The pass"></iframe>`],
    [`<iframe src="${A}" aria-label="The pass"></iframe>`],
    [`<h3 id="h">The <em>pass</em></h3><iframe src="${A}" aria-labelledby="h"></iframe>`],
    [`<iframe src="${A}" title="  The\n pass "></iframe>`],
    [`<figure><iframe src="${A}"></iframe><figcaption> The <b>pass</b></figcaption></figure>`],
    [`<figure><figcaption>The pass</figcaption><div><iframe src="${A}"></iframe></div></figure>`],
    [`<iframe src="${A}"></iframe><p><a href="https://tidewatch.example/watch/eel-71">The pass</a></p>`],
    [`<p><a href="https://www.tidewatch.example/?v=eel-71">The pass</a></p><iframe src="${A}"></iframe>`],
    [`<object data="${A}"><a href="https://tidewatch.example/file">The pass</a></object>`],
    [`<a href="${A}">The pass</a>`],
    [`<a href="${A}"><img src="x.jpg" alt=""><span>The pass</span></a>`],
    [`[The pass](${A})`],
    [`* [**The pass**](${A}) by Joss`],
    [`[url=${A}]The pass[/url]`],
    [JSON.stringify({ '@type': 'VideoObject', name: 'The pass', embedUrl: A })],
    [
      JSON.stringify({
        version: '1.0',
        type: 'video',
        title: 'The pass',
        html: `<iframe src="${A}"></iframe>`,
      }),
    ],
    [JSON.stringify({ version: '1.0', type: 'link', title: 'The pass', url: A })],
  ])('is “The pass” in %s', (code) => {
    expect(only(code).title).toBe('The pass');
  });

  it('is not what only says what to do', () => {
    const code = `<iframe src="${A}"></iframe><a href="https://tidewatch.example/watch/eel-71">View larger map</a>`;
    expect(only(code).title).toBe('');
  });

  it('is read once more where it was escaped once more', () => {
    expect(only(`<iframe src="${A}" title="Eels &amp;amp; elvers"></iframe>`).title).toBe('Eels & elvers');
  });

  it('stands beside its caption', () => {
    const code = `<figure><iframe src="${A}" title="The pass"></iframe><figcaption>Seen from the bank.</figcaption></figure>`;
    expect(only(code).caption).toBe('Seen from the bank.');
    const marks = readPasted(code, DECIDED).marks.filter(({ why }) => why === 'Kept as its caption.');
    expect(marks.map(({ from, to }) => code.slice(from, to))).toEqual(['Seen from the bank.']);
    const alone = only(code.replace(' title="The pass"', ''));
    expect([alone.title, alone.caption]).toEqual(['Seen from the bank', 'Seen from the bank.']);
  });
});

describe('an address that is meant', () => {
  it.each([
    [`<iframe src="https://tidewatch.example/a width="640" height="360"></iframe>`],
    [`<iframe src='https://tidewatch.example/a width='640' height='360'></iframe>`],
    [`<iframe width="640" height="360" src="https://tidewatch.example/a></iframe>`],
    [`<iframe width="640" height="360" src="https://tidewatch.example/a"`],
    [`<iframe width="640" height="360" src="https://https://tidewatch.example/a"></iframe>`],
    [`<iframe width="640" height="360" src="tidewatch.example/a"></iframe>`],
    [`<iframe width="640" height="360" src="//tidewatch.example/a"></iframe>`],
    [`[iframe width="640" height="360" src="https://tidewatch.example/a"]`],
    [`<object width="640" height="360" data="https://tidewatch.example/a">`],
    [`<embed width="640" height="360" src="https://tidewatch.example/a"`],
  ])('is read from %s, with its shape', (code) => {
    const embed = only(code);
    expect([frameAddress(embed, DECIDED), sayShape(embed.shape)]).toEqual([
      'https://tidewatch.example/a',
      '16 : 9',
    ]);
  });

  it.each([
    ['https://tidewatch.example/watch?v=1&amp;t=80', 'https://tidewatch.example/watch?v=1&t=80'],
    ['[video]https://tidewatch.example/v/1[/video]', 'https://tidewatch.example/v/1'],
    [
      '<iframe src="https://tidewatch.example/a?b=1&amp;amp;t=80"></iframe>',
      'https://tidewatch.example/a?b=1&t=80',
    ],
  ])('stands in %s', (text, page) => {
    expect(only(text).page).toBe(page);
  });

  it('is that of what no browser runs any more, as a link', () => {
    const applet = only('<applet code="Tide.class" codebase="https://tidewatch.example/tides/"></applet>');
    expect([applet.carrier, applet.page]).toEqual(['link', 'https://tidewatch.example/tides/']);
  });

  it('is what a whole page says it shows, where nothing stands in it', () => {
    const head =
      '<meta property="og:video" content="https://tidewatch.example/p/1"><link rel="canonical" href="https://tidewatch.example/x">';
    expect(only(`<html><head>${head}</head><body>Text</body></html>`).page).toBe(
      'https://tidewatch.example/p/1',
    );
  });
});

describe('what is left out of code', () => {
  it.each([
    ['<script>1</script>', 'Programs never come along.'],
    ['<style>p { color: red }</style>', 'How it looks is written anew.'],
    ['<meta http-equiv="refresh" content="0">', 'What a whole page says of itself does not come along.'],
    [
      '<link rel="stylesheet" href="https://tidewatch.example/a.css">',
      'What a whole page says of itself does not come along.',
    ],
    ['<base href="https://tidewatch.example/">', 'What a whole page says of itself does not come along.'],
    ['<applet code="x.class"></applet>', 'Programs of this kind are no longer run by browsers.'],
  ])('is marked: %s', (part, why) => {
    const code = `${part}<iframe src="https://tidewatch.example/a"></iframe>`;
    const marks = readPasted(code, DECIDED).marks.filter(({ as }) => as === 'dropped');
    expect(marks.map(({ from, to, why: said }) => [part.startsWith(code.slice(from, to)), said])).toEqual([
      [true, why],
    ]);
  });

  it('is said of an answer, whose code is not shown', () => {
    const html = '<script src="w.js"></script><iframe src="https://tidewatch.example/a"></iframe>';
    const { refusals } = readPasted(JSON.stringify({ version: '1.0', type: 'rich', html }), DECIDED);
    expect(refusals).toEqual(['The code in this answer carries a program. Programs never come along.']);
  });
});

describe('code that was written here and is pasted again', () => {
  const POSTER = { address: 'eel-pass.jpg', width: 1280, height: 720 };
  const things = [
    'https://lanternreel.example/watch/eel-pass-71?start=42&cc=1',
    'https://murmurline.example/m/first-boom',
    '<iframe src="https://corkline.example/b/reed-days/frame" height="620" title="Reed days"></iframe>',
    '<iframe src="https://tidewatch.example/a?ll=54.1,-3.2&amp;z=14" width="400" height="300"></iframe>',
    '<iframe src="https://tidewatch.example/a"></iframe>',
    '<video src="https://tidewatch.example/a.mp4#t=80" title="The pass"></video>',
  ];
  it.each(
    things.flatMap((text) =>
      (['frame', 'click', 'widget', 'player', 'poster', 'link'] as const).map(
        (form) => [form, text] as const,
      ),
    ),
  )('as %s is the same thing: %s', (form, text) => {
    const embed = only(text);
    const back = only(writeEmbed(form, { embed, target: TARGET, hosts: DECIDED, poster: POSTER }));
    expect([embed.address, embed.page]).toContain(back.address);
  });

  it('keeps its settings and its shape in a frame', () => {
    for (const text of things.filter((one) => !one.includes('mp4') && !one.includes('murmur'))) {
      const embed = only(text);
      const back = only(writeEmbed('frame', { embed, target: TARGET, hosts: DECIDED, poster: POSTER }));
      expect([back.parameters, back.kept, back.shape]).toEqual([embed.parameters, embed.kept, embed.shape]);
    }
  });
});
