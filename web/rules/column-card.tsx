import { useState } from 'react';
import { Dimension } from '../measure/dimension.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { NumberField, readNumbers } from './number-field.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

/** The column and where it changes, with a drawing to scale. */
export function ColumnCard({ rules, change }: RulesPart) {
  const [breakpoints, setBreakpoints] = useState(rules.breakpoints.join(', '));
  const [proofWidths, setProofWidths] = useState(rules.proofWidths.join(', '));
  const widest = Math.max(...rules.proofWidths, rules.breakout, 1);
  const percent = (px: number) => `${(px / widest) * 100}%`;
  const drawn = (px: number) => ({ left: percent((widest - px) / 2), width: percent(px) });
  return (
    <RulesCard
      id="rules-column"
      title="Column"
      about="How wide the text of a page is, and from where a narrow screen changes it."
    >
      <div className="relative mt-1 mb-3.5 h-18.5 max-w-115" aria-hidden="true">
        <Dimension
          tone="soft"
          ground="bg-panel"
          axis="x"
          words={`${rules.breakout} px breakout`}
          style={{ top: 0, ...drawn(rules.breakout) }}
        />
        <div
          className="absolute top-5.5 bottom-0 border-x border-line bg-[repeating-linear-gradient(var(--color-line)_0_1px,transparent_1px_9px)]"
          style={drawn(rules.column)}
        />
        <Dimension
          tone="soft"
          ground="bg-panel"
          axis="x"
          words={`${rules.column} px`}
          style={{ top: 40, ...drawn(rules.column) }}
        />
      </div>
      <div className="grid grid-cols-3 gap-2.5">
        <NumberField name="Column (px)" value={rules.column} onChange={(column) => change({ column })} />
        <NumberField
          name="Breakout (px)"
          value={rules.breakout}
          onChange={(breakout) => change({ breakout })}
        />
        <NumberField name="Gutter (px)" value={rules.gutter} onChange={(gutter) => change({ gutter })} />
        <NumberField
          name="Text size (px)"
          value={rules.textSize}
          onChange={(textSize) => change({ textSize })}
        />
        <NumberField
          name="Stack under (px)"
          value={rules.stackBelow}
          onChange={(stackBelow) => change({ stackBelow })}
        />
        <NumberField
          name="Least letters beside"
          value={rules.leastLettersBeside}
          onChange={(leastLettersBeside) => change({ leastLettersBeside })}
        />
      </div>
      <div className="mt-2.5 grid grid-cols-2 gap-2.5">
        <Field name="Breakpoints (px)">
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={breakpoints}
              onChange={(event) => {
                setBreakpoints(event.target.value);
                change({ breakpoints: readNumbers(event.target.value) });
              }}
            />
          )}
        </Field>
        <Field name="Widths of the proof (px)">
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={proofWidths}
              onChange={(event) => {
                setProofWidths(event.target.value);
                change({ proofWidths: readNumbers(event.target.value) });
              }}
            />
          )}
        </Field>
      </div>
      <div className="mt-2.5">
        <Checkbox checked={rules.dark} onChange={(dark) => change({ dark })}>
          Dark where a reader’s device is set to dark
        </Checkbox>
      </div>
    </RulesCard>
  );
}
