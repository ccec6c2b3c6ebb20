import { useState } from 'react';
import { Dimension } from '../measure/dimension.tsx';
import { Field } from '../ui/field.tsx';
import { NumberField, readNumbers } from './number-field.tsx';
import type { RulesPart } from './rules-part.ts';

/** The column and where it changes, with a drawing to scale. */
export function ColumnCard({ rules, change }: RulesPart) {
  const [breakpoints, setBreakpoints] = useState(rules.breakpoints.join(', '));
  const [proofWidths, setProofWidths] = useState(rules.proofWidths.join(', '));
  const widest = Math.max(...rules.proofWidths, rules.breakout, 1);
  const percent = (px: number) => `${(px / widest) * 100}%`;
  const drawn = (px: number) => ({ left: percent((widest - px) / 2), width: percent(px) });
  return (
    <section className="card" aria-labelledby="rules-column">
      <h2 id="rules-column">Column</h2>
      <p className="soft">How wide the text of a page is, and from where a narrow screen changes it.</p>
      <div className="column-drawing" aria-hidden="true">
        <Dimension
          axis="x"
          words={`${rules.breakout} px breakout`}
          style={{ top: 0, ...drawn(rules.breakout) }}
        />
        <div className="column-paper" style={drawn(rules.column)} />
        <Dimension axis="x" words={`${rules.column} px`} style={{ top: 40, ...drawn(rules.column) }} />
      </div>
      <div className="rules-fields">
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
      <div className="rules-fields" style={{ gridTemplateColumns: '1fr 1fr', marginTop: 10 }}>
        <Field name="Breakpoints (px)">
          {(control) => (
            <input
              {...control}
              className="input mono"
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
            <input
              {...control}
              className="input mono"
              value={proofWidths}
              onChange={(event) => {
                setProofWidths(event.target.value);
                change({ proofWidths: readNumbers(event.target.value) });
              }}
            />
          )}
        </Field>
      </div>
    </section>
  );
}
