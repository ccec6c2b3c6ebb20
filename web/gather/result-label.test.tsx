// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { CloserLook, SealedPicture } from '#api/gather.ts';
import { maybeStatement, type SaidAbout, statements } from '#core/gather/statement.ts';
import type { Want } from '#core/page/model.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import type { LicenceId } from '#core/rights/licences.ts';
import { byRole, mount, opened, unmount } from '../mounted.tsx';
import { type Answered, drawn, exampleAsset, wordsOf } from '../testing.tsx';
import { ResultLabel } from './result-label.tsx';

const BY = 'https://creativecommons.org/licenses/by/4.0/';
const BY_NC = 'https://creativecommons.org/licenses/by-nc/4.0/';
const BY_ND = 'https://creativecommons.org/licenses/by-nd/4.0/';

const said = (by: 'collection' | 'page', facts: Partial<Record<SaidAbout, string>>) =>
  Object.entries(facts).map(([about, value]) => maybeStatement(by, about as SaidAbout, value));

function picture(
  facts: Partial<Record<SaidAbout, string>>,
  change: Partial<SealedPicture> = {},
): SealedPicture {
  return {
    source: 'commonfield',
    key: 'bittern-1',
    stamp: '',
    fileName: 'bittern.jpg',
    address: 'https://commonfield.example/bittern.jpg',
    preview: 'https://commonfield.example/small/bittern.jpg',
    pageAddress: 'https://commonfield.example/bittern',
    width: 3000,
    height: 2000,
    statements: [...statements(...said('collection', { title: 'Bittern', maker: 'Ines Okonjo', ...facts }))],
    look: 'look.webp',
    seal: 'sealed',
    heldAs: null,
    ...change,
  };
}

interface Case {
  readonly want?: Want | null;
  readonly closer?: CloserLook;
  readonly licence?: LicenceId | null;
}

afterEach(unmount);

const part = (of: SealedPicture, { want = null, closer, licence = null }: Case = {}) => {
  const answered: Answered = closer ? [[['closer', 'sealed'], closer]] : [];
  const drawing = (
    <ResultLabel picture={of} rules={PLAIN_RULES} want={want} licence={licence} onLicence={() => undefined}>
      {null}
    </ResultLabel>
  );
  return [drawing, answered] as const;
};
const label = (...args: Parameters<typeof part>) => wordsOf(drawn(...part(...args)));

const want = (change: Partial<Want>): Want => ({
  id: 'lead',
  purpose: 'Lead',
  shape: 'landscape',
  leastWidth: 1600,
  filledBy: null,
  ...change,
});

describe('how a result fits', () => {
  it.each([
    [want({}), '3000 × 2000 px. Fills the want 1.9 times over.'],
    [want({ leastWidth: 2900 }), 'Fills the want just.'],
    [want({ leastWidth: 3600 }), 'It is 600 px too narrow for the want.'],
    [want({ shape: 'portrait', leastWidth: 0 }), 'It is landscape, and can be cut to portrait.'],
    [null, '3000 × 2000 px.'],
  ])('a want is said (%#)', (asked, sentence) => {
    expect(label(picture({ licence: BY }), { want: asked })).toContain(sentence);
  });

  it('is not guessed where its size is not said', () => {
    expect(label(picture({ licence: BY }, { width: 0, height: 0 }), { want: want({}) })).toContain(
      'Its size is not said; it is measured when it comes.',
    );
  });

  it('of a comp is that of the original, with its price', () => {
    const words = label(picture({ licence: 'comp', price: '£120', terms: 'two years on one site' }));
    expect(words).toContain('That is the original; the comp is smaller.');
    expect(words).toContain('£120 for two years on one site. The comp is free to lay out');
  });
});

describe('what a result may be used for', () => {
  it('is said with what it owes', () => {
    const words = label(picture({ licence: BY }));
    expect(words).toContain('CC BY 4.0. May be used here. The credit is owed.');
    expect(words).toContain('Credit Photo: Ines Okonjo, CC BY 4.0.');
  });

  it('warns before a crop that its licence forbids', () => {
    expect(label(picture({ licence: BY_ND }))).toContain('It may not be cropped.');
    expect(label(picture({ licence: BY }))).not.toContain('It may not be cropped.');
  });

  it('is nothing on a commercial site where its licence forbids that', () => {
    expect(label(picture({ licence: BY_NC }))).toContain(
      'May not be used here. CC BY-NC 4.0 forbids commercial use',
    );
  });

  it('is left open where nothing is said, and it can be gathered all the same', () => {
    const words = label(picture({}));
    expect(words).toContain('It can be gathered; it cannot go out before its licence is known.');
    expect(words).not.toContain('Which holds?');
  });

  const disagreeing: CloserLook = {
    pageSays: [...statements(...said('page', { licence: BY_NC }))],
    pageFault: '',
    alike: [],
  };
  it('is a person’s decision where its page says another licence', async () => {
    const words = label(picture({ licence: BY }), { closer: disagreeing });
    expect(words).toContain('Which holds?');
    const ground = mount(...part(picture({ licence: BY }), { closer: disagreeing }));
    expect(
      (await opened(byRole(ground, 'combobox', 'Which holds?'))).map(({ textContent }) => textContent),
    ).toEqual(expect.arrayContaining(['Creative Commons BY 4.0', 'Creative Commons BY-NC 4.0']));
    expect(words).toContain('Its page says another licence.');
    const decided = label(picture({ licence: BY }), { closer: disagreeing, licence: 'cc-by-4.0' });
    expect(decided).toContain('CC BY 4.0. May be used here.');
  });

  it('is the surer where its page says the same', () => {
    const closer = { ...disagreeing, pageSays: [...statements(...said('page', { licence: BY }))] };
    expect(label(picture({ licence: BY }), { closer })).toContain('Its page says the same licence.');
  });
});

describe('what looks like a result', () => {
  it('is looked for, and named with how many more there are', () => {
    expect(label(picture({ licence: BY }))).toContain('The shelf is looked through.');
    const alike = ['heron-at-dawn', 'heron-2'].map((stem) => ({
      asset: exampleAsset({ id: stem, stem }),
      bitsApart: 3,
    }));
    expect(label(picture({ licence: BY }), { closer: { pageSays: [], pageFault: '', alike } })).toContain(
      'heron-at-dawn on your shelf, and 1 more.',
    );
  });
});
