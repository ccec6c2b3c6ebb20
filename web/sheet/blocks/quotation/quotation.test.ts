// @vitest-environment jsdom
import type { Editor } from '@tiptap/core';
import { afterEach, describe, expect, it } from 'vitest';
import type { Block } from '#core/page/blocks/block.ts';
import { plainText } from '#core/page/inline.ts';
import { blank, examplePlacement, heading, paragraph, placed } from '#core/page/testing.ts';
import { blocksIn } from '#core/page/walk.ts';
import { changeBlock, movePlacement, placePiece } from '../../commands.ts';
import { isOfSheet } from '../../rich-text.ts';
import { blocksOf, closeEditor, copied, editorOf, layNothingOut, pasting } from '../../testing.ts';
import { quotation } from './kind.tsx';

layNothingOut();

afterEach(closeEditor);

/** "One > Two [heron] < -": what stands in a quotation stands between the signs, an empty line is a dash. */
function shortOf(editor: Editor): string {
  const short = (block: Block): string => {
    if (block.type === 'placement') return `[${block.attrs.asset}]`;
    if (block.type === 'quotation') return `> ${blocksIn(block).map(short).join(' ')} <`;
    return block.type === 'paragraph' || block.type === 'heading' ? plainText(block.content) || '-' : 'list';
  };
  return blocksOf(editor).map(short).join(' ');
}

const said = (...content: Extract<Block, { type: 'quotation' }>['content']): Block => ({
  type: 'quotation',
  attrs: { id: 'said', attribution: 'Ines Okonjo', cite: '' },
  content,
});
const heron = placed(examplePlacement('column', { id: 'heron' }));
const [way] = quotation.ways;

describe('a quotation on the sheet', () => {
  it('is made of the lines that are chosen, and becomes text again', () => {
    const editor = editorOf(paragraph('One'), paragraph('Two'), blank());
    editor.commands.setTextSelection({ from: 2, to: 8 });
    way?.apply(editor);
    expect(shortOf(editor)).toBe('> One Two < -');
    expect(way?.isOn(editor)).toBe(true);
    way?.apply(editor);
    expect(shortOf(editor)).toBe('One Two -');
  });

  it('is made of a heading as text', () => {
    const editor = editorOf(heading('One'), blank());
    editor.commands.setTextSelection(2);
    way?.apply(editor);
    expect(shortOf(editor)).toBe('> One < -');
  });

  it('says whose words it is, as a step that undo takes back', () => {
    const editor = editorOf(said(paragraph('Two')), blank());
    changeBlock(
      editor,
      'said',
      { attribution: 'Piet Hallam', cite: 'https://tidewatch.example/a' },
      'its source',
    );
    expect(blocksOf(editor)[0]?.attrs).toEqual({
      id: 'said',
      attribution: 'Piet Hallam',
      cite: 'https://tidewatch.example/a',
    });
    expect(editor.view.dom.querySelector('figure.quoted > figcaption')?.textContent).toBe('Piet Hallam');
    editor.commands.undo();
    expect(blocksOf(editor)[0]?.attrs).toMatchObject({ attribution: 'Ines Okonjo' });
  });

  it('takes pieces in and lets them out, by keys one place after the other', () => {
    const editor = editorOf(paragraph('One'), said(paragraph('Two')), heron, blank());
    const steps = ['up', 'up', 'up', 'up', 'down', 'down', 'down', 'down', 'down'] as const;
    const seen = steps.map((step) => {
      movePlacement(editor, 'heron', step);
      return shortOf(editor);
    });
    expect(seen).toEqual([
      'One > Two [heron] < -',
      'One > [heron] Two < -',
      'One [heron] > Two < -',
      '[heron] One > Two < -',
      'One [heron] > Two < -',
      'One > [heron] Two < -',
      'One > Two [heron] < -',
      'One > Two < [heron] -',
      // The line that ends the page stays behind it.
      'One > Two < [heron] -',
    ]);
  });

  it('is left with an empty line when all that stood in it is a piece that moves out', () => {
    const editor = editorOf(paragraph('One'), said(heron), blank());
    movePlacement(editor, 'heron', 'top');
    expect(shortOf(editor)).toMatch(/^\[heron\] One (?:> - < )?-$/);
    expect(() => editor.state.doc.check()).not.toThrow();
  });

  it('has a new piece behind it, not in it', () => {
    const editor = editorOf(said(paragraph('Two')), blank());
    editor.commands.setTextSelection(3);
    placePiece(editor, 'heron', editor.state.selection.$to.after(1));
    expect(shortOf(editor)).toBe('> Two < [heron] -');
  });

  it('is copied and pasted whole, with its source and its pieces', () => {
    const editor = editorOf(said(paragraph('Two'), heron), blank());
    const html = copied(editor);
    expect(isOfSheet(html)).toBe(true);
    const other = editorOf(blank());
    other.view.pasteHTML(html, pasting());
    expect(shortOf(other)).toMatch(/^> Two \[heron\] < /);
    expect(blocksOf(other)[0]?.attrs).toMatchObject({ attribution: 'Ines Okonjo' });
  });

  it('comes from another page as one', () => {
    const editor = editorOf(blank());
    editor.view.pasteHTML(
      '<figure><blockquote cite="https://tidewatch.example/a"><p>It booms.</p></blockquote><figcaption>— Piet</figcaption></figure><p>After</p>',
      pasting(),
    );
    expect(shortOf(editor)).toMatch(/^> It booms\. < After/);
    expect(blocksOf(editor)[0]?.attrs).toMatchObject({
      attribution: 'Piet',
      cite: 'https://tidewatch.example/a',
    });
  });
});
