import { RadioGroup } from 'radix-ui';
import { type FormEvent, useEffect, useState } from 'react';
import { hasOwnWidth, isBeside, shownWidth, stackingWidth } from '#core/page/layout.ts';
import {
  isLinkAddress,
  MARGIN_LIMIT_PX,
  type Margins,
  type Placement,
  POSITION_WORDS,
  POSITIONS,
  type Side,
  type Width,
} from '#core/page/model.ts';
import { DEFAULT_SHARE, type HouseRules, marginsOf } from '#core/page/target.ts';
import { standing } from '../sheet/keys.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Tip } from '../ui/tip.tsx';
import { PositionDrawing } from './position-drawing.tsx';
import { LabelRow, OpenRow, type RowState, type Use } from './row.tsx';

const SIDES: readonly Side[] = ['top', 'right', 'bottom', 'left'];
const SIDE_WORDS: Readonly<Record<Side, string>> = {
  top: 'Top',
  right: 'Right',
  bottom: 'Bottom',
  left: 'Left',
};

/** Where the piece stands, how wide, with which margins, and where a click goes. */
export function FitRow({
  use,
  rules,
  ...state
}: { readonly use: Use; readonly rules: HouseRules } & RowState) {
  const { placement } = use;
  return (
    <LabelRow
      name="Fit"
      way={<OpenRow words="Move it, link it" state={state} />}
      form={state.isOpen ? <MoveForm use={use} /> : null}
    >
      {state.isEditable ? (
        <>
          <Positions
            placement={placement}
            onChoose={(position) =>
              use.change(standing(position), `placing it ${POSITION_WORDS[position].toLowerCase()}`)
            }
          />
          <WidthInput key={JSON.stringify(placement.width)} use={use} rules={rules} />
          <MarginInputs key={JSON.stringify(marginsOf(placement))} use={use} />
        </>
      ) : null}
      <p>{sayFit(placement, rules)}</p>
    </LabelRow>
  );
}

function Positions({
  placement,
  onChoose,
}: {
  readonly placement: Placement;
  readonly onChoose: (position: Placement['position']) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label="Position"
      className="grid grid-cols-6 rounded-sm border border-control"
      value={placement.position}
      onValueChange={(chosen) => {
        const position = POSITIONS.find((one) => one === chosen);
        if (position) onChoose(position);
      }}
    >
      {POSITIONS.map((position) => (
        <Tip key={position} words={POSITION_WORDS[position]}>
          <RadioGroup.Item
            value={position}
            aria-label={POSITION_WORDS[position]}
            className="grid h-8 place-items-center border-l border-line first:border-l-0 hover:bg-action-soft aria-checked:bg-ink aria-checked:text-panel forced-colors:aria-checked:bg-[Highlight]"
          >
            <PositionDrawing position={position} />
          </RadioGroup.Item>
        </Tip>
      ))}
    </RadioGroup.Root>
  );
}

/** "480", "480 px" or "46%". */
function readWidth(text: string): Width | string {
  const [, number, unit] = /^\s*(\d+(?:[.,]\d+)?)\s*(px|%)?\s*$/i.exec(text) ?? [];
  if (number === undefined) return 'A width is written as 480 or 46%.';
  const value = Number(number.replace(',', '.'));
  if (unit === '%')
    return value >= 5 && value <= 100 ? { unit: '%', value } : 'Between 5% and 100% of the column.';
  return value >= 40 && value <= 4000 ? { unit: 'px', value: Math.round(value) } : 'Between 40 and 4,000 px.';
}

function WidthInput({ use, rules }: { readonly use: Use; readonly rules: HouseRules }) {
  const { placement } = use;
  const own = hasOwnWidth(placement);
  const now = placement.width
    ? `${Math.round(placement.width.value * 10) / 10}${placement.width.unit === '%' ? '%' : ' px'}`
    : `${Math.round(DEFAULT_SHARE[placement.position] * 100)}%`;
  const [text, setText] = useState(own ? now : '');
  const [fault, setFault] = useState<string | null>(null);
  const commit = () => {
    if (text.trim() === '' || text === now) return;
    const width = readWidth(text);
    if (typeof width === 'string') {
      setFault(width);
      return;
    }
    setFault(null);
    use.change(own ? { width } : { width, position: 'centred', margins: null }, 'changing the width');
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    commit();
  };
  const px = Math.round(shownWidth(rules, placement, Math.max(...rules.proofWidths)));
  return (
    <form className="flex items-end gap-2" onSubmit={submit}>
      <Field className="w-23" name="Width" fault={fault}>
        {(control) => (
          <Input
            {...control}
            className="min-h-6.5 px-1.5 py-0.5 font-mono text-sm"
            placeholder={`${px} px`}
            value={text}
            onChange={(event) => setText(event.target.value)}
            onBlur={commit}
          />
        )}
      </Field>
      <span className="font-mono text-mono text-soft">{px} px</span>
    </form>
  );
}

