import fc from 'fast-check';
import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { examplePage, examplePiece, examplePlacement, PLAIN_RULES } from '../page/testing.ts';
import { EMPTY_LABEL, LabelSchema, withPatch } from '../rights/label.ts';
import { imageObjects, kindOfMaker } from './jsonld.ts';
import { draftFromMetadata, metadataOfLabel, sidecarOfLabel, withSidecar } from './metadata.ts';

const LABEL = withPatch(EMPTY_LABEL, {
  title: 'Heron below Hide No. 3',
  creator: 'Ines Okonjo',
  licence: 'cc-by-4.0',
  caption: 'Waiting out the tide.',
  copyrightNotice: '© Ines Okonjo',
  source: 'Commonfield',
  sourceAddress: 'https://commonfield.example/heron',
  alt: { kind: 'text', text: 'A heron in the reeds.' },
  extendedDescription: 'Everything that is in it.',
  dateCreated: '2026-03-12',
  keywords: ['heron', 'dawn'],
});

describe('metadata of a file', () => {
  it('written from a label drafts the same label', () => {
    const { patch } = draftFromMetadata(metadataOfLabel(LABEL, 'Ines Okonjo / Commonfield'));
    expect(withPatch(EMPTY_LABEL, patch)).toEqual(LABEL);
  });

  it('as a sidecar says the place, other languages and line breaks too, and in XMP alone', () => {
    const whole = withPatch(LABEL, {
      place: 'Saltmere',
      extendedDescription: 'Tides\n\n- ebb\n- flood\n\nMonth\tm\nMay\t4.1',
      translations: [
        {
          language: 'de',
          title: 'Reiher',
          alt: 'Ein Reiher.',
          caption: '',
          extendedDescription: 'Eins\nZwei',
        },
        { language: 'pt-BR', title: '', alt: '', caption: 'Na água', extendedDescription: '' },
      ],
    });
    const tags = sidecarOfLabel(whole, '');
    expect(Object.keys(tags).every((tag) => tag.startsWith('XMP-'))).toBe(true);
    expect(withPatch(EMPTY_LABEL, draftFromMetadata(tags).patch)).toEqual(whole);
    // What goes out to readers says no place.
    expect(JSON.stringify(metadataOfLabel(whole, ''))).not.toContain('Saltmere');
  });

  it('in more languages than a label holds, or in none that there is, fits a label all the same', () => {
    const many = Object.fromEntries(
      Array.from({ length: 200 }, (_, at) => [
        `XMP-dc:Title-x${'abcdefghij'[at % 10]}${'abcdefghijklmnopqrst'[Math.floor(at / 10)]}`,
        'Heron',
      ]),
    );
    const { patch } = draftFromMetadata({ ...many, 'XMP-dc:Title-<b>': 'x', 'XMP-dc:Title-': 'y' });
    expect(patch.translations).toHaveLength(40);
    expect(v.is(LabelSchema, withPatch(EMPTY_LABEL, patch))).toBe(true);
  });

  it('of a sidecar speaks before that of the file it lies beside, and what it says of a thing alone', () => {
    const file = draftFromMetadata({ 'XMP-dc:Creator': 'Camera', 'XMP-dc:Title': 'DSC 1' });
    const both = withSidecar(file, draftFromMetadata({ 'XMP-dc:Creator': 'Ines Okonjo' }));
    expect(both.patch).toEqual({ creator: 'Ines Okonjo', title: 'DSC 1' });
    expect(both.said.map(({ about, value }) => [about, value])).toEqual([
      ['maker', 'Ines Okonjo'],
      ['title', 'DSC 1'],
    ]);
  });

  it.each([
    ['cc-by-4.0', 'Creative Commons BY 4.0', 'https://creativecommons.org/licenses/by/4.0/'],
    ['own', 'Our own work', undefined],
    ['unknown', undefined, undefined],
    ['not-copied', undefined, undefined],
  ] as const)('says of %s: %s', (licence, terms, address) => {
    const tags = metadataOfLabel(withPatch(EMPTY_LABEL, { licence }), '');
    expect(tags['XMP-xmpRights:UsageTerms']).toBe(terms);
    expect(tags['XMP-xmpRights:WebStatement']).toBe(address);
  });

  it('is taken from XMP before IPTC before EXIF', () => {
    const { patch } = draftFromMetadata({
      'IFD0:Artist': 'c',
      'IPTC:By-line': ['b'],
      'XMP-dc:Creator': ['a', 'a2'],
    });
    expect(patch.creator).toBe('a, a2');
    expect(draftFromMetadata({ 'IFD0:Artist': 'c' }).patch.creator).toBe('c');
  });

  it('says when the file knows where it was taken', () => {
    expect(draftFromMetadata({ 'GPS:GPSLatitude': 52.1 }).hasPlaceOfTaking).toBe(true);
    expect(draftFromMetadata({}).hasPlaceOfTaking).toBe(false);
  });

  it('never writes the place of taking', () => {
    expect(Object.keys(metadataOfLabel(LABEL, '')).join()).not.toMatch(/gps|serial|thumb/i);
  });

  it('of any kind drafts a label that fits its schema', () => {
    const tags = [
      'XMP-dc:Title',
      'XMP-dc:Creator',
      'XMP-dc:Description',
      'XMP-dc:Subject',
      'XMP-xmpRights:WebStatement',
      'XMP-plus:LicensorURL',
      'XMP-photoshop:DateCreated',
      'XMP-iptcCore:AltTextAccessibility',
    ];
    const value = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 400 }),
      fc.integer(),
      fc.constant(null),
      fc.constant({ a: 1 }),
      fc.array(fc.string()),
    );
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...tags), value), (raw) => {
        const { patch } = draftFromMetadata(raw);
        expect(v.is(LabelSchema, withPatch(EMPTY_LABEL, patch))).toBe(true);
      }),
    );
  });
});

