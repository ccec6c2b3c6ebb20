import { describe, expect, it } from 'vitest';
import { EN } from '../messages/en.ts';
import { altFault, withoutImageOf } from '../words/alt.ts';
import { creditParts } from './attribution.ts';
import { judge, type Use } from './judgement.ts';
import { EMPTY_LABEL, type LabelPatch, withPatch } from './label.ts';
import { sayJudgement } from './say-judgement.ts';
import { isWebAddress } from './web-address.ts';

const HERE: Use = {
  targetName: 'the Reserve site',
  commercial: true,
  creditOwnWork: false,
  territory: [],
  educational: false,
  publishing: 'web',
  trustedSources: [],
  changes: [],
  copies: true,
  day: null,
};
const CROPPED: Use = { ...HERE, changes: ['cropped'] };
const label = (patch: LabelPatch) => withPatch(EMPTY_LABEL, { creator: 'Ines Okonjo', ...patch });

describe('licence table', () => {
  it.each([
    // licence, may be used commercially, may be cropped
    ['cc0', true, true],
    ['pdm', true, true],
    ['cc-by-4.0', true, true],
    ['cc-by-2.0', true, true],
    ['cc-by-sa-4.0', true, true],
    ['cc-by-nd-4.0', true, false],
    ['cc-by-nc-4.0', false, true],
    ['cc-by-nc-sa-4.0', false, true],
    ['cc-by-nc-nd-4.0', false, false],
    ['own', true, true],
    ['hire', true, true],
    ['permission', true, true],
    ['agency', true, true],
    ['no-known-copyright', true, true],
    ['cc-by-nd-2.0', true, false],
    ['cc-by-nc-3.0', false, true],
    ['cc-by-nc-sa-2.5', false, true],
    ['no-copyright-non-commercial', false, true],
    ['in-copyright', false, false],
    ['undetermined', false, false],
    ['not-evaluated', false, false],
    ['no-copyright-us', false, false],
    ['no-copyright-contract', false, false],
    ['no-copyright-other-law', false, false],
    ['in-copyright-orphan', false, false],
    ['in-copyright-holder-unknown', false, false],
    ['in-copyright-educational', false, false],
    ['in-copyright-non-commercial', false, true],
    ['cc-by-1.0', true, true],
    ['cc-by-sa-2.1', true, true],
    ['cc-by-nc-nd-1.0', false, false],
    ['comp', false, false],
    ['unknown', false, false],
    ['copyright', false, false],
  ] as const)('%s: commercial %s, cropped %s', (licence, commercial, cropped) => {
    const others = { ...HERE, commercial: false };
    expect(judge(label({ licence, source: 'S', sourceId: '1' }), HERE).verdict === 'allowed').toBe(
      commercial,
    );
    expect(
      judge(label({ licence, source: 'S', sourceId: '1' }), { ...others, changes: ['cropped'] }).verdict ===
        'allowed',
    ).toBe(cropped);
  });

  it('says why and what is owed in a sentence', () => {
    expect(sayJudgement(judge(label({ licence: 'cc-by-4.0' }), CROPPED))).toBe(
      'May be used here. The credit must say that it was cropped.',
    );
    expect(sayJudgement(judge(label({ licence: 'own' }), HERE))).toBe(
      'May be used here. No credit required.',
    );
    expect(sayJudgement(judge(label({ licence: 'cc-by-nc-4.0' }), HERE))).toBe(
      'May not be used here. CC BY-NC 4.0 forbids commercial use, and the Reserve site is commercial.',
    );
    expect(sayJudgement(judge(label({ licence: 'cc-by-nd-4.0' }), CROPPED))).toContain('Show it whole.');
    expect(sayJudgement(judge(label({ licence: 'cc-by-sa-4.0' }), CROPPED))).toContain(
      'stays under the same licence',
    );
  });

  it('asks for no licence of what its host shows, until somebody says one', () => {
    const framed: Use = { ...HERE, copies: false };
    const shown = judge(label({ licence: 'unknown' }), framed);
    expect(shown).toMatchObject({ verdict: 'allowed', restsOn: 'nothing-copied', duties: [] });
    expect(sayJudgement(shown)).toContain('nothing of it is copied');
    expect(judge(label({ licence: 'unknown' }), HERE).verdict).toBe('not-allowed');
    for (const licence of ['cc-by-nc-4.0', 'copyright', 'in-copyright'] as const)
      expect(judge(label({ licence }), framed).verdict).toBe('not-allowed');
    const free = label({ licence: 'cc-by-4.0' });
    expect(judge(free, framed)).toMatchObject({ verdict: 'allowed', duties: ['credit'] });
  });

  it('owes nothing for a poster that was drawn here, whatever the house credits', () => {
    const use = { ...CROPPED, creditOwnWork: true };
    const judgement = judge(label({ licence: 'not-copied' }), use);
    expect(judgement).toMatchObject({ verdict: 'allowed', duties: [] });
    expect(creditParts(label({ licence: 'not-copied' }), judgement, EN)).toEqual([]);
  });

  it('wants a maker or a source where a credit is owed', () => {
    expect(judge(label({ licence: 'cc-by-4.0', creator: '' }), HERE).verdict).toBe('allowed-if');
    expect(judge(label({ licence: 'cc-by-4.0', creator: '', source: 'Commonfield' }), HERE).verdict).toBe(
      'allowed',
    );
    expect(judge(label({ licence: 'own', creator: '' }), HERE).verdict).toBe('allowed');
    expect(judge(label({ licence: 'own', creator: '' }), { ...HERE, creditOwnWork: true }).verdict).toBe(
      'allowed-if',
    );
  });
});

describe('addresses', () => {
  it.each([
    'javascript:alert(1)',
    'ftp://a.example',
    '//a.example',
    'https://me:pw@a.example/',
    'data:text/html,x',
    'https://',
  ])('%s is not one to send readers to', (address) => {
    expect(isWebAddress(address)).toBe(false);
  });
});

describe('alt text', () => {
  const place = { linked: false, caption: 'Waiting out the tide.' };
  it.each([
    ['IMG_0612.jpg', 'file-name'],
    ['DSC_0091', 'file-name'],
    ['https://a.example/heron.jpg', 'file-name'],
    ['Image of a heron', 'image-of'],
    ['...', 'punctuation'],
    ['x'.repeat(151), 'long'],
    ['Waiting out the tide', 'same-as-caption'],
    ['A heron stands in the reeds at dawn.', undefined],
  ])('%j: %s', (text, fault) => {
    expect(altFault({ kind: 'text', text }, place)).toBe(fault);
  });

  it('may be decorative unless it is a link', () => {
    expect(altFault({ kind: 'unsaid' }, place)).toBe('missing');
    expect(altFault({ kind: 'decorative' }, place)).toBeUndefined();
    expect(altFault({ kind: 'decorative' }, { ...place, linked: true })).toBe('decorative-linked');
  });

  it('can do without “image of”', () => {
    expect(withoutImageOf('A picture of the heron at dawn')).toBe('The heron at dawn');
  });
});
