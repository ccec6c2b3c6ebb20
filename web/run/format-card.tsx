import { CUT_FORMATS, type CutFormat, isCutFormat } from '#core/media/formats.ts';
import type { HouseRules } from '#core/page/target.ts';
import { NumberField } from '../rules/number-field.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Chips } from '../ui/chips.tsx';
import { RunCard } from './run-card.tsx';
import type { RunPart } from './sizes-card.tsx';

export const FORMAT_WORDS: Readonly<Record<CutFormat, string>> = {
  avif: 'AVIF',
  webp: 'WebP',
  jpeg: 'JPEG',
  png: 'PNG',
};

/** Where a run begins that has a quality of its own: what photographs are usually written at. */
const OWN_QUALITY = 80;

const FORMATS = Object.keys(CUT_FORMATS).filter(isCutFormat);

/** The formats that are made, and how good they are. */
export function FormatCard({ order, change, rules }: RunPart & { readonly rules: HouseRules }) {
  const toggle = (format: CutFormat) => {
    const next = FORMATS.filter((one) => order.formats.includes(one) !== (one === format));
    if (next.length > 0) change({ formats: next });
  };
  return (
    <RunCard id="run-formats" title="Formats">
      <Chips
        about="Formats"
        pressed={order.formats}
        choices={FORMATS.map((format) => [format, FORMAT_WORDS[format]] as const)}
        onPress={toggle}
      />
      <Checkbox
        checked={order.quality === null}
        onChange={() => change({ quality: order.quality === null ? OWN_QUALITY : null })}
      >
        Likeness by the house rules
      </Checkbox>
      {order.quality === null ? (
        <p className="text-soft">Each file looks {rules.likeness} of 1000 alike to the untouched picture.</p>
      ) : (
        <NumberField
          name="Quality of all"
          hint="20 to 100 on the encoder’s own scale."
          value={order.quality}
          onChange={(quality) => change({ quality })}
        />
      )}
    </RunCard>
  );
}
