import type { RunPreview } from '#api/runs.ts';
import { NAME_PARTS } from '#core/naming/parts.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Naming } from '#core/run/order.ts';
import { PatternParts } from '../names/pattern-parts.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { RunCard } from './run-card.tsx';
import { listed } from './run-words.ts';
import type { RunPart } from './sizes-card.tsx';

type Way = 'stay' | 'all' | 'unnamed' | 'replace';

const WAYS: readonly (readonly [Way, string])[] = [
  ['stay', 'Stay as they are'],
  ['all', 'By a pattern'],
  ['unnamed', 'By a pattern, where nobody named them'],
  ['replace', 'Search and replace'],
];

interface NameCardProps extends RunPart {
  readonly rules: HouseRules;
  readonly preview: RunPreview | undefined;
}

/** How the pieces are called: by a pattern of parts, or by search and replace. */
export function NameCard({ order, change, rules, preview }: NameCardProps) {
  const { naming } = order;
  const choose = (way: Way) => change({ naming: namingFor(way, naming, rules) });
  return (
    <RunCard id="run-names" title="Names">
      <Select aria-label="Names" value={wayOf(naming)} choices={WAYS} onChoose={choose} />
      {naming?.by === 'pattern' ? (
        <>
          <PatternParts
            pattern={naming.pattern}
            parts={NAME_PARTS}
            onChange={(pattern) => change({ naming: { ...naming, pattern } })}
          />
          {preview ? <p className="text-soft">{saySubjects(preview)}</p> : null}
        </>
      ) : null}
      {naming?.by === 'replace' ? (
        <ReplaceFields naming={naming} onChange={(next) => change({ naming: next })} />
      ) : null}
      <p className="text-soft">Any single name can be written in its row.</p>
    </RunCard>
  );
}

function ReplaceFields({
  naming,
  onChange,
}: {
  readonly naming: Extract<Naming, { by: 'replace' }>;
  readonly onChange: (naming: Naming) => void;
}) {
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <Field name="Search for">
          {(control) => (
            <Input
              {...control}
              maxLength={80}
              value={naming.search}
              onChange={(event) => onChange({ ...naming, search: event.target.value })}
            />
          )}
        </Field>
        <Field name="Put in its place">
          {(control) => (
            <Input
              {...control}
              maxLength={80}
              value={naming.replace}
              onChange={(event) => onChange({ ...naming, replace: event.target.value })}
            />
          )}
        </Field>
      </div>
      <Checkbox checked={naming.titles} onChange={() => onChange({ ...naming, titles: !naming.titles })}>
        In titles too
      </Checkbox>
    </>
  );
}

function wayOf(naming: Naming | null): Way {
  if (!naming) return 'stay';
  return naming.by === 'replace' ? 'replace' : naming.which;
}

function namingFor(way: Way, before: Naming | null, rules: HouseRules): Naming | null {
  switch (way) {
    case 'stay':
      return null;
    case 'replace':
      return { by: 'replace', search: '', replace: '', titles: true };
    default: {
      const pattern = before?.by === 'pattern' ? before.pattern : rules.namePattern;
      return { by: 'pattern', pattern, which: way };
    }
  }
}

const FROM_WORDS: Readonly<Record<string, string>> = {
  title: 'titles',
  'file name': 'the file name',
  words: 'subject words',
  folder: 'the folder',
  kind: 'nothing but being a picture',
};

/** "Subjects: 31 from titles and 6 from the folder." */
function saySubjects({ subjects }: RunPreview): string {
  const others = subjects.filter(({ from }) => from !== 'title');
  const titled = subjects.find(({ from }) => from === 'title')?.pieces ?? 0;
  const fromOthers = others.map(({ from, pieces }) => `${pieces} from ${FROM_WORDS[from] ?? from}`);
  if (others.length === 0) return 'Subjects come from the titles.';
  return `Subjects: ${listed([...(titled > 0 ? [`${titled} from titles`] : []), ...fromOthers])}.`;
}
