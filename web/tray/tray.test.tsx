// @vitest-environment jsdom
import { act } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import type { PageDoc } from '#core/page/model.ts';
import { examplePage, examplePlacement } from '#core/page/testing.ts';
import { carrying } from '../drag/carry.ts';
import { allOf, button, click, mount, press, unmount } from '../mounted.tsx';
import { putPieces } from '../pieces/pieces.ts';
import { exampleAsset } from '../testing.tsx';
import { spoken } from '../ui/spoken.ts';
import { Tray } from './tray.tsx';

afterEach(unmount);

const page = (change: Partial<PageDoc> = {}): PageDoc => ({ ...examplePage(), ...change });
const WANT = {
  id: 'lead',
  purpose: 'Lead of the page',
  shape: 'landscape',
  leastWidth: 1600,
  filledBy: null,
} as const;

function tray(
  doc: PageDoc,
  {
    isEditable = true,
    takes = true,
    isWhole = false,
    chosen = [],
  }: { isEditable?: boolean; takes?: boolean; isWhole?: boolean; chosen?: readonly string[] } = {},
) {
  const deeds: unknown[] = [];
  const say =
    (name: string) =>
    (...args: readonly unknown[]) =>
      void deeds.push([name, ...args]);
  const ground = mount(
    <Tray
      isWhole={isWhole}
      pageId="tides"
      page={doc}
      chosen={chosen}
      openWant={null}
      isEditable={isEditable}
      onOpen={say('open')}
      onChoose={say('choose')}
      onPlace={say('place')}
      onTakeOff={say('take off')}
      onFiles={say('files')}
      takes={() => takes}
      onDrop={(_data, wantId) => deeds.push(['drop', wantId])}
      onMove={say('move')}
      onTakeBack={say('take back')}
      onFill={say('fill')}
      onWant={say('want')}
    />,
  );
  return { ground, deeds };
}

/** A piece on the tray, in the order in which they stand. */
function pieceOf(ground: HTMLElement, at = 0): HTMLElement {
  const piece = allOf(ground, 'listitem')[at]?.querySelector('button');
  if (!piece) throw new Error('The piece is not there.');
  return piece;
}
const trayOf = (ground: HTMLElement): Element => ground.querySelector('[aria-label="Tray"]') ?? ground;

/** A drag that carries these types and texts over an element, and is let go there. */
function drop(element: Element, texts: Readonly<Record<string, string>>): boolean {
  const data = { types: Object.keys(texts), getData: (type: string) => texts[type] ?? '', files: [] };
  const events = ['dragover', 'drop'].map((name) => {
    const event = new Event(name, { bubbles: true, cancelable: true });
    Object.assign(event, { dataTransfer: data });
    act(() => void element.dispatchEvent(event));
    return event;
  });
  return events[0]?.defaultPrevented ?? false;
}

