import { parse } from 'parse5';
import { MOST_PASTED } from '#core/embed/limits.ts';
import { readPasted } from '#core/embed/reading.ts';
import { HOSTS } from '#core/embed/testing.ts';
import { median, millis, say, times } from './measure.ts';

const FRAME =
  '<iframe src="https://lanternreel.example/play/a?start=42" width="560" height="315" onload="x()"></iframe>';
const HOSTILE = [
  '<div>',
  '<a href=x>',
  '<p title="x" onclick=y style="padding-bottom:3%">',
  'a=b c=d ',
  FRAME,
  '=“',
];

/** Reading what was pasted, against the widely used parser building its tree of the same text. */
export async function benchEmbeds(): Promise<void> {
  const ordinary =
    `<div class="wrap">${'<p>Words about the marsh, and a <a href="/a">link</a>.</p>'.repeat(160)}${FRAME}</div>`.slice(
      0,
      10_000,
    );
  const reading = await median(() => readPasted(ordinary, HOSTS));
  const tree = await median(() => parse(ordinary));
  say(
    'reading 10 kB of pasted code (aim: under 20 ms)',
    `${millis(reading)}, ${times(reading, tree)} the parser's tree`,
  );
  for (const part of HOSTILE) {
    const text = part.repeat(Math.floor(MOST_PASTED / part.length));
    const whole = await median(() => readPasted(text, HOSTS), 5);
    const tenth = await median(() => readPasted(text.slice(0, MOST_PASTED / 10), HOSTS), 5);
    say(
      `reading 1 MB of ${JSON.stringify(part.slice(0, 24))} (aim: under 100 ms, linear)`,
      `${millis(whole)}, ${times(whole, tenth)} a tenth of it`,
    );
  }
}
