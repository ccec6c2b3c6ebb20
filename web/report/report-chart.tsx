import { useId, useRef } from 'react';
import { Bar, CartesianGrid, ComposedChart, Line, XAxis, YAxis } from 'recharts';
import type { ReportDay } from '#core/report/day.ts';
import { sayDay } from '../ui/dates.ts';
import { useWidth } from '../ui/use-width.ts';

/** One line of a chart: what it is called, how it is drawn, and its value on a day. */
export interface ReportLine {
  readonly name: string;
  readonly isPressing?: boolean;
  /** What happens on a day stands by itself, and does not go on to the next. */
  readonly isOfTheDay?: boolean;
  readonly of: (day: ReportDay) => number | null;
}

interface ReportChartProps {
  readonly title: string;
  readonly lines: readonly ReportLine[];
  readonly days: readonly ReportDay[];
  readonly say: (value: number) => string;
}

const HEIGHT_PX = 150;
const AXIS_PX = 52;

/** How a few numbers went day by day. The same numbers stand in the table below, for whoever does not see it. */
export function ReportChart({ title, lines, days, say }: ReportChartProps) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const heading = useId();
  const last = days.at(-1);
  const known = days.filter((day) => lines.some(({ of }) => of(day) !== null)).length;
  const data = days.map((day) => ({
    day: day.day,
    ...Object.fromEntries(lines.map(({ name, of }) => [name, of(day)])),
  }));
  return (
    <section
      className="min-w-0 bg-panel px-4 pt-3 pb-2 shadow-card print:shadow-none"
      aria-labelledby={heading}
    >
      <h2 className="text-lg" id={heading}>
        {title}
      </h2>
      <ul className="mb-1.5 flex flex-wrap gap-x-4 text-sm">
        {lines.map(({ name, isPressing = false, of }) => {
          const value = last ? of(last) : null;
          return (
            <li key={name} className="flex items-baseline gap-1.5">
              <span
                className="h-0.75 w-4 self-center bg-action data-[pressing=true]:bg-due"
                data-pressing={isPressing}
                aria-hidden
              />
              {name} <strong className="font-mono">{value === null ? 'not known' : say(value)}</strong>
            </li>
          );
        })}
      </ul>
      <div ref={box}>
        {known > 0 ? (
          <ComposedChart
            width={width}
            height={HEIGHT_PX}
            data={data}
            margin={{ top: 6, right: 26, bottom: 0, left: 0 }}
            accessibilityLayer={false}
            role="img"
            aria-label={`${title}, day by day`}
          >
            <CartesianGrid vertical={false} stroke="var(--color-hairline)" />
            <XAxis
              dataKey="day"
              tickFormatter={(day: string) => sayDay(day)}
              minTickGap={48}
              stroke="var(--color-line)"
              tick={TICK}
            />
            <YAxis
              width={AXIS_PX}
              allowDecimals={false}
              domain={[0, 'auto']}
              tickCount={4}
              tickFormatter={(value: number) => say(value)}
              stroke="var(--color-line)"
              tick={TICK}
            />
            {lines.map(({ name, isPressing = false, isOfTheDay = false }) =>
              isOfTheDay ? (
                <Bar
                  key={name}
                  dataKey={name}
                  fill={isPressing ? 'var(--color-due)' : 'var(--color-action)'}
                  maxBarSize={7}
                  isAnimationActive={false}
                />
              ) : (
                <Line
                  key={name}
                  dataKey={name}
                  type="stepAfter"
                  stroke={isPressing ? 'var(--color-due)' : 'var(--color-action)'}
                  strokeWidth={2}
                  dot={known === 1}
                  connectNulls
                  isAnimationActive={false}
                />
              ),
            )}
          </ComposedChart>
        ) : (
          <p className="py-3 text-soft">Nothing is known of it in this time.</p>
        )}
      </div>
    </section>
  );
}

const TICK = { fontSize: 11, fontFamily: 'var(--font-mono)', fill: 'var(--color-soft)' };
