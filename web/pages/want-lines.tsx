import type { Want } from '#core/page/model.ts';
import { wantMisfit } from '#core/page/wants.ts';
import { pieceOf, usePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';

export const SHAPE_WORDS: Readonly<Record<Want['shape'], string>> = {
  any: 'any shape',
  landscape: 'landscape',
  portrait: 'portrait',
  square: 'square',
};
const SHAPES = ['any', 'landscape', 'portrait', 'square'] as const;

/** The wants of a page as lines that can be written, changed and dropped. */
export function WantLines({
  wants,
  onChange,
}: {
  readonly wants: readonly Want[];
  readonly onChange: (wants: readonly Want[]) => void;
}) {
  const change = (id: string, part: Partial<Want>) =>
    onChange(wants.map((want) => (want.id === id ? { ...want, ...part } : want)));
  return (
    <ul className="@container grid gap-2">
      {wants.map((want, at) => (
        <li
          key={want.id}
          className="grid grid-cols-[minmax(0,1fr)_130px_110px_auto] items-end gap-2 @max-[521px]:grid-cols-[1fr_1fr_auto]"
        >
          <Field className="@max-[521px]:col-span-full" name={`Want ${at + 1}: what for`}>
            {(control) => (
              <Input
                {...control}
                maxLength={200}
                value={want.purpose}
                onChange={(event) => change(want.id, { purpose: event.target.value })}
              />
            )}
          </Field>
          <Field name="Shape">
            {(control) => (
              <Select
                {...control}
                value={want.shape}
                choices={SHAPES.map((shape) => [shape, SHAPE_WORDS[shape]] as const)}
                onChoose={(shape) => change(want.id, { shape })}
              />
            )}
          </Field>
          <Field name="At least (px)">
            {(control) => (
              <Input
                {...control}
                className="font-mono text-mono"
                inputMode="numeric"
                value={want.leastWidth}
                onChange={(event) =>
                  change(want.id, {
                    leastWidth: Math.min(20_000, Number(event.target.value.replace(/\D/g, '')) || 0),
                  })
                }
              />
            )}
          </Field>
          <Button
            kind="quiet"
            onClick={() => onChange(wants.filter((one) => one.id !== want.id))}
            aria-label={`Remove want ${at + 1}`}
          >
            Remove
          </Button>
          {want.filledBy ? (
            <Filled assetId={want.filledBy} want={want} onEmpty={() => change(want.id, { filledBy: null })} />
          ) : null}
        </li>
      ))}
    </ul>
  );
}

interface FilledProps {
  readonly assetId: string;
  readonly want: Want;
  readonly onEmpty: () => void;
}

function Filled({ assetId, want, onEmpty }: FilledProps) {
  const asset = usePiece(assetId);
  const misfit = asset
    ? wantMisfit(want, pieceOf(asset))
    : 'The piece that filled it is no longer on the shelf, or is kept for others.';
  return (
    <p className="col-span-full">
      Filled by {asset ? asset.label.title || asset.stem : 'a piece that is gone'}.{' '}
      {misfit ? <span className="text-due">{misfit} </span> : null}
      <Button kind="link" onClick={onEmpty}>
        Take it out
      </Button>
    </p>
  );
}