describe('media.jsonld', () => {
  it('says what is known of each picture, once', () => {
    const page = examplePage(
      { type: 'placement', attrs: examplePlacement('column') },
      { type: 'placement', attrs: examplePlacement('column', { id: 'two' }) },
    );
    const pieces = new Map([['heron', examplePiece({ label: LABEL })]]);
    const { '@graph': graph } = imageObjects(page, pieces, PLAIN_RULES, {
      addressOf: (name) => `media/${name}`,
      fileOf: (name) => `files/${name}`,
    });
    expect(graph).toHaveLength(1);
    expect(graph[0]).toMatchObject({
      '@type': 'ImageObject',
      contentUrl: 'media/heron--1440.jpg',
      creator: { '@type': 'Person', name: 'Ines Okonjo' },
      creditText: 'Photo: © Ines Okonjo, Commonfield, CC BY 4.0.',
      license: 'https://creativecommons.org/licenses/by/4.0/',
      acquireLicensePage: 'https://commonfield.example/heron',
    });
  });

  it.each([
    ['Ines Okonjo', 'Person'],
    ['Saltmere Marsh Reserve', 'Organization'],
    ['County Archive of Saltmere', 'Organization'],
    ['Archie Museveni', 'Person'],
  ])('knows that %s is of type %s', (maker, type) => {
    expect(kindOfMaker(maker)).toBe(type);
  });

  it('describes a picture by its long description, where it has one', () => {
    const page = examplePage({ type: 'placement', attrs: examplePlacement('column') });
    const pieces = new Map([
      ['heron', examplePiece({ label: { ...LABEL, extendedDescription: 'All of it.' } })],
    ]);
    const { '@graph': graph } = imageObjects(page, pieces, PLAIN_RULES, {
      addressOf: (name) => name,
      fileOf: (name) => name,
    });
    expect(graph[0]?.description).toBe('All of it.');
  });
});
