import { SHARPNESS_LIMIT } from '#core/media/recipe.ts';
import type { Tone } from '#core/media/tone.ts';
import { LabelRow } from '../label/row.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { ColourField } from '../ui/colour.tsx';
import type { DraftProps } from './prep-change.ts';
import { Slide, signed } from './slide.tsx';

const TONES = [
  ['light', 'Light'],
  ['contrast', 'Contrast'],
  ['colour', 'Colour'],
  ['warmth', 'Warmth'],
] as const;

const HOUSE_INKS = { dark: '#172126', light: '#f7efe0' } as const;

/** Light and colour, sharpness, black and white, and two inks. */
export function ToneRow({ prep, onDraft, change }: DraftProps) {
  const { tone } = prep;
  const to = (part: Partial<Tone>): Tone => ({ ...tone, ...part });
  return (
    <LabelRow name="Tone">
      {TONES.map(([field, name]) => (
        <Slide
          key={field}
          name={name}
          value={tone[field]}
          least={-100}
          most={100}
          says={signed(tone[field])}
          onMove={(value) => onDraft({ ...prep, tone: to({ [field]: value }) })}
          onLet={(value) => change({ tone: to({ [field]: value }) }, `its ${name.toLowerCase()}`)}
        />
      ))}
      <Slide
        name="Sharp"
        value={prep.sharpness}
        least={0}
        most={SHARPNESS_LIMIT}
        says={String(prep.sharpness)}
        onMove={(sharpness) => onDraft({ ...prep, sharpness })}
        onLet={(sharpness) => change({ sharpness }, 'its sharpness')}
      />
      <div className="flex flex-wrap gap-2">
        <Checkbox
          checked={tone.monochrome}
          onChange={(isOn) => change({ tone: to({ monochrome: isOn }) }, 'black and white')}
        >
          Black and white
        </Checkbox>
        <Checkbox
          checked={tone.inks !== null}
          onChange={(isOn) => change({ tone: to({ inks: isOn ? HOUSE_INKS : null }) }, 'two inks')}
        >
          Two inks
        </Checkbox>
      </div>
      {tone.inks ? <Inks prep={prep} onDraft={onDraft} change={change} /> : null}
    </LabelRow>
  );
}

function Inks({ prep, onDraft, change }: DraftProps) {
  const { inks } = prep.tone;
  if (!inks) return null;
  const to = (part: Partial<typeof inks>) => ({ ...prep.tone, inks: { ...inks, ...part } });
  return (
    <div className="flex flex-wrap gap-2">
      {(['dark', 'light'] as const).map((which) => (
        <ColourField
          key={which}
          name={which === 'dark' ? 'Dark ink' : 'Light ink'}
          value={inks[which]}
          onMove={(colour) => onDraft({ ...prep, tone: to({ [which]: colour }) })}
          onLet={(colour) => change({ tone: to({ [which]: colour }) }, 'its inks')}
        />
      ))}
    </div>
  );
}
