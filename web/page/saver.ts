import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { type Page, type PageClash, PageClashSchema, PageSchema, SavedPageSchema } from '#api/pages.ts';
import type { Block } from '#core/page/blocks/block.ts';
import { type Clash, mergePages } from '#core/page/merge.ts';
import type { Way } from '#core/page/merge-blocks.ts';
import { type PageDoc, PageDocSchema } from '#core/page/model.ts';
import { fromStored, STORED, toStored } from '#core/stored.ts';
import { ApiProblem, requestJson, sayFailure } from '../api/client.ts';
import { noteSaving } from '../api/under-way.ts';
import { putOwnViews } from '../pieces/own-views.ts';
import { putPieces } from '../pieces/pieces.ts';
import { keepHere } from '../ui/keep-here.ts';
import { Store } from '../ui/store.ts';

/** How the page on screen stands to the page on the server. */
export type SaveState =
  | { readonly kind: 'saved'; readonly at: string }
  | { readonly kind: 'unsaved' | 'saving' }
  /** Kept on this machine; it is tried again by itself. */
  | { readonly kind: 'kept'; readonly why: string }
  | { readonly kind: 'refused'; readonly why: string }
  /** Others changed the same places: they are put together when a person has said which goes on. */
  | { readonly kind: 'clash'; readonly theirs: Theirs; readonly clashes: readonly Clash[] };

/** What somebody else saved. */
export type Theirs = PageClash['current'];

/** What a saver asks of what is open. */
interface Hands {
  /** Tells the saver of what was typed just now. */
  readonly stirred?: () => void;
  /** Shows what was put together with what others saved. */
  readonly merged?: (doc: PageDoc, theirs: Theirs) => void;
}

/** A page as it lies on this machine: it may be from before Placard was renewed. */
const KeptDocSchema = v.pipe(
  v.unknown(),
  v.transform((stored) => fromStored(STORED.page, stored)),
  PageDocSchema,
);
const KeptSchema = v.object({ version: v.number(), base: KeptDocSchema, doc: KeptDocSchema });

const blockTexts = new WeakMap<Block, string>();

function textOf(block: Block): string {
  const text = blockTexts.get(block) ?? JSON.stringify(block);
  blockTexts.set(block, text);
  return text;
}

/** A page as JSON to be stored. A block that is the very same as before is not written out anew: it lies here at each pause of typing. */
function storedText({ blocks, ...facts }: PageDoc): string {
  const said = JSON.stringify(toStored(STORED.page, facts));
  return `${said.slice(0, -1)},"blocks":[${blocks.map(textOf).join(',')}]}`;
}

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
  /** What others did was put together with what is open here, and has to be sent on its new version. */
  #hasJoined = false;
  #sending: Promise<void> = Promise.resolve();
  #isClosed = false;

  readonly #hands: Hands;

  constructor(page: Page, shown: PageDoc, hands: Hands = {}) {
    this.#id = page.id;
    this.#hands = hands;
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
      keepHere(
        keyOf(this.#id),
        `{"version":${this.#version},"base":${storedText(this.#base)},"doc":${storedText(this.#doc)}}`,
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
      await this.#failed(error);
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

  async #failed(error: unknown): Promise<void> {
    const clash =
      error instanceof ApiProblem && error.status === 412 ? v.safeParse(PageClashSchema, error.body) : null;
    // With the page come the pieces that were put on it meanwhile; without a line what the clash said has to do.
    if (clash?.success) this.#hasJoined = this.#join(await this.#ask().catch(() => clash.output.current));
    else if (error instanceof ApiProblem && !error.isPassing)
      this.store.set({ kind: 'refused', why: error.message });
    else {
      this.store.set({ kind: 'kept', why: sayFailure(error) });
      this.#saveIn(this.#retryMillis);
      this.#retryMillis = Math.min(LAST_RETRY_MILLIS, this.#retryMillis * 2);
    }
  }

  async #ask(): Promise<Page> {
    const page = await requestJson('get /pages/{id}', PageSchema, { path: { id: this.#id } });
    putPieces(page.pieces);
    putOwnViews(page.ownViews);
    return page;
  }

  /** Takes over what others did to this page meanwhile: a job, another screen, another person. */
  async catchUp(): Promise<void> {
    if (this.#isSending || this.store.state.kind === 'clash') return;
    const page = await this.#ask();
    // It was saved, or a clash was seen, while the page was on its way.
    if (this.#isSending || page.version <= this.#version) return;
    this.#join(page);
  }

  /** Puts what others did together with what is open here; false, and a clash, where both changed the same. */
  #join(theirs: Theirs): boolean {
    this.#hands.stirred?.();
    const { page, clashes } = mergePages(this.#base, this.#doc, theirs.doc);
    if (clashes.length > 0) {
      this.store.set({ kind: 'clash', theirs, clashes });
      return false;
    }
    this.#goOn(page, theirs);
    return true;
  }

  #goOn(page: PageDoc, theirs: Theirs): void {
    this.#version = theirs.version;
    this.#base = theirs.doc;
    this.#hands.merged?.(page, theirs);
    if (isEqual(page, theirs.doc)) {
      this.#doc = page;
      this.keep();
      this.store.set({ kind: 'saved', at: theirs.updatedAt });
    } else {
      this.store.set({ kind: 'unsaved' });
      this.change(page);
    }
  }

  /** Settles a clash: at each place goes on what is chosen for it; what only one side changed stays either way. */
  settle(wayOf: (id: string) => Way): void {
    const { state } = this.store;
    if (state.kind !== 'clash') return;
    this.#hands.stirred?.();
    this.#goOn(mergePages(this.#base, this.#doc, state.theirs.doc, wayOf).page, state.theirs);
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
