// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, expect, it } from 'vitest';
import { byRole, click, mount, press, unmount } from '../mounted.tsx';
import { useTypedAhead } from './typed-ahead.ts';

afterEach(unmount);

function Ground() {
  const ahead = useTypedAhead();
  const [said, setSaid] = useState('');
  return (
    <>
      <output>{said}</output>
      <button type="button" onClick={ahead.begin}>
        Ask
      </button>
      <button type="button" onClick={() => setSaid(ahead.take())}>
        Take
      </button>
    </>
  );
}

it('what is typed from the moment a field is asked for until it is there is not lost, and nothing else is kept', async () => {
  const ground = mount(<Ground />);
  const typed = async (...keys: string[]) => {
    for (const key of keys) await press(document.body, key);
  };
  await typed('x');
  await click(byRole(ground, 'button', 'Ask'));
  await typed('h', 'e', 'x', 'Backspace', 'r', 'o', 'n', 'Shift', 'ArrowDown');
  await click(byRole(ground, 'button', 'Take'));
  expect(ground.querySelector('output')?.textContent).toBe('heron');
  await typed('y');
  await click(byRole(ground, 'button', 'Take'));
  expect(ground.querySelector('output')?.textContent).toBe('');
});
