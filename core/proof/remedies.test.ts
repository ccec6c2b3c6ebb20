import { describe, expect, it } from 'vitest';
import { USUAL_BANNER } from '../page/blocks/banner/schema.ts';
import type { Block } from '../page/blocks/block.ts';
import type { PageDoc } from '../page/model.ts';
import type { Piece } from '../page/piece.ts';
import {
  A_DAY,
  examplePage,
  examplePiece,
  examplePlacement,
  heading,
  PLAIN_RULES,
  paragraph,
  placed,
  tableRow,
} from '../page/testing.ts';
import type { Alt } from '../rights/label.ts';
import type { Finding, Remedy } from './finding.ts';
import { proofInput } from './input.ts';
import { applyRemedy, proofPage } from './proof.ts';

const banner = (id: string): Block => ({
  type: 'banner',
  attrs: { id, ...USUAL_BANNER, plate: null },
  content: [placed(examplePlacement('column', { id: `${id}-ground` }))],
});
const table = (id: string): Block => ({
  type: 'table',
  attrs: { id, caption: '' },
  content: [tableRow('Day', 'Tide'), tableRow('Mon', '4.1')],
});
const want = (id: string) => ({ id, purpose: id, shape: 'any' as const, leastWidth: 0, filledBy: null });

/** Two of each that a remedy may be of. */
const PAGE: PageDoc = {
  ...examplePage(
    heading('Eels', 2, 'head-1'),
    heading('Elvers', 2, 'head-2'),
    table('table-1'),
    table('table-2'),
    banner('banner-1'),
    banner('banner-2'),
    paragraph('The pass is open.', 'text'),
  ),
  wants: [want('lead'), want('map')],
};

/** The IDs of the blocks that a remedy changed, took out or added. */
function changedBy(remedy: Remedy): readonly string[] {
  const after = applyRemedy(PAGE, remedy);
  const kept = new Map(after.blocks.map((block) => [block.attrs.id, block]));
  return [
    ...PAGE.blocks.flatMap((block) => (kept.get(block.attrs.id) === block ? [] : [block.attrs.id])),
    ...after.blocks.flatMap(({ attrs }) =>
      PAGE.blocks.some((block) => block.attrs.id === attrs.id) ? [] : [attrs.id],
    ),
  ];
}

describe('a remedy', () => {
  it.each<readonly [of: string, remedy: Remedy]>([
    ['head-2', { kind: 'heading-level', blockId: 'head-2', level: 3 }],
    ['table-2', { kind: 'head-row', blockId: 'table-2' }],
    ['banner-2', { kind: 'banner-plate', blockId: 'banner-2', plate: '#172126' }],
    ['text', { kind: 'remove-block', blockId: 'text' }],
    ['banner-1', { kind: 'remove', which: 'it', placementId: 'banner-1-ground' }],
  ])('changes %s alone', (id, remedy) => {
    expect(changedBy(remedy)).toEqual([id]);
  });

  it('does what it says', () => {
    const blockOf = (remedy: Remedy, id: string) =>
      applyRemedy(PAGE, remedy).blocks.find(({ attrs }) => attrs.id === id);
    expect(blockOf({ kind: 'heading-level', blockId: 'head-2', level: 3 }, 'head-2')).toEqual(
      heading('Elvers', 3, 'head-2'),
    );
    expect(blockOf({ kind: 'banner-plate', blockId: 'banner-1', plate: '#172126' }, 'banner-1')).toEqual({
      ...banner('banner-1'),
      attrs: { id: 'banner-1', ...USUAL_BANNER, plate: '#172126' },
    });
    expect(blockOf({ kind: 'head-row', blockId: 'table-1' }, 'table-1')).toMatchObject({
      content: [
        { content: [{ type: 'tableHeader' }, { type: 'tableHeader' }] },
        { content: [{ type: 'tableCell' }, {}] },
      ],
    });
    expect(applyRemedy(PAGE, { kind: 'drop-want', wantId: 'lead' })).toEqual({
      ...PAGE,
      wants: [want('map')],
    });
    expect(applyRemedy(PAGE, { kind: 'make-lead', placementId: 'x' })).toEqual({ ...PAGE, lead: 'x' });
  });

  it('of what no page says changes none', () => {
    for (const remedy of [
      { kind: 'write-alt', placementId: 'x', assetId: 'y' },
      { kind: 'rename', assetId: 'x', stem: 'y' },
      { kind: 'set-licence', placementId: 'x' },
      { kind: 'find-piece', wantId: 'lead' },
    ] as const)
      expect(applyRemedy(PAGE, remedy)).toBe(PAGE);
  });
});

