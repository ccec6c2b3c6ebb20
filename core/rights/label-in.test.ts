import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { imageObjects } from '../formats/jsonld.ts';
import { metadataOfLabel } from '../formats/metadata.ts';
import { writeCredits } from '../page/credits.ts';
import { A_DAY, examplePage, examplePiece, examplePlacement, PLAIN_RULES, placed } from '../page/testing.ts';
import { writeFragment } from '../page/write.ts';
import { proofInput } from '../proof/input.ts';
import { proofPage } from '../proof/proof.ts';
import { fromStored, STORED } from '../stored.ts';
import { EMPTY_LABEL, type Label, LabelSchema } from './label.ts';
import { labelIn } from './label-in.ts';

const GERMAN = {
  language: 'de',
  title: 'Graureiher',
  alt: 'Ein Graureiher steht im Schilf.',
  caption: 'Der Reiher wartet.',
  extendedDescription: 'Links der Reiher.',
} as const;

const LABEL: Label = {
  ...EMPTY_LABEL,
  title: 'Grey heron',
  creator: 'Ines Okonjo',
  licence: 'cc-by-4.0',
  alt: { kind: 'text', text: 'A grey heron stands in the reeds at the edge of the water.' },
  caption: 'The heron waits.',
  extendedDescription: 'The heron is at the left.',
  translations: [GERMAN],
};

describe('a label in another language', () => {
  it('says what is said in it, by the tag or by the language without its region', () => {
    for (const tag of ['de', 'de-AT', 'DE-ch'])
      expect(labelIn(LABEL, tag)).toMatchObject({
        title: 'Graureiher',
        alt: { kind: 'text', text: 'Ein Graureiher steht im Schilf.' },
        caption: 'Der Reiher wartet.',
        extendedDescription: 'Links der Reiher.',
      });
    const swiss = { ...GERMAN, language: 'de-CH', title: 'Fischreiher' };
    const both = { ...LABEL, translations: [GERMAN, swiss] };
    expect(labelIn(both, 'de-CH').title).toBe('Fischreiher');
    expect(labelIn(both, 'de-AT').title).toBe('Graureiher');
  });

  it('says as on the piece what is not said in it', () => {
    expect(labelIn(LABEL, 'en-GB')).toBe(LABEL);
    const only = { ...LABEL, translations: [{ ...GERMAN, title: '', alt: '' }] };
    expect(labelIn(only, 'de')).toMatchObject({
      title: 'Grey heron',
      alt: LABEL.alt,
      caption: GERMAN.caption,
    });
  });

  it('stays decorative in every language, and is worded where nothing was said on the piece', () => {
    expect(labelIn({ ...LABEL, alt: { kind: 'decorative' } }, 'de').alt).toEqual({ kind: 'decorative' });
    expect(labelIn({ ...LABEL, alt: { kind: 'unsaid' } }, 'de').alt).toEqual({
      kind: 'text',
      text: GERMAN.alt,
    });
  });

  it('is said once in each', () => {
    expect(v.is(LabelSchema, { ...LABEL, translations: [GERMAN, GERMAN] })).toBe(false);
    expect(v.is(LabelSchema, { ...LABEL, translations: [{ ...GERMAN, language: 'German' }] })).toBe(false);
  });

  it('is there in labels that were stored before there were any', () => {
    const { translations: _, ...before } = LABEL;
    expect(fromStored(STORED.label, { v: 2, ...before })).toEqual({ ...before, translations: [] });
  });

  it('goes out on a page in it, with its credits, its data and the file’s metadata, and is proofed by it', () => {
    const rules = { ...PLAIN_RULES, language: 'de-AT' };
    const page = examplePage(placed(examplePlacement('column')));
    const pieces = new Map([['heron', examplePiece({ label: LABEL })]]);
    const html = writeFragment(page, { rules, pieces, addressOf: (cut) => cut.fileName });
    for (const said of [
      GERMAN.alt,
      GERMAN.caption,
      'Graureiher',
      'Beschreibung: Graureiher',
      'Links der Reiher.',
    ])
      expect(html).toContain(said);
    expect(html).not.toMatch(/heron (stands|waits|is)|Grey heron/);
    expect(writeCredits(page, pieces, rules)).toContain('<cite>Graureiher</cite>');
    expect(
      imageObjects(page, pieces, rules, { addressOf: (name) => name, fileOf: (name) => name })['@graph'][0],
    ).toMatchObject({
      name: 'Graureiher',
      caption: GERMAN.caption,
    });
    expect(metadataOfLabel(LABEL, '')['XMP-dc:Title-de']).toBe('Graureiher');
    const codes = (language: string) =>
      proofPage(proofInput(page, { ...PLAIN_RULES, language }, pieces, A_DAY)).map(({ code }) => code);
    expect(codes('de')).not.toContain('language-differs');
    expect(codes('fr')).toContain('language-differs');
  });
});
