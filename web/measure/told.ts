import { type RefObject, useEffect, useState } from 'react';
import * as v from 'valibot';

const BoxSchema = v.object({ top: v.number(), left: v.number(), width: v.number(), height: v.number() });
export type Box = v.InferOutput<typeof BoxSchema>;

/** What a preview tells of itself (`server/media/measure.js`), in px of its own window. */
const MeasureSchema = v.object({
  kind: v.literal('placard-measure'),
  width: v.number(),
  height: v.number(),
  /** Where each block stands, by its ID. */
  blocks: v.array(v.object({ id: v.string(), ...BoxSchema.entries })),
  overflow: v.number(),
  /** How far it jumped while it loaded (cumulative layout shift); no part of what an older look tells. */
  shift: v.optional(v.number(), 0),
  /** When the first words could be read, in milliseconds from the first question; null before. */
  painted: v.optional(v.nullable(v.number()), null),
  /** When each picture had come, and how large it was. */
  loads: v.optional(v.array(v.object({ block: v.string(), at: v.number(), bytes: v.number() })), []),
});
export type Measure = v.InferOutput<typeof MeasureSchema>;

/** What one frame tells of itself. Messages of any other window are passed over, and every message is checked. */
export function toldBy(frame: HTMLIFrameElement | null, event: MessageEvent): Measure | null {
  if (!frame || event.source !== frame.contentWindow) return null;
  const read = v.safeParse(MeasureSchema, event.data);
  return read.success ? read.output : null;
}

export function useMeasure(frame: RefObject<HTMLIFrameElement | null>): Measure | null {
  const [measure, setMeasure] = useState<Measure | null>(null);
  useEffect(() => {
    const listen = (event: MessageEvent) => {
      const told = toldBy(frame.current, event);
      if (told) setMeasure(told);
    };
    window.addEventListener('message', listen);
    return () => window.removeEventListener('message', listen);
  }, [frame]);
  return measure;
}
