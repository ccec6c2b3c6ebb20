import { webSafe } from '#core/naming/names.ts';
import type { CutPreset } from '#core/page/target.ts';
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
  const add = () =>
    change({
      cutPresets: [
        ...presets,
        { id: `cut-${Date.now()}`, name: 'New cut', ratio: { across: 3, down: 2 }, width: 800 },
      ],
    });
  return (
    <RulesCard id="rules-cuts" title="Cuts" about="The shapes in use: offered wherever a piece is placed.">
      <table className="w-full border-collapse">
        <thead>
          <tr>
            <th className="py-1 pr-1.5 text-left text-2xs font-semibold text-soft" scope="col">
              Name
            </th>
            <th className="py-1 pr-1.5 text-left text-2xs font-semibold text-soft" scope="col">
              Shape
            </th>
            <th className="py-1 pr-1.5 text-left text-2xs font-semibold text-soft" scope="col">
              Width (px)
            </th>
            <th className="py-1 pr-1.5 text-left text-2xs font-semibold text-soft">
              <span className="sr-only">Drop</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {presets.map((preset, at) => (
            <tr key={preset.id}>
              <td className="border-t border-hairline py-0.75 pr-1.5">
                <Input
                  aria-label={`Name of cut ${at + 1}`}
                  value={preset.name}
                  onChange={(event) => put(at, { name: event.target.value })}
                />
              </td>
              <td className="border-t border-hairline py-0.75 pr-1.5">
                <RatioInput
                  label={`Shape of ${preset.name}`}
                  ratio={preset.ratio}
                  onChange={(ratio) => put(at, { ratio })}
                />
              </td>
              <td className="border-t border-hairline py-0.75 pr-1.5">
                <Input
                  className="font-mono text-mono"
                  inputMode="numeric"
                  aria-label={`Width of ${preset.name} in px`}
                  value={preset.width}
                  onChange={(event) =>
                    put(at, { width: Number(event.target.value.replace(/\D/g, '').slice(0, 5)) })
                  }
                />
              </td>
              <td className="border-t border-hairline py-0.75 pr-1.5">
                <Button
                  kind="quiet"
                  aria-label={`Drop ${preset.name || webSafe(preset.id)}`}
                  onClick={() => change({ cutPresets: presets.filter((_, index) => index !== at) })}
                >
                  Drop
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
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
