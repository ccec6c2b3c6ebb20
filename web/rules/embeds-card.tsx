import { useState } from 'react';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

/** What a target's filter may let through; the last two only matter where frames do. */
const PARTS = [
  ['frames', 'Frames come through'],
  ['click', 'The script that loads a frame on a click comes through'],
  ['widgets', 'Closed pages for what only comes as a script come through'],
] as const;

/** What of embeds comes through on the target, as its own filter lets it. */
export function EmbedsCard({ rules, change }: RulesPart) {
  const { embeds } = rules;
  const set = (part: Partial<typeof embeds>) => change({ embeds: { ...embeds, ...part } });
  const [hosts, setHosts] = useState(embeds.frameHosts.join(' '));
  const keepHosts = () =>
    set({
      frameHosts: hosts
        .toLowerCase()
        .split(/[\s,;]+/)
        .filter(Boolean),
    });
  return (
    <RulesCard
      id="rules-embeds"
      title="Embeds"
      about={
        embeds.frames
          ? 'Frames of trusted hosts come through here.'
          : 'No frames come through here: a linked poster stands in their place.'
      }
    >
      <div className="mb-3 grid gap-1.5">
        {PARTS.map(([part, words]) => (
          <Checkbox
            key={part}
            checked={embeds[part]}
            disabled={part !== 'frames' && !embeds.frames}
            onChange={(isOn) => set({ [part]: isOn })}
          >
            {words}
          </Checkbox>
        ))}
      </div>
      <Field name="Frames of these hosts only" hint="None named means every trusted host.">
        {(control) => (
          <Input
            {...control}
            className="font-mono text-mono"
            disabled={!embeds.frames}
            value={hosts}
            onChange={(event) => setHosts(event.target.value)}
            onBlur={keepHosts}
          />
        )}
      </Field>
    </RulesCard>
  );
}
