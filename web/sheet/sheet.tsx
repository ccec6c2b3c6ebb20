import './sheet.css';
import type { Editor } from '@tiptap/core';
import {
  type KeyboardEvent,
  type MouseEvent,
  type RefObject,
  useLayoutEffect,
  useRef,
  useState,
} from 'react';
import type { Placement } from '#core/page/blocks/placement/schema.ts';
import { columnAt } from '#core/page/layout.ts';
import type { PageDoc } from '#core/page/model.ts';
import { styleSheet } from '#core/page/style-sheet.ts';
import type { HouseRules } from '#core/page/target.ts';
import { standingOn } from '#core/page/walk.ts';
import { Ruler } from '../measure/ruler.tsx';
import { usePiece, usePieces } from '../pieces/pieces.ts';
import { ColumnsMeasure } from './columns-measure.tsx';
import { setTitle } from './commands.ts';
import { FootCredits } from './foot-credits.tsx';
import { edgeAt, writeAtEdge } from './lines.ts';
import { onSheet } from './on-sheet.ts';
import { PlacementMeasure } from './placement-measure.tsx';
import { SheetPlace } from './sheet-place.tsx';

interface SheetProps {
  readonly editor: Editor;
  readonly page: PageDoc;
  readonly rules: HouseRules;
  readonly selected: Placement | null;
  /** The block that the caret is in. */
  readonly block: string | null;
  readonly isEditable: boolean;
  /** What it is called where two stand side by side. */
  readonly name?: string;
}

/** The page at the target's true column width, under a ruler, laid out by the very rules that go out. */
export function Sheet({ editor, page, rules, selected, block, isEditable, name = 'Sheet' }: SheetProps) {
  const pane = useRef<HTMLDivElement>(null);
  const paper = useRef<HTMLDivElement>(null);
  const text = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    text.current?.append(editor.view.dom);
    editor.view.updateRoot();
  }, [editor]);
  const asset = usePiece(selected?.asset ?? null);
  const known = usePieces();
  const { width, left } = usePaper(pane, rules);
  const column = columnAt(rules, width);
  const intoText = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    if (isEditable) writeAtEdge(editor, 'start');
    else onSheet(editor).focus('start').run();
  };
  /** The white above and under the text gives a line to write in. */
  const pressWhite = (event: MouseEvent<HTMLElement>) => {
    const { target } = event;
    if (!isEditable || event.button !== 0 || !(target instanceof Element)) return;
    if (
      target.closest('textarea, button') ||
      (target !== editor.view.dom && editor.view.dom.contains(target))
    )
      return;
    const edge = edgeAt(editor, event.clientY);
    if (!edge) return;
    event.preventDefault();
    writeAtEdge(editor, edge);
  };
  return (
    <section
      className="relative min-h-0 min-w-0 scroll-p-15 overflow-auto px-6 pb-15 max-narrow:px-0 max-narrow:pt-0 max-narrow:pb-7.5"
      ref={pane}
      aria-label={name}
    >
      {/* The paper is white whatever one's own device is set to. */}
      <style>{styleSheet({ ...rules, dark: false }, page, 'any')}</style>
      <div className="sticky top-0 z-3 bg-ground">
        <div style={{ width, marginLeft: left }}>
          <Ruler start={(width - column) / 2} length={column} />
        </div>
      </div>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: by key the first and last line are reached with arrows */}
      <div
        className="sheet-paper relative min-h-[calc(100%-24px)] bg-paper pt-px pb-20 shadow-card"
        ref={paper}
        style={{ width, marginLeft: left }}
        onMouseDown={pressWhite}
      >
        <div className="placard">
          <div className="placard-column">
            <textarea
              className="mt-[0.7em] mb-[0.4em] block field-sizing-content w-full resize-none font-serif text-[1.9em] leading-heading font-strong text-paper-ink placeholder:text-paper-soft"
              aria-label={name === 'Sheet' ? 'Title of the page' : `Title of ${name.toLowerCase()}`}
              placeholder="Title of the page"
              rows={1}
              maxLength={300}
              readOnly={!isEditable}
              value={page.title}
              onChange={(event) => setTitle(editor, event.target.value.replace(/\n/g, ' '))}
              onKeyDown={intoText}
            />
          </div>
          <div ref={text} />
          <FootCredits page={page} rules={rules} />
        </div>
        <SheetPlace editor={editor} pane={pane} paper={paper} isEditable={isEditable} />
        {isEditable ? <ColumnsMeasure editor={editor} page={page} block={block} paper={paper} /> : null}
        {selected && isEditable ? (
          <PlacementMeasure
            editor={editor}
            standing={standingOn(page, { rules, pieces: known }, selected)}
            asset={asset}
            rules={rules}
            paper={paper}
            paperWidth={width}
          />
        ) : null}
      </div>
    </section>
  );
}

/**
 * As wide as the pane lets it be, up to where a breakout fits, never narrower than a phone, and in its middle. The
 * paper and the column on it begin on a whole px, whatever width the pane was drawn to: else every line is soft.
 */
function usePaper(pane: RefObject<HTMLDivElement | null>, rules: HouseRules) {
  const widest = Math.max(rules.breakout, rules.column) + 2 * rules.gutter;
  const [place, setPlace] = useState({ width: rules.column + 2 * rules.gutter, left: 0 });
  useLayoutEffect(() => {
    const element = pane.current;
    if (!element) return;
    const look = () => {
      const { paddingLeft, paddingRight } = getComputedStyle(element);
      const room = element.clientWidth - Number.parseFloat(paddingLeft) - Number.parseFloat(paddingRight);
      const most = Math.max(320, Math.min(widest, Math.floor(room)));
      const width = most - ((most - columnAt(rules, most)) % 2);
      setPlace({ width, left: Math.max(0, Math.floor((room - width) / 2)) });
    };
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    return () => observer.disconnect();
  }, [pane, rules, widest]);
  return place;
}
