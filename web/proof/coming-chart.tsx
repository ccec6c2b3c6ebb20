import { useRef } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceLine, XAxis, YAxis } from 'recharts';
import { sayBytes } from '#core/media/weight.ts';
import { ASKED_SECONDS, type Coming, cameBy } from '#core/proof/slow-line.ts';
import { useWidth } from '../ui/use-width.ts';

const HEIGHT_PX = 150;
const AXIS_PX = 58;
/** So many seconds are drawn at least, so that what is asked of stands in it. */
const LEAST_SECONDS = 4;

/** How many bytes of pictures had come by when. What it says stands in words beside it. */
export default function ComingChart({ coming }: { readonly coming: Coming }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const steps = cameBy(coming);
  const end = Math.max(LEAST_SECONDS, Math.ceil((steps.at(-1)?.seconds ?? 0) + 0.5));
  const data = [...steps, { seconds: end, bytes: steps.at(-1)?.bytes ?? 0 }];
  const { painted } = coming;
  return (
    <div ref={box}>
      <LineChart
        width={width}
        height={HEIGHT_PX}
        data={data}
        margin={{ top: 20, right: 26, bottom: 4, left: 0 }}
        accessibilityLayer={false}
        role="img"
        aria-label="Pictures that had come, second by second"
      >
        <CartesianGrid vertical={false} stroke="var(--color-hairline)" />
        <XAxis
          dataKey="seconds"
          type="number"
          domain={[0, end]}
          ticks={Array.from({ length: end + 1 }, (_, second) => second)}
          interval="preserveStartEnd"
          minTickGap={24}
          tickFormatter={(second: number) => `${second} s`}
          stroke="var(--color-line)"
          tick={TICK}
        />
        <YAxis
          width={AXIS_PX}
          domain={[0, 'auto']}
          tickCount={4}
          tickFormatter={(bytes: number) => (bytes === 0 ? '0' : sayBytes(bytes))}
          stroke="var(--color-line)"
          tick={TICK}
        />
        {ASKED_SECONDS.map((second) => (
          <ReferenceLine key={second} x={second} stroke="var(--color-line)" strokeDasharray="3 3" />
        ))}
        {painted === null ? null : (
          <ReferenceLine
            x={painted / 1000}
            stroke="var(--color-ink)"
            label={{ ...TICK, fill: 'var(--color-ink)', value: 'words', position: 'top' }}
          />
        )}
        <Line
          dataKey="bytes"
          type="stepAfter"
          stroke="var(--color-action)"
          strokeWidth={2}
          dot={false}
          isAnimationActive={false}
        />
      </LineChart>
    </div>
  );
}

const TICK = { fontSize: 11, fontFamily: 'var(--font-mono)', fill: 'var(--color-soft)' };
