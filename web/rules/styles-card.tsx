import * as v from 'valibot';
import { type PictureStyle, SHADOWS, StyleClassSchema, TONES } from '#core/page/picture-style.ts';
import { StyleDrawing } from '../label/style-row.tsx';
import { Table } from '../table/table.tsx';
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
  const placeOf = (style: PictureStyle) => styles.indexOf(style);
  return (
    <RulesCard
      id="rules-styles"
      title="Picture styles"
      about="How pictures may look, each by a class of the site’s own. They lie over a picture and are never drawn into it."
    >
      {styles.length > 0 ? (
        <Table
          about="Picture styles"
          isSmall
          rows={styles}
          keyOf={(style) => String(placeOf(style))}
          columns={[
            {
              id: 'drawing',
              heading: 'Drawing',
              isHeadingHidden: true,
              cell: (style) => <StyleDrawing style={style} />,
            },
            {
              id: 'name',
              heading: 'Name',
              cell: (style) => (
                <Input
                  aria-label={`Name of style ${placeOf(style) + 1}`}
                  value={style.name}
                  onChange={(event) => put(placeOf(style), { name: event.target.value })}
                />
              ),
            },
            {
              id: 'class',
              heading: 'Class',
              cell: (style) => (
                <ClassInput style={style} onChange={(className) => put(placeOf(style), { className })} />
              ),
            },
            {
              id: 'line',
              heading: 'Line (px)',
              cell: (style) => (
                <div className="flex items-center gap-1">
                  <PxInput
                    label={`Line of ${style.name} in px`}
                    value={style.line.width}
                    most={20}
                    onChange={(width) => put(placeOf(style), { line: { ...style.line, width } })}
                  />
                  <ColourField
                    name={`Colour of the line of ${style.name}`}
                    isNameHidden
                    value={style.line.colour}
                    onMove={(colour) => put(placeOf(style), { line: { ...style.line, colour } })}
                  />
                </div>
              ),
            },
            {
              id: 'corners',
              heading: 'Corners (px)',
              cell: (style) => (
                <PxInput
                  label={`Corners of ${style.name} in px`}
                  value={style.corners}
                  most={200}
                  onChange={(corners) => put(placeOf(style), { corners })}
                />
              ),
            },
            {
              id: 'shadow',
              heading: 'Shadow',
              cell: (style) => (
                <Select
                  aria-label={`Shadow of ${style.name}`}
                  value={style.shadow}
                  choices={SHADOWS.map((shadow) => [shadow, CAPITAL(shadow)] as const)}
                  onChoose={(shadow) => put(placeOf(style), { shadow })}
                />
              ),
            },
            {
              id: 'tone',
              heading: 'Tone',
              cell: (style) => (
                <Select
                  aria-label={`Tone of ${style.name}`}
                  value={style.tone}
                  choices={TONES.map((tone) => [tone, CAPITAL(tone)] as const)}
                  onChoose={(tone) => put(placeOf(style), { tone })}
                />
              ),
            },
            {
              id: 'drop',
              heading: 'Remove',
              isHeadingHidden: true,
              cell: (style) => (
                <Button
                  kind="quiet"
                  aria-label={`Remove ${style.name || style.className}`}
                  onClick={() => change({ pictureStyles: styles.filter((one) => one !== style) })}
                >
                  Remove
                </Button>
              ),
            },
          ]}
        />
      ) : null}
      <Button kind="link" onClick={() => change({ pictureStyles: [...styles, newStyle(styles)] })}>
        Another picture style
      </Button>
    </RulesCard>
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
