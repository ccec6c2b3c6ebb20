import { useState } from 'react';
import { readRegions, sayRegions, writeRegions } from '#core/rights/regions.ts';
import { sayDay, USE_WORDS } from '#core/rights/say-judgement.ts';
import { AGREED_USES, dayIn, isTimeZone } from '#core/rights/terms.ts';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

/** What a licence or an agreement asks of a target: where it is read, as what, on which days, and whose word is enough. */
export function ReachCard({ rules, change }: RulesPart) {
  const [where, setWhere] = useState(writeRegions(rules.territory));
  const [sources, setSources] = useState(rules.trustedSources.join(', '));
  const { unknown } = readRegions(where);
  return (
    <RulesCard
      id="rules-reach"
      title="Rights"
      about={`Read ${rules.territory.length === 0 ? 'everywhere' : `in ${sayRegions(rules.territory)}`}; what was agreed for less stops sending.`}
    >
      <div className="grid grid-cols-2 gap-2.5">
        <Field
          name="Where it is read"
          fault={unknown.length > 0 ? `${unknown.join(', ')}: no country is called so.` : null}
        >
          {(control) => (
            <Input
              {...control}
              value={where}
              placeholder="Everywhere"
              onChange={(event) => {
                setWhere(event.target.value);
                change({ territory: [...readRegions(event.target.value).regions] });
              }}
            />
          )}
        </Field>
        <Field name="Agreements call it">
          {(control) => (
            <Select
              {...control}
              value={rules.publishing}
              choices={AGREED_USES.map((use) => [use, USE_WORDS[use]] as const)}
              onChoose={(publishing) => change({ publishing })}
            />
          )}
        </Field>
        <Field
          name="Time zone"
          hint={isTimeZone(rules.timeZone) ? `There it is ${sayDay(dayIn(rules.timeZone, new Date()))}.` : ''}
        >
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={rules.timeZone}
              onChange={(event) => change({ timeZone: event.target.value })}
            />
          )}
        </Field>
        <Field
          name="Sources whose word is enough"
          hint="A licence that they say counts as cleared before anybody has kept it."
        >
          {(control) => (
            <Input
              {...control}
              value={sources}
              placeholder="None"
              onChange={(event) => {
                setSources(event.target.value);
                const named = event.target.value.split(',').map((name) => name.trim());
                change({ trustedSources: [...new Set(named.filter(Boolean))] });
              }}
            />
          )}
        </Field>
      </div>
      <div className="mt-3">
        <Checkbox checked={rules.educational} onChange={(isOn) => change({ educational: isOn })}>
          {' '}
          It is a site that teaches
        </Checkbox>
      </div>
    </RulesCard>
  );
}
