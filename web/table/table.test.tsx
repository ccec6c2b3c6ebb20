// @vitest-environment jsdom
import { userEvent } from '@testing-library/user-event';
import { afterEach, describe, expect, it } from 'vitest';
import { allOf, button, byRole, click, mount, unmount } from '../mounted.tsx';
import { Table } from './table.tsx';

afterEach(unmount);

interface Piece {
  readonly id: string;
  readonly px: number;
}
const PIECES: readonly Piece[] = [
  { id: 'heron', px: 900 },
  { id: 'bittern', px: 4000 },
  { id: 'avocet', px: 80 },
];

function pieces() {
  const chosen: (readonly [string, boolean])[] = [];
  const ground = mount(
    <Table
      about="Pieces"
      rows={PIECES}
      keyOf={({ id }) => id}
      columns={[
        { id: 'name', heading: 'Name', sortBy: ({ id }) => id, cell: ({ id }) => id },
        {
          id: 'px',
          heading: 'Width',
          sortBy: ({ px }) => px,
          cell: ({ px }) => <button type="button">{px}</button>,
        },
        { id: 'note', heading: 'Note', cell: () => 'as it came' },
      ]}
      isDue={({ px }) => px < 100}
      instead={{ from: 1, say: ({ px }) => (px < 100 ? 'too small' : null) }}
      below={({ id }) => (id === 'heron' ? 'stands in the reeds' : null)}
      chosen={{
        heading: 'Takes part',
        name: ({ id }) => `${id} takes part`,
        isChosen: ({ id }) => id === 'heron',
        isFixed: ({ px }) => px < 100,
        onChosen: ({ id }, isOn) => chosen.push([id, isOn]),
      }}
    />,
  );
  return { ground, chosen };
}

/** The words of each row but the head. */
const rows = (ground: HTMLElement) =>
  [...ground.querySelectorAll('tbody tr')].map(({ textContent }) => textContent);

describe('a table', () => {
  it('says its rows, what is said instead, and what opens below', () => {
    expect(rows(pieces().ground)).toEqual([
      'heron900as it came',
      'stands in the reeds',
      'bittern4000as it came',
      'avocettoo small',
    ]);
  });

  it('is sorted by a heading, numbers as numbers, and back to how it came', async () => {
    const { ground } = pieces();
    const names = () =>
      rows(ground)
        .map((words) => /^[a-z]+?(?=\d|too)/.exec(words ?? '')?.[0])
        .filter(Boolean);
    await click(button(ground, 'Name'));
    expect(names()).toEqual(['avocet', 'bittern', 'heron']);
    await click(button(ground, 'Width'));
    const [first] = names();
    await click(button(ground, 'Width'));
    expect([first, names()[0]].sort()).toEqual(['avocet', 'bittern']);
    expect(ground.querySelector('[aria-sort]')?.textContent).toBe('Width');
    await click(button(ground, 'Width'));
    expect(names()).toEqual(['heron', 'bittern', 'avocet']);
  });

  it('has its rows chosen by their boxes, but for those that cannot be', async () => {
    const { ground, chosen } = pieces();
    await click(byRole(ground, 'checkbox', 'heron takes part'));
    await click(byRole(ground, 'checkbox', 'bittern takes part'));
    expect(chosen).toEqual([
      ['heron', false],
      ['bittern', true],
    ]);
    expect(byRole(ground, 'checkbox', 'avocet takes part').hasAttribute('disabled')).toBe(true);
  });

  it('is walked through by arrows, from cell to cell, to the control in it', async () => {
    const { ground } = pieces();
    const [box] = allOf(ground, 'checkbox');
    box?.focus();
    const seen: unknown[] = [];
    for (const key of ['ArrowRight', 'ArrowRight', 'ArrowUp', 'ArrowLeft']) {
      await userEvent.keyboard(`{${key}}`);
      seen.push(document.activeElement?.textContent);
    }
    expect(seen).toEqual(['heron', '900', 'Width', 'Name']);
    await userEvent.keyboard('{ArrowUp}');
    expect(document.activeElement?.textContent).toBe('Name');
  });
});
