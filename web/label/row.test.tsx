// @vitest-environment jsdom
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { button, click, mount, unmount } from '../mounted.tsx';
import { Button } from '../ui/button.tsx';
import { LabelRow, OpenRow } from './row.tsx';

afterEach(unmount);

/** Rights with a claim that can be kept: its button goes with what it did. */
function Claimed() {
  const [isKept, setKept] = useState(false);
  const state = { isOpen: false, isEditable: true, onToggle: () => {} };
  return (
    <>
      <LabelRow name="Rights" way={<OpenRow words="Change rights" state={state} />}>
        {isKept ? <p>It may be used.</p> : <Button onClick={() => setKept(true)}>Keep the licence</Button>}
      </LabelRow>
      <Button onClick={() => setKept(true)}>Keep all</Button>
    </>
  );
}

describe('a row of the label', () => {
  it('keeps the focus when what had it goes with what it did', async () => {
    const ground = mount(<Claimed />);
    await click(button(ground, 'Keep the licence'));
    expect(document.activeElement).toBe(button(ground, 'Change rights'));
  });

  it('takes it from nobody else', async () => {
    const ground = mount(<Claimed />);
    button(ground, 'Keep the licence').focus();
    await click(button(ground, 'Keep all'));
    expect(document.activeElement).toBe(button(ground, 'Keep all'));
  });
});
