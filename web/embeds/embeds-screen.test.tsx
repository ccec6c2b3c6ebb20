import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { HOSTS } from '#core/embed/testing.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { drawn, wordsOf } from '../testing.tsx';
import { EmbedsScreen } from './embeds-screen.tsx';

// What was pasted before is kept by the browser; the screen is drawn here without one.
const kept = new Map<string, string>();
beforeEach(() => {
  vi.stubGlobal('sessionStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: () => undefined,
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  kept.clear();
});

function screen(pasted: string): string {
  kept.set('placard-pasted', pasted);
  return wordsOf(
    drawn(<EmbedsScreen />, [
      [['embed-hosts'], { version: 1, ...HOSTS }],
      [['targets'], [{ id: 'reserve', version: 1, rules: PLAIN_RULES }]],
    ]),
  );
}

describe('the Embeds screen', () => {
  it('with nothing pasted says what it is for, and offers to search', () => {
    expect(screen('')).toContain('Films, maps, forms, boards and feeds of other sites come here first.');
    expect(screen('')).toContain('Find');
  });

  it('tells the whole story of one embed from what was kept', () => {
    const words = screen('https://lanternreel.example/watch/a?start=80');
    expect(words).toContain('A film at Lanternreel, on the list of trusted hosts.');
    expect(words).toContain('Plays a film, from 1:20. Its host is being asked.');
    expect(words).toContain('Put on the shelf');
    expect(words).toContain('start=80');
  });

  it('lets one of several be chosen', () => {
    const words = screen('https://lanternreel.example/watch/a\nhttps://fathomchart.example/chart/b');
    expect(words).toContain('2 things are in this text');
    expect(words).toContain('A film at Lanternreel');
  });

  it('refuses with a reason and a way out', () => {
    expect(screen('javascript:alert(1)')).toContain(
      'Only addresses that begin with https:// can be shown to readers.',
    );
    expect(screen('<script src="https://corkline.example/w.js"></script>')).toContain(
      'Under “Share” take the code called “Frame”, or the link.',
    );
    expect(screen('The eel pass opens in April.')).toContain('No address and no embed code is in this text.');
  });
});
