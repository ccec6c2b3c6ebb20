// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { AS_IT_CAME } from '#core/media/recipe.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { plainOrder, type RunOrder } from '#core/run/order.ts';
import {
  button,
  byRole,
  choose,
  click,
  control,
  mount,
  opened,
  press,
  statesOf,
  unmount,
  write,
} from '../mounted.tsx';
import { putPieces } from '../pieces/pieces.ts';
import { exampleAsset } from '../testing.tsx';
import { FormatCard } from './format-card.tsx';
import { NameCard } from './name-card.tsx';
import { PlaceCard } from './place-card.tsx';
import { SizesCard } from './sizes-card.tsx';

afterEach(unmount);

const PRESETS = [
  { id: 'lead', name: 'Lead', ratio: { across: 16, down: 9 }, width: 1600 },
  { id: 'card', name: 'Card', ratio: { across: 4, down: 5 }, width: 400 },
];
const LEAD = { by: 'preset', preset: 'lead' } as const;
const CARD = { by: 'preset', preset: 'card' } as const;

function part(change: Partial<RunOrder> = {}) {
  const changed: Partial<RunOrder>[] = [];
  const order = { ...plainOrder('reserve', ['heron', 'bittern']), ...change };
  return { changed, order, change: (next: Partial<RunOrder>) => void changed.push(next) };
}

describe('the sizes of a run', () => {
  it('are put in and taken out one by one', async () => {
    const { changed, ...props } = part({ sizes: [LEAD] });
    const ground = mount(<SizesCard {...props} presets={PRESETS} />);
    expect(statesOf(ground, 'button')).toEqual(['on: Lead 1600', 'off: Card 400']);
    for (const name of ['Lead 1600', 'Card 400']) await click(button(ground, name));
    expect(changed).toEqual([{ sizes: [] }, { sizes: [LEAD, CARD] }]);
  });

  it('of upright pictures begin as those of the others, and end with them', async () => {
    const { changed, ...props } = part({ sizes: [LEAD] });
    await click(
      byRole(
        mount(<SizesCard {...props} presets={PRESETS} />),
        'checkbox',
        'Other sizes for upright pictures',
      ),
    );
    const apart = part({ sizes: [LEAD], portrait: [CARD] });
    const ground = mount(<SizesCard {...apart} presets={PRESETS} />);
    expect(ground.querySelector('[aria-label="Sizes of upright pictures"]')).not.toBeNull();
    await click(byRole(ground, 'checkbox', 'Other sizes for upright pictures'));
    expect([changed, apart.changed]).toEqual([[{ portrait: [LEAD] }], [{ portrait: null }]]);
  });

  it('that are none of the target’s stand beside them', async () => {
    const wide = { by: 'width', px: 480 } as const;
    const { changed, ...props } = part({ sizes: [wide] });
    const ground = mount(<SizesCard {...props} presets={PRESETS} />);
    expect(statesOf(ground, 'button')).toEqual(['off: Lead 1600', 'off: Card 400', 'on: 480 wide']);
    await click(button(ground, '480 wide'));
    expect(changed).toEqual([{ sizes: [] }]);
  });
});

describe('the formats of a run', () => {
  it('are at least one', async () => {
    const { changed, ...props } = part({ formats: ['avif'] });
    const ground = mount(<FormatCard {...props} rules={PLAIN_RULES} />);
    await click(button(ground, 'AVIF'));
    expect(changed).toEqual([]);
    await click(button(ground, 'JPEG'));
    expect(changed).toEqual([{ formats: ['avif', 'jpeg'] }]);
  });

  it('are as good as the House rules say, or as is said here', async () => {
    const { changed, ...props } = part();
    const ground = mount(<FormatCard {...props} rules={PLAIN_RULES} />);
    expect(ground.textContent).toContain('Each file looks 985 of 1000 alike');
    await click(byRole(ground, 'checkbox', 'Likeness by the house rules'));
    const own = part({ quality: 70 });
    await click(
      byRole(mount(<FormatCard {...own} rules={PLAIN_RULES} />), 'checkbox', 'Likeness by the house rules'),
    );
    expect([changed, own.changed]).toEqual([[{ quality: 80 }], [{ quality: null }]]);
  });
});

