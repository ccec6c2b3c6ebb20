// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, expect, it } from 'vitest';
import { mount, press, unmount } from '../mounted.tsx';
import { TypedMeanwhile } from './typed-meanwhile.tsx';

afterEach(unmount);

function Ground() {
  const [typed, setTyped] = useState('');
  return (
    <>
      <output>{typed}</output>
      <TypedMeanwhile onType={setTyped} />
    </>
  );
}

it('what is typed before the field is there is not lost', () => {
  const ground = mount(<Ground />);
  for (const key of ['h', 'e', 'x', 'Backspace', 'r', 'o', 'n', 'Shift', 'ArrowDown'])
    press(document.body, key);
  expect(ground.textContent).toBe('heron');
});
