interface SlideProps {
  readonly name: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly says: string;
  readonly isShort?: boolean;
  readonly onMove: (value: number) => void;
  readonly onLet: (value: number) => void;
}

/** A slider that shows at once and keeps when it is let go. A double press puts it back to nothing. */
export function Slide({ name, value, least, most, says, onMove, onLet }: SlideProps) {
  return (
    <label className="slide">
      <span>{name}</span>
      <input
        type="range"
        min={least}
        max={most}
        value={value}
        aria-valuetext={says}
        onChange={(event) => onMove(Number(event.target.value))}
        onPointerUp={(event) => onLet(Number(event.currentTarget.value))}
        onKeyUp={(event) => onLet(Number(event.currentTarget.value))}
        onDoubleClick={() => onLet(0)}
      />
      <output className="mono">{says}</output>
    </label>
  );
}

export const signed = (value: number, digits = 0) => `${value > 0 ? '+' : ''}${value.toFixed(digits)}`;
