import { useEffect, useId, useRef, useState } from 'react';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { plateFor } from '#core/media/over-contrast.ts';
import { LEAST_SIZE, MOST_SIZE, type OverWords, OverWordsSchema } from '#core/media/over-words.ts';
import type { Prep } from '#core/media/recipe.ts';
import type { OverStanding } from '#core/page/over-standing.ts';
import { sayOverWay } from '#core/page/over-standing.ts';
import type { HouseRules } from '#core/page/target.ts';
import { LabelRow } from '../label/row.tsx';
import { Places } from '../over/places.tsx';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { ColourField } from '../ui/colour.tsx';
import { FAULT_LOOK } from '../ui/fault.tsx';
import { TextArea } from '../ui/input.tsx';
import type { DraftProps } from './prep-change.ts';
import { Slide } from './slide.tsx';

interface OverRowProps extends DraftProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  /** How they stand over the open cut. */
  readonly standing: OverStanding | undefined;
}

const PLAIN = { place: 'bottom left', size: 60, ink: '#ffffff', plate: null } as const;

/** Words over the picture: what they say, where, how large and in which colours, and whether they stand out. */
export function OverRow({ asset, rules, prep, standing, onDraft, change }: OverRowProps) {
  const { words } = prep;
  const id = useId();
  const isThere = words !== null;
  const hasActed = useRef(false);
  // What was pressed is gone with it: the hand goes on at what came in its place.
  useEffect(() => {
    if (hasActed.current) document.getElementById(`${id}-${isThere ? 'text' : 'put'}`)?.focus();
    hasActed.current = false;
  }, [id, isThere]);
  const act = (next: OverWords | null, name: string) => {
    hasActed.current = true;
    change({ words: next }, name);
  };
  const draft = (part: Partial<OverWords>) => words && onDraft({ ...prep, words: { ...words, ...part } });
  const keep = (part: Partial<OverWords>) =>
    words && change({ words: { ...words, ...part } }, 'the words over it');
  if (!words)
    return (
      <LabelRow name="Words over it">
        <p className="text-soft">Nothing stands over it.</p>
        <Button
          kind="link"
          id={`${id}-put`}
          onClick={() => act({ ...PLAIN, text: firstWords(asset) }, 'words over it')}
        >
          Put words over it
        </Button>
      </LabelRow>
    );
  return (
    <LabelRow name="Words over it">
      <TextInput
        id={`${id}-text`}
        words={words}
        prep={prep}
        onDraft={onDraft}
        onKeep={(text) => keep({ text })}
      />
      <Places place={words.place} onChoose={(place) => keep({ place })} />
      <Slide
        name="Size"
        value={words.size}
        least={LEAST_SIZE}
        most={MOST_SIZE}
        says={`${(words.size / 10).toFixed(1)}%`}
        onMove={(size) => draft({ size })}
        onLet={(size) => keep({ size: Math.max(LEAST_SIZE, size) })}
      />
      <div className="flex flex-wrap gap-2">
        <ColourField
          name="Ink"
          value={words.ink}
          onMove={(ink) => draft({ ink })}
          onLet={(ink) => keep({ ink })}
        />
        <Checkbox
          checked={words.plate !== null}
          onChange={(isOn) => keep({ plate: isOn ? plateFor(words.ink) : null })}
        >
          On a plate
        </Checkbox>
        {words.plate ? (
          <ColourField
            name="Plate"
            value={words.plate}
            onMove={(plate) => draft({ plate })}
            onLet={(plate) => keep({ plate })}
          />
        ) : null}
      </div>
      {standing ? <p className={standing.isFaint ? 'text-due' : ''}>{standing.sentence}</p> : null}
      {standing?.isSmaller ? <p>Set smaller in this cut, to fit.</p> : null}
      <p className="text-soft">{sayOverWay(rules.wordsOver, rules.name)}</p>
      <Button kind="link" onClick={() => act(null, 'the words over it')}>
        Take them off
      </Button>
    </LabelRow>
  );
}

/** The title to begin with, as far as it fits. */
function firstWords({ label, stem }: Asset): string {
  const title = label.title || stem.replaceAll('-', ' ');
  return v.is(OverWordsSchema, { ...PLAIN, text: title }) ? title : 'Words';
}

interface TextProps {
  readonly id: string;
  readonly words: OverWords;
  readonly prep: Prep;
  readonly onDraft: (prep: Prep) => void;
  readonly onKeep: (text: string) => void;
}

/** What cannot be set stays in the field with a reason. */
function TextInput({ id, words, prep, onDraft, onKeep }: TextProps) {
  /** What is being written, and what stood there before; null while nobody writes. */
  const [writing, setWriting] = useState<{ readonly text: string; readonly before: string } | null>(null);
  const text = writing?.text ?? words.text;
  const read = v.safeParse(OverWordsSchema, { ...words, text });
  return (
    <div className="grid gap-0.75">
      <label htmlFor={id}>What stands there</label>
      <TextArea
        id={id}
        className="resize-y"
        rows={2}
        value={text}
        aria-invalid={!read.success}
        aria-describedby={read.success ? undefined : `${id}-fault`}
        onFocus={() => setWriting((current) => current ?? { text: words.text, before: words.text })}
        onChange={(event) => {
          setWriting({ text: event.target.value, before: writing?.before ?? words.text });
          const next = v.safeParse(OverWordsSchema, { ...words, text: event.target.value });
          if (next.success) onDraft({ ...prep, words: next.output });
        }}
        onBlur={() => {
          if (!read.success || !writing) return;
          if (read.output.text !== writing.before) onKeep(read.output.text);
          setWriting(null);
        }}
      />
      {read.success ? null : (
        <p id={`${id}-fault`} className={FAULT_LOOK} role="alert">
          {read.issues[0].message} It stays as it was.
        </p>
      )}
    </div>
  );
}
