import { Slider } from '../ui/slider.tsx';

interface SlideProps {
  readonly name: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly says: string;
  readonly onMove: (value: number) => void;
  readonly onLet: (value: number) => void;
}

/** A slider that shows at once and keeps when it is let go. A double press puts it back to nothing. */
export function Slide({ name, value, least, most, says, onMove, onLet }: SlideProps) {
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a second way for the hand; by keys, 0 is stepped to
    <div
      className="grid min-h-6 grid-cols-[56px_minmax(0,1fr)_44px] items-center gap-2"
      onDoubleClick={() => onLet(0)}
    >
      <span aria-hidden="true">{name}</span>
      <Slider
        value={value}
        min={least}
        max={most}
        step={1}
        aria-label={name}
        aria-valuetext={says}
        onChange={onMove}
        onSettle={onLet}
      />
      <output className="text-right font-mono text-mono">{says}</output>
    </div>
  );
}

export const signed = (value: number, digits = 0) => `${value > 0 ? '+' : ''}${value.toFixed(digits)}`;
