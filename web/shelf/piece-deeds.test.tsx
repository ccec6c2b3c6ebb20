// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { Asset } from '#api/assets.ts';
import { button, click, mount, unmount } from '../mounted.tsx';
import { drawn, exampleAsset, wordsOf } from '../testing.tsx';
import { PieceDeeds, ThrowAway } from './piece-deeds.tsx';

afterEach(unmount);

const TIDES = { id: 'tides', title: 'Tides this week' };

describe('what can be done with a piece', () => {
  const deeds = (change: Partial<Omit<Asset, 'label'>>, isEditable = true, pins: readonly string[] = []) =>
    wordsOf(
      drawn(
        <PieceDeeds
          asset={exampleAsset(change)}
          isEditable={isEditable}
          replacedUnder={null}
          onGone={() => undefined}
        />,
        [[['pins'], pins]],
      ),
    );

  it('depends on where it is', () => {
    expect(deeds({})).toBe('Pin Throw it away');
    expect(deeds({ foldedInto: 'bittern' })).toContain('Unfold it');
    expect(deeds({ deletedAt: '2026-03-14T09:00:00.000Z' })).toMatch(/kept for 30 days\. Bring it back$/);
  });

  it('is little for who may only look', () => {
    expect(deeds({ foldedInto: 'bittern' }, false)).toBe('Pin');
    expect(deeds({ deletedAt: '2026-03-14T09:00:00.000Z' }, false)).toBe('');
  });
});

describe('throwing away', () => {
  function throwing(...assets: readonly Asset[]) {
    let thrown = 0;
    const onThrow = async () => {
      thrown += 1;
    };
    const ground = mount(<ThrowAway assets={assets} words="Throw away" onThrow={onThrow} />);
    return { ground, thrown: () => thrown };
  }

  it('is done at once where no page uses it', async () => {
    const { ground, thrown } = throwing(exampleAsset());
    await click(button(ground, 'Throw away'));
    expect(thrown()).toBe(1);
  });

  it('shows the pages first, each once, and may be left', async () => {
    const { ground, thrown } = throwing(
      exampleAsset({ usedOn: [TIDES] }),
      exampleAsset({ id: 'b', usedOn: [TIDES, { id: 'untitled', title: '' }] }),
    );
    await click(button(ground, 'Throw away'));
    const asked = document.querySelector('[role="alertdialog"]');
    if (!(asked instanceof HTMLElement)) throw new Error('Nothing was asked.');
    expect(wordsOf(asked.innerHTML)).toContain('missing on these 2 pages');
    expect([...asked.querySelectorAll('li')].map(({ textContent }) => textContent)).toEqual([
      'Tides this week',
      'Untitled page',
    ]);
    await click(button(asked, 'Leave it'));
    expect(thrown()).toBe(0);
    await click(button(ground, 'Throw away'));
    await click(button(document.body, 'Throw away all the same'));
    expect(thrown()).toBe(1);
  });
});
