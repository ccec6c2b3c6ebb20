// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { AS_IT_CAME, type Cuttable, type Prep } from '#core/media/recipe.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import {
  allOf,
  button,
  byRole,
  click,
  control,
  mount,
  press,
  statesOf,
  unmount,
  write,
} from '../mounted.tsx';
import { exampleAsset } from '../testing.tsx';
import { CropRow } from './crop-row.tsx';
import { FrameRow } from './frame-row.tsx';
import { GroundRow } from './ground-row.tsx';
import { PrepCard } from './prep-card.tsx';
import { StepsRow } from './steps-row.tsx';
import { ToneRow } from './tone-row.tsx';
import { TurnRow } from './turn-row.tsx';

afterEach(unmount);

const RULES = {
  ...PLAIN_RULES,
  cutPresets: [
    { id: 'lead', name: 'Lead', ratio: { across: 16, down: 9 }, width: 1600 },
    { id: 'square', name: 'Square', ratio: { across: 1, down: 1 }, width: 480 },
    { id: 'wide', name: 'Wide', ratio: { across: 16, down: 9 }, width: 900 },
  ],
};
const piece = (prep: Partial<Prep> = {}): Cuttable => ({
  size: { width: 6000, height: 4000 },
  trim: null,
  prep: { ...AS_IT_CAME, ...prep },
  focal: { x: 0.5, y: 0.5 },
});

/** What a row keeps, in order, each with its name. */
function keeping() {
  const kept: (readonly [Prep, string])[] = [];
  return { kept, onKeep: (prep: Prep, name: string) => void kept.push([prep, name]) };
}
function changing() {
  const changed: (readonly [Partial<Prep>, string])[] = [];
  return { changed, change: (part: Partial<Prep>, name: string) => void changed.push([part, name]) };
}

describe('the crop of a piece', () => {
  const row = (prep: Partial<Prep> = {}) => {
    const { kept, onKeep } = keeping();
    return { kept, ground: mount(<CropRow piece={piece(prep)} rules={RULES} onKeep={onKeep} />) };
  };

  it('takes each shape of the target once, about the focal point', async () => {
    const { kept, ground } = row();
    expect(statesOf(ground, 'button')).toEqual(['on: whole', 'off: 16:9', 'off: 1:1']);
    await click(button(ground, '1:1'));
    const [[prep, name] = []] = kept;
    expect(name).toBe('cropping it');
    expect(prep?.crop).toMatchObject({ top: 0, height: 1 });
    expect(prep?.crop?.width).toBeCloseTo(4000 / 6000, 3);
    expect(prep?.crop?.left).toBeCloseTo(1 / 6, 3);
  });

  it('is written in px of the original, and stays inside it', async () => {
    const { kept, ground } = row({ crop: { left: 0.25, top: 0.25, width: 0.5, height: 0.5 } });
    expect(control(ground, 'Left').value).toBe('1500');
    expect(control(ground, 'High').value).toBe('2000');
    await write(control(ground, 'Left'), '99999');
    await write(control(ground, 'Wide'), '3');
    expect(kept.map(([prep]) => prep.crop)).toEqual([
      { left: 0.5, top: 0.25, width: 0.5, height: 0.5 },
      { left: 0.25, top: 0.25, width: 0.02, height: 0.5 },
    ]);
  });

  it('leaves what is no number in the field with the reason, until Escape puts back what was there', async () => {
    const { kept, ground } = row();
    await write(control(ground, 'Left'), 'far left');
    expect(kept).toEqual([]);
    expect(control(ground, 'Left').value).toBe('far left');
    expect(allOf(ground, 'alert').map(({ textContent }) => textContent)).toEqual([
      'A number of px is needed.',
    ]);
    await press(control(ground, 'Left'), 'Escape');
    expect(control(ground, 'Left').value).toBe('0');
    expect(allOf(ground, 'alert')).toEqual([]);
  });

  it('gives the piece its own shape back', async () => {
    const { kept, ground } = row({ crop: { left: 0.25, top: 0, width: 0.5, height: 1 } });
    await click(button(ground, 'Undo crop'));
    expect(kept).toEqual([[AS_IT_CAME, 'its own shape']]);
  });
});

describe('the frame of one shape', () => {
  const RATIO = { across: 1, down: 1 };
  it('follows the focal point until it is set by hand, and again afterwards', async () => {
    const free = keeping();
    const ground = mount(<FrameRow piece={piece()} ratio={RATIO} onKeep={free.onKeep} />);
    expect(ground.textContent).toContain('It follows the focal point.');
    expect(control(ground, 'Wide').value).toBe('4000');
    await write(control(ground, 'Left'), '0');
    const [[framed] = []] = free.kept;
    expect(framed?.frames).toEqual([{ ratio: RATIO, crop: expect.objectContaining({ left: 0, top: 0 }) }]);
    const set = keeping();
    const again = mount(<FrameRow piece={piece(framed)} ratio={RATIO} onKeep={set.onKeep} />);
    await click(button(again, 'Follow the focal point again'));
    expect(set.kept).toEqual([[AS_IT_CAME, 'following the focal point']]);
  });

  it('keeps its shape when it is made narrower', async () => {
    const { kept, onKeep } = keeping();
    const ground = mount(<FrameRow piece={piece()} ratio={RATIO} onKeep={onKeep} />);
    await write(control(ground, 'Wide'), '2000', 'leave');
    const crop = kept[0]?.[0].frames[0]?.crop;
    expect((crop?.width ?? 0) * 6000).toBeCloseTo((crop?.height ?? 0) * 4000, 0);
    expect((crop?.width ?? 0) * 6000).toBeCloseTo(2000, 0);
  });
});

