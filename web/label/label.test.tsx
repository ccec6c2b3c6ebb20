// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { Asset } from '#api/assets.ts';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import { columnRoom } from '#core/page/room.ts';
import { examplePlacement, PLAIN_RULES } from '#core/page/testing.ts';
import { byRole, click, mount, opened, statesOf, unmount } from '../mounted.tsx';
import { drawn, exampleAsset, wordsOf } from '../testing.tsx';
import { Label, type LabelProps } from './label.tsx';
import type { Use } from './row.tsx';

const use: Use = {
  pageId: 'page',
  placement: examplePlacement('beside-left'),
  room: columnRoom(PLAIN_RULES),
  change: () => undefined,
  paragraphs: 3,
  paragraph: 2,
  move: () => undefined,
  remove: () => undefined,
};

afterEach(unmount);

const PIET = { id: 'piet', name: 'Piet Hallam', email: 'piet@saltmere.example', role: 'rights-keeper' };

const label = (asset: Asset, change: Partial<LabelProps> = {}) => (
  <Label
    asset={asset}
    rules={PLAIN_RULES}
    use={null}
    isEditable={true}
    openRow={null}
    onOpenRow={() => undefined}
    {...change}
  />
);
const html = (...args: Parameters<typeof label>) => drawn(label(...args));
const words = (...args: Parameters<typeof html>) => wordsOf(html(...args));
/** The names of the rows, in order. */
const rows = (...args: Parameters<typeof html>) =>
  [...html(...args).matchAll(/<section [^>]*aria-label="([^"]+)"/g)].map(([, name]) => name);

const filmOf = (poster: 'host' | 'drawn') => ({
  embed: readOne('https://lanternreel.example/watch/a').embed,
  hosts: { entries: [...HOSTS.entries], decisions: [] },
  framing: {},
  poster,
});

describe('the label', () => {
  it('says everything in the same order, on the shelf and on a page', () => {
    expect(rows(exampleAsset())).toEqual(['Cut', 'Alt text and caption', 'Rights', 'Name']);
    expect(rows(exampleAsset(), { use })).toEqual(['Fit', 'Cut', 'Alt text and caption', 'Rights', 'Name']);
  });

  it('has the row of an embed in the place of the cut', () => {
    const asset = exampleAsset({}, { kind: 'embed', embed: filmOf('host') });
    expect(rows(asset)).toEqual(['Embed', 'Title and caption', 'Rights', 'Name']);
    expect(words(asset)).toContain('Those who cannot see it hear “Film from Lanternreel”.');
  });

  it('of an embed asks for a licence of its poster, unless that was drawn here or none is shown', () => {
    const unsaid = { licence: 'unknown' } as const;
    const asset = (poster: 'host' | 'drawn') =>
      exampleAsset({ label: unsaid }, { kind: 'embed', embed: filmOf(poster) });
    expect(words(asset('host'))).toContain('Nobody has said under which licence it may be used.');
    expect(words(asset('drawn'))).toContain('nothing of it is copied');
    const framed = { ...use, placement: { ...use.placement, form: 'frame' as const } };
    expect(words(asset('host'), { use: framed })).toContain('nothing of it is copied');
  });

  it('of an embed has a name without the ending of its poster', () => {
    expect(words(exampleAsset({}, { kind: 'embed', embed: filmOf('host') }))).not.toContain('.jpg');
    expect(words(exampleAsset())).toContain('.jpg');
  });

  it('offers the licence of what is not copied for a drawn poster alone', async () => {
    const open = async (poster: 'host' | 'drawn') => {
      const asset = exampleAsset({}, { kind: 'embed', embed: filmOf(poster) });
      const ground = mount(label(asset, { openRow: 'rights' }), [[['me'], PIET]]);
      const licences = await opened(byRole(ground, 'combobox', 'Licence'));
      return licences.map(({ textContent }) => textContent);
    };
    expect(await open('drawn')).toContain('None needed: nothing of it is copied');
    expect(await open('host')).not.toContain('None needed');
  });

  it('says who made it and when, or that nobody has said', () => {
    expect(words(exampleAsset({ label: { dateCreated: '2026-05-20' } }))).toContain(
      'Ines Okonjo · 20 May 2026',
    );
    expect(words(exampleAsset({ label: { creator: '', title: '' } }))).toContain(
      'No title yet Nobody has said who made it.',
    );
  });

  it('tells drafts from what a person said', () => {
    expect(words(exampleAsset({ drafted: ['title', 'licence'] }))).toContain(
      'The file says of itself: title, licence. A draft until somebody keeps it. Keep it',
    );
    expect(words(exampleAsset({ drafted: ['title'], label: { source: 'Commonfield' } }))).toContain(
      'Said where it came from: title.',
    );
  });

  it('offers nothing to change to those who may not', () => {
    const readOnly = html(exampleAsset({ drafted: ['title'] }), { isEditable: false, use });
    expect(readOnly).not.toMatch(/aria-expanded/);
    expect(wordsOf(readOnly)).not.toContain('Keep it');
  });
});

