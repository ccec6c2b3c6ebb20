import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { type Page, type PageClash, PageClashSchema, PageSchema, SavedPageSchema } from '#api/pages.ts';
import { isOnlyGathered, mergePages } from '#core/page/merge.ts';
import { type PageDoc, PageDocSchema } from '#core/page/model.ts';
import { fromStored, STORED, toStored } from '#core/stored.ts';
import { ApiProblem, requestJson, sayFailure } from '../api/client.ts';
import { noteSaving } from '../api/under-way.ts';
import { putPieces } from '../pieces/pieces.ts';
import { Store } from '../ui/store.ts';

/** How the page on screen stands to the page on the server. */
export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'unsaved' | 'saving' }
  /** Kept on this machine; it is tried again by itself. */
  | { readonly kind: 'kept'; readonly why: string }
  | { readonly kind: 'refused'; readonly why: string }
  | { readonly kind: 'clash'; readonly theirs: PageClash['current'] };

/** A page as it lies on this machine: it may be from before Placard was renewed. */
const KeptDocSchema = v.pipe(
  v.unknown(),
  v.transform((stored) => fromStored(STORED.page, stored)),
  PageDocSchema,
);
const KeptSchema = v.object({ version: v.number(), base: KeptDocSchema, doc: KeptDocSchema });

const SAVE_AFTER_MILLIS = 700;
const KEEP_AFTER_MILLIS = 150;
const FIRST_RETRY_MILLIS = 1000;
const LAST_RETRY_MILLIS = 15_000;

/**
 * Saves a page by itself, on the version it was changed from. Every change lies on this machine within a moment,
 * so that neither a killed browser nor a server that is gone loses it.
 */
export class PageSaver {
  readonly store: Store<SaveState>;
  readonly #id: string;
  #version: number;
  /** The page as the server has it, as far as is known here. */
  #base: PageDoc;
  #doc: PageDoc;
  #saveTimer: ReturnType<typeof setTimeout> | undefined;
  #keepTimer: ReturnType<typeof setTimeout> | undefined;
  #retryMillis = FIRST_RETRY_MILLIS;
  #isSending = false;
  /** What others gathered was put together with what is open here, and has to be sent on its new version. */
  #hasJoined = false;
  #sending: Promise<void> = Promise.resolve();
  #isClosed = false;

  readonly #onMerged: (doc: PageDoc) => void;

  /** `onMerged` is told when what others gathered was put together with what is open here. */
  constructor(page: Page, shown: PageDoc, onMerged: (doc: PageDoc) => void = () => {}) {
    this.#id = page.id;
    this.#onMerged = onMerged;
    this.#version = page.version;
    this.#base = shown;
    this.#doc = shown;
    this.store = new Store<SaveState>({ kind: 'saved', at: page.updatedAt });
  }

  /** What an earlier sitting left on this machine unsaved, or null. */
  static kept(
    page: Page,
  ): { readonly version: number; readonly base: PageDoc; readonly doc: PageDoc } | null {
    const text = localStorage.getItem(keyOf(page.id));
    if (!text) return null;
    try {
      const kept = v.safeParse(KeptSchema, JSON.parse(text));
      return kept.success && !isEqual(kept.output.doc, page.doc) ? kept.output : null;
    } catch (error) {
      if (error instanceof SyntaxError) return null;
      throw error;
    }
  }

  get version(): number {
    return this.#version;
  }

  /** Starts from what was kept: on its own version, so that a clash with what was saved since is seen. */
  resume(kept: { readonly version: number; readonly base: PageDoc; readonly doc: PageDoc }): void {
    this.#version = kept.version;
    this.#base = kept.base;
    this.change(kept.doc);
  }

  /** Something was typed that will be told in a moment: from now on the page is not saved. */
  stir(): void {
    if (this.store.state.kind === 'saved') this.store.set({ kind: 'unsaved' });
  }

