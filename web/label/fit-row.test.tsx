// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { columnRoom } from '#core/page/room.ts';
import { examplePlacement, PLAIN_RULES } from '#core/page/testing.ts';
import { byRole, click, control, mount, unmount, write } from '../mounted.tsx';
import { FitRow } from './fit-row.tsx';

afterEach(unmount);

function rowOf(placement: Placement) {
  const changes: (readonly [Partial<Placement>, string])[] = [];
  const ground = mount(
    <FitRow
      use={{
        pageId: 'page',
        placement,
        room: columnRoom(PLAIN_RULES),
        change: (change, name) => changes.push([change, name]),
        paragraphs: 3,
        paragraph: 1,
        move: () => undefined,
        remove: () => undefined,
      }}
      rules={PLAIN_RULES}
      isOpen={false}
      isEditable={true}
      onToggle={() => undefined}
    />,
  );
  return { ground, changes };
}

/** A row whose changes hold, as on a page. */
function Changing() {
  const [placement, setPlacement] = useState(
    examplePlacement('beside-left', { width: { unit: 'px', value: 300 } }),
  );
  const use = {
    pageId: 'page',
    placement,
    room: columnRoom(PLAIN_RULES),
    change: (change: Partial<Placement>) => setPlacement({ ...placement, ...change }),
    paragraphs: 3,
    paragraph: 1,
    move: () => undefined,
    remove: () => undefined,
  };
  return <FitRow use={use} rules={PLAIN_RULES} isOpen={false} isEditable={true} onToggle={() => undefined} />;
}

describe('the width of a placement', () => {
  it.each([
    ['480', { unit: 'px', value: 480 }],
    ['480 px', { unit: 'px', value: 480 }],
    ['50%', { unit: '%', value: 50 }],
    ['33,5 %', { unit: '%', value: 33.5 }],
  ])('is written as %s', async (text, width) => {
    const { ground, changes } = rowOf(examplePlacement('beside-left'));
    await write(control(ground, 'Width'), text);
    expect(changes).toEqual([[{ width }, 'changing the width']]);
  });

  it.each([
    ['wide', 'A width is written as 480 or 46%.'],
    ['12', 'Between 40 and 4,000 px.'],
    ['120%', 'Between 5% and 100% of the column.'],
  ])('that is %s is refused with its reason', async (text, reason) => {
    const { ground, changes } = rowOf(examplePlacement('beside-left'));
    await write(control(ground, 'Width'), text);
    expect(changes).toEqual([]);
    expect(ground.querySelector('[role="alert"]')?.textContent).toBe(reason);
  });

  it('keeps the focus where it was written, when Enter has changed it', async () => {
    const ground = mount(<Changing />);
    for (const [name, text] of [
      ['Width', '480'],
      ['Left', '12'],
    ] as const) {
      const field = control(ground, name);
      await write(field, text, 'enter');
      expect(document.activeElement).toBe(field);
      expect(control(ground, name)).toBe(field);
      expect(field.value).toContain(text);
    }
  });

  it('of one as wide as the column puts it in the centre', async () => {
    const { ground, changes } = rowOf(examplePlacement('column'));
    await write(control(ground, 'Width'), '400');
    expect(changes[0]?.[0]).toMatchObject({ position: 'centred', width: { unit: 'px', value: 400 } });
  });
});

describe('its position', () => {
  it('is one of six, each chosen with sensible margins', async () => {
    const { ground, changes } = rowOf(examplePlacement('column'));
    await click(byRole(ground, 'radio', 'Beside right'));
    expect(changes[0]?.[0]).toMatchObject({ position: 'beside-right', margins: null });
    expect(changes[0]?.[1]).toBe('placing it beside right');
  });
});