describe('the tray', () => {
  it('says how many pieces are there and how many of them are placed', () => {
    putPieces([exampleAsset({ id: 'heron' }), exampleAsset({ id: 'comp', label: { licence: 'comp' } })]);
    const { ground } = tray(
      page({
        tray: ['heron', 'comp', 'gone'],
        blocks: [{ type: 'placement', attrs: examplePlacement('column', { asset: 'heron' }) }],
      }),
    );
    expect(ground.textContent).toContain('2 pieces,1 placed');
    expect(ground.textContent).toContain('comp, not bought');
  });

  it('says which want a piece fills, without calling it by that', () => {
    putPieces([exampleAsset({ id: 'heron' })]);
    const { ground } = tray(page({ tray: ['heron'], wants: [{ ...WANT, filledBy: 'heron' }] }));
    expect(pieceOf(ground).getAttribute('aria-description')).toContain('Fills the want “Lead of the page”.');
    expect(ground.textContent).toContain('for “Lead of the page”');
  });

  it('says what it is for while it is empty', () => {
    expect(tray(page()).ground.textContent).toContain('they wait here until they are placed.');
  });

  it('opens a piece when it is pressed, places it by Enter and takes it off by Delete', async () => {
    putPieces([exampleAsset({ id: 'heron' })]);
    const { ground, deeds } = tray(page({ tray: ['heron'] }));
    const piece = pieceOf(ground);
    await click(piece);
    await press(piece, 'Enter');
    await press(piece, 'Delete');
    expect(deeds).toEqual([
      ['open', 'heron'],
      ['place', ['heron']],
      ['take off', 'heron'],
    ]);
  });

  it('is walked along by arrow keys', async () => {
    putPieces([exampleAsset({ id: 'heron' }), exampleAsset({ id: 'bittern' })]);
    const { ground } = tray(page({ tray: ['heron', 'bittern'] }));
    const [first, second] = [pieceOf(ground, 0), pieceOf(ground, 1)];
    first.focus();
    await press(first, 'ArrowRight');
    expect(document.activeElement).toBe(second);
    await press(second, 'ArrowLeft');
    expect(document.activeElement).toBe(first);
  });

  it('takes what is dropped on it, and on a want what fills that', async () => {
    const { ground, deeds } = tray(page({ wants: [WANT] }));
    const want = button(ground, 'Lead of the pagelandscape, at least 1600 px');
    expect(drop(trayOf(ground), { 'text/plain': 'https://a.example/' })).toBe(true);
    drop(want, { 'text/plain': 'https://a.example/' });
    expect(deeds).toEqual([
      ['drop', null],
      ['drop', 'lead'],
    ]);
    await click(want);
    expect(deeds.at(-1)).toEqual(['want', 'lead']);
  });

  it('carries a piece into a want by keys', async () => {
    putPieces([exampleAsset({ id: 'heron' })]);
    const { ground, deeds } = tray(page({ tray: ['heron'], wants: [WANT] }));
    const piece = pieceOf(ground);
    for (const key of ['m', 'Tab', 'Enter']) await press(piece, key);
    expect(deeds).toEqual([['fill', 'lead', 'heron']]);
  });

  it('moves a piece among the others by Alt and arrows, and says where it stands', async () => {
    putPieces(['heron', 'bittern', 'boats'].map((id) => exampleAsset({ id, label: { title: id } })));
    const { ground, deeds } = tray(page({ tray: ['heron', 'bittern', 'boats'] }));
    const said: string[] = [];
    const stop = spoken.subscribe(() => said.push(spoken.state));
    await press(pieceOf(ground, 0), 'ArrowRight', 'Alt');
    await press(pieceOf(ground, 1), 'End', 'Alt');
    await press(pieceOf(ground, 2), 'Home', 'Alt');
    await press(pieceOf(ground, 0), 'ArrowLeft', 'Alt');
    stop();
    expect(deeds).toEqual([
      ['move', ['heron'], 'boats'],
      ['move', ['bittern'], null],
      ['move', ['boats'], 'heron'],
    ]);
    expect(said).toEqual([
      'heron put 2 of 3 on the tray.',
      'bittern put 3 of 3 on the tray.',
      'boats put 1 of 3 on the tray.',
      'heron is there already.',
    ]);
  });

  it('lets pass over what it cannot take', () => {
    const { ground, deeds } = tray(page(), { takes: false });
    expect(drop(trayOf(ground), { 'text/html': '<p>' })).toBe(false);
    expect(deeds).toEqual([]);
  });

  it('takes nothing from those who may only look', async () => {
    putPieces([exampleAsset({ id: 'heron' })]);
    const { ground, deeds } = tray(page({ tray: ['heron'], wants: [WANT] }), { isEditable: false });
    await press(pieceOf(ground), 'Enter');
    await press(pieceOf(ground), 'Delete');
    await press(pieceOf(ground), 'm');
    expect(carrying.state).toBeNull();
    expect(drop(trayOf(ground), { Files: '' })).toBe(false);
    expect(ground.textContent).not.toContain('Choose files');
    // Enter is a press like any other where nothing can be placed: it opens the piece.
    expect(deeds).toEqual([['open', 'heron']]);
  });
});

describe('several pieces of the tray', () => {
  const two = () => {
    putPieces([exampleAsset(), exampleAsset({ id: 'bittern' })]);
    return page({ tray: ['heron', 'bittern'] });
  };

  it('are chosen with Ctrl and a press or Enter, and one by one without', async () => {
    const { ground, deeds } = tray(two());
    act(() => pieceOf(ground).dispatchEvent(new MouseEvent('click', { bubbles: true, ctrlKey: true })));
    act(() => {
      const key = { key: 'Enter', ctrlKey: true, bubbles: true, cancelable: true };
      pieceOf(ground, 1).dispatchEvent(new KeyboardEvent('keydown', key));
    });
    await click(pieceOf(ground));
    expect(deeds).toEqual([
      ['choose', 'heron'],
      ['choose', 'bittern'],
      ['open', 'heron'],
    ]);
  });

  it('are chosen by each press where there is no key to hold, until one is chosen again', async () => {
    const { ground, deeds } = tray(two(), { isWhole: true });
    await click(button(ground, 'Choose several'));
    await click(pieceOf(ground));
    await click(button(ground, 'Choose one again'));
    await click(pieceOf(ground, 1));
    expect(deeds).toEqual([
      ['choose', 'heron'],
      ['open', 'bittern'],
    ]);
  });

  it('are placed together by Enter on one of them, in their order on the tray', async () => {
    const { ground, deeds } = tray(two(), { chosen: ['bittern', 'heron'] });
    await press(pieceOf(ground, 1), 'Enter');
    expect(deeds).toEqual([['place', two().tray]]);
  });

  it('are all said to be chosen', () => {
    const { ground } = tray(two(), { chosen: ['heron', 'bittern'] });
    expect([0, 1].map((at) => pieceOf(ground, at).getAttribute('aria-pressed'))).toEqual(['true', 'true']);
  });
});
