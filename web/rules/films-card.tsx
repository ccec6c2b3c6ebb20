import { Checkbox } from '../ui/checkbox.tsx';
import { NumberField } from './number-field.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

/** Films and sound of the house's own: what goes out from here, what belongs on the film host, and how captions are. */
export function FilmsCard({ rules, change }: RulesPart) {
  const { films } = rules;
  const set = (part: Partial<typeof films>) => change({ films: { ...films, ...part } });
  const setCaptions = (part: Partial<typeof films.captions>) =>
    set({ captions: { ...films.captions, ...part } });
  return (
    <RulesCard
      id="rules-films"
      title="Films and sound"
      about={`Over ${films.mostMinutes} minutes or ${films.mostMegabytes} MB a film belongs on the film host.`}
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <NumberField
          name="Most minutes"
          value={films.mostMinutes}
          onChange={(mostMinutes) => set({ mostMinutes })}
        />
        <NumberField
          name="Most MB"
          value={films.mostMegabytes}
          onChange={(mostMegabytes) => set({ mostMegabytes })}
        />
      </div>
      <Checkbox className="mt-3" checked={films.takesWebm} onChange={(takesWebm) => set({ takesWebm })}>
        WebM goes out beside MP4, where it is smaller
      </Checkbox>
      <h3 className="mt-4 mb-1.5 font-semibold">Captions</h3>
      <div className="grid grid-cols-3 gap-x-4">
        <NumberField
          name="Letters a second"
          value={films.captions.perSecond}
          onChange={(perSecond) => setCaptions({ perSecond })}
        />
        <NumberField name="Lines" value={films.captions.lines} onChange={(lines) => setCaptions({ lines })} />
        <NumberField
          name="Letters a line"
          value={films.captions.lineLetters}
          onChange={(lineLetters) => setCaptions({ lineLetters })}
        />
      </div>
    </RulesCard>
  );
}
