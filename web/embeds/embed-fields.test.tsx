// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { entryById } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { settingsOf } from '#core/embed/settings.ts';
import { HOSTS, readOne } from '#core/embed/testing.ts';
import { EN } from '#core/messages/en.ts';
import { byRole, choose, click, control, mount, unmount, write } from '../mounted.tsx';
import { EmbedFields } from './what-it-is.tsx';

afterEach(unmount);

const MESSY =
  '<iframe src="https://lanternreel.example/play/a?start=80&pace=2" allow="camera; microphone"></iframe>';

/** The fields of what was pasted, and what is changed by them. */
function fields(pasted: string) {
  const { embed, unknown, notGiven } = readOne(pasted);
  const changes: (readonly [Partial<Embed>, string])[] = [];
  const ground = mount(
    <EmbedFields
      embed={embed}
      entry={entryById(embed.host, HOSTS)}
      settings={settingsOf(embed, HOSTS)}
      unknown={unknown}
      notGiven={notGiven}
      messages={EN}
      change={(change, name) => changes.push([change, name])}
    />,
  );
  return { ground, changes, embed };
}

describe('a time', () => {
  it.each([
    ['1:30', '90', 'leave'],
    ['2m', '120', 'enter'],
    ['45', '45', 'leave'],
  ] as const)('is written as %s', async (text, start, then) => {
    const { ground, changes, embed } = fields(MESSY);
    await write(control(ground, 'Start at'), text, then);
    expect(changes).toEqual([[{ parameters: { ...embed.parameters, start } }, 'start at']]);
  });

  it('that is none stays in its field with the reason, and changes nothing', async () => {
    const { ground, changes } = fields(MESSY);
    const field = control(ground, 'Start at');
    await write(field, 'soon');
    expect(changes).toEqual([]);
    expect(field.value).toBe('soon');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(ground.querySelector('[role="alert"]')?.textContent).toBe(
      'A time is written as 1:20, or as seconds.',
    );
    await write(field, '0:05');
    expect(ground.querySelector('[role="alert"]')).toBeNull();
    expect(changes).toHaveLength(1);
  });

  it('that is emptied is left out of the address, and one that is left as it was changes nothing', async () => {
    const { ground, changes } = fields(MESSY);
    await write(control(ground, 'Start at'), '1:20');
    expect(changes).toEqual([]);
    await write(control(ground, 'Start at'), '');
    expect(changes[0]?.[0].parameters).toEqual({ more: '0', chrome: 'less' });
  });
});

describe('the other settings', () => {
  it('are switched and chosen', async () => {
    const { ground, changes } = fields(MESSY);
    await click(byRole(ground, 'checkbox', 'More films at the end'));
    expect(changes.at(-1)?.[0].parameters).toMatchObject({ more: '1' });
    await choose(byRole(ground, 'combobox', 'Its own controls'), 'All of them');
    expect(changes.at(-1)?.[0].parameters).toMatchObject({ chrome: 'full' });
    await choose(byRole(ground, 'combobox', 'Its own controls'), 'As its host likes');
    expect(changes.at(-1)?.[0].parameters).not.toHaveProperty('chrome');
  });

  it('that nobody knows come along when they are ticked', async () => {
    const { ground, changes } = fields(MESSY);
    await click(byRole(ground, 'checkbox', 'Keep pace=2, of which nobody knows what it does'));
    expect(changes).toEqual([[{ kept: { pace: '2' } }, 'keeping pace']]);
  });

  it('allow one thing that it asked for, and nothing besides', async () => {
    const { ground, changes } = fields(MESSY);
    await click(byRole(ground, 'checkbox', 'It may use the camera'));
    expect(changes).toEqual([[{ allowed: ['camera'] }, 'what it may do']]);
  });

  it('let it load at once', async () => {
    const { ground, changes } = fields(MESSY);
    await click(byRole(ground, 'checkbox', 'Load only when clicked'));
    expect(changes).toEqual([[{ loadOnClick: false }, 'load only when clicked']]);
  });
});

describe('its title and its shape', () => {
  it('are kept when the field is left', async () => {
    const { ground, changes } = fields(MESSY);
    await write(control(ground, 'Title for screen readers'), '  Film: the eel pass ');
    expect(changes).toEqual([[{ title: 'Film: the eel pass' }, 'the title for screen readers']]);
    await write(control(ground, 'Shape, or height'), '4:3', 'enter');
    expect(changes.at(-1)).toEqual([{ shape: { kind: 'ratio', across: 4, down: 3 } }, 'the shape']);
  });

  it('that are nonsense are told of', async () => {
    const { ground, changes } = fields(MESSY);
    await write(control(ground, 'Shape, or height'), 'wide');
    expect(changes).toEqual([]);
    expect(ground.querySelector('[role="alert"]')?.textContent).toBe(
      'A shape is written as 16:9, a height as 520.',
    );
  });
});
