// @vitest-environment jsdom
import { act } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { button, click, control, mount, unmount, write } from '../mounted.tsx';
import { NameCell } from './name-cell.tsx';
import { exampleRow } from './testing.ts';

afterEach(unmount);

const { before } = exampleRow();
const ROW = exampleRow({ after: { ...before, stem: 'reed-cutting-01' } });

function cell(row = ROW) {
  const written: (string | null)[] = [];
  const ground = mount(<NameCell row={row} onStem={(stem) => void written.push(stem)} />);
  return { ground, written };
}

const open = (ground: HTMLElement) => click(button(ground, 'reed-cutting-01: write another name'));
const submit = (ground: HTMLElement) =>
  act(() => {
    ground.querySelector('form')?.requestSubmit();
  });

describe('the name of a row', () => {
  it('is written by hand when it is pressed', async () => {
    const { ground, written } = cell();
    await open(ground);
    const field = control(ground, 'Name');
    expect(document.activeElement).toBe(field);
    expect(field.value).toBe('reed-cutting-01');
    await write(field, 'bundles-drying');
    expect(written).toEqual(['bundles-drying']);
  });

  it('goes back to the run’s naming when it is emptied', async () => {
    const { ground, written } = cell();
    await open(ground);
    await write(control(ground, 'Name'), '  ');
    expect(written).toEqual([null]);
  });

  it('has hyphens for spaces as it is typed, and says while it is none', async () => {
    const faults: boolean[] = [];
    const ground = mount(
      <NameCell row={ROW} onStem={() => undefined} onFault={(isFaulty) => void faults.push(isFaulty)} />,
    );
    await open(ground);
    await write(control(ground, 'Name'), 'bundles drying ', 'stay');
    expect(control(ground, 'Name').value).toBe('bundles-drying-');
    await write(control(ground, 'Name'), 'con');
    await write(control(ground, 'Name'), 'bundles drying');
    expect(faults).toEqual([true, false]);
  });

  it.each(['Bundles', 'bundles--drying', '-bundles', 'con', '2026'])(
    'stays in the field with the reason where the rule does not allow it: “%s”',
    async (wrong) => {
      const { ground, written } = cell();
      await open(ground);
      await write(control(ground, 'Name'), wrong);
      expect(written).toEqual([]);
      expect(control(ground, 'Name').value).toBe(wrong);
      expect(ground.querySelector('[role="alert"]')?.textContent).not.toBe('');
      await write(control(ground, 'Name'), 'bundles');
      submit(ground);
      expect(written).toEqual(['bundles']);
    },
  );

  it('is nobody’s wish when it was left as it was, or left by Escape', async () => {
    const { ground, written } = cell();
    await open(ground);
    await write(control(ground, 'Name'), 'reed-cutting-01');
    await open(ground);
    act(() => {
      control(ground, 'Name').dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }));
    });
    expect(button(ground, 'reed-cutting-01: write another name')).toBeDefined();
    expect(written).toEqual([]);
  });

  it('says where the piece will lie, and its title, where these change', () => {
    const { ground } = cell({ ...ROW, after: { ...ROW.after, folder: 'events/open-day', title: 'Bundles' } });
    expect(ground.textContent).toContain('in events / open-day');
    expect(ground.textContent).toContain('“Bundles”');
    expect(cell().ground.textContent).not.toContain('in ');
  });
});
