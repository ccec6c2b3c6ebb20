import { useState } from 'react';
import { Field } from '../ui/field.tsx';
import type { RulesPart } from './rules-part.ts';

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
    <section className="card" aria-labelledby="rules-embeds">
      <h2 id="rules-embeds">Embeds</h2>
      <p className="soft">
        {embeds.frames
          ? 'Frames of trusted hosts come through here.'
          : 'No frames come through here: a linked poster stands in their place.'}
      </p>
      <div style={{ display: 'grid', gap: 6, marginBottom: 12 }}>
        <label className="check">
          <input
            type="checkbox"
            checked={embeds.frames}
            onChange={(event) => set({ frames: event.target.checked })}
          />
          Frames come through
        </label>
        <label className="check">
          <input
            type="checkbox"
            checked={embeds.click}
            disabled={!embeds.frames}
            onChange={(event) => set({ click: event.target.checked })}
          />
          The script that loads a frame on a click comes through
        </label>
        <label className="check">
          <input
            type="checkbox"
            checked={embeds.widgets}
            disabled={!embeds.frames}
            onChange={(event) => set({ widgets: event.target.checked })}
          />
          Closed pages for what only comes as a script come through
        </label>
      </div>
      <Field name="Frames of these hosts only" hint="None named means every trusted host.">
        {(control) => (
          <input
            {...control}
            className="input mono"
            disabled={!embeds.frames}
            value={hosts}
            onChange={(event) => setHosts(event.target.value)}
            onBlur={keepHosts}
          />
        )}
      </Field>
    </section>
  );
}
