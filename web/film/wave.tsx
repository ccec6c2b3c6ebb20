import type { Span } from '#core/film/recipe.ts';

interface WaveProps {
  readonly wave: readonly number[];
  readonly seconds: number;
  readonly silences: readonly Span[];
  readonly seen: { readonly from: number; readonly to: number };
  readonly perSecond: number;
}

const HEIGHT = 68;
const MOST_HIGH = 44;
const LEAST_HIGH = 2;
const MOST_LINES = 1200;
/** What is quieter is drawn faint as silence is: it is there, and nobody speaks. */
const FAINT = 0.45;

/** How loud it is over its length; where nothing is heard it is drawn faint. */
export function Wave({ wave, seconds, silences, seen, perSecond }: WaveProps) {
  const each = wave.length / Math.max(0.001, seconds);
  const first = Math.max(0, Math.floor(seen.from * each));
  const last = Math.min(wave.length, Math.ceil(seen.to * each));
  // Where more moments are in sight than the screen has room for, the loudest of each few is drawn.
  const group = Math.max(1, Math.ceil((last - first) / MOST_LINES));
  const thick = Math.max(1, Math.min(3, (group * perSecond) / each / 2));
  const lines = { loud: '', faint: '' };
  let silence = 0;
  for (let at = first; at < last; at += group) {
    const loudest = Math.max(...wave.slice(at, at + group));
    const high = Math.max(LEAST_HIGH, loudest * MOST_HIGH);
    const millis = (at / each) * 1000;
    while ((silences[silence]?.to ?? Number.POSITIVE_INFINITY) < millis) silence += 1;
    const isSilent = (silences[silence]?.from ?? Number.POSITIVE_INFINITY) <= millis;
    const x = ((at / each) * perSecond).toFixed(1);
    const line = `M${x} ${((HEIGHT - high) / 2).toFixed(1)}v${high.toFixed(1)}`;
    if (isSilent || loudest < FAINT) lines.faint += line;
    else lines.loud += line;
  }
  return (
    <svg
      className="block"
      width={Math.ceil(seconds * perSecond)}
      height={HEIGHT}
      role="img"
      aria-label="How loud it is over its length"
    >
      <path d={lines.faint} className="stroke-control" strokeWidth={thick} />
      <path d={lines.loud} className="stroke-ink" strokeWidth={thick} />
    </svg>
  );
}
