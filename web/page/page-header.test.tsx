// @vitest-environment jsdom
import { afterEach, describe, expect, it } from 'vitest';
import type { PageDoc } from '#core/page/model.ts';
import { examplePage, examplePlacement } from '#core/page/testing.ts';
import { button, click, mount, unmount } from '../mounted.tsx';
import { putPieces } from '../pieces/pieces.ts';
import { drawn, exampleAsset, exampleOpenPage, wordsOf } from '../testing.tsx';
import { SaveNotice } from './notices.tsx';
import { PageHeader } from './page-header.tsx';
import type { SaveState } from './saver.ts';

afterEach(unmount);

const AT = '2026-03-12T09:05:00.000Z';
const SAVED: SaveState = { kind: 'saved', at: AT };

function header(doc: PageDoc, saving: SaveState = SAVED, isEditable = true) {
  const opened: unknown[] = [];
  const ground = mount(
    <PageHeader
      part="all"
      page={exampleOpenPage({ doc })}
      doc={doc}
      saving={saving}
      isEditable={isEditable}
      onOpen={(next, row) => opened.push([next, row])}
      others={[]}
      onSource={() => undefined}
      onVersions={() => undefined}
      onProof={async () => undefined}
      onSave={async () => undefined}
    />,
  );
  return { ground, opened };
}

describe('the stations of a page', () => {
  const doc: PageDoc = {
    ...examplePage({ type: 'placement', attrs: examplePlacement('column', { asset: 'heron' }) }),
    tray: ['heron', 'bittern'],
    wants: [{ id: 'lead', purpose: 'Lead', shape: 'any', leastWidth: 0, filledBy: null }],
  };
  const pieces = [
    exampleAsset({ id: 'heron' }),
    exampleAsset({ id: 'bittern', label: { licence: 'unknown', alt: { kind: 'unsaid' }, title: '' } }),
  ];

  it.each([
    ['Wanted0 of 1', { kind: 'want', id: 'lead' }, null],
    ['Cleared1 of 2', { kind: 'asset', id: 'bittern' }, 'rights'],
    ['Prepared1 of 2', { kind: 'asset', id: 'bittern' }, 'name'],
    ['Worded1 of 2', { kind: 'asset', id: 'bittern' }, 'words'],
    ['Placed1 of 2', { kind: 'asset', id: 'bittern' }, null],
  ])('say how far it is, and %s opens what is missing', async (words, next, row) => {
    putPieces(pieces);
    const { ground, opened } = header(doc);
    await click(button(ground, words));
    expect(opened).toEqual([[next, row]]);
  });

  it('open nothing where nothing is missing', () => {
    putPieces(pieces);
    const { ground } = header({ ...doc, tray: ['heron'], wants: [] });
    const stations = ground.querySelectorAll('[aria-label="Stations"] button');
    expect([...stations].map((one) => one.hasAttribute('disabled'))).toEqual([true, true, true, true, true]);
  });
});

describe('how a page is saved', () => {
  it.each([
    [{ kind: 'unsaved' }, 'saving'],
    [{ kind: 'kept', why: '' }, 'kept on this machine'],
    [{ kind: 'refused', why: '' }, 'not saved'],
  ] as const)('%j is said', (saving, words) => {
    expect(header(examplePage(), saving).ground.querySelector('[role=status]')?.textContent).toBe(words);
  });

  it('and taken away only by those who may change it', () => {
    expect(header(examplePage()).ground.textContent).toContain('Take away...');
    expect(header(examplePage(), SAVED, false).ground.textContent).not.toContain('Take away...');
  });

  const notice = (saving: SaveState, recovered = false) =>
    wordsOf(drawn(<SaveNotice saving={saving} recovered={recovered} onAgain={() => undefined} />));
  it('says what is kept when the line is cut, and what came back after a fall', () => {
    expect(notice({ kind: 'kept', why: 'The server cannot be reached.' })).toBe(
      'The server cannot be reached. Try again now',
    );
    expect(notice({ kind: 'unsaved' }, true)).toContain('are back on the sheet');
    expect(notice(SAVED, true)).toBe('');
  });
});
