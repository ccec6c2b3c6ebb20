// @vitest-environment jsdom
import { afterEach, expect, it, vi } from 'vitest';
import { mount, unmount } from '../mounted.tsx';
import { drawn, wordsOf } from '../testing.tsx';
import { LastResort } from './last-resort.tsx';
import { Failed } from './screen-fault.tsx';

afterEach(unmount);

function Broken(): never {
  throw new Error('nothing can be drawn');
}

it('what failed says that what was typed is kept, and what to do', () => {
  const html = drawn(<Failed error={new Error('tide is undefined')} />);
  expect(wordsOf(html)).toContain('This screen failed');
  expect(wordsOf(html)).toContain('what you typed on a page lies on this machine');
  expect(wordsOf(html)).toContain('tide is undefined');
});

it('a screen that is not there any more is said to be of the Placard before', () => {
  const error = new TypeError('Failed to fetch dynamically imported module: /assets/rules-screen-1.js');
  expect(wordsOf(drawn(<Failed error={error} />))).toContain('Placard was renewed');
});

it('where all fails, the window is not left empty', () => {
  const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined);
  const ground = mount(
    <LastResort>
      <Broken />
    </LastResort>,
  );
  expect(ground.querySelector('[role="alert"]')?.textContent).toContain('nothing can be drawn');
  quiet.mockRestore();
});
