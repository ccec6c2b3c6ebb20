import { type Cue, MOST_CUES, readTime } from './cue.ts';

/** What is wrong with a file of captions, and what became of it. `line` counts from 1. */
export interface CaptionFault {
  readonly code:
    | 'header-missing'
    | 'time-unreadable'
    | 'ends-before-it-begins'
    | 'out-of-order'
    | 'says-nothing'
    | 'style-left-out'
    | 'too-many';
  readonly line: number;
}

export interface ReadCaptions {
  readonly cues: readonly Cue[];
  readonly faults: readonly CaptionFault[];
}

const SENTENCES: Readonly<Record<CaptionFault['code'], string>> = {
  'header-missing': 'It does not begin with WEBVTT. It was read all the same.',
  'time-unreadable': 'A time cannot be read. This caption was left out.',
  'ends-before-it-begins': 'A caption ends before it begins. It was given the time that it takes to read.',
  'out-of-order': 'A caption begins before the one above it. They were put in order.',
  'says-nothing': 'A caption says nothing. It was left out.',
  'style-left-out': 'How captions look is the player’s and the reader’s to say. This was left out.',
  'too-many': `More than ${MOST_CUES} captions. The others were left out.`,
};

export const sayCaptionFault = ({ code, line }: CaptionFault): string => `Line ${line}: ${SENTENCES[code]}`;

/** Letters a second at which most people read along, and the least time in milliseconds that a caption is seen. */
const READ_PER_SECOND = 17;
const LEAST_MILLIS = 1000;

/**
 * Reads captions as WebVTT (W3C) or SRT, whichever it is, and mends what can be mended without asking. Markup in them is left out: who
 * speaks stays as words. Linear in the text; never throws.
 */
export function readCaptions(text: string): ReadCaptions {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n?|\n/);
  const isVtt = /^WEBVTT(?:[ \t]|$)/.test(lines[0] ?? '');
  const faults: CaptionFault[] = [];
  // SRT has no header; a file that calls its times as WebVTT does lacks one.
  if (!isVtt && lines.some((line) => /^\s*[\d:]+\.\d+\s+-->/.test(line)))
    faults.push({ code: 'header-missing', line: 1 });
  const found: Cue[] = [];
  for (const block of blocksOf(lines, isVtt ? 1 : 0)) {
    if (found.length >= MOST_CUES) {
      faults.push({ code: 'too-many', line: block.line });
      break;
    }
    const read = cueOf(block);
    if (read === null) continue;
    if ('code' in read) {
      faults.push(read);
      continue;
    }
    const { cue, fault } = read;
    if (fault) faults.push(fault);
    const last = found.at(-1);
    if (last && cue.from < last.from) faults.push({ code: 'out-of-order', line: block.line });
    found.push(cue);
  }
  return { cues: found.sort((one, other) => one.from - other.from), faults };
}

interface Block {
  readonly line: number;
  readonly lines: readonly string[];
}

/** What stands between blank lines, with the line that it begins at. */
function blocksOf(lines: readonly string[], from: number): readonly Block[] {
  const blocks: Block[] = [];
  let begun: { line: number; lines: string[] } | null = null;
  for (let at = from; at <= lines.length; at += 1) {
    const line = lines[at] ?? '';
    if (line.trim() !== '') {
      begun ??= { line: at + 1, lines: [] };
      begun.lines.push(line);
    } else if (begun) {
      blocks.push(begun);
      begun = null;
    }
  }
  return blocks;
}

type ReadCue = { readonly cue: Cue; readonly fault: CaptionFault | null } | CaptionFault | null;

const ARROW = /\s-->\s|-->/;

function cueOf({ line, lines }: Block): ReadCue {
  const [first = ''] = lines;
  if (/^NOTE(?:[ \t]|$)/.test(first)) return null;
  if (/^(?:STYLE|REGION)\s*$/.test(first)) return { code: 'style-left-out', line };
  const at = lines.findIndex((one) => ARROW.test(one));
  // The head of a WebVTT file may go on for some lines; the number of a caption alone is none.
  if (at < 0)
    return /^\s*\d+\s*$/.test(lines.join('')) || line <= 2 ? null : { code: 'time-unreadable', line };
  const [begins = '', rest = ''] = (lines[at] ?? '').split(ARROW);
  // Behind the second time stand settings of where it is shown.
  const [ends = ''] = rest.trim().split(/\s/);
  const [from, to] = [readTime(begins), readTime(ends)];
  const timeLine = line + at;
  if (from === null || to === null) return { code: 'time-unreadable', line: timeLine };
  const text = plainOf(lines.slice(at + 1));
  if (text === '') return { code: 'says-nothing', line: timeLine };
  if (to > from) return { cue: { from, to, text }, fault: null };
  const needed = Math.max(LEAST_MILLIS, Math.round((text.length / READ_PER_SECOND) * 1000));
  return { cue: { from, to: from + needed, text }, fault: { code: 'ends-before-it-begins', line: timeLine } };
}

const ENTITIES: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  nbsp: '\u00a0',
  lrm: '\u200e',
  rlm: '\u200f',
  quot: '"',
  apos: "'",
};

const MOST_LETTERS = 2000;

/** The words of a caption without markup: who speaks (`<v Mara>`) stays before what is said. */
function plainOf(lines: readonly string[]): string {
  return lines
    .map((line) =>
      line
        .replace(/<v(?:\.[^\s>]{0,60})?\s+([^>]{1,80})>/g, '$1: ')
        .replace(/<\/?[^<>]{0,200}>|\{\\[^{}]{0,60}\}/g, '')
        .replace(/&(\w{2,4});/g, (all, name: string) => ENTITIES[name] ?? all)
        .replace(/[ \t]+/g, ' ')
        .trim(),
    )
    .filter(Boolean)
    .join('\n')
    .slice(0, MOST_LETTERS);
}
