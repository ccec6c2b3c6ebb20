import { type PointerEvent, useRef } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceDot, ReferenceLine, XAxis, YAxis } from 'recharts';
import type { CurveFormat, LikenessCurve } from '#api/likeness.ts';
import { QUALITY_RANGE } from '#core/media/alike.ts';
import { qualityAtBytes, sampleAt } from '#core/media/curve-point.ts';
import { sayBytes } from '#core/media/weight.ts';
import { Slider } from '../ui/slider.tsx';
import { useWidth } from '../ui/use-width.ts';

interface LikenessChartProps {
  readonly curve: LikenessCurve;
  readonly format: CurveFormat;
  readonly quality: number;
  readonly isEditable: boolean;
  readonly onDrag: (quality: number) => void;
  readonly onChoose: (quality: number) => void;
}

const HEIGHT_PX = 168;
const AXIS_PX = 46;
const RIGHT_PX = 54;

/** The curves of bytes against likeness; the point on the open one can be dragged, or moved by its slider. */
export function LikenessChart({ curve, format, quality, isEditable, onDrag, onChoose }: LikenessChartProps) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const samples = curve.formats.find((one) => one.format === format)?.samples ?? [];
  const chosen = sampleAt(samples, quality);
  const all = curve.formats.flatMap((one) => one.samples);
  const most = Math.max(...all.map(({ bytes }) => bytes)) * 1.04;
  const least = Math.min(curve.wanted, ...all.map(({ likeness }) => likeness));
  const bottom = Math.floor(least * 50) / 50;
  const qualityAt = (event: PointerEvent<HTMLDivElement>) => {
    const { left } = event.currentTarget.getBoundingClientRect();
    const share = (event.clientX - left - AXIS_PX) / Math.max(1, width - AXIS_PX - RIGHT_PX);
    return qualityAtBytes(samples, Math.min(1, Math.max(0, share)) * most);
  };
  const drag = (event: PointerEvent<HTMLDivElement>) => {
    const next = event.currentTarget.hasPointerCapture(event.pointerId) ? qualityAt(event) : undefined;
    if (next !== undefined) onDrag(next);
  };
  return (
    <>
      <div
        ref={box}
        className="cursor-ew-resize touch-none"
        onPointerDown={(event) => {
          if (!isEditable) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          drag(event);
        }}
        onPointerMove={drag}
        onPointerUp={(event) => {
          const next = isEditable ? qualityAt(event) : undefined;
          if (next !== undefined) onChoose(next);
        }}
      >
        <LineChart
          width={width}
          height={HEIGHT_PX}
          margin={{ top: 12, right: RIGHT_PX, bottom: 4, left: 0 }}
          accessibilityLayer={false}
          role="img"
          aria-label={`Bytes against likeness of ${curve.formats.map((one) => one.format.toUpperCase()).join(', ')}`}
        >
          <CartesianGrid vertical={false} stroke="var(--color-hairline)" />
          <XAxis
            type="number"
            dataKey="bytes"
            domain={[0, most]}
            tickFormatter={(bytes: number) => sayBytes(Math.round(bytes))}
            ticks={ticksUpTo(most)}
            stroke="var(--color-line)"
            tick={TICK}
            allowDuplicatedCategory={false}
          />
          <YAxis
            type="number"
            width={AXIS_PX}
            domain={[bottom, 1]}
            tickCount={4}
            tickFormatter={(likeness: number) => likeness.toFixed(2)}
            stroke="var(--color-line)"
            tick={TICK}
          />
          <ReferenceLine y={curve.wanted} stroke="var(--color-due)" strokeDasharray="4 4" />
          {curve.formats.map((one) => (
            <Line
              key={one.format}
              data={one.samples.map(({ bytes, likeness }) => ({ bytes, likeness }))}
              dataKey="likeness"
              type="monotone"
              stroke={one.format === format ? 'var(--color-action)' : 'var(--color-control)'}
              strokeWidth={one.format === format ? 2.5 : 1.5}
              dot={false}
              isAnimationActive={false}
            />
          ))}
          {curve.formats.map((one) => {
            const last = one.samples.at(-1);
            return last ? (
              <ReferenceDot
                key={one.format}
                x={last.bytes}
                y={last.likeness}
                r={0}
                label={{
                  value: one.format === 'webp' ? 'WebP' : one.format.toUpperCase(),
                  position: 'right',
                  fontSize: 11,
                  fontWeight: one.format === format ? 650 : 400,
                  fill: one.format === format ? 'var(--color-action)' : 'var(--color-soft)',
                }}
              />
            ) : null;
          })}
          {chosen ? (
            <ReferenceDot
              x={chosen.bytes}
              y={chosen.likeness}
              r={6}
              fill="var(--color-due)"
              stroke="var(--color-panel)"
              strokeWidth={2}
            />
          ) : null}
        </LineChart>
      </div>
      <div className="grid grid-cols-[46px_minmax(0,1fr)_54px] items-center gap-2 text-sm">
        <span aria-hidden="true">Quality</span>
        <Slider
          aria-label="Quality"
          tone="due"
          value={quality}
          min={QUALITY_RANGE.least}
          max={QUALITY_RANGE.most}
          step={1}
          disabled={!isEditable}
          onChange={onDrag}
          onSettle={onChoose}
        />
        <span className="font-mono text-mono">{quality}</span>
      </div>
    </>
  );
}

/** Round weights in bytes from nothing on, four to six of them. */
function ticksUpTo(most: number): number[] {
  const rough = most / 5;
  const power = 10 ** Math.floor(Math.log10(Math.max(rough, 1)));
  const step = [1, 2, 5, 10].map((times) => times * power).find((one) => one >= rough) ?? power;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, at) => at * step);
}

const TICK = { fontSize: 11, fontFamily: 'var(--font-mono)', fill: 'var(--color-soft)' };
