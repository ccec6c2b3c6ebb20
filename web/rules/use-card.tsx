import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { NumberField } from './number-field.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

const KILO = 1000;

/** What the site is, and what its pictures may weigh. */
export function UseCard({ rules, change }: RulesPart) {
  return (
    <RulesCard
      id="rules-use"
      title="Site and files"
      about={
        rules.commercial
          ? 'A commercial site: licences that forbid commercial use stop sending.'
          : 'Not a commercial site.'
      }
    >
      <div className="grid grid-cols-2 gap-2.5">
        <Field name="Name">
          {(control) => (
            <Input
              {...control}
              value={rules.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          )}
        </Field>
        <Field name="Address">
          {(control) => (
            <Input
              {...control}
              value={rules.siteAddress}
              onChange={(event) => change({ siteAddress: event.target.value })}
            />
          )}
        </Field>
        <Field name="Language">
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={rules.language}
              onChange={(event) => change({ language: event.target.value })}
            />
          )}
        </Field>
        <NumberField
          name="First load at most (kB)"
          value={Math.round(rules.weightBudget / KILO)}
          onChange={(kilobytes) => change({ weightBudget: kilobytes * KILO })}
        />
      </div>
      <div className="my-3 grid gap-1.5">
        <Checkbox checked={rules.commercial} onChange={(isOn) => change({ commercial: isOn })}>
          {' '}
          It is a commercial site
        </Checkbox>
        <Checkbox checked={rules.creditOwnWork} onChange={(isOn) => change({ creditOwnWork: isOn })}>
          {' '}
          Our own work is credited too
        </Checkbox>
        <Checkbox
          checked={rules.creditsAt === 'foot'}
          onChange={(isOn) => change({ creditsAt: isOn ? 'foot' : 'picture' })}
        >
          {' '}
          Credits stand at the page’s foot, each once, and not under the pictures
        </Checkbox>
        <Checkbox
          checked={rules.wordsOver === 'drawn'}
          onChange={(isOn) => change({ wordsOver: isOn ? 'drawn' : 'text' })}
        >
          {' '}
          Words over a picture are drawn into the file: the site keeps no text there
        </Checkbox>
      </div>
      <div className="grid gap-2.5">
        <NumberField
          name="Likeness, of 1000"
          hint="How alike each file looks to the untouched picture, 900 to 999: the quality of each format is found for it, within 3."
          value={rules.likeness}
          onChange={(likeness) => change({ likeness })}
        />
      </div>
    </RulesCard>
  );
}
