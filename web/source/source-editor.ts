import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { html } from '@codemirror/lang-html';
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { EditorState, type Extension, StateEffect, StateField } from '@codemirror/state';
import {
  Decoration,
  type DecorationSet,
  EditorView,
  keymap,
  lineNumbers,
  MatchDecorator,
  ViewPlugin,
  type ViewUpdate,
  WidgetType,
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { CREDIT_SIGN, SIGN_ATTRIBUTE } from '#core/page/blocks/placement/sign.ts';
import type { Source, SourceMark } from '#core/page/source/write.ts';

/** What the screen wants to know of the source. */
interface SourceHooks {
  /** What Placard writes in the place of a sign, in a few words. */
  readonly saySign: (placementId: string) => string;
  readonly onTyped: (text: string) => void;
  /** The block in which the caret stands, when it comes into another. */
  readonly onBlock: (id: string | null) => void;
}

type Range = { readonly from: number; readonly to: number };

export interface SourceEditor {
  readonly text: () => string;
  /** Puts a text in as if it was typed. */
  readonly type: (text: string) => void;
  /** Shows a page anew, where nothing was typed. */
  readonly show: (source: Source) => void;
  /** Marks the lines of a block that is looked at elsewhere, and brings them into sight. */
  readonly showBlock: (id: string | null) => void;
  readonly showLost: (struck: readonly Range[]) => void;
  readonly goTo: (from: number) => void;
  readonly lineOf: (from: number) => number;
  readonly focus: () => void;
  readonly destroy: () => void;
}

const setMarks = StateEffect.define<readonly SourceMark[]>();
const setHere = StateEffect.define<string | null>();
const setLost = StateEffect.define<readonly Range[]>();

/** Where each block stands, moved along by what is typed. */
const marksField = StateField.define<readonly SourceMark[]>({
  create: () => [],
  update: (marks, { changes, docChanged, effects }) => {
    for (const effect of effects) if (effect.is(setMarks)) return effect.value;
    if (!docChanged) return marks;
    return marks.map(({ id, from, to }) => ({
      id,
      from: changes.mapPos(from, 1),
      to: changes.mapPos(to, 1),
    }));
  },
});

const hereField = StateField.define<string | null>({
  create: () => null,
  update: (here, { effects }) =>
    effects.findLast((effect) => effect.is(setHere))?.value ?? hereOf(here, effects),
});

/** A block that is let go is none, and not the one before. */
const hereOf = (here: string | null, effects: readonly StateEffect<unknown>[]) =>
  effects.some((effect) => effect.is(setHere)) ? null : here;

const HERE_LINE = Decoration.line({ class: 'cm-here' });

const hereLines = EditorView.decorations.compute(['doc', marksField, hereField], (state) => {
  const { doc } = state;
  const here = state.field(hereField);
  const mark = state.field(marksField).find(({ id }) => id === here);
  if (!mark || mark.from >= doc.length) return Decoration.none;
  const [first, last] = [doc.lineAt(mark.from).number, doc.lineAt(Math.min(mark.to, doc.length)).number];
  const lines = Array.from({ length: last - first + 1 }, (_, at) => doc.line(first + at).from);
  return Decoration.set(lines.map((from) => HERE_LINE.range(from)));
});

const LOST_MARK = Decoration.mark({ class: 'cm-lost' });
const LOST_LINE = Decoration.line({ class: 'cm-lost-line' });

const lostField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update: (lost, { changes, effects, state }) => {
    for (const effect of effects)
      if (effect.is(setLost)) {
        const ranges = effect.value.filter(({ from, to }) => from < to && to <= state.doc.length);
        const lines = new Set(ranges.map(({ from }) => state.doc.lineAt(from).from));
        return Decoration.set(
          [
            ...[...lines].map((from) => LOST_LINE.range(from)),
            ...ranges.map(({ from, to }) => LOST_MARK.range(from, to)),
          ],
          true,
        );
      }
    return lost.map(changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

class Sign extends WidgetType {
  readonly #words: string;

  constructor(words: string) {
    super();
    this.#words = words;
  }

  override eq(other: Sign): boolean {
    return other.#words === this.#words;
  }

  override toDOM(): HTMLElement {
    const sign = document.createElement('span');
    sign.className = 'cm-sign';
    sign.textContent = this.#words;
    return sign;
  }
}

/** What Placard writes stands as a few words that are one letter for the caret. */
function signs(saySign: SourceHooks['saySign']): Extension {
  const matcher = new MatchDecorator({
    regexp: new RegExp(` ${SIGN_ATTRIBUTE}="([^"]{1,64})"|<span class="${CREDIT_SIGN}"></span>`, 'g'),
    decoration: (match) =>
      Decoration.replace({
        widget: new Sign(match[1] === undefined ? '{credit}' : ` … ${saySign(match[1])}`),
      }),
  });
  return ViewPlugin.fromClass(
    class {
      decorations: DecorationSet;
      constructor(view: EditorView) {
        this.decorations = matcher.createDeco(view);
      }
      update(update: ViewUpdate) {
        this.decorations = matcher.updateDeco(update, this.decorations);
      }
    },
    {
      decorations: ({ decorations }) => decorations,
      provide: (plugin) =>
        EditorView.atomicRanges.of((view) => view.plugin(plugin)?.decorations ?? Decoration.none),
    },
  );
}

const COLOURS = HighlightStyle.define([
  { tag: [tags.tagName, tags.angleBracket], color: 'var(--color-action)' },
  { tag: tags.attributeName, color: 'var(--color-soft)' },
  { tag: [tags.attributeValue, tags.string], color: 'var(--color-ink)' },
  { tag: tags.comment, color: 'var(--color-soft)' },
]);

const LOOK = EditorView.theme({
  '&': {
    height: '100%',
    padding: '2px',
    backgroundColor: 'var(--color-panel)',
    color: 'var(--color-ink)',
    fontSize: '13px',
  },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.6' },
  '.cm-content': { caretColor: 'var(--color-ink)', padding: '12px 0' },
  '&.cm-focused': { outline: '2px solid var(--color-ink)', outlineOffset: '-2px' },
  '&.cm-focused .cm-cursor': { borderLeftColor: 'var(--color-ink)' },
  '.cm-gutters': { backgroundColor: 'transparent', color: 'var(--color-soft)', border: 'none' },
  '.cm-line': { padding: '0 14px 0 8px' },
  '.cm-here': { backgroundColor: 'var(--color-due-soft)' },
  '.cm-lost': { textDecoration: 'line-through', color: 'var(--color-due)' },
  '.cm-lost *': { color: 'var(--color-due)' },
  '.cm-lost-line': { boxShadow: 'inset 3px 0 var(--color-due)' },
  '.cm-sign': { color: 'var(--color-soft)' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
    backgroundColor: 'var(--color-action-soft)',
  },
});

/** The innermost block round a place. */
function blockAt(marks: readonly SourceMark[], at: number): string | null {
  const around = marks.filter(({ from, to }) => from <= at && at <= to);
  return around.at(-1)?.id ?? null;
}

/** Source as it is written in (CodeMirror), with signs, the lines of what is looked at, and what would be lost. */
export function makeSourceEditor(
  parent: HTMLElement,
  source: Source,
  isEditable: boolean,
  { saySign, onTyped, onBlock }: SourceHooks,
): SourceEditor {
  let isShowing = false;
  let here: string | null = null;
  const view = new EditorView({
    parent,
    state: EditorState.create({
      doc: source.text,
      extensions: [
        lineNumbers(),
        history(),
        html({ autoCloseTags: false }),
        syntaxHighlighting(COLOURS),
        EditorView.lineWrapping,
        LOOK,
        marksField,
        hereField,
        hereLines,
        lostField,
        signs(saySign),
        EditorState.readOnly.of(!isEditable),
        EditorView.contentAttributes.of({ 'aria-label': 'Source of the page' }),
        keymap.of([...defaultKeymap, ...historyKeymap]),
        EditorView.updateListener.of(({ docChanged, selectionSet, state }) => {
          if (docChanged && !isShowing) onTyped(state.doc.toString());
          if (!selectionSet || isShowing) return;
          const block = blockAt(state.field(marksField), state.selection.main.head);
          if (block === here) return;
          here = block;
          onBlock(block);
        }),
      ],
    }),
  });
  view.dispatch({ effects: setMarks.of(source.marks) });
  const quietly = (act: () => void) => {
    isShowing = true;
    act();
    isShowing = false;
  };
  return {
    text: () => view.state.doc.toString(),
    type: (text) => view.dispatch({ changes: changeBetween(view.state.doc.toString(), text) }),
    show: ({ text, marks }) =>
      quietly(() => {
        const before = view.state.doc.toString();
        view.dispatch({
          ...(text === before ? {} : { changes: changeBetween(before, text) }),
          effects: [setMarks.of(marks), setLost.of([])],
        });
      }),
    showBlock: (id) =>
      quietly(() => {
        here = id;
        const mark = view.state.field(marksField).find((one) => one.id === id);
        const isFocused = view.hasFocus;
        view.dispatch({
          effects: [
            setHere.of(id),
            ...(mark && !isFocused ? [EditorView.scrollIntoView(mark.from, { y: 'center' })] : []),
          ],
        });
      }),
    showLost: (struck) => quietly(() => view.dispatch({ effects: setLost.of(struck) })),
    goTo: (from) => {
      view.dispatch({
        selection: { anchor: from },
        effects: EditorView.scrollIntoView(from, { y: 'center' }),
      });
      view.focus();
    },
    lineOf: (from) => view.state.doc.lineAt(Math.min(from, view.state.doc.length)).number,
    focus: () => view.focus(),
    destroy: () => view.destroy(),
  };
}

/** The one stretch in which two texts differ, so that the caret and what is folded elsewhere stay. */
function changeBetween(before: string, after: string) {
  let head = 0;
  while (head < before.length && head < after.length && before[head] === after[head]) head += 1;
  let tail = 0;
  const most = Math.min(before.length, after.length) - head;
  while (tail < most && before[before.length - 1 - tail] === after[after.length - 1 - tail]) tail += 1;
  return { from: head, to: before.length - tail, insert: after.slice(head, after.length - tail) };
}
