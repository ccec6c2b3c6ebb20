import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { countKeyWords, readKeyWords, withKeyWords, withoutKeyWord } from '#core/words/key-words.ts';
import { InUseInput } from '../label/in-use-line.tsx';
import type { ChangeOfEach } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Chips } from '../ui/chips.tsx';
import { Field } from '../ui/field.tsx';

/** As many as can be looked through; the shelf finds the others. */
const MOST_SHOWN = 24;

interface ManyWordsProps {
  readonly assets: readonly Asset[];
  readonly onChange: (change: ChangeOfEach, name: string) => Promise<void>;
}

/** The key words of several pieces: those of all are filled; pressing one gives it to all, or takes it off all. */
export function ManyWords({ assets, onChange }: ManyWordsProps) {
  const [typed, setTyped] = useState('');
  const counted = countKeyWords(assets.map(({ label }) => label.keywords)).slice(0, MOST_SHOWN);
  const add = (words: readonly string[]) =>
    onChange(({ label }) => {
      const next = withKeyWords(label.keywords, words);
      return next.length === label.keywords.length ? null : { label: { keywords: [...next] } };
    }, 'key words');
  const takeOff = (word: string) =>
    onChange(({ label }) => {
      const next = withoutKeyWord(label.keywords, word);
      return next.length === label.keywords.length ? null : { label: { keywords: [...next] } };
    }, 'key words');
  const onAll = counted.filter(({ pieces }) => pieces === assets.length).map(({ word }) => word);
  return (
    <form
      className="grid w-75 gap-2.25 p-3"
      aria-label="Key words"
      onSubmit={(event) => {
        event.preventDefault();
        const words = readKeyWords(typed);
        setTyped('');
        if (words.length > 0) void add(words);
      }}
    >
      <Field name="Add key words" hint="Separated by commas.">
        {(control) => (
          <InUseInput
            {...control}
            field="keywords"
            listOf="Key words in use"
            value={typed}
            maxLength={1000}
            onChange={setTyped}
          />
        )}
      </Field>
      {counted.length > 0 ? (
        <Chips
          about="Key words of the chosen pieces"
          pressed={onAll}
          choices={counted.map(({ word, pieces }) => [
            word,
            pieces === assets.length ? word : `${word} · ${pieces} of ${assets.length}`,
          ])}
          onPress={(word) => void (onAll.includes(word) ? takeOff(word) : add([word]))}
        />
      ) : null}
      <Button className="justify-self-start" kind="action" type="submit" disabled={typed.trim() === ''}>
        Add to {assets.length === 1 ? 'it' : `all ${assets.length}`}
      </Button>
    </form>
  );
}
