// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { allOf, control, mount, press, unmount, write } from '../mounted.tsx';
import { InUseInput } from './in-use-line.tsx';

afterEach(unmount);

function Words({ field, at }: { readonly field: 'keywords' | 'place'; readonly at: string }) {
  const [value, setValue] = useState(at);
  return <InUseInput aria-label="Words" listOf="In use" field={field} value={value} onChange={setValue} />;
}

const offered = () => allOf(document, 'option').map(({ textContent }) => textContent);

describe('a field in which what is in use is offered', () => {
  it('completes the key word that is typed last, and leaves those before it', async () => {
    const ground = mount(<Words field="keywords" at="reed, dawn" />, [
      [
        ['in-use', 'keywords', 'he'],
        ['heron', 'Reed', 'heath'],
      ],
    ]);
    const input = control(ground, 'Words');
    await write(input, 'reed, dawn, he', 'stay');
    // What is said already is not offered again, in whatever case.
    expect(offered()).toEqual(['heron', 'heath']);
    await press(input, 'ArrowDown');
    await press(input, 'Enter');
    expect(input.value).toBe('reed, dawn, heron, ');
    expect(offered()).toEqual([]);
  });

  it('takes the place of what is typed where one value is meant', async () => {
    const ground = mount(<Words field="place" at="" />, [
      [
        ['in-use', 'place', 'sal'],
        ['Saltmere', 'Saltmere, north wall'],
      ],
    ]);
    const input = control(ground, 'Words');
    await write(input, 'sal', 'stay');
    for (const key of ['ArrowDown', 'ArrowDown', 'Enter']) await press(input, key);
    expect(input.value).toBe('Saltmere, north wall');
  });

  it('offers nothing over a single letter', async () => {
    const ground = mount(<Words field="place" at="" />, [[['in-use', 'place', 's'], ['Saltmere']]]);
    await write(control(ground, 'Words'), 's', 'stay');
    expect(offered()).toEqual([]);
  });
});
