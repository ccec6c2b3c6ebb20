import { severityOf } from '#core/page/target.ts';
import { FINDING_CODES, FINDING_NAMES } from '#core/proof/codes.ts';
import type { RulesPart } from './rules-part.ts';

const CHOICES = [
  ['stops', 'stops sending'],
  ['mend', 'should be mended'],
  ['note', 'is worth knowing'],
  ['off', 'is not looked for'],
] as const;

/** How each finding counts. */
export function FindingsCard({ rules, change }: RulesPart) {
  return (
    <section className="card" aria-labelledby="rules-findings" style={{ gridColumn: '1 / -1' }}>
      <h2 id="rules-findings">What stops sending</h2>
      <p className="soft">Each fault that the proof looks for, and how it counts here.</p>
      <div
        className="rules-fields"
        style={{ gridTemplateColumns: 'repeat(auto-fill, minmax(480px, 1fr))', gap: '0 30px' }}
      >
        {FINDING_CODES.map((code) => (
          <label
            key={code}
            style={{
              display: 'grid',
              gridTemplateColumns: 'minmax(0,1fr) 160px',
              alignItems: 'center',
              gap: 12,
              padding: '4px 0',
              borderTop: '1px solid var(--hairline)',
            }}
          >
            {FINDING_NAMES[code]}
            <select
              className="input"
              value={severityOf(rules, code)}
              onChange={(event) =>
                change({
                  severities: {
                    ...rules.severities,
                    [code]: CHOICES.find(([value]) => value === event.target.value)?.[0] ?? 'mend',
                  },
                })
              }
            >
              {CHOICES.map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
    </section>
  );
}
