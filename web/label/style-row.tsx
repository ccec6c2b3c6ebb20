import { RadioGroup } from 'radix-ui';
import { type PictureStyle, pictureStyleCss, styleOn } from '#core/page/picture-style.ts';
import type { HouseRules } from '#core/page/target.ts';
import { LabelRow, type Use } from './row.tsx';

interface StyleRowProps {
  readonly use: Use;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
}

const NONE = '';

/** How the picture looks on its target, by one of the target's own styles; each is drawn as it looks. */
export function StyleRow({ use, rules, isEditable }: StyleRowProps) {
  const { pictureStyles: styles } = rules;
  const { pictureStyle } = use.placement;
  if (styles.length === 0 && pictureStyle === null) return null;
  const now = styleOn(styles, use.placement);
  return (
    <LabelRow name="Style">
      {isEditable ? (
        <RadioGroup.Root
          aria-label="Picture style"
          className="flex flex-wrap gap-1.5"
          value={now?.className ?? NONE}
          onValueChange={(chosen) => {
            const style = styles.find(({ className }) => className === chosen);
            use.change(
              { pictureStyle: style?.className ?? null },
              style ? `the style “${style.name}”` : 'taking its style off',
            );
          }}
        >
          <Choice name="Plain" value={NONE} style={null} />
          {styles.map((style) => (
            <Choice key={style.className} name={style.name} value={style.className} style={style} />
          ))}
        </RadioGroup.Root>
      ) : (
        <p>{now ? now.name : 'Plain'}</p>
      )}
      {pictureStyle !== null && now === null ? (
        <p className="text-due">It has the style “{pictureStyle}”, which this target does not have.</p>
      ) : null}
    </LabelRow>
  );
}

interface ChoiceProps {
  readonly name: string;
  readonly value: string;
  readonly style: PictureStyle | null;
}

function Choice({ name, value, style }: ChoiceProps) {
  return (
    <RadioGroup.Item
      value={value}
      className="grid justify-items-center gap-1 rounded-sm border border-line px-2 py-1.5 hover:bg-action-soft aria-checked:border-ink aria-checked:bg-action-soft forced-colors:aria-checked:outline-2"
    >
      <StyleDrawing style={style} />
      <span className="text-sm">{name}</span>
    </RadioGroup.Item>
  );
}

/** A small picture in a style: sky over reed, as a shape of colours. */
export function StyleDrawing({ style }: { readonly style: PictureStyle | null }) {
  const css = style ? pictureStyleCss({ ...style, corners: Math.min(style.corners, 10) }) : '';
  return (
    <span className="m-1 inline-grid bg-paper">
      <svg
        viewBox="0 0 42 28"
        width={42}
        height={28}
        aria-hidden
        ref={(drawing) => drawing?.setAttribute('style', css)}
      >
        <rect width="42" height="17" fill="#8fc1e3" />
        <circle cx="29" cy="10" r="4" fill="#ffe9a8" />
        <rect y="17" width="42" height="11" fill="#6d8f4e" />
      </svg>
    </span>
  );
}
