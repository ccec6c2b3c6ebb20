// @vitest-environment jsdom
import { fireEvent } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { PageSummary } from '#api/pages.ts';
import { allOf, mount, unmount } from '../mounted.tsx';
import { FindOrDo } from './find-or-do.tsx';

vi.hoisted(() => {
  // The theme asks for it as soon as it is loaded; jsdom prefers nothing.
  globalThis.matchMedia ??= () => Object.assign(new EventTarget(), NO_PREFERENCE);
  const NO_PREFERENCE = {
    matches: false,
    media: '',
    onchange: null,
    addListener: () => {},
    removeListener: () => {},
  };
});

afterEach(() => {
  unmount();
  vi.restoreAllMocks();
});

const page = (id: string, title: string): PageSummary => ({
  id,
  title,
  targetName: 'Reserve site',
  language: null,
  version: 1,
  due: null,
  updatedAt: '2026-03-12T09:00:00.000Z',
  updatedBy: 'Mara Oduya',
  stations: [],
  thumb: null,
  stops: 0,
  fault: null,
});

const ME = { id: 'mara', name: 'Mara Oduya', email: 'mara@saltmere.example', role: 'editor' };
const LISTED = [page('9e35e-5e', 'Keys and cards'), page('p2', 'Eels in May')];

/** The palette over a Placard that lists two pages of so many, and finds an older one when it is asked for its title. */
function open(count: number): (typed: string) => Promise<string[]> {
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (address) => {
    const words = new URLSearchParams(String(address).split('?')[1]).get('words');
    const found = String(address).startsWith('/api/pages')
      ? { pages: words === 'eel pass' ? [page('p700', 'Eel pass')] : LISTED, count }
      : { assets: [], count: { exactly: 0 } };
    return new Response(JSON.stringify(found));
  });
  mount(<FindOrDo typedAhead={() => ''} isOpen onClose={() => {}} onKeys={() => {}} />, [
    [['me'], ME],
    [['pages'], { pages: LISTED, count }],
  ]);
  return async (typed) => {
    const [field] = allOf(document, 'combobox');
    if (field) fireEvent.change(field, { target: { value: typed } });
    await new Promise((resolve) => setTimeout(resolve, 30));
    return allOf(document, 'option').map((one) => one.textContent.trim());
  };
}

it('offers what is named by the words as they are read, not by letters of an ID', async () => {
  const offered = open(2);
  expect(await offered('geese')).toEqual(['Gather pictures of geese']);
  expect(await offered('cards keys')).toEqual([
    'Keys and cards Reserve site',
    'Gather pictures of cards keys',
  ]);
  expect((await offered('eel'))[0]).toBe('Eels in May Reserve site');
});

it('reads an address that is typed', async () => {
  expect(await open(2)('https://news.saltmere.example/a')).toEqual(['Read this address for pictures']);
});

it('finds pages that were changed before those that are listed, and their proofs', async () => {
  const offered = open(612);
  await offered('eel pass');
  expect((await offered('eel pass'))[0]).toBe('Eel pass Reserve site');
  expect(await offered('proof eel pass')).toContain('Proof of Eel pass');
});
