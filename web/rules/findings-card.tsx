import { useState } from 'react';
import { severityOf } from '#core/page/target.ts';
import { FINDING_CODES, FINDING_NAMES, type FindingCode, WHAT_OFF_MEANS } from '#core/proof/codes.ts';
import { Button } from '../ui/button.tsx';
import { Alert, AlertAction, AlertCancel, AlertContent } from '../ui/panel.tsx';
import { Select } from '../ui/select.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

const CHOICES = [
  ['stops', 'stops sending'],
  ['mend', 'should be mended'],
  ['note', 'is worth knowing'],
  ['off', 'is not looked for'],
] as const;

/** How each finding counts. What shuts readers out is switched off only after it was said what that means (ATAG 2.0, B.4.1.3). */
export function FindingsCard({ rules, change }: RulesPart) {
  const [asked, setAsked] = useState<FindingCode | null>(null);
  const choose = (code: FindingCode, severity: (typeof CHOICES)[number][0]) =>
    change({ severities: { ...rules.severities, [code]: severity } });
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
              onChoose={(severity) => {
                if (severity === 'off' && WHAT_OFF_MEANS[code]) setAsked(code);
                else choose(code, severity);
              }}
            />
          </div>
        ))}
      </div>
      <Alert open={asked !== null} onOpenChange={(isOpen) => !isOpen && setAsked(null)}>
        {asked ? (
          <AlertContent
            title="Not look for it any more?"
            about={
              <>
                <p>{WHAT_OFF_MEANS[asked]}</p>
                <p className="mt-1 text-soft">It can be looked for again at any time, here.</p>
              </>
            }
          >
            <div className="mt-4 flex flex-wrap gap-2.5">
              <AlertCancel asChild>
                <Button kind="action">Keep looking for it</Button>
              </AlertCancel>
              <AlertAction asChild>
                <Button onClick={() => choose(asked, 'off')}>Switch it off</Button>
              </AlertAction>
            </div>
          </AlertContent>
        ) : null}
      </Alert>
    </RulesCard>
  );
}
