// @vitest-environment jsdom
import { QueryClient } from '@tanstack/react-query';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Page } from '#api/pages.ts';
import type { Block } from '#core/page/blocks/block.ts';
import type { PageDoc } from '#core/page/model.ts';
import { examplePage, paragraph } from '#core/page/testing.ts';
import { proofPageQuery } from '../api/queries.ts';
import { exampleOpenPage } from '../testing.tsx';
import { toast } from '../ui/toast.ts';
import { PageSaver } from './saver.ts';

const AT = '2026-03-12T09:00:00.000Z';
const withText = (...texts: readonly string[]): PageDoc =>
  examplePage(...texts.map((text) => paragraph(text)));
const textsOf = (doc: PageDoc) =>
  doc.blocks.map((block: Block) => JSON.stringify(block).match(/"text":"([^"]*)"/)?.[1]);

/** The other end of the line: one page that is only written on the version that stands. */
class Server {
  version = 1;
  doc: PageDoc;
  /** Why the next requests fail: the line is cut, or an answer that refuses. */
  fault: 'cut' | { readonly status: number; readonly detail: string } | null = null;
  readonly written: PageDoc[] = [];
  asked = 0;
  /** How long it takes to answer. */
  millis = 0;

  constructor(doc: PageDoc) {
    this.doc = doc;
  }

  readonly answer = async (_address: unknown, wish: RequestInit = {}): Promise<Response> => {
    this.asked += 1;
    if (this.millis > 0) await new Promise((resolve) => setTimeout(resolve, this.millis));
    if (this.fault === 'cut') throw new TypeError('Failed to fetch');
    if (this.fault) return problem(this.fault.status, { detail: this.fault.detail });
    if (wish.method !== 'PUT') return Response.json(this.page());
    const version = Number(new Headers(wish.headers).get('if-match')?.replaceAll('"', ''));
    if (version !== this.version) {
      const { doc } = this;
      const current = { version: this.version, doc, updatedBy: 'Piet Hallam', updatedAt: AT };
      return problem(412, { detail: 'Somebody saved meanwhile.', current });
    }
    this.doc = JSON.parse(String(wish.body)).doc;
    this.written.push(this.doc);
    this.version += 1;
    return Response.json({ version: this.version, updatedAt: AT });
  };

  /** Somebody else saves. */
  save(doc: PageDoc): void {
    this.doc = doc;
    this.version += 1;
  }

  page(): Page {
    const { version, doc } = this;
    return exampleOpenPage({ version, doc });
  }
}

function problem(status: number, more: object): Response {
  return Response.json({ type: 'about:blank', title: 'Refused', status, ...more }, { status });
}

let server: Server;
beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  server = new Server(withText('High water at noon.'));
  vi.stubGlobal('fetch', server.answer);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const pass = (millis: number) => vi.advanceTimersByTimeAsync(millis);
const open = (merged: (doc: PageDoc) => void = () => undefined) =>
  new PageSaver(server.page(), server.doc, { merged });

describe('a page that is changed', () => {
  it('is kept on this machine at once, saved a moment later, and no longer kept then', async () => {
    const saver = open();
    saver.change(withText('High water at one.'));
    expect(saver.store.state.kind).toBe('unsaved');
    await pass(200);
    expect(PageSaver.kept(server.page())?.doc).toEqual(withText('High water at one.'));
    expect(server.asked).toBe(0);
    await pass(800);
    expect(textsOf(server.doc)).toEqual(['High water at one.']);
    expect(saver.store.state).toEqual({ kind: 'saved', at: AT });
    expect(localStorage).toHaveLength(0);
  });

  it('is saved once for many changes in a row, and not at all for none', async () => {
    const saver = open();
    for (const text of ['O', 'On', 'One']) {
      saver.change(withText(text));
      await pass(100);
    }
    await pass(2000);
    expect(server.written.map(textsOf)).toEqual([['One']]);
    await saver.save();
    expect(server.written).toHaveLength(1);
  });

  it('while it is being saved is saved again afterwards, on the new version', async () => {
    const saver = open();
    saver.change(withText('One'));
    server.millis = 500;
    await pass(900);
    expect(saver.store.state.kind).toBe('saving');
    saver.change(withText('Two'));
    await pass(3000);
    expect(server.written.map(textsOf)).toEqual([['One'], ['Two']]);
    expect(saver.version).toBe(3);
  });

  it('is saved when the screen is left', async () => {
    const saver = open();
    saver.change(withText('Last words'));
    saver.close();
    await pass(0);
    expect(textsOf(server.doc)).toEqual(['Last words']);
  });
});

describe('a line that is cut', () => {
  it('is told, keeps the page, and is tried again by itself until it is back', async () => {
    const saver = open();
    server.fault = 'cut';
    saver.change(withText('While away'));
    await pass(800);
    expect(saver.store.state.kind).toBe('kept');
    expect(PageSaver.kept(server.page())?.doc).toEqual(withText('While away'));
    await pass(60_000);
    const tries = server.asked;
    expect(tries).toBeGreaterThan(4);
    expect(tries).toBeLessThan(12);
    server.fault = null;
    await pass(16_000);
    expect(textsOf(server.doc)).toEqual(['While away']);
    expect(saver.store.state.kind).toBe('saved');
  });

  it('leaves what was kept for the next sitting, which goes on from its own version', async () => {
    server.fault = 'cut';
    const before = open();
    before.change(withText('High water at noon.', 'Mine'));
    await pass(800);
    before.close();
    server.fault = null;
    server.save(withText('High water at noon.', 'Theirs'));
    const kept = PageSaver.kept(server.page());
    if (!kept) throw new Error('Nothing was kept.');
    const after = open();
    after.resume(kept);
    await pass(800);
    await pass(800);
    expect(textsOf(server.doc)).toEqual(['High water at noon.', 'Theirs', 'Mine']);
  });

  it.each(['{', '{}', '{"version":1,"base":{},"doc":{}}'])('is not misled by %s in its place', (text) => {
    localStorage.setItem('placard-page-tides', text);
    expect(PageSaver.kept(server.page())).toBeNull();
  });
});

