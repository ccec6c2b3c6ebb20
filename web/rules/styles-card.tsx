import type { ReactNode } from 'react';
import * as v from 'valibot';
import { type PictureStyle, SHADOWS, StyleClassSchema, TONES } from '#core/page/picture-style.ts';
import { StyleDrawing } from '../label/style-row.tsx';
import { Button } from '../ui/button.tsx';
import { ColourField } from '../ui/colour.tsx';
import { Input } from '../ui/input.tsx';
import { Select } from '../ui/select.tsx';
import { RulesCard } from './rules-card.tsx';
import type { RulesPart } from './rules-part.ts';

const CAPITAL = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);

/** How pictures may look on the site, each by a class of the site's own style sheet. */
export function StylesCard({ rules, change }: RulesPart) {
  const styles = rules.pictureStyles;
  const put = (at: number, part: Partial<PictureStyle>) =>
    change({ pictureStyles: styles.map((style, index) => (index === at ? { ...style, ...part } : style)) });
  return (
    <RulesCard
      id="rules-styles"
      title="Picture styles"
      about="How pictures may look, each by a class of the site’s own. They lie over a picture and are never drawn into it."
    >
      <ul className="mb-1.5 border-t border-line">
        {styles.map((style, at) => (
          <StyleFields
            // biome-ignore lint/suspicious/noArrayIndexKey: a style is known by its place while its class is typed
            key={at}
            style={style}
            place={at + 1}
            put={(part) => put(at, part)}
            onRemove={() => change({ pictureStyles: styles.filter((one) => one !== style) })}
          />
        ))}
      </ul>
      <Button kind="link" onClick={() => change({ pictureStyles: [...styles, newStyle(styles)] })}>
        Another picture style
      </Button>
    </RulesCard>
  );
}

interface StyleFieldsProps {
  readonly style: PictureStyle;
  /** Its place among the others, from 1. */
  readonly place: number;
  readonly put: (part: Partial<PictureStyle>) => void;
  readonly onRemove: () => void;
}

/** A style with its drawing: what it is called, and what it does. */
function StyleFields({ style, place, put, onRemove }: StyleFieldsProps) {
  const { name, line, corners, shadow, tone } = style;
  return (
    <li className="grid grid-cols-[auto_minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-x-2 gap-y-1.5 border-b border-line py-2.5">
      <div className="self-center pr-1">
        <StyleDrawing style={style} />
      </div>
      <Said words="Name">
        <Input
          aria-label={`Name of style ${place}`}
          value={name}
          onChange={(event) => put({ name: event.target.value })}
        />
      </Said>
      <Said words="Class">
        <ClassInput style={style} onChange={(className) => put({ className })} />
      </Said>
      <Button kind="quiet" aria-label={`Remove ${name || style.className}`} onClick={onRemove}>
        Remove
      </Button>
      <div className="col-span-full flex flex-wrap items-end gap-2">
        <Said words="Line (px)">
          <div className="flex items-center gap-1">
            <PxInput
              label={`Line of ${name} in px`}
              value={line.width}
              most={20}
              onChange={(width) => put({ line: { ...line, width } })}
            />
            <ColourField
              name={`Colour of the line of ${name}`}
              isNameHidden
              value={line.colour}
              onMove={(colour) => put({ line: { ...line, colour } })}
            />
          </div>
        </Said>
        <Said words="Corners (px)">
          <PxInput
            label={`Corners of ${name} in px`}
            value={corners}
            most={200}
            onChange={(px) => put({ corners: px })}
          />
        </Said>
        <Said words="Shadow">
          <Select
            className="w-26"
            aria-label={`Shadow of ${name}`}
            value={shadow}
            choices={SHADOWS.map((one) => [one, CAPITAL(one)] as const)}
            onChoose={(one) => put({ shadow: one })}
          />
        </Said>
        <Said words="Tone">
          <Select
            className="w-26"
            aria-label={`Tone of ${name}`}
            value={tone}
            choices={TONES.map((one) => [one, CAPITAL(one)] as const)}
            onChoose={(one) => put({ tone: one })}
          />
        </Said>
      </div>
    </li>
  );
}

/** A control under the word for it; its own name says of which style it is. */
function Said({ words, children }: { readonly words: string; readonly children: ReactNode }) {
  return (
    <div className="grid gap-0.5">
      <span aria-hidden className="text-2xs font-semibold text-soft">
        {words}
      </span>
      {children}
    </div>
  );
}

/** A style that shows what it does, under a class that none of the others has. */
function newStyle(styles: readonly PictureStyle[]): PictureStyle {
  let number = styles.length + 1;
  while (styles.some(({ className }) => className === `picture-${number}`)) number += 1;
  return {
    className: `picture-${number}`,
    name: 'New style',
    line: { width: 1, colour: '#7c8a90' },
    corners: 4,
    shadow: 'none',
    tone: 'as it is',
  };
}

/** A class is kept when it is left, where it is one that pages may have. */
function ClassInput({
  style,
  onChange,
}: {
  readonly style: PictureStyle;
  readonly onChange: (className: string) => void;
}) {
  return (
    <Input
      key={style.className}
      className="font-mono text-mono"
      aria-label={`Class of ${style.name}`}
      defaultValue={style.className}
      onBlur={(event) => {
        const read = v.safeParse(StyleClassSchema, event.target.value);
        if (read.success) onChange(read.output);
        else event.target.value = style.className;
      }}
    />
  );
}

function PxInput({
  label,
  value,
  most,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly most: number;
  readonly onChange: (px: number) => void;
}) {
  return (
    <Input
      className="w-14 font-mono text-mono"
      inputMode="numeric"
      aria-label={label}
      value={value}
      onChange={(event) =>
        onChange(Math.min(most, Number(event.target.value.replace(/\D/g, '').slice(0, 3))))
      }
    />
  );
}
