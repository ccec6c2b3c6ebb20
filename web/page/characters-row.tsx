import type { Editor } from '@tiptap/core';
import { useState } from 'react';
import { namesHowWell } from '#core/words/find.ts';
import { LabelRow } from '../label/row.tsx';
import { onSheet } from '../sheet/on-sheet.ts';
import { Button } from '../ui/button.tsx';
import { CHIP_LOOK } from '../ui/chips.tsx';
import { Input } from '../ui/input.tsx';
import { Tip } from '../ui/tip.tsx';
import { SPECIAL_CHARACTERS } from './special-characters.ts';

/** Characters that no key writes, found by their names and put where the caret is. */
export function CharactersRow({ editor }: { readonly editor: Editor }) {
  const [isOpen, setOpen] = useState(false);
  const [sought, setSought] = useState('');
  const offered = SPECIAL_CHARACTERS.filter(
    ([character, name]) =>
      sought.trim() === '' || sought.trim() === character || namesHowWell(sought, name) > 0,
  );
  const put = (character: string) => onSheet(editor).insertContent({ type: 'text', text: character }).run();
  return (
    <LabelRow name="Characters">
      <div>
        <Button kind="link" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
          {isOpen ? 'Put them away' : 'Special characters'}
        </Button>
      </div>
      {isOpen ? (
        <>
          <Input
            type="search"
            autoFocus
            aria-label="Find a character by its name"
            placeholder="dash, space, quote"
            maxLength={60}
            value={sought}
            onChange={(event) => setSought(event.target.value)}
            onKeyDown={(event) => {
              const [first] = offered;
              if (event.key === 'Enter' && first) put(first[0]);
            }}
          />
          <div className="flex flex-wrap gap-1.25">
            {offered.map(([character, name, sign = character]) => (
              <Tip key={name} words={name}>
                <button
                  type="button"
                  className={`${CHIP_LOOK} min-w-7 px-1`}
                  aria-label={name}
                  onClick={() => put(character)}
                >
                  {sign}
                </button>
              </Tip>
            ))}
          </div>
          {offered.length === 0 ? <p className="text-soft">None is called so.</p> : null}
        </>
      ) : null}
    </LabelRow>
  );
}
