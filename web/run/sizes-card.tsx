import { Popover } from 'radix-ui';
import { type FormEvent, useState } from 'react';
import type { CutPreset } from '#core/page/target.ts';
import type { RunOrder } from '#core/run/order.ts';
import { maybeSizeWish, type SizeWish, saySizeWish } from '#core/run/size-wish.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';

export interface RunPart {
  readonly order: RunOrder;
  readonly change: (part: Partial<RunOrder>) => void;
}

/** The sizes that are made: presets of the target, and any other. */
export function SizesCard({ order, change, presets }: RunPart & { readonly presets: readonly CutPreset[] }) {
  const isApart = order.portrait !== null;
  return (
    <section className="card" aria-labelledby="run-sizes">
      <h2 id="run-sizes">Sizes</h2>
      <div className="run-field">
        <h3>{isApart ? 'Landscape and square' : 'All pictures'}</h3>
        <WishChips
          about={isApart ? 'Sizes of landscape pictures' : 'Sizes'}
          wishes={order.sizes}
          presets={presets}
          onChange={(sizes) => change({ sizes })}
        />
      </div>
      {order.portrait ? (
        <div className="run-field">
          <h3>Upright</h3>
          <WishChips
            about="Sizes of upright pictures"
            wishes={order.portrait}
            presets={presets}
            onChange={(portrait) => change({ portrait })}
          />
        </div>
      ) : null}
      <label className="check">
        <input
          type="checkbox"
          checked={isApart}
          onChange={() => change({ portrait: isApart ? null : [...order.sizes] })}
        />
        Other sizes for upright pictures
      </label>
      <label className="check">
        <input type="checkbox" checked={order.sharp} onChange={() => change({ sharp: !order.sharp })} />
        Each at twice its pixels too, for sharp screens
      </label>
      <p className="soft">Never over a picture’s own pixels.</p>
    </section>
  );
}

interface WishChipsProps {
  readonly about: string;
  readonly wishes: readonly SizeWish[];
  readonly presets: readonly CutPreset[];
  readonly onChange: (wishes: SizeWish[]) => void;
}

const same = (one: SizeWish, other: SizeWish) => JSON.stringify(one) === JSON.stringify(other);

function WishChips({ about, wishes, presets, onChange }: WishChipsProps) {
  const offered: readonly SizeWish[] = presets.map(({ id }) => ({ by: 'preset', preset: id }));
  const others = wishes.filter((wish) => !offered.some((one) => same(one, wish)));
  const toggle = (wish: SizeWish) => {
    const without = wishes.filter((one) => !same(one, wish));
    onChange(without.length < wishes.length ? without : [...wishes, wish]);
  };
  return (
    <fieldset className="chips" aria-label={about}>
      {[...offered, ...others].map((wish) => (
        <button
          key={JSON.stringify(wish)}
          type="button"
          className="chip"
          aria-pressed={wishes.some((one) => same(one, wish))}
          onClick={() => toggle(wish)}
        >
          {saySizeWish(wish, presets)}
        </button>
      ))}
      <OtherSize onAdd={(wish) => onChange([...wishes.filter((one) => !same(one, wish)), wish])} />
    </fieldset>
  );
}

function OtherSize({ onAdd }: { readonly onAdd: (wish: SizeWish) => void }) {
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const wish = maybeSizeWish(typed);
    if (!wish) {
      setFault('That is no size between 1 and 8000 px. Write it as one of these.');
      return;
    }
    setOpen(false);
    setTyped('');
    setFault(null);
    onAdd(wish);
  };
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" className="chip run-other">
          Another size...
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="popover" align="start" sideOffset={4} aria-label="Another size">
          <form className="run-other-form" onSubmit={submit}>
            <Field name="Another size" fault={fault} hint="480 wide, 600 high, 1200 long, 800 x 600, or 50%.">
              {(control) => (
                <input
                  {...control}
                  className="input mono"
                  value={typed}
                  onChange={(event) => setTyped(event.target.value)}
                />
              )}
            </Field>
            <Button kind="action" type="submit">
              Add
            </Button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
