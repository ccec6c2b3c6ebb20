import { describe, expect, it } from 'vitest';
import { readMarkup } from '../embed/markup.ts';
import { HOSTS, readOne } from '../embed/testing.ts';
import type { Block } from './blocks/block.ts';
import type { Placement } from './blocks/placement/schema.ts';
import { copiesHere, embedHere, formHere, pictureUse, siteOrigin, withSetting } from './embed-here.ts';
import { embedsOfPage } from './embeds-of-page.ts';
import type { HeldEmbed } from './piece.ts';
import { withReplaced } from './replace.ts';
import { styleSheet } from './style-sheet.ts';
import { examplePage, examplePiece, examplePlacement, PLAIN_RULES } from './testing.ts';
import { placementsOf } from './walk.ts';
import { creditedAs } from './words.ts';
import { cutsOfPage, writeFragment } from './write.ts';

const held = (address: string, framing: HeldEmbed['framing'] = {}): HeldEmbed => ({
  embed: readOne(address).embed,
  hosts: HOSTS,
  framing,
  poster: 'host',
});
const FILM = held('https://lanternreel.example/watch/eel-pass-71');
const CHART = held('https://fathomchart.example/chart/saltmere-bar');
const FILE = held('<video src="https://lanternreel.example/files/eel-pass-71.mp4"></video>');
const BARE = { ...PLAIN_RULES, embeds: { frames: false, frameHosts: [], click: false, widgets: false } };

const figures = (count: number): Block[] =>
  Array.from({ length: count }, (_, at) => ({
    type: 'placement',
    attrs: examplePlacement('column', { id: `p${at}` }),
  }));
const piecesWith = (embed: HeldEmbed) => new Map([['heron', examplePiece({}, { kind: 'embed', embed })]]);
const write = (count: number, embed: HeldEmbed, rules = PLAIN_RULES) =>
  writeFragment(examplePage(...figures(count)), {
    rules,
    pieces: piecesWith(embed),
    addressOf: (cut) => `media/${cut.fileName}`,
  });

/** What a browser asks for at once: addresses of pictures and frames that do not lie in a template. */
function firstLoad(html: string): readonly string[] {
  let depth = 0;
  return [...readMarkup(html)].flatMap((piece) => {
    if (piece.kind === 'text') return [];
    if (piece.name === 'template') depth += piece.kind === 'start' ? 1 : -1;
    if (depth > 0 || piece.kind === 'end') return [];
    return piece.attributes.flatMap(({ name, value }) => (name === 'src' ? [value] : []));
  });
}

