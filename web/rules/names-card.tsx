import { useState } from 'react';
import { NAME_PARTS } from '#core/naming/parts.ts';
import { nameByPattern } from '#core/naming/pattern.ts';
import { PatternParts } from '../names/pattern-parts.tsx';
import { Field } from '../ui/field.tsx';
import { TextArea } from '../ui/input.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

const EXAMPLE = {
  title: 'Heron below Hide No. 3',
  place: 'Saltmere',
  maker: 'Ines Okonjo',
  taken: '2026-03-12',
  fileName: 'IMG_0612.JPG',
  kind: 'picture',
};
/** A house pattern names one piece at a time, so there is nothing to count. */
const HOUSE_PARTS = NAME_PARTS.filter((part) => part !== 'number');

/** The house pattern as an ordered row of parts, with a live example. */
export function NamesCard({ rules, change }: RulesPart) {
  const pattern = rules.namePattern;
  const [sections, setSections] = useState(rules.sections.join('\n'));
  return (
    <RulesCard
      id="rules-names"
      title="Names"
      about="What a new file is called, from what its label says. Parts that are not known are left out."
    >
      <PatternParts
        pattern={pattern}
        parts={HOUSE_PARTS}
        onChange={(namePattern) => change({ namePattern })}
      />
      <p>
        <span className="font-mono text-mono">{EXAMPLE.fileName}</span> becomes{' '}
        <strong className="font-mono text-mono">{nameByPattern(pattern, EXAMPLE)}.jpg</strong>
      </p>
      <Field
        name="Sections of the site"
        hint="One a line, as their addresses say them. The shelf offers a folder for each."
      >
        {(control) => (
          <TextArea
            {...control}
            className="font-mono text-mono"
            rows={4}
            placeholder="visit/hides"
            value={sections}
            onChange={(event) => {
              setSections(event.target.value);
              change({ sections: linesOf(event.target.value) });
            }}
          />
        )}
      </Field>
    </RulesCard>
  );
}

const linesOf = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
