import { severityOf } from '#core/page/target.ts';
import { FINDING_CODES, FINDING_NAMES } from '#core/proof/codes.ts';
import { Select } from '../ui/select.tsx';
import { RulesCard } from './rules-card.tsx';
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
    <RulesCard
      id="rules-findings"
      title="What stops sending"
      about="Each fault that the proof looks for, and how it counts here."
      className="col-span-full"
    >
      <div className="grid grid-cols-[repeat(auto-fill,minmax(min(480px,100%),1fr))] gap-x-7.5">
        {FINDING_CODES.map((code) => (
          <div
            key={code}
            className="grid grid-cols-[minmax(0,1fr)_160px] items-center gap-3 border-t border-hairline py-1"
          >
            {FINDING_NAMES[code]}
            <Select
              aria-label={FINDING_NAMES[code]}
              value={severityOf(rules, code)}
              choices={CHOICES}
              onChoose={(severity) => change({ severities: { ...rules.severities, [code]: severity } })}
            />
          </div>
        ))}
      </div>
    </RulesCard>
  );
}
