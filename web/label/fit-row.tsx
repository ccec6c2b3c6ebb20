import { RadioGroup } from 'radix-ui';
import { useEffect, useState } from 'react';
import * as v from 'valibot';
import {
  MARGIN_LIMIT_PX,
  type Margins,
  type Placement,
  POSITION_WORDS,
  POSITIONS,
  type Side,
  type Width,
} from '#core/page/blocks/placement/schema.ts';
import { isLinkAddress } from '#core/page/inline.ts';
import { hasOwnWidth, isBeside, shownWidth } from '#core/page/layout.ts';
import { fileIdIn, pageIdIn } from '#core/page/page-address.ts';
import { sayStanding } from '#core/page/say-standing.ts';
import { DEFAULT_SHARE, type HouseRules, marginsOf } from '#core/page/target.ts';
import { isWidth, WIDTH_LIMITS } from '#core/page/width-limits.ts';
import { Form, Line } from '../form/form.tsx';
import { MeasuredField, type Read } from '../form/measured-field.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { standing } from '../sheet/keys.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Tip } from '../ui/tip.tsx';
import { LinkPlaces } from './link-places.tsx';
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
      {state.isEditable && use.room.sort !== 'filled' ? (
        <>
          <Positions
            placement={placement}
            onChoose={(position) =>
              use.change(standing(position), `placing it ${POSITION_WORDS[position].toLowerCase()}`)
            }
          />
          <WidthInput use={use} rules={rules} />
          <MarginInputs use={use} />
        </>
      ) : null}
      <p>{sayStanding(use, rules)}</p>
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

function sayWidthLimits(unit: Width['unit']): string {
  const { least, most } = WIDTH_LIMITS[unit];
  return unit === '%'
    ? `Between ${least}% and ${most}% of the column.`
    : `Between ${least} and ${most.toLocaleString('en-GB')} px.`;
}

/** "480", "480 px" or "46%". */
function readWidth(text: string): Read<Width> {
  const [, number, unit] = /^\s*(\d+(?:[.,]\d+)?)\s*(px|%)?\s*$/i.exec(text) ?? [];
  if (number === undefined) return { fault: 'A width is written as 480 or 46%.' };
  const value = Number(number.replace(',', '.'));
  const width: Width = unit === '%' ? { unit, value } : { unit: 'px', value: Math.round(value) };
  return isWidth(width) ? { value: width } : { fault: sayWidthLimits(width.unit) };
}

function WidthInput({ use, rules }: { readonly use: Use; readonly rules: HouseRules }) {
  const { placement, room } = use;
  const own = hasOwnWidth(placement);
  const now = placement.width
    ? `${Math.round(placement.width.value * 10) / 10}${placement.width.unit === '%' ? '%' : ' px'}`
    : `${Math.round(DEFAULT_SHARE[placement.position] * 100)}%`;
  const px = Math.round(shownWidth(rules, placement, room, Math.max(...rules.proofWidths)));
  return (
    <div className="flex items-end gap-2">
      <MeasuredField
        className="w-23"
        name="Width"
        isSmall
        says={own ? now : ''}
        placeholder={`${px} px`}
        read={readWidth}
        onKeep={(width) =>
          use.change(own ? { width } : { width, position: 'centred', margins: null }, 'changing the width')
        }
      />
      <span className="font-mono text-mono text-soft">{px} px</span>
    </div>
  );
}

function readMargin(text: string): Read<number> {
  const value = Number(text.replace(/px$/, '').trim());
  return text !== '' && Number.isInteger(value) && value >= 0 && value <= MARGIN_LIMIT_PX
    ? { value }
    : { fault: `Whole px, 0 to ${MARGIN_LIMIT_PX}.` };
}

function MarginInputs({ use }: { readonly use: Use }) {
  const margins = marginsOf(use.placement);
  const isEven = new Set(Object.values(margins)).size === 1;
  const [linked, setLinked] = useState(use.placement.margins !== null && isEven);
  const keep = (side: Side, px: number) => {
    const next: Margins = linked ? { top: px, right: px, bottom: px, left: px } : { ...margins, [side]: px };
    use.change({ margins: next }, 'changing margins');
  };
  return (
    <div>
      <fieldset className="grid grid-cols-4 items-start gap-1" aria-label="Margins in px">
        {SIDES.map((side) => (
          <MeasuredField
            key={side}
            name={SIDE_WORDS[side]}
            isSmall
            inputMode="numeric"
            says={String(margins[side])}
            read={readMargin}
            onKeep={(px) => keep(side, px)}
          />
        ))}
      </fieldset>
      <div className="flex items-center justify-between gap-2">
        <Checkbox aria-label="One for all four sides" checked={linked} onChange={setLinked}>
          One for all
        </Checkbox>
        {use.placement.margins ? (
          <Button
            kind="link"
            onClick={() => {
              setLinked(false);
              use.change({ margins: null }, 'resetting margins');
            }}
          >
            Reset margins
          </Button>
        ) : null}
      </div>
    </div>
  );
}

function MoveForm({ use }: { readonly use: Use }) {
  const now = use.placement.click.kind === 'link' ? use.placement.click.href : '';
  const isNamed = pageIdIn(now) !== null || fileIdIn(now) !== null;
  const beside = useSaveForm({
    schema: v.object({ paragraph: paragraphOf(use.paragraphs) }),
    defaults: { paragraph: String(use.paragraph || 1) },
    save: ({ paragraph }) => use.move({ besideParagraph: paragraph }),
  });
  const { reset } = beside.form;
  useEffect(() => reset({ paragraph: String(use.paragraph || 1) }), [reset, use.paragraph]);
  const link = useSaveForm({
    schema: ClickSchema,
    defaults: { href: now },
    save: ({ href }) =>
      use.change(
        { click: href === '' ? { kind: 'nothing' } : { kind: 'link', href } },
        href === '' ? 'taking the link off' : 'linking it',
      ),
  });
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
        <Form of={beside} className="flex items-end gap-2">
          <Line
            of={beside}
            name="paragraph"
            type="number"
            min={1}
            max={use.paragraphs}
            data-row="beside"
            label={isBeside(use.placement) ? 'Beside paragraph' : 'Before paragraph'}
            hint={`of ${use.paragraphs}`}
            isMono
            maxLength={4}
          />
          <Button type="submit">Move</Button>
        </Form>
      ) : null}
      {isNamed ? (
        <p>
          A click goes to{' '}
          <Button
            kind="link"
            onClick={() => use.change({ click: { kind: 'nothing' } }, 'taking the link off')}
          >
            Remove the link
          </Button>
        </p>
      ) : (
        <Form of={link} className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
          <Line
            of={link}
            className="flex-1"
            name="href"
            label="A click goes to"
            placeholder="https://, or empty for nowhere"
            isMono
            maxLength={2000}
          />
          <Button type="submit">Link</Button>
        </Form>
      )}
      <LinkPlaces
        now={now}
        what="the picture"
        onChoose={(href) => use.change({ click: { kind: 'link', href } }, 'linking it')}
      />
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

const LINK_FAULT = 'A link begins with https://, http://, mailto:, / or #.';
const ClickSchema = v.object({
  href: v.pipe(
    v.string(),
    v.trim(),
    v.check((href) => href === '' || isLinkAddress(href), LINK_FAULT),
  ),
});

/** The number of one of so many paragraphs, as it is typed. */
const paragraphOf = (count: number) =>
  v.pipe(
    v.string(),
    v.trim(),
    v.transform(Number),
    v.check((number) => Number.isInteger(number) && number >= 1 && number <= count, `From 1 to ${count}.`),
  );
