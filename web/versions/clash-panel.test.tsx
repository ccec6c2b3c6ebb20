// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import { mergePages } from '#core/page/merge.ts';
import type { Way } from '#core/page/merge-blocks.ts';
import { examplePage, paragraph } from '#core/page/testing.ts';
import { button, click, mount, unmount } from '../mounted.tsx';
import { ClashPanel } from './clash-panel.tsx';

afterEach(unmount);

const page = (title: string, ...lines: readonly [string, string][]) => ({
  ...examplePage(...lines.map(([id, text]) => paragraph(text, id))),
  title,
});
const base = page('Tides', ['a', 'High water at noon.'], ['b', 'Low water at six.']);
const mine = page('Tides today', ['a', 'High water at one.'], ['b', 'Low water at seven.']);
const theirs = page('Tides this week', ['a', 'High water at two.'], ['b', 'Low water at eight.']);

function shown() {
  const settled: Way[][] = [];
  const saving = {
    kind: 'clash',
    theirs: { version: 2, doc: theirs, updatedBy: 'Piet Hallam', updatedAt: '2026-03-12T09:00:00.000Z' },
    clashes: mergePages(base, mine, theirs).clashes,
  } as const;
  mount(<ClashPanel saving={saving} onSettle={(wayOf) => settled.push(['title', 'a', 'b'].map(wayOf))} />);
  return settled;
}

describe('two people who changed the same places', () => {
  it('are shown each of them with the words of both', () => {
    shown();
    expect(document.body.textContent).toContain('Piet Hallam and you changed the same 3 places');
    expect(document.body.textContent).toContain('The title');
    expect([...document.querySelectorAll('del')].map(({ textContent }) => textContent)).toEqual([
      'this week',
      'two',
      'eight',
    ]);
    expect([...document.querySelectorAll('ins')].map(({ textContent }) => textContent)).toEqual([
      'today',
      'one',
      'seven',
    ]);
  });

  it('are shown a want as each of them has it', () => {
    const [own, other] = [
      { id: 'w', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null } as const,
      { id: 'w', purpose: 'Lead', shape: 'portrait', leastWidth: 400, filledBy: 'gone' } as const,
    ];
    const saving = {
      kind: 'clash',
      theirs: { version: 2, doc: theirs, updatedBy: 'Piet Hallam', updatedAt: '2026-03-12T09:00:00.000Z' },
      clashes: [{ kind: 'want', id: 'w', mine: own, theirs: other }],
    } as const;
    mount(<ClashPanel saving={saving} onSettle={() => undefined} />);
    expect(document.body.textContent).toContain('The want “Lead”');
    expect([...document.querySelectorAll('del')].map(({ textContent }) => textContent).join(' ')).toContain(
      'filled by a piece',
    );
    expect(document.querySelectorAll('[role="radio"]')).toHaveLength(2);
  });

  it('go on as was chosen for each, with both where nothing was', async () => {
    const settled = shown();
    const [first] = document.querySelectorAll(
      '[aria-label^="What goes on of: Text"] [role="radio"][value="theirs"]',
    );
    if (!(first instanceof HTMLElement)) throw new Error('No way to choose theirs.');
    await click(first);
    await click(button(document.body, 'Put together'));
    await click(button(document.body, 'Mine everywhere'));
    await click(button(document.body, 'Theirs everywhere'));
    expect(settled).toEqual([
      ['mine', 'theirs', 'both'],
      ['mine', 'mine', 'mine'],
      ['theirs', 'theirs', 'theirs'],
    ]);
  });
});
