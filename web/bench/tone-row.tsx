import { SHARPNESS_LIMIT } from '#core/media/recipe.ts';
import type { Tone } from '#core/media/tone.ts';
import { LabelRow } from '../label/row.tsx';
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
      <div className="label-actions">
        <label className="check">
          <input
            type="checkbox"
            checked={tone.monochrome}
            onChange={(event) =>
              change({ tone: to({ monochrome: event.target.checked }) }, 'black and white')
            }
          />
          Black and white
        </label>
        <label className="check">
          <input
            type="checkbox"
            checked={tone.inks !== null}
            onChange={(event) =>
              change({ tone: to({ inks: event.target.checked ? HOUSE_INKS : null }) }, 'two inks')
            }
          />
          Two inks
        </label>
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
    <div className="label-actions">
      {(['dark', 'light'] as const).map((which) => (
        <label key={which} className="check">
          <input
            type="color"
            className="ink"
            value={inks[which]}
            onChange={(event) => onDraft({ ...prep, tone: to({ [which]: event.target.value }) })}
            onBlur={(event) => change({ tone: to({ [which]: event.target.value }) }, 'its inks')}
          />
          {which === 'dark' ? 'Dark ink' : 'Light ink'}
        </label>
      ))}
    </div>
  );
}