describe('the names of a run', () => {
  const PATTERN = [{ part: 'subject' }, { part: 'place' }] as const;
  const rules = { ...PLAIN_RULES, namePattern: [...PATTERN] };
  const card = (change: Partial<RunOrder> = {}) => {
    const { changed, ...props } = part(change);
    return { changed, ground: mount(<NameCard {...props} rules={rules} preview={undefined} />) };
  };

  it.each([
    ['By a pattern', { by: 'pattern', pattern: PATTERN, which: 'all' }],
    ['By a pattern, where nobody named them', { by: 'pattern', pattern: PATTERN, which: 'unnamed' }],
    ['Search and replace', { by: 'replace', search: '', replace: '', titles: true }],
  ])('begin “%s” with what the house says', async (words, naming) => {
    const { changed, ground } = card();
    await choose(byRole(ground, 'combobox', 'Names'), words);
    expect(changed).toEqual([{ naming }]);
  });

  it('keep the pattern when only those without a name are to get one', async () => {
    const own = [{ part: 'place' }] as const;
    const { changed, ground } = card({ naming: { by: 'pattern', pattern: [...own], which: 'all' } });
    await choose(byRole(ground, 'combobox', 'Names'), 'By a pattern, where nobody named them');
    expect(changed).toEqual([{ naming: { by: 'pattern', pattern: own, which: 'unnamed' } }]);
  });

  it('are searched, in titles too unless that is not wanted', async () => {
    const naming = { by: 'replace', search: 'img', replace: '', titles: true } as const;
    const { changed, ground } = card({ naming });
    await write(control(ground, 'Put in its place'), 'heron');
    await click(byRole(ground, 'checkbox', 'In titles too'));
    expect(changed).toEqual([
      { naming: { ...naming, replace: 'heron' } },
      { naming: { ...naming, titles: false } },
    ]);
  });

  it('say where their subjects come from', () => {
    const { changed: _, ...props } = part({ naming: { by: 'pattern', pattern: [...PATTERN], which: 'all' } });
    const preview = {
      rows: [],
      gone: 0,
      seen: '',
      subjects: [
        { from: 'title', pieces: 31 },
        { from: 'folder', pieces: 6 },
      ],
    };
    const ground = mount(<NameCard {...props} rules={rules} preview={preview} />);
    expect(ground.textContent).toContain('Subjects: 31 from titles and 6 from the folder.');
  });
});

describe('the folder and recipe of a run', () => {
  const prep = { ...AS_IT_CAME, turn: 90 } as const;
  const card = (change: Partial<RunOrder> = {}) => {
    const { changed, ...props } = part(change);
    return { changed, ground: mount(<PlaceCard {...props} />) };
  };

  it('stay as they are until something is said', async () => {
    const { changed, ground } = card();
    expect(ground.textContent).toContain('Each stays in its own.');
    await write(control(ground, 'Folder'), 'birds/heron');
    await write(control(ground, 'Folder'), '  ');
    expect(changed).toEqual([{ folder: 'birds/heron' }, { folder: null }]);
  });

  it('offer the recipes of the pieces that are prepared, and none', async () => {
    putPieces([exampleAsset({ id: 'heron', prep }), exampleAsset({ id: 'bittern' })]);
    const { changed, ground } = card();
    const recipe = byRole(ground, 'combobox', 'Recipe');
    expect((await opened(recipe)).map(({ textContent }) => textContent)).toEqual([
      'Each keeps its own',
      'All like Heron',
      'None: all as they came',
    ]);
    await press(recipe, 'Escape');
    for (const words of ['All like Heron', 'None: all as they came']) await choose(recipe, words);
    expect(changed).toEqual([
      { recipe: { from: 'Heron', prep } },
      { recipe: { from: 'as it came', prep: AS_IT_CAME } },
    ]);
    const chosen = card({ recipe: { from: 'Heron', prep } });
    await choose(byRole(chosen.ground, 'combobox', 'Recipe'), 'Each keeps its own');
    expect(chosen.changed).toEqual([{ recipe: null }]);
  });
});