  change(doc: PageDoc): void {
    this.#doc = doc;
    clearTimeout(this.#keepTimer);
    this.#keepTimer = setTimeout(() => this.keep(), KEEP_AFTER_MILLIS);
    if (this.store.state.kind === 'clash') return;
    if (this.store.state.kind !== 'kept' && !this.#isSending) this.store.set({ kind: 'unsaved' });
    this.#saveIn(SAVE_AFTER_MILLIS);
  }

  /** Writes what is not saved onto this machine now. */
  keep(): void {
    clearTimeout(this.#keepTimer);
    if (isEqual(this.#doc, this.#base)) localStorage.removeItem(keyOf(this.#id));
    else
      localStorage.setItem(
        keyOf(this.#id),
        JSON.stringify({
          version: this.#version,
          base: toStored(STORED.page, this.#base),
          doc: toStored(STORED.page, this.#doc),
        }),
      );
  }

  /** Saves now. Resolves when the server has the page, or has refused it. */
  async save(): Promise<void> {
    clearTimeout(this.#saveTimer);
    // What is being sent may be older than what is to be saved now: one after the other.
    this.#sending = this.#sending.then(() => this.#send());
    noteSaving(this.#id, this.#sending);
    await this.#sending;
  }

  async #send(): Promise<void> {
    if (this.store.state.kind === 'clash') return;
    const doc = this.#doc;
    if (isEqual(doc, this.#base)) {
      if (this.store.state.kind !== 'saved') this.store.set({ kind: 'saved', at: new Date().toISOString() });
      return;
    }
    this.#isSending = true;
    if (this.store.state.kind !== 'kept') this.store.set({ kind: 'saving' });
    try {
      const saved = await requestJson('put /pages/{id}', SavedPageSchema, {
        path: { id: this.#id },
        body: { doc },
        version: this.#version,
      });
      this.#version = saved.version;
      this.#base = doc;
      this.#retryMillis = FIRST_RETRY_MILLIS;
      this.store.set({ kind: 'saved', at: saved.updatedAt });
    } catch (error) {
      this.#failed(error);
    } finally {
      this.#isSending = false;
      this.keep();
    }
    if (this.#hasJoined) {
      this.#hasJoined = false;
      await this.#send();
    } else if (this.store.state.kind === 'saved' && !isEqual(this.#doc, this.#base))
      this.#saveIn(SAVE_AFTER_MILLIS);
  }

  #failed(error: unknown): void {
    const clash =
      error instanceof ApiProblem && error.status === 412 ? v.safeParse(PageClashSchema, error.body) : null;
    if (clash?.success && isOnlyGathered(this.#base, clash.output.current.doc)) {
      this.#hasJoined = true;
      this.#join(clash.output.current);
    } else if (clash?.success) this.store.set({ kind: 'clash', theirs: clash.output.current });
    else if (error instanceof ApiProblem && !error.isPassing)
      this.store.set({ kind: 'refused', why: error.message });
    else {
      this.store.set({ kind: 'kept', why: sayFailure(error) });
      this.#saveIn(this.#retryMillis);
      this.#retryMillis = Math.min(LAST_RETRY_MILLIS, this.#retryMillis * 2);
    }
  }

  /** Takes over what was gathered for this page meanwhile, by a job or on another screen. */
  async catchUp(): Promise<void> {
    if (this.#isSending || this.store.state.kind === 'clash') return;
    const page = await requestJson('get /pages/{id}', PageSchema, { path: { id: this.#id } });
    putPieces(page.pieces);
    if (page.version > this.#version && isOnlyGathered(this.#base, page.doc)) this.#join(page);
  }

  /** Takes over what was done to this page by something that was asked for, as a replacement on every page; answers the page to show. */
  async takeOver(): Promise<PageDoc | null> {
    if (this.store.state.kind === 'clash') return null;
    const page = await requestJson('get /pages/{id}', PageSchema, { path: { id: this.#id } });
    putPieces(page.pieces);
    if (page.version <= this.#version) return null;
    this.#doc = mergePages(this.#base, this.#doc, page.doc).page;
    this.#version = page.version;
    this.#base = page.doc;
    return this.#doc;
  }

  /** Nothing on the sheet differs, so there is nothing to ask: both are put together. */
  #join(theirs: { readonly version: number; readonly doc: PageDoc }): void {
    const doc = mergePages(this.#base, this.#doc, theirs.doc).page;
    this.#version = theirs.version;
    this.#base = theirs.doc;
    this.#doc = doc;
    this.#onMerged(doc);
    this.change(doc);
  }

  /** Settles a clash and answers the page to go on with. */
  settle(way: 'both' | 'mine' | 'theirs'): PageDoc {
    const { state } = this.store;
    if (state.kind !== 'clash') return this.#doc;
    const theirs = state.theirs;
    const doc = {
      both: () => mergePages(this.#base, this.#doc, theirs.doc).page,
      mine: () => this.#doc,
      theirs: () => theirs.doc,
    }[way]();
    this.#version = theirs.version;
    this.#base = theirs.doc;
    this.store.set({ kind: 'unsaved' });
    this.change(doc);
    return doc;
  }

  #saveIn(millis: number): void {
    if (this.#isClosed) return;
    clearTimeout(this.#saveTimer);
    this.#saveTimer = setTimeout(() => void this.save(), millis);
  }

  /** Ends the timers; what is not saved yet is kept and sent once more. */
  close(): void {
    this.keep();
    void this.save();
    this.#isClosed = true;
    clearTimeout(this.#saveTimer);
    clearTimeout(this.#keepTimer);
  }
}

function keyOf(pageId: string): string {
  return `placard-page-${pageId}`;
}
