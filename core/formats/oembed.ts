import * as v from 'valibot';
import { type Piece, readMarkup } from '../embed/markup.ts';
import { oneLine } from '../words/one-line.ts';

/** oEmbed 1.0, section 2.3.4: what an answer may be. */
const OEMBED_TYPES = ['photo', 'video', 'link', 'rich'] as const;
type OembedType = (typeof OEMBED_TYPES)[number];

/** What an oEmbed answer says; empty and null for what it does not. Sizes in px, `seconds` is no part of 1.0 but usual. */
export interface Oembed {
  readonly type: OembedType;
  readonly title: string;
  readonly author: string;
  readonly provider: string;
  readonly html: string;
  readonly url: string;
  readonly width: number | null;
  readonly height: number | null;
  readonly thumbnail: string;
  readonly seconds: number | null;
}

export type OembedReading =
  | { readonly kind: 'answer'; readonly answer: Oembed }
  | { readonly kind: 'fault'; readonly sentence: string };

const MOST_LINE = 300;
const word = v.fallback(v.pipe(v.union([v.string(), v.number()]), v.transform(String)), '');
const size = v.fallback(
  v.pipe(
    v.union([v.string(), v.number()]),
    v.transform(Number),
    v.number(),
    v.finite(),
    v.minValue(1),
    v.maxValue(100_000),
  ),
  Number.NaN,
);

const AnswerSchema = v.object({
  type: v.picklist(OEMBED_TYPES),
  // Some hosts write 1 in the place of "1.0"; a host of a later version may answer otherwise.
  version: v.pipe(v.union([v.string(), v.number()]), v.transform(String), v.regex(/^1(\.0)?$/)),
  title: v.optional(word, ''),
  author_name: v.optional(word, ''),
  provider_name: v.optional(word, ''),
  html: v.optional(word, ''),
  url: v.optional(word, ''),
  width: v.optional(size, Number.NaN),
  height: v.optional(size, Number.NaN),
  thumbnail_url: v.optional(word, ''),
  duration: v.optional(size, Number.NaN),
});

/** Reads an oEmbed answer in JSON or XML (oEmbed 1.0, 2.3.4), whichever it is. Never throws. */
export function readOembed(text: string): OembedReading {
  const start = text.trimStart();
  const data = start.startsWith('<') ? fieldsOfXml(start) : fieldsOfJson(start);
  if (data === undefined)
    return { kind: 'fault', sentence: 'This is neither JSON nor XML, so it is no oEmbed answer.' };
  return readOembedData(data);
}

export function readOembedData(data: unknown): OembedReading {
  const read = v.safeParse(AnswerSchema, data);
  if (!read.success)
    return {
      kind: 'fault',
      sentence: `This does not fit oEmbed 1.0: it says no ${v.getDotPath(read.issues[0]) === 'version' ? 'version 1.0' : 'type that is known'}.`,
    };
  const { output } = read;
  const known = (value: number) => (Number.isNaN(value) ? null : value);
  return {
    kind: 'answer',
    answer: {
      type: output.type,
      title: lineOf(output.title),
      author: lineOf(output.author_name),
      provider: lineOf(output.provider_name),
      html: output.html,
      url: output.url.trim(),
      width: known(output.width),
      height: known(output.height),
      thumbnail: output.thumbnail_url.trim(),
      seconds: known(output.duration),
    },
  };
}

const lineOf = (text: string) => oneLine(text, MOST_LINE);

function fieldsOfJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

/** The elements under `oembed` with their text; undefined where there is no such element. */
function fieldsOfXml(text: string): unknown {
  const fields: Record<string, string> = {};
  let inside = false;
  let open: string | null = null;
  for (const piece of readMarkup(text, 'xml')) {
    if (isStart(piece, 'oembed')) inside = true;
    else if (piece.kind === 'end' && piece.name === 'oembed') break;
    else if (!inside) continue;
    else if (piece.kind === 'text') {
      if (open !== null) fields[open] = (fields[open] ?? '') + piece.text;
    } else open = piece.kind === 'start' ? piece.name : null;
  }
  return inside ? fields : undefined;
}

function isStart(piece: Piece, name: string): boolean {
  return piece.kind === 'start' && piece.name === name;
}