describe('a page that somebody else saved meanwhile', () => {
  /** The first line as each side has it, and a line of each behind it. */
  const lines = (first: string, ...more: readonly string[]): PageDoc =>
    examplePage(paragraph(first, 'first'), ...more.map((text) => paragraph(text)));
  beforeEach(() => {
    server = new Server(lines('High water at noon.'));
    vi.stubGlobal('fetch', server.answer);
  });
  const clashing = async () => {
    const merged: PageDoc[] = [];
    const saver = open((doc) => merged.push(doc));
    server.save(lines('High water at one.', 'Theirs'));
    saver.change(lines('High water at two.', 'Mine'));
    await pass(800);
    expect(saver.store.state).toMatchObject({ kind: 'clash', clashes: [{ id: 'first' }] });
    expect(merged).toEqual([]);
    return { saver, merged };
  };

  it.each([
    ['both', ['High water at one.', 'High water at two.', 'Theirs', 'Mine']],
    ['mine', ['High water at two.', 'Theirs', 'Mine']],
    ['theirs', ['High water at one.', 'Theirs', 'Mine']],
  ] as const)(
    'goes on with %s where both changed the same, as chosen, and nothing is written before',
    async (way, texts) => {
      const { saver, merged } = await clashing();
      saver.change(lines('High water at two.', 'Mine', 'More'));
      await pass(5000);
      expect(server.written).toEqual([]);
      saver.change(lines('High water at two.', 'Mine'));
      saver.settle(() => way);
      expect(merged.map(textsOf)).toEqual([texts]);
      await pass(2000);
      expect(textsOf(server.doc)).toEqual(texts);
      expect(saver.store.state.kind).toBe('saved');
    },
  );

  it('is put together without asking where each changed something else', async () => {
    const merged: PageDoc[] = [];
    const saver = open((doc) => merged.push(doc));
    server.save({ ...lines('High water at noon.', 'Theirs'), tray: ['heron'] });
    saver.change(lines('High water at one.'));
    await pass(2000);
    expect(saver.store.state.kind).toBe('saved');
    expect(server.doc.tray).toEqual(['heron']);
    expect(textsOf(server.doc)).toEqual(['High water at one.', 'Theirs']);
    expect(merged.map(textsOf)).toEqual([['High water at one.', 'Theirs']]);
  });

  it('is put together with what was typed a moment ago and not told yet', async () => {
    let typed: (() => void) | null = null;
    const saver = new PageSaver(server.page(), server.doc, { stirred: () => typed?.() });
    server.save(lines('High water at noon.', 'Theirs'));
    saver.change(lines('High water at o'));
    typed = () => saver.change(lines('High water at one.'));
    await pass(2000);
    expect(textsOf(server.doc)).toEqual(['High water at one.', 'Theirs']);
  });

  it('is caught up with before anything is saved here, and is saved then', async () => {
    const merged: PageDoc[] = [];
    const saver = open((doc) => merged.push(doc));
    server.save(lines('Other words'));
    await saver.catchUp();
    expect(merged.map(textsOf)).toEqual([['Other words']]);
    expect(saver.store.state).toMatchObject({ kind: 'saved' });
    await saver.catchUp();
    await pass(5000);
    expect(merged).toHaveLength(1);
    expect(server.written).toEqual([]);
  });

  it('is a clash when it is caught up with, where the same was changed here', async () => {
    const saver = open();
    saver.change(lines('Mine'));
    server.save(lines('Theirs'));
    await saver.catchUp();
    expect(saver.store.state.kind).toBe('clash');
  });
});

it('a browser that keeps no more says so, and the page is saved all the same', async () => {
  const saver = open();
  const told = vi.spyOn(toast, 'error');
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  saver.change(withText('High water at one.'));
  await pass(300);
  expect(told).toHaveBeenCalledWith(expect.stringContaining('keeps no more'), expect.anything());
  vi.restoreAllMocks();
  await pass(2000);
  expect(textsOf(server.doc)).toEqual(['High water at one.']);
});

it('a page that is opened while it is still being saved is asked when that is done', async () => {
  const saver = open();
  saver.change(withText('High water at one.'));
  server.millis = 500;
  saver.close();
  const opened = new QueryClient().fetchQuery(proofPageQuery(server.page().id));
  await pass(100);
  expect(server.asked).toBe(1);
  await pass(2000);
  expect(textsOf((await opened).doc)).toEqual(['High water at one.']);
});

it('a page that is refused says why, and is not sent again and again', async () => {
  const saver = open();
  server.fault = { status: 422, detail: 'A title has at most 300 letters. Nothing was changed.' };
  saver.change(withText('Too much'));
  await pass(60_000);
  expect(saver.store.state).toEqual({
    kind: 'refused',
    why: 'A title has at most 300 letters. Nothing was changed.',
  });
  expect(server.asked).toBe(1);
  expect(PageSaver.kept(server.page())?.doc).toEqual(withText('Too much'));
});
