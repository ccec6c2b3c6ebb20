// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { button, click, mount, unmount } from '../mounted.tsx';
import { AltCheck } from './alt-check.tsx';

afterEach(unmount);

function shown(text: string, linked = false) {
  const deeds: unknown[] = [];
  const ground = mount(
    <AltCheck
      text={text}
      caption="Waiting out the tide."
      linked={linked}
      onText={(mended) => deeds.push(mended)}
      onDecorative={() => deeds.push('decorative')}
    />,
  );
  return { ground, deeds };
}

describe('an alt text while it is written', () => {
  it('is left alone where nothing is wrong, or nothing is said yet', () => {
    expect(shown('A heron waits in the reeds.').ground.textContent).toBe('');
    unmount();
    expect(shown('  ').ground.textContent).toBe('');
  });

  it.each([
    ['Picture of a heron', 'A heron'],
    ['A <b>heron</b> in the reeds', 'A heron in the reeds'],
  ])('“%s” is mended at a press', async (text, mended) => {
    const { ground, deeds } = shown(text);
    await click(button(ground, 'Leave it out'));
    expect(deeds).toEqual([mended]);
  });

  it('that says that it decorates becomes decorative, but not where it is a link', async () => {
    const { ground, deeds } = shown('Decorative image');
    await click(button(ground, 'It is decorative'));
    expect(deeds).toEqual(['decorative']);
    unmount();
    expect(shown('Decorative image', true).ground.querySelector('button')).toBeNull();
  });

  it('says what has to be written anew', () => {
    const { ground } = shown('waiting out the tide');
    expect(ground.textContent).toContain('repeats the caption');
    expect(ground.querySelector('button')).toBeNull();
  });
});