describe('embeds on a page', () => {
  it('that load on a click cost no more at first than their posters', () => {
    const asked = firstLoad(write(20, FILM));
    expect(asked).toHaveLength(20);
    for (const address of asked) expect(address).toMatch(/^media\//);
  });

  it('are as wide as they stand, and keep their shape', () => {
    const html = writeFragment(
      examplePage({
        type: 'placement',
        attrs: examplePlacement('centred', { width: { unit: '%', value: 50 } }),
      }),
      { rules: PLAIN_RULES, pieces: piecesWith(CHART), addressOf: (cut) => cut.fileName },
    );
    expect(html).toContain('width="360" height="270" style="display: block; aspect-ratio: 4 / 3;');
  });

  it('have their posters cut to the shape of the frame, and no cuts where no poster shows', () => {
    const [first] = cutsOfPage(examplePage(...figures(1)), { rules: PLAIN_RULES, pieces: piecesWith(FILM) });
    expect(first?.recipe.crop).not.toBeNull();
    expect(cutsOfPage(examplePage(...figures(1)), { rules: PLAIN_RULES, pieces: piecesWith(CHART) })).toEqual(
      [],
    );
  });

  it('that are players name one file as their poster, and it goes out with the page', () => {
    const [poster, ...others] = cutsOfPage(examplePage(...figures(1)), {
      rules: PLAIN_RULES,
      pieces: piecesWith(FILE),
    });
    expect(others).toEqual([]);
    expect(write(1, FILE)).toContain(`poster="media/${poster?.fileName}"`);
  });

  it('bring their style along, which other pages do not carry', () => {
    const page = examplePage(...figures(1));
    expect(styleSheet(PLAIN_RULES, page, piecesWith(FILM))).toContain('.embed-click');
    expect(styleSheet(PLAIN_RULES, page, new Map([['heron', examplePiece()]]))).not.toContain('.embed-click');
  });

  it('are linked posters on a target without frames, and say nothing of a frame', () => {
    expect(write(1, FILM, BARE)).toContain(
      '<a class="embed-card" href="https://lanternreel.example/watch/eel-pass-71">',
    );
    expect(write(1, FILM, BARE)).not.toMatch(/iframe|template/);
  });

  it('are listed with their form', () => {
    const forms = embedsOfPage(examplePage(...figures(2)), PLAIN_RULES, piecesWith(FILM)).map(
      ({ form }) => form,
    );
    expect(forms).toEqual(['click', 'click']);
  });
});

describe('the form in one use', () => {
  it.each([
    [FILM, null, 'click', 'sizes'],
    [FILM, 'frame', 'frame', 'none'],
    [FILM, 'poster', 'poster', 'sizes'],
    [FILM, 'link', 'link', 'none'],
    [FILM, 'widget', 'click', 'sizes'],
    [CHART, null, 'frame', 'none'],
    [CHART, 'poster', 'poster', 'sizes'],
    [FILE, null, 'player', 'one-file'],
    [FILE, 'poster', 'poster', 'sizes'],
  ] as const)('%# is the wished one where it is open', (embed, form, stands, pictured) => {
    expect(formHere(PLAIN_RULES, { form }, embed)).toBe(stands);
    expect(pictureUse(PLAIN_RULES, { form }, { kind: 'embed', embed })).toBe(pictured);
  });

  it.each([
    ['host', null, true],
    ['host', 'poster', true],
    ['host', 'frame', false],
    ['host', 'link', false],
    ['drawn', null, false],
    ['drawn', 'poster', false],
  ] as const)('with a poster of %s, wished for as %s, copies: %s', (poster, form, copies) => {
    expect(copiesHere(PLAIN_RULES, { form }, { kind: 'embed', embed: { ...FILM, poster } })).toBe(copies);
  });

  it('names in its credit what was made', () => {
    expect(write(1, FILM)).toContain('<span class="credit">Film: Ines Okonjo');
    expect(creditedAs(examplePiece())).toBe('photo');
  });

  it('is decided by what its host said to the origin of the target', () => {
    const rules = { ...PLAIN_RULES, siteAddress: 'https://reserve.example/about' };
    const refused = { kind: 'refused', by: 'X-Frame-Options', value: 'DENY' } as const;
    const film = held('https://lanternreel.example/watch/eel-pass-71', {
      'https://reserve.example': refused,
    });
    expect(siteOrigin(rules)).toBe('https://reserve.example');
    expect(formHere(rules, { form: null }, film)).toBe('poster');
    expect(formHere(PLAIN_RULES, { form: null }, film)).toBe('click');
  });
});

describe('the settings of one use', () => {
  const film = held('https://lanternreel.example/watch/eel-pass-71?start=42');
  const start = (placement: { readonly settings: Placement['settings'] }) =>
    embedHere(placement, film).parameters.start;

  it('hold there alone', () => {
    const html = writeFragment(
      examplePage(
        { type: 'placement', attrs: examplePlacement('column', { id: 'a', settings: { start: '7' } }) },
        { type: 'placement', attrs: examplePlacement('column', { id: 'b' }) },
      ),
      { rules: PLAIN_RULES, pieces: piecesWith(film), addressOf: (cut) => cut.fileName },
    );
    expect(html.match(/start=\d+/g)).toEqual(['start=7', 'start=42']);
  });

  it('can leave a setting of the piece out, and end where they say what the piece says', () => {
    const without = withSetting(null, film, 'start', undefined);
    expect(without).toEqual({ start: null });
    expect(start({ settings: without })).toBeUndefined();
    expect(withSetting(without, film, 'start', '42')).toBeNull();
    expect(withSetting({ start: '7', cc: '1' }, film, 'start', '42')).toEqual({ cc: '1' });
  });

  it('do not stay for another piece in its place', () => {
    const page = examplePage({
      type: 'placement',
      attrs: examplePlacement('column', { settings: { start: '7' } }),
    });
    expect(placementsOf(withReplaced(page, 'heron', 'other'))[0]).toMatchObject({
      asset: 'other',
      settings: null,
    });
  });
});