describe('turning', () => {
  it('goes by quarters, and mirrors', async () => {
    const { kept, onKeep } = keeping();
    const ground = mount(<TurnRow prep={AS_IT_CAME} onKeep={onKeep} />);
    for (const name of ['Left', 'Right', 'Mirror']) await click(button(ground, name));
    expect(kept.map(([prep, name]) => [prep.turn, prep.mirror, name])).toEqual([
      [270, false, 'turning it left'],
      [90, false, 'turning it right'],
      [0, true, 'mirroring it'],
    ]);
  });
});

describe('the whole of what is done to a piece', () => {
  const lightOf = (isEditable: boolean) => {
    const { kept, onKeep } = keeping();
    const ground = mount(
      <PrepCard
        asset={exampleAsset()}
        piece={piece()}
        rules={RULES}
        preset={null}
        isEditable={isEditable}
        lights={undefined}
        onDraft={() => undefined}
        onKeep={onKeep}
        isLevelling={false}
        onLevelling={() => undefined}
      />,
    );
    return { kept, slider: byRole(ground, 'slider', 'Light') };
  };

  it('is moved by the keys of whoever may change it', async () => {
    const { kept, slider } = lightOf(true);
    await press(slider, 'ArrowRight');
    await Promise.resolve();
    expect(kept.map(([prep]) => prep.tone.light)).toEqual([1]);
  });

  it('stays as it is for whoever may only read it, its sliders too', async () => {
    const { kept, slider } = lightOf(false);
    await press(slider, 'ArrowRight');
    await Promise.resolve();
    expect(kept).toEqual([]);
    expect(slider.hasAttribute('data-disabled')).toBe(true);
  });
});

describe('tone', () => {
  const row = (prep: Partial<Prep> = {}) => {
    const { changed, change } = changing();
    const drafts: Prep[] = [];
    const ground = mount(
      <ToneRow prep={{ ...AS_IT_CAME, ...prep }} onDraft={(draft) => drafts.push(draft)} change={change} />,
    );
    return { ground, changed, drafts };
  };

  it('says each value with its sign', () => {
    const { ground } = row({ tone: { ...AS_IT_CAME.tone, light: 12, warmth: -30 }, sharpness: 40 });
    expect([...ground.querySelectorAll('output')].map(({ textContent }) => textContent)).toEqual([
      '+12',
      '0',
      '0',
      '-30',
      '40',
    ]);
  });

  it('is black and white, or printed in the two inks of the house', async () => {
    const { ground, changed } = row();
    await click(byRole(ground, 'checkbox', 'Black and white'));
    await click(byRole(ground, 'checkbox', 'Two inks'));
    expect(changed.map(([part, name]) => [part.tone?.monochrome, part.tone?.inks, name])).toEqual([
      [true, null, 'black and white'],
      [false, { dark: '#172126', light: '#f7efe0' }, 'two inks'],
    ]);
  });

  it('shows the inks only while there are two', () => {
    const inks = { dark: '#101010', light: '#fefefe' };
    expect(row().ground.querySelectorAll('[type=color]')).toHaveLength(0);
    expect(row({ tone: { ...AS_IT_CAME.tone, inks } }).ground.querySelectorAll('[type=color]')).toHaveLength(
      2,
    );
  });
});

describe('the ground of a transparent picture', () => {
  it('is paper at first, and taken away again', async () => {
    const { changed, change } = changing();
    const laid = (ground: string | null) =>
      mount(
        <GroundRow
          prep={{ ...AS_IT_CAME, backgroundColour: ground }}
          onDraft={() => undefined}
          change={change}
        />,
      );
    await click(byRole(laid(null), 'checkbox', 'Laid on a colour where it is transparent'));
    await click(byRole(laid('#336699'), 'checkbox', 'Laid on a colour where it is transparent'));
    expect(changed).toEqual([
      [{ backgroundColour: '#ffffff' }, 'its ground'],
      [{ backgroundColour: null }, 'its ground'],
    ]);
  });
});

describe('the steps', () => {
  const row = (prep: Partial<Prep>, isEditable = true) => {
    const { changed, change } = changing();
    const { kept, onKeep } = keeping();
    const ground = mount(
      <StepsRow prep={{ ...AS_IT_CAME, ...prep }} isEditable={isEditable} change={change} onKeep={onKeep} />,
    );
    return { ground, changed, kept };
  };

  it('are sentences that are switched off and on without being forgotten', async () => {
    const { ground, changed } = row({ turn: 90, straighten: -12, disabledSteps: ['straighten'] });
    expect(statesOf(ground, 'checkbox')).toEqual([
      'on: Turned by 90° clockwise.',
      'off: Straightened by -1.2°.',
    ]);
    for (const box of allOf(ground, 'checkbox')) await click(box);
    expect(changed).toEqual([
      [{ disabledSteps: ['straighten', 'turn'] }, 'switching a step off'],
      [{ disabledSteps: [] }, 'switching a step on'],
    ]);
  });

  it('go all at once, and are none on a piece as it came', async () => {
    const { ground, kept } = row({ mirror: true, straighten: 12 });
    await click(button(ground, 'Revert to the original'));
    expect(kept).toEqual([[AS_IT_CAME, 'reverting to the original']]);
    await click(button(row({ mirror: true }).ground, 'Undo turn'));
    expect(row({}).ground.textContent).toContain('Nothing is done to it. The original stays as it is.');
  });

  it('are only read by those who may not change them', () => {
    const { ground } = row({ turn: 90 }, false);
    expect(allOf(ground, 'checkbox').map((box) => box.hasAttribute('disabled'))).toEqual([true]);
    expect(allOf(ground, 'button')).toEqual([]);
  });
});