function findings(page: PageDoc, piece: Piece, severities = PLAIN_RULES.severities): readonly Finding[] {
  return proofPage(
    proofInput(page, { ...PLAIN_RULES, severities }, new Map([['heron', piece]]), A_DAY, new Map()),
  );
}
const codes = (...args: Parameters<typeof findings>) => findings(...args).map(({ code }) => code);

describe('what is found', () => {
  it('is none of what House rules switch off, and what they say nothing of is to be mended', () => {
    const page = examplePage(heading('', 2, 'none'));
    const of = (severity?: 'off' | 'stops') =>
      findings(page, examplePiece(), severity ? { 'heading-empty': severity } : {});
    expect(of('off')).toEqual([]);
    expect(of('stops')).toMatchObject([{ code: 'heading-empty', severity: 'stops', viewports: [] }]);
    expect(of()).toMatchObject([{ code: 'heading-empty', severity: 'mend' }]);
  });

  it('counts a piece twice that stands twice in the article, and not one that a listing shows as well', () => {
    const one = placed(examplePlacement('column', { id: 'one' }));
    const teaser: Block = {
      type: 'teaser',
      attrs: { id: 'teaser', title: '', words: 'Eels.' },
      content: [placed(examplePlacement('column', { id: 'teased' }))],
    };
    const lead = { ...examplePage(one, teaser), lead: 'one' };
    expect(codes(lead, examplePiece())).not.toContain('same-piece-twice');
    const twice = examplePage(one, placed(examplePlacement('column', { id: 'two' })));
    expect(codes(twice, examplePiece())).toContain('same-piece-twice');
  });

  it.each<readonly [what: string, alt: Alt, isLinked: boolean, found: string, mends: readonly string[]]>([
    ['none is said', { kind: 'unsaid' }, false, 'alt-missing', ['write-alt', 'decorative']],
    ['none is said of a link', { kind: 'unsaid' }, true, 'alt-missing', ['write-alt']],
    ['a link is decorative', { kind: 'decorative' }, true, 'alt-missing', ['write-alt']],
    [
      'it says that it is a picture',
      { kind: 'text', text: 'Image of a heron' },
      false,
      'alt-poor',
      ['drop-image-of', 'write-alt'],
    ],
    [
      'code stands in it',
      { kind: 'text', text: 'A <b>heron</b>' },
      false,
      'alt-poor',
      ['drop-markup', 'write-alt'],
    ],
    [
      'it says that it decorates',
      { kind: 'text', text: 'Decorative image' },
      false,
      'alt-poor',
      ['write-alt', 'decorative'],
    ],
    ['it is the name of a file', { kind: 'text', text: 'IMG_0612.jpg' }, false, 'alt-poor', ['write-alt']],
  ])('where %s of a picture, with what mends it', (_what, alt, isLinked, found, mends) => {
    const click = isLinked ? ({ kind: 'link', href: '/eels' } as const) : ({ kind: 'nothing' } as const);
    const page = examplePage(paragraph('Eels'), placed(examplePlacement('column', { alt, click })));
    const [finding] = findings(page, examplePiece());
    expect(finding?.code).toBe(found);
    expect(
      finding?.remedies.map((remedy) => (remedy.kind === 'placement' ? remedy.does : remedy.kind)),
    ).toEqual(mends);
  });
});
