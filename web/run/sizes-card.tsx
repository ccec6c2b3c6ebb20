import * as v from 'valibot';
import type { CutPreset } from '#core/page/target.ts';
import type { RunOrder } from '#core/run/order.ts';
import { maybeSizeWish, type SizeWish, saySizeWish } from '#core/run/size-wish.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { CHIP_LOOK, Chips } from '../ui/chips.tsx';
import { cx } from '../ui/cx.ts';
import { Opens } from '../ui/opens.tsx';
import { RunCard } from './run-card.tsx';

export interface RunPart {
  readonly order: RunOrder;
  readonly change: (part: Partial<RunOrder>) => void;
}

/** The sizes that are made: presets of the target, and any other. */
export function SizesCard({ order, change, presets }: RunPart & { readonly presets: readonly CutPreset[] }) {
  const isApart = order.portrait !== null;
  return (
    <RunCard id="run-sizes" title="Sizes">
      <div>
        <h3 className="mb-1.25 text-2xs font-semibold text-soft">
          {isApart ? 'Landscape and square' : 'All pictures'}
        </h3>
        <WishChips
          about={isApart ? 'Sizes of landscape pictures' : 'Sizes'}
          wishes={order.sizes}
          presets={presets}
          onChange={(sizes) => change({ sizes })}
        />
      </div>
      {order.portrait ? (
        <div>
          <h3 className="mb-1.25 text-2xs font-semibold text-soft">Upright</h3>
          <WishChips
            about="Sizes of upright pictures"
            wishes={order.portrait}
            presets={presets}
            onChange={(portrait) => change({ portrait })}
          />
        </div>
      ) : null}
      <Checkbox checked={isApart} onChange={() => change({ portrait: isApart ? null : [...order.sizes] })}>
        Other sizes for upright pictures
      </Checkbox>
      <Checkbox checked={order.sharp} onChange={() => change({ sharp: !order.sharp })}>
        Each at twice its pixels too, for sharp screens
      </Checkbox>
      <p className="text-soft">Never over a picture’s own pixels.</p>
    </RunCard>
  );
}

interface WishChipsProps {
  readonly about: string;
  readonly wishes: readonly SizeWish[];
  readonly presets: readonly CutPreset[];
  readonly onChange: (wishes: SizeWish[]) => void;
}

const keyOf = (wish: SizeWish) => JSON.stringify(wish);
const same = (one: SizeWish, other: SizeWish) => keyOf(one) === keyOf(other);

function WishChips({ about, wishes, presets, onChange }: WishChipsProps) {
  const offered: readonly SizeWish[] = presets.map(({ id }) => ({ by: 'preset', preset: id }));
  const others = wishes.filter((wish) => !offered.some((one) => same(one, wish)));
  const shown = [...offered, ...others];
  const toggle = (wish: SizeWish) => {
    const without = wishes.filter((one) => !same(one, wish));
    onChange(without.length < wishes.length ? without : [...wishes, wish]);
  };
  return (
    <Chips
      about={about}
      pressed={wishes.map(keyOf)}
      choices={shown.map((wish) => [keyOf(wish), saySizeWish(wish, presets)] as const)}
      onPress={(key) => {
        const wish = shown.find((one) => keyOf(one) === key);
        if (wish) toggle(wish);
      }}
    >
      <OtherSize onAdd={(wish) => onChange([...wishes.filter((one) => !same(one, wish)), wish])} />
    </Chips>
  );
}

const OtherSizeSchema = v.object({
  typed: v.pipe(
    v.string(),
    v.transform(maybeSizeWish),
    v.custom<SizeWish>(
      (wish) => wish !== undefined,
      'That is no size between 1 and 8000 px. Write it as one of these.',
    ),
  ),
});

function OtherSize({ onAdd }: { readonly onAdd: (wish: SizeWish) => void }) {
  return (
    <Opens
      about="Another size"
      trigger={
        <button type="button" className={cx(CHIP_LOOK, 'border-dashed border-control')}>
          Another size...
        </button>
      }
    >
      {(close) => (
        <OtherSizeForm
          onAdd={(wish) => {
            close();
            onAdd(wish);
          }}
        />
      )}
    </Opens>
  );
}

function OtherSizeForm({ onAdd }: { readonly onAdd: (wish: SizeWish) => void }) {
  const form = useSaveForm({
    schema: OtherSizeSchema,
    defaults: { typed: '' },
    save: ({ typed }) => onAdd(typed),
  });
  return (
    <Form of={form} className="flex items-start gap-2 p-1.5">
      <Line
        of={form}
        name="typed"
        label="Another size"
        hint="480 wide, 600 high, 1200 long, 800 x 600, or 50%."
        isMono
        maxLength={40}
      />
      <Button className="mt-4.25" kind="action" type="submit">
        Add
      </Button>
    </Form>
  );
}
