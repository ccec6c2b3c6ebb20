// @vitest-environment jsdom
import { afterEach, expect, it, vi } from 'vitest';
import type { PageSummary } from '#api/pages.ts';
import { allOf, control, mount, unmount, write } from '../mounted.tsx';
import { drawn, wordsOf } from '../testing.tsx';
import { PagesScreen } from './pages-screen.tsx';

afterEach(() => {
  unmount();
  vi.restoreAllMocks();
});

const summary = (at: number, change: Partial<PageSummary> = {}): PageSummary => ({
  id: `p${at}`,
  title: `Tide table ${at}`,
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
  ...change,
});
const some = (count: number, from = 0) => Array.from({ length: count }, (_, at) => summary(from + at));
const ME = { id: 'mara', name: 'Mara Oduya', email: 'mara@saltmere.example', role: 'editor' };
const answered = (pages: readonly PageSummary[], count = pages.length) =>
  [
    [['me'], ME],
    [['pages'], { pages, count }],
  ] as const;
const shown = (pages: readonly PageSummary[], count?: number) =>
  wordsOf(drawn(<PagesScreen />, answered(pages, count)));

it('says of each page whether it may go out, and of one that cannot be read why', () => {
  const words = shown([
    summary(0),
    summary(1, { stops: 1 }),
    summary(2, { stops: 3 }),
    summary(3, { fault: 'It is kept as it stands.' }),
  ]);
  expect(words).toMatch(/Tide table 0.*May go out\..*Tide table 1.*One thing stops sending\./);
  expect(words).toMatch(/Tide table 2.*3 things stop sending\..*Tide table 3.*It is kept as it stands\./);
  expect(words.match(/Open/g)).toHaveLength(3);
  expect(words.match(/May go out/g)).toHaveLength(1);
});

it.each([
  [0, undefined, 'No page yet', 'Words of the title'],
  [12, undefined, 'Tide table 11', 'Words of the title'],
  [13, undefined, '13 pages', 'No page yet'],
  [20, 612, 'The 20 changed last, of 612. Those before are found by their titles.', 'No page yet'],
])('%i pages of %s: says "%s", and nothing of "%s"', (listed, count, said, unsaid) => {
  const words = shown(some(listed), count);
  expect(words).toContain(said);
  expect(words).not.toContain(unsaid);
});

it('finds older ones by words of their titles, and says when there are none', async () => {
  const asked: string[] = [];
  vi.spyOn(globalThis, 'fetch').mockImplementation(async (address) => {
    asked.push(String(address));
    const words = new URLSearchParams(String(address).split('?')[1]).get('words');
    if (words === null) return new Response(JSON.stringify({ pages: some(20), count: 612 }));
    const pages = words === 'eel pass' ? [summary(700, { title: 'Eel pass' })] : [];
    return new Response(JSON.stringify({ pages, count: pages.length }));
  });
  const ground = mount(<PagesScreen />, answered(some(20), 612));
  await write(control(ground, 'Words of the title'), 'eel pass', 'stay');
  await vi.waitFor(() => expect(allOf(ground, 'listitem')).toHaveLength(1));
  expect(ground.textContent).toContain('1 of 612 pages');
  expect(asked).toContain('/api/pages?words=eel+pass');
  await write(control(ground, 'Words of the title'), 'bittern', 'stay');
  await vi.waitFor(() => expect(ground.textContent).toContain('No title holds these words.'));
  await write(control(ground, 'Words of the title'), '', 'stay');
  await vi.waitFor(() => expect(allOf(ground, 'listitem')).toHaveLength(20));
});
