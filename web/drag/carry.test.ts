// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { spoken } from '../ui/spoken.ts';
import { carry, carrying } from './carry.ts';
import type { Dragged } from './dragged.ts';
import { addPlace, type Place } from './place.ts';

const deeds: string[] = [];
let away: (() => void)[] = [];

/** A place of some spots, in the order of the document in which it was added. */
function place(names: readonly string[], more: Partial<Place> = {}): HTMLElement {
  const element = document.createElement('div');
  element.checkVisibility = () => true;
  document.body.append(element);
  const spots = names.map((name) => ({
    say: `into ${name}`,
    name,
    mark: () => void deeds.push(`mark ${name}`),
    put: () => void deeds.push(`put ${name}`),
  }));
  const made: Place = {
    takes: ({ from }) => from === 'tray',
    spotAt: () => null,
    spots: () => spots,
    unmark: () => undefined,
    ...more,
  };
  away.push(addPlace(element, () => made));
  return element;
}

const HERON: Dragged = { from: 'tray', ids: ['heron'] };
function takeUp(dragged: Dragged = HERON): void {
  carry({ dragged, words: 'Heron at dawn', isMovable: true });
  vi.setSystemTime(Date.now() + 300);
}

function press(key: string, more: KeyboardEventInit = {}): KeyboardEvent {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  document.body.dispatchEvent(event);
  return event;
}

beforeEach(() => {
  vi.useFakeTimers();
  deeds.length = 0;
  away = [];
});
afterEach(() => {
  if (carrying.state) press('Escape');
  for (const take of away) take();
  document.body.replaceChildren();
  vi.useRealTimers();
});

describe('carrying by keys', () => {
  it('goes from spot to spot by arrows and puts down by Enter, and says each step', () => {
    place(['harbour', 'boats', 'birds']);
    takeUp();
    expect(spoken.state).toMatch(/^Carrying Heron at dawn, into harbour, 1 of 3\. Arrows and Tab go on/u);
    press('ArrowDown');
    expect(spoken.state).toBe('into boats, 2 of 3');
    press('ArrowRight');
    press('ArrowRight');
    expect(spoken.state.trim()).toBe('into birds, 3 of 3');
    press('ArrowUp');
    press('Enter');
    expect(deeds.at(-1)).toBe('put boats');
    expect(spoken.state).toBe('Heron at dawn put into boats.');
    expect(carrying.state).toBeNull();
  });

  it('goes from place to place by Tab, and begins in each where it most likely goes', () => {
    place(['a1', 'a2', 'a3'], { first: () => 2 });
    place(['b1', 'b2']);
    place(['no'], { takes: () => false });
    takeUp();
    expect(carrying.state?.where).toBe('into a3, 3 of 3');
    press('Tab');
    expect(carrying.state?.where).toBe('into b1, 1 of 2');
    press('Tab');
    expect(carrying.state?.where).toBe('into a3, 3 of 3');
    press('Tab', { shiftKey: true });
    press('End');
    expect(carrying.state?.where).toBe('into b2, 2 of 2');
  });

  it('goes to the next spot whose name begins with a letter', () => {
    place(['harbour', 'boats', 'birds', 'maps']);
    takeUp();
    press('b');
    press('B');
    expect(carrying.state?.where).toBe('into birds, 3 of 4');
    press('b');
    expect(carrying.state?.where).toBe('into boats, 2 of 4');
    press('x');
    expect(carrying.state?.where).toBe('into boats, 2 of 4');
  });

  it.each(['Escape', 'a press of the pointer'])('puts back by %s', (how) => {
    place(['harbour']);
    takeUp();
    if (how === 'Escape') press('Escape');
    else document.body.dispatchEvent(new Event('pointerdown', { bubbles: true }));
    expect(spoken.state).toBe('Heron at dawn put back.');
    expect(carrying.state).toBeNull();
    expect(deeds.some((deed) => deed.startsWith('put'))).toBe(false);
  });

  it('keeps keys from everything else, except those with Ctrl', () => {
    place(['harbour']);
    takeUp();
    const heard: string[] = [];
    const listen = (event: KeyboardEvent) => void heard.push(event.key);
    document.body.addEventListener('keydown', listen);
    expect(press('Delete').defaultPrevented).toBe(true);
    expect(press('r', { ctrlKey: true }).defaultPrevented).toBe(false);
    press('Escape');
    expect(press('Delete').defaultPrevented).toBe(false);
    document.body.removeEventListener('keydown', listen);
    expect(heard).toEqual(['r', 'Delete']);
  });

  it('is put back by a letter right after it, which is text that somebody types', () => {
    place(['oars', 'boats']);
    carry({ dragged: HERON, words: 'Heron at dawn', isMovable: true });
    press('o');
    expect(carrying.state).toBeNull();
    expect(deeds).not.toContain('put oars');
  });

  it('says so where no place takes it', () => {
    place(['harbour']);
    takeUp({ from: 'shelf', ids: ['heron'] });
    expect(spoken.state).toBe('Nothing on this screen takes Heron at dawn.');
    expect(carrying.state).toBeNull();
  });

  it('takes nothing up for those who may not move it', () => {
    place(['harbour']);
    carry({ dragged: HERON, words: 'Heron', isMovable: false });
    expect(carrying.state).toBeNull();
  });

  it('puts back what no place takes any longer', () => {
    place(['harbour', 'boats']);
    takeUp();
    for (const take of away) take();
    press('ArrowDown');
    expect(carrying.state).toBeNull();
    expect(spoken.state).toBe('Heron at dawn put back.');
  });
});
