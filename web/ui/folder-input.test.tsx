// @vitest-environment jsdom
import { act, useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { foldersQuery, targetsQuery } from '../api/queries.ts';
import { allOf, control, mount, press, unmount, write } from '../mounted.tsx';
import { FolderInput, offeredFor } from './folder-input.tsx';

afterEach(unmount);

const MADE = ['birds', 'birds/heron', 'boats', 'events'];

function Folder({ onLeave }: { readonly onLeave?: () => void }) {
  const [folder, setFolder] = useState('');
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: stands for the form that Escape leaves
    <div onKeyDown={(event) => event.key === 'Escape' && onLeave?.()}>
      <FolderInput aria-label="Folder" value={folder} onChange={setFolder} />
    </div>
  );
}

function field(onLeave?: () => void) {
  const ground = mount(<Folder {...(onLeave ? { onLeave } : {})} />, [
    [foldersQuery.queryKey, MADE.map((path) => ({ path, pieces: 0 }))],
    [targetsQuery.queryKey, []],
  ]);
  return control(ground, 'Folder');
}
const offered = () => allOf(document, 'option').map(({ textContent }) => textContent);

describe('a field for a folder', () => {
  it('offers the folders in which what is typed occurs, and takes the one that is chosen', async () => {
    const input = field();
    await write(input, 'bir', 'stay');
    expect(input.value).toBe('bir');
    expect(offered()).toEqual(['birds', 'birds/heron']);
    for (const key of ['ArrowDown', 'ArrowDown', 'Enter']) await press(input, key);
    expect(input.value).toBe('birds/heron');
    expect(offered()).toEqual([]);
  });

  it('keeps what was typed when it is left, whatever was highlighted', async () => {
    const input = field();
    await write(input, 'bo', 'stay');
    await press(input, 'ArrowDown');
    await write(input, 'boa');
    expect(input.value).toBe('boa');
    expect(offered()).toEqual([]);
  });

  it('sends off what is typed by Enter, as long as nothing is highlighted', async () => {
    const input = field();
    await write(input, 'bi', 'stay');
    const event = new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true });
    act(() => void input.dispatchEvent(event));
    expect([event.defaultPrevented, input.value, offered().length]).toEqual([false, 'bi', 0]);
  });

  it('closes its list by Escape before what it stands in', async () => {
    let left = 0;
    const input = field(() => {
      left += 1;
    });
    await write(input, 'b', 'stay');
    await press(input, 'Escape');
    expect([offered().length, left, input.value]).toEqual([0, 0, 'b']);
    await press(input, 'Escape');
    expect(left).toBe(1);
  });

  it.each([
    ['', MADE],
    ['her bird', ['birds/heron']],
    ['birds', MADE],
    ['nothing', []],
  ])('offers for "%s" %j', (typed, expected) => {
    expect(offeredFor(typed, MADE)).toEqual(expected);
  });
});