function MarginInputs({ use }: { readonly use: Use }) {
  const margins = marginsOf(use.placement);
  const isEven = new Set(Object.values(margins)).size === 1;
  const [linked, setLinked] = useState(use.placement.margins !== null && isEven);
  const [draft, setDraft] = useState<Record<Side, string>>({
    top: String(margins.top),
    right: String(margins.right),
    bottom: String(margins.bottom),
    left: String(margins.left),
  });
  const [fault, setFault] = useState<string | null>(null);
  const write = (side: Side, text: string) =>
    setDraft(linked ? { top: text, right: text, bottom: text, left: text } : { ...draft, [side]: text });
  const commit = () => {
    const read = SIDES.map((side) => [side, Number(draft[side].replace(/px$/, '').trim())] as const);
    if (read.some(([, value]) => !Number.isInteger(value) || value < 0 || value > MARGIN_LIMIT_PX)) {
      setFault(`Margins are whole px from 0 to ${MARGIN_LIMIT_PX}.`);
      return;
    }
    setFault(null);
    const next = Object.fromEntries(read) as Margins;
    if (JSON.stringify(next) !== JSON.stringify(margins)) use.change({ margins: next }, 'changing margins');
  };
  return (
    <div>
      <fieldset className="grid grid-cols-4 gap-1" aria-label="Margins in px">
        {SIDES.map((side) => (
          <Field key={side} name={SIDE_WORDS[side]}>
            {(control) => (
              <Input
                {...control}
                className="min-h-6.5 px-1.5 py-0.5 font-mono text-sm"
                inputMode="numeric"
                value={draft[side]}
                onChange={(event) => write(side, event.target.value)}
                onBlur={commit}
                onKeyDown={(event) => event.key === 'Enter' && commit()}
              />
            )}
          </Field>
        ))}
      </fieldset>
      <Fault says={fault} />
      <div className="flex items-center justify-between gap-2">
        <Checkbox aria-label="One value for all four" checked={linked} onChange={(isOn) => setLinked(isOn)}>
          One for all
        </Checkbox>
        {use.placement.margins ? (
          <Button
            kind="link"
            aria-label="Back to sensible margins"
            onClick={() => use.change({ margins: null }, 'sensible margins')}
          >
            Sensible ones
          </Button>
        ) : null}
      </div>
    </div>
  );
}

/** Where it stands and what becomes of it on a phone, in a sentence. */
function sayFit(placement: Placement, rules: HouseRules): string {
  const widest = Math.max(...rules.proofWidths);
  const share = Math.round((shownWidth(rules, placement, widest) / rules.column) * 100);
  switch (placement.position) {
    case 'beside-left':
    case 'beside-right': {
      const side = placement.position === 'beside-left' ? 'left' : 'right';
      return `Beside the text, on the ${side}, ${share}% of the column. Under ${stackingWidth(rules, placement)} px it takes the whole width.`;
    }
    case 'centred':
      return `In the middle of the column, ${share}% of it, with no text beside it.`;
    case 'column':
      return 'As wide as the column.';
    case 'breakout':
      return `Out of the column, up to ${Math.max(rules.breakout, rules.column)} px wide.`;
    case 'bleed':
      return 'From one edge of the window to the other.';
  }
}

function MoveForm({ use }: { readonly use: Use }) {
  const [paragraph, setParagraph] = useState(String(use.paragraph || 1));
  const [href, setHref] = useState(use.placement.click.kind === 'link' ? use.placement.click.href : '');
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => setParagraph(String(use.paragraph || 1)), [use.paragraph]);
  const goBeside = (event: FormEvent) => {
    event.preventDefault();
    const number = Number(paragraph);
    if (number >= 1 && number <= use.paragraphs) use.move({ besideParagraph: number });
  };
  const link = (event: FormEvent) => {
    event.preventDefault();
    const address = href.trim();
    if (address !== '' && !isLinkAddress(address)) {
      setFault('A link begins with https://, http://, mailto:, / or #.');
      return;
    }
    setFault(null);
    use.change(
      { click: address === '' ? { kind: 'nothing' } : { kind: 'link', href: address } },
      address === '' ? 'taking the link off' : 'linking it',
    );
  };
  return (
    <div className="col-span-full grid gap-2.25 pt-1.5">
      <div className="flex flex-wrap gap-2">
        {(['up', 'down', 'top', 'bottom'] as const).map((move) => (
          <Button key={move} onClick={() => use.move(move)}>
            {{ up: 'Up', down: 'Down', top: 'To the top', bottom: 'To the bottom' }[move]}
          </Button>
        ))}
      </div>
      {use.paragraphs > 0 ? (
        <form className="flex items-end gap-2" onSubmit={goBeside}>
          <Field
            name={isBeside(use.placement) ? 'Beside paragraph' : 'Before paragraph'}
            hint={`of ${use.paragraphs}`}
          >
            {(control) => (
              <Input
                {...control}
                className="min-h-6.5 px-1.5 py-0.5 font-mono text-sm"
                type="number"
                min={1}
                max={use.paragraphs}
                value={paragraph}
                data-row="beside"
                onChange={(event) => setParagraph(event.target.value)}
              />
            )}
          </Field>
          <Button type="submit">Move</Button>
        </form>
      ) : null}
      <form className="flex items-end gap-2" onSubmit={link} style={{ alignItems: 'end' }}>
        <div style={{ flex: 1 }}>
          <Field name="A click goes to" fault={fault}>
            {(control) => (
              <Input
                {...control}
                className="min-h-6.5 px-1.5 py-0.5 font-mono text-sm"
                placeholder="https://, or empty for nowhere"
                value={href}
                onChange={(event) => setHref(event.target.value)}
              />
            )}
          </Field>
        </div>
        <Button type="submit">Link</Button>
      </form>
      <Checkbox
        checked={use.placement.click.kind === 'larger'}
        onChange={(isOn) =>
          use.change(
            { click: { kind: isOn ? 'larger' : 'nothing' } },
            isOn ? 'opening it larger' : 'no longer opening it larger',
          )
        }
      >
        A click opens it larger
      </Checkbox>
      <div className="flex flex-wrap gap-2">
        <Button onClick={use.remove}>Take it off the page</Button>
      </div>
    </div>
  );
}
