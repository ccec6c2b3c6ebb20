// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { NamePart } from '#core/naming/parts.ts';
import { button, click, control, mount, unmount, write } from '../mounted.tsx';
import { PatternParts } from './pattern-parts.tsx';

const PATTERN: readonly NamePart[] = [
  { part: 'subject' },
  { part: 'word', word: 'reserve' },
  { part: 'date' },
];

/** The pattern after something was done to its parts; null when nothing came of it. */
async function patternAfter(
  deed: (ground: HTMLElement) => Promise<void> | void,
  pattern = PATTERN,
): Promise<readonly NamePart[] | null> {
  let now: readonly NamePart[] | null = null;
  const ground = mount(
    <PatternParts
      pattern={pattern}
      parts={['subject', 'word', 'number']}
      onChange={(next) => {
        now = next;
      }}
    />,
  );
  await deed(ground);
  return now;
}

const parts = (pattern: readonly NamePart[] | null) => pattern?.map(({ part }) => part);

afterEach(unmount);

describe('the parts of a name', () => {
  it('change places', async () => {
    expect(parts(await patternAfter((ground) => click(button(ground, 'Move subject back'))))).toEqual([
      'word',
      'subject',
      'date',
    ]);
    expect(parts(await patternAfter((ground) => click(button(ground, 'Move date taken forward'))))).toEqual([
      'subject',
      'date',
      'word',
    ]);
  });

  it('stay where there is no further place', async () => {
    await patternAfter((ground) => {
      expect(button(ground, 'Move subject forward')).toHaveProperty('disabled', true);
      expect(button(ground, 'Move date taken back')).toHaveProperty('disabled', true);
    });
  });

  it('are left out, all but the last', async () => {
    expect(parts(await patternAfter((ground) => click(button(ground, 'Leave out a fixed word'))))).toEqual([
      'subject',
      'date',
    ]);
    await patternAfter(
      (ground) => expect(button(ground, 'Leave out subject')).toHaveProperty('disabled', true),
      [{ part: 'subject' }],
    );
  });

  it('may hold words of one’s own', async () => {
    const next = await patternAfter((ground) => write(control(ground, 'Fixed word'), 'marsh'));
    expect(next).toEqual([{ part: 'subject' }, { part: 'word', word: 'marsh' }, { part: 'date' }]);
  });
});
