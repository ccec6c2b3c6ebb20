import { writeTime } from '#core/film/cue.ts';

/** "0:06.2", as the list of captions has it. */
export const shortTime = (millis: number): string =>
  writeTime(Math.max(0, Math.round(millis)))
    .replace(/^00:0?/, '')
    .replace(/^0(?=\d)/, '')
    .slice(0, -2);

/** "0:06" on the axis of time. */
export const axisTime = (millis: number): string => shortTime(millis).replace(/\.\d$/, '');

const TYPED = /^(?:(\d{1,2}):)?(?:(\d{1,3}):)?(\d{1,5})(?:[.,](\d{1,3}))?$/;

/** A moment as somebody types it ("1:12.4", "72"), in milliseconds; null for what is none. */
export function readTyped(text: string): number | null {
  const [, first, second, seconds, part = ''] = TYPED.exec(text.trim()) ?? [];
  if (seconds === undefined) return null;
  const [hours, minutes] = second === undefined ? [0, first ?? 0] : [first ?? 0, second];
  return (Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds)) * 1000 + Number(part.padEnd(3, '0'));
}
