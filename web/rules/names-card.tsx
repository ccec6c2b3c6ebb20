import { DropdownMenu } from 'radix-ui';
import { NAME_PARTS, type NamePart, nameByPattern } from '#core/naming/pattern.ts';
import { Button } from '../ui/button.tsx';
import type { RulesPart } from './rules-part.ts';

const EXAMPLE = {
  title: 'Heron below Hide No. 3',
  place: 'Saltmere',
  maker: 'Ines Okonjo',
  taken: '2026-03-12',
  fileName: 'IMG_0612.JPG',
  kind: 'picture',
};
const PART_WORDS: Readonly<Record<NamePart['part'], string>> = {
  subject: 'subject',
  place: 'place',
  maker: 'maker',
  date: 'date taken',
  word: 'a fixed word',
};

/** The house pattern as an ordered row of parts, with a live example. */
export function NamesCard({ rules, change }: RulesPart) {
  const pattern = rules.namePattern;
  const put = (namePattern: NamePart[]) => change({ namePattern });
  const move = (at: number, by: -1 | 1) => {
    const next = [...pattern];
    const [part] = next.splice(at, 1);
    if (part) next.splice(at + by, 0, part);
    put(next);
  };
  const add = (part: NamePart['part']) =>
    put([...pattern, part === 'word' ? { part, word: 'saltmere' } : { part }]);
  return (
    <section className="card" aria-labelledby="rules-names">
      <h2 id="rules-names">Names</h2>
      <p className="soft">
        What a new file is called, from what its label says. Parts that are not known are left out.
      </p>
      <div className="pattern">
        {pattern.map((part, at) => (
          <span key={JSON.stringify(part)} className="pattern-part">
            <button
              type="button"
              aria-label={`Move ${PART_WORDS[part.part]} forward`}
              disabled={at === 0}
              onClick={() => move(at, -1)}
            >
              ‹
            </button>
            {part.part === 'word' ? (
              <input
                className="input mono"
                style={{ width: 90 }}
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
              <span>{PART_WORDS[part.part]}</span>
            )}
            <button
              type="button"
              aria-label={`Move ${PART_WORDS[part.part]} back`}
              disabled={at === pattern.length - 1}
              onClick={() => move(at, 1)}
            >
              ›
            </button>
            <button
              type="button"
              aria-label={`Leave out ${PART_WORDS[part.part]}`}
              disabled={pattern.length === 1}
              onClick={() => put(pattern.filter((_, index) => index !== at))}
            >
              ×
            </button>
          </span>
        ))}
        <DropdownMenu.Root>
          <DropdownMenu.Trigger asChild>
            <Button className="chip">add...</Button>
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content className="popover" align="start" sideOffset={4}>
              {NAME_PARTS.map((part) => (
                <DropdownMenu.Item key={part} className="menu-item" onSelect={() => add(part)}>
                  {PART_WORDS[part]}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      <p>
        <span className="mono">{EXAMPLE.fileName}</span> becomes{' '}
        <strong className="mono">{nameByPattern(pattern, EXAMPLE)}.jpg</strong>
      </p>
    </section>
  );
}
