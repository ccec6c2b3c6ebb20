import { webSafe } from '#core/naming/names.ts';
import type { CutPreset } from '#core/page/target.ts';
import { Table } from '../table/table.tsx';
import { Button } from '../ui/button.tsx';
import { Input } from '../ui/input.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

/** "16:9" as a ratio, "whole" or nothing as none; undefined for anything else. */
function readRatio(text: string): CutPreset['ratio'] | undefined {
  if (/^\s*(whole)?\s*$/i.test(text)) return null;
  const [, across, down] = /^\s*(\d{1,3})\s*[:x/]\s*(\d{1,3})\s*$/.exec(text) ?? [];
  const ratio = { across: Number(across), down: Number(down) };
  return ratio.across >= 1 && ratio.across <= 100 && ratio.down >= 1 && ratio.down <= 100 ? ratio : undefined;
}

/** The shapes and widths that the site's designs use. */
export function CutsCard({ rules, change }: RulesPart) {
  const presets = rules.cutPresets;
  const put = (at: number, part: Partial<CutPreset>) =>
    change({ cutPresets: presets.map((preset, index) => (index === at ? { ...preset, ...part } : preset)) });
  const placeOf = ({ id }: CutPreset) => presets.findIndex((one) => one.id === id);
  const add = () =>
    change({
      cutPresets: [
        ...presets,
        { id: `cut-${Date.now()}`, name: 'New cut', ratio: { across: 3, down: 2 }, width: 800 },
      ],
    });
  return (
    <RulesCard id="rules-cuts" title="Cuts" about="The shapes in use: offered wherever a piece is placed.">
      <Table
        about="Cuts"
        isSmall
        rows={presets}
        keyOf={({ id }) => id}
        columns={[
          {
            id: 'name',
            heading: 'Name',
            cell: (preset) => (
              <Input
                aria-label={`Name of cut ${placeOf(preset) + 1}`}
                value={preset.name}
                onChange={(event) => put(placeOf(preset), { name: event.target.value })}
              />
            ),
          },
          {
            id: 'shape',
            heading: 'Shape',
            cell: (preset) => (
              <RatioInput
                label={`Shape of ${preset.name}`}
                ratio={preset.ratio}
                onChange={(ratio) => put(placeOf(preset), { ratio })}
              />
            ),
          },
          {
            id: 'width',
            heading: 'Width (px)',
            cell: (preset) => (
              <Input
                className="font-mono text-mono"
                inputMode="numeric"
                aria-label={`Width of ${preset.name} in px`}
                value={preset.width}
                onChange={(event) =>
                  put(placeOf(preset), { width: Number(event.target.value.replace(/\D/g, '').slice(0, 5)) })
                }
              />
            ),
          },
          {
            id: 'drop',
            heading: 'Remove',
            isHeadingHidden: true,
            cell: (preset) => (
              <Button
                kind="quiet"
                aria-label={`Remove ${preset.name || webSafe(preset.id)}`}
                onClick={() => change({ cutPresets: presets.filter(({ id }) => id !== preset.id) })}
              >
                Remove
              </Button>
            ),
          },
        ]}
      />
      <Button kind="link" onClick={add}>
        Another cut
      </Button>
    </RulesCard>
  );
}

function RatioInput({
  label,
  ratio,
  onChange,
}: {
  readonly label: string;
  readonly ratio: CutPreset['ratio'];
  readonly onChange: (ratio: CutPreset['ratio']) => void;
}) {
  return (
    <Input
      className="font-mono text-mono"
      aria-label={label}
      defaultValue={ratio ? `${ratio.across}:${ratio.down}` : 'whole'}
      onBlur={(event) => {
        const read = readRatio(event.target.value);
        if (read === undefined) event.target.value = ratio ? `${ratio.across}:${ratio.down}` : 'whole';
        else onChange(read);
      }}
    />
  );
}
