import type { NamePart } from '#core/naming/parts.ts';
import { CHIP_LOOK } from '../ui/chips.tsx';
import { Input } from '../ui/input.tsx';
import { Menu, MenuContent, MenuItem, MenuTrigger } from '../ui/menu.tsx';

const PART_WORDS: Readonly<Record<NamePart['part'], string>> = {
  subject: 'subject',
  place: 'place',
  maker: 'maker',
  date: 'date taken',
  number: 'number',
  word: 'a fixed word',
};

interface PatternPartsProps {
  readonly pattern: readonly NamePart[];
  /** The parts that can be added. */
  readonly parts: readonly NamePart['part'][];
  readonly onChange: (pattern: NamePart[]) => void;
}

/** A name's pattern as an ordered row of parts: moved, left out, and added by hand. */
export function PatternParts({ pattern, parts, onChange: put }: PatternPartsProps) {
  const move = (at: number, by: -1 | 1) => {
    const next = [...pattern];
    const [part] = next.splice(at, 1);
    if (part) next.splice(at + by, 0, part);
    put(next);
  };
  const add = (part: NamePart['part']) =>
    put([...pattern, part === 'word' ? { part, word: 'word' } : { part }]);
  return (
    <div className="mb-2 flex flex-wrap gap-1.5">
      {pattern.map((part, at) => (
        <span
          key={keyOf(pattern, at)}
          className="inline-flex items-center gap-0.5 rounded-sm border border-control"
        >
          <button
            className="h-6.5 min-w-6"
            type="button"
            aria-label={`Move ${PART_WORDS[part.part]} forward`}
            disabled={at === 0}
            onClick={() => move(at, -1)}
          >
            ‹
          </button>
          {part.part === 'word' ? (
            <Input
              className="w-22.5 font-mono text-mono"
              aria-label="Fixed word"
              value={part.word}
              onChange={(event) =>
                put(
                  pattern.map((one, index) =>
                    index === at ? { part: 'word', word: event.target.value } : one,
                  ),
                )
              }
            />
          ) : (
            <span className="px-1.5 py-0.75 font-mono">{PART_WORDS[part.part]}</span>
          )}
          <button
            className="h-6.5 min-w-6"
            type="button"
            aria-label={`Move ${PART_WORDS[part.part]} back`}
            disabled={at === pattern.length - 1}
            onClick={() => move(at, 1)}
          >
            ›
          </button>
          <button
            className="h-6.5 min-w-6"
            type="button"
            aria-label={`Leave out ${PART_WORDS[part.part]}`}
            disabled={pattern.length === 1}
            onClick={() => put(pattern.filter((_, index) => index !== at))}
          >
            ×
          </button>
        </span>
      ))}
      <Menu>
        <MenuTrigger asChild>
          <button type="button" className={CHIP_LOOK}>
            add...
          </button>
        </MenuTrigger>
        <MenuContent>
          {parts.map((part) => (
            <MenuItem key={part} onSelect={() => add(part)}>
              {PART_WORDS[part]}
            </MenuItem>
          ))}
        </MenuContent>
      </Menu>
    </div>
  );
}

/** A key that stays while a fixed word is typed: the part, and which of its kind it is. */
function keyOf(pattern: readonly NamePart[], at: number): string {
  const kind = pattern[at]?.part;
  return `${kind} ${pattern.slice(0, at).filter(({ part }) => part === kind).length}`;
}