describe('its rows', () => {
  it('of words say what is said, and what is wrong with it', () => {
    expect(words(exampleAsset())).toContain('“A heron stands in the reeds.”');
    expect(words(exampleAsset({ label: { alt: { kind: 'unsaid' } } }))).toContain('No alt text yet.');
    expect(words(exampleAsset({ label: { alt: { kind: 'decorative' } } }))).toContain(
      'Decorative: it is passed over',
    );
    expect(words(exampleAsset({ usedOn: [{ id: 'p', title: 'Tides' }] }))).toContain(
      'Said on the piece, used on 1 page.',
    );
  });

  it('of words say them in the language of the page, and in which others they are said', () => {
    const translations = [
      { language: 'de', title: '', alt: 'Ein Reiher im Schilf.', caption: '', extendedDescription: '' },
    ];
    const asset = exampleAsset({ label: { translations } });
    expect(words(asset, { use })).toMatch(/“A heron stands in the reeds.” .*Also in German Add/);
    const german = { ...PLAIN_RULES, language: 'de-AT' };
    expect(words(asset, { use, rules: german })).toContain(
      '“Ein Reiher im Schilf.” Said on the piece in German, as this page is.',
    );
    expect(words(asset, { use, isEditable: false })).toMatch(/Also in German(?! Add)/);
    expect(words(exampleAsset(), { use, isEditable: false })).not.toContain('language');
  });

  it('of words say where a page says otherwise', () => {
    const placement = examplePlacement('column', { caption: 'At dawn.' });
    expect(words(exampleAsset(), { use: { ...use, placement } })).toContain(
      'Caption: At dawn. Caption under it here Said for this page only.',
    );
  });

  it('of words switch the caption off and on for one page', async () => {
    const changes: unknown[] = [];
    const at = (caption: string | null): Use => ({
      ...use,
      placement: examplePlacement('column', { caption }),
      change: (change) => changes.push(change),
    });
    const asset = exampleAsset({ label: { caption: 'At dusk.' } });
    await click(byRole(mount(label(asset, { use: at(null) })), 'checkbox', 'Caption under it here'));
    unmount();
    await click(byRole(mount(label(asset, { use: at('') })), 'checkbox', 'Caption under it here'));
    expect(changes).toEqual([{ caption: '' }, { caption: null }]);
    expect(html(exampleAsset({ label: { caption: '' } }), { use: at(null) })).not.toContain(
      'Caption under it here',
    );
  });

  it.each([
    ['cc-by-4.0', 'May be used'],
    ['cc-by-nc-4.0', 'May not be used'],
    ['unknown', 'May not be used here. Nobody has said under which licence it may be used.'],
  ] as const)('of rights judge %s', (licence, said) => {
    expect(words(exampleAsset({ label: { licence } }))).toContain(said);
  });

  it('of the name say its folder, what it came as, what is wrong with it, and where it is used', () => {
    const asset = exampleAsset({
      stem: 'IMG_0612',
      originalName: 'DSC1.JPG',
      usedOn: [
        { id: 'p', title: '' },
        { id: 'q', title: 'Tides' },
      ],
    });
    expect(words(asset)).toContain('In birds / heron. Came in as DSC1.JPG.');
    expect(words(asset)).toContain('On Untitled page , Tides .');
    expect(words(asset)).toMatch(/letters/i);
  });

  it('of the cut say the original, or the shown size and the size for sharp screens', () => {
    expect(words(exampleAsset())).toContain('The original is 6000 × 4000 JPEG, 9.0 MB.');
    expect(words(exampleAsset(), { use })).toMatch(
      /The whole picture from 6000 × 4000\. \d+ px, up to \d+ for sharp screens/,
    );
    const small = exampleAsset({ width: 200, height: 150, original: { width: 200, height: 150 } });
    expect(words(small, { use: { ...use, placement: examplePlacement('column') } })).toContain(
      'Shown 720 px wide, so it is enlarged 3.6 times.',
    );
  });

  it('of the fit show where it stands', () => {
    expect(statesOf(mount(label(exampleAsset(), { use })), 'radio')).toContain('on: Beside left');
    expect(words(exampleAsset(), { use })).toContain('Move');
  });

  it('open in place, one at a time', () => {
    expect(html(exampleAsset(), { openRow: 'words' })).toContain('Save words');
    expect(html(exampleAsset(), { openRow: 'words' })).not.toContain('Save name');
    expect(html(exampleAsset(), { openRow: 'name' })).toContain('Close: change name or folder');
    expect(html(exampleAsset(), { openRow: 'rights' })).toContain('Copyright notice');
    expect(html(exampleAsset(), { openRow: 'title' })).toContain('Taken on');
  });
});
