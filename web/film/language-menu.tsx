import { useState } from 'react';
import type { CaptionTrack } from '#api/captions.ts';
import type { TrackKind } from '#core/film/cue.ts';
import { callLanguage } from '#core/words/language.ts';
import { isLanguageTag } from '#core/words/language-tag.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Menu, MenuContent, MenuItem, MenuTrigger } from '../ui/menu.tsx';
import { Panel } from '../ui/panel.tsx';

interface LanguageMenuProps {
  readonly kind: TrackKind;
  readonly language: string;
  readonly tracks: readonly CaptionTrack[];
  /** How many lines the one has that is worked on. */
  readonly count: number;
  readonly onLanguage: (language: string) => void;
}

/** The other languages, each with how much of it there is; another is begun by its tag. */
export function LanguageMenu({ kind, language, tracks, count, onLanguage }: LanguageMenuProps) {
  const [isAdding, setAdding] = useState(false);
  const [tag, setTag] = useState('');
  const others = tracks.filter((one) => one.kind === kind && one.language !== language);
  const isGood = isLanguageTag(tag);
  const [only] = others;
  return (
    <span className="ml-auto">
      <Menu>
        <MenuTrigger asChild>
          <Button kind="link">
            {only && others.length === 1
              ? `${callLanguage(only.language)}, ${only.cues.length} of ${count}`
              : 'Languages'}
          </Button>
        </MenuTrigger>
        <MenuContent align="end">
          {others.map((one) => (
            <MenuItem key={one.language} onSelect={() => onLanguage(one.language)}>
              {callLanguage(one.language)}, {one.cues.length} of {count}
            </MenuItem>
          ))}
          <MenuItem onSelect={() => setAdding(true)}>Another language...</MenuItem>
        </MenuContent>
      </Menu>
      {isAdding ? (
        <Panel title="Another language" isOpen onClose={() => setAdding(false)}>
          <Field
            className="mt-2 max-w-60"
            name="Language"
            hint={isGood ? callLanguage(tag) : 'As a tag, such as cy or de.'}
          >
            {(control) => (
              <Input
                {...control}
                value={tag}
                maxLength={35}
                onChange={({ target }) => setTag(target.value.trim().toLowerCase())}
              />
            )}
          </Field>
          <Deeds>
            <Button
              kind="action"
              disabled={!isGood}
              onClick={() => {
                setAdding(false);
                onLanguage(tag);
              }}
            >
              Begin it
            </Button>
            <Button onClick={() => setAdding(false)}>Leave it</Button>
          </Deeds>
        </Panel>
      ) : null}
    </span>
  );
}
