import type { Candidate, Mark } from './gathered.ts';
import { attributeOf } from './markup.ts';
import type { AskedPermission } from './permissions.ts';
import type { Query } from './query.ts';
import { placeOf, type Source } from './unwrap.ts';

/** Marks in the letters of what was pasted, in order, none overlapping another: what is struck out goes before. */
export function marksOfPasted(source: Source, marks: readonly Mark[]): readonly Mark[] {
  const placed = marks
    .filter(({ from, to }) => to > from)
    .map((mark) => ({ ...mark, from: placeOf(source, mark.from), to: placeOf(source, mark.to) }))
    .sort((a, b) => a.from - b.from || b.to - a.to);
  const kept: Mark[] = [];
  let end = 0;
  for (const mark of placed) {
    if (mark.from < end) continue;
    kept.push(mark);
    end = mark.to;
  }
  return kept;
}

/** An address as it stood, part by part. */
export function markAddress(
  candidate: Candidate,
  wasHttp: boolean,
  query: Query,
  isLink: boolean,
): readonly Mark[] {
  const { addressText } = candidate;
  if (!addressText) return [];
  const { raw, from, to } = addressText;
  const start = /^\s*/.exec(raw)?.[0].length ?? 0;
  const marks: Mark[] = [];
  let at = start;
  const mark = (end: number, as: Mark['as'], why: string) => {
    if (end > at) marks.push({ from: from + at, to: from + end, as, why });
    at = end;
  };
  if (wasHttp && /^http:/i.test(raw.slice(at)))
    mark(at + 5, 'dropped', 'Written as https, so that nobody on the way can read or change it.');
  const question = raw.indexOf('?', at);
  // Not the sign within a letter that is written by its number.
  const fragment = raw.search(/(?<!&)#/);
  const pathEnd = Math.min(...[question, fragment, raw.length].filter((place) => place >= 0));
  mark(pathEnd, 'fact', 'Where it stands.');
  const queryEnd = fragment >= 0 && fragment > question ? fragment : raw.length;
  if (question >= 0 && question === pathEnd)
    markQuery(raw, question + 1, queryEnd, { ...query, isLink }, (stretchFrom, end, as, why) => {
      at = stretchFrom;
      mark(end, as, why);
    });
  at = Math.max(at, queryEnd);
  if (fragment >= 0) markFragment(raw, query, isLink, mark);
  return marks.filter((one) => one.to <= to);
}

function markFragment(
  raw: string,
  { place, parameters, renamed }: Query,
  isLink: boolean,
  mark: (end: number, as: Mark['as'], why: string) => void,
): void {
  if (isLink) mark(raw.length, 'fact', 'Part of the link.');
  else if (place !== '') mark(raw.length, 'fact', 'The place that is shown.');
  else if (Object.hasOwn(parameters, '#t') || renamed.has('#t'))
    mark(raw.length, 'fact', 'Kept as a setting.');
  else mark(raw.length, 'dropped', 'A place within the other page does not come along.');
}

type MarkPart = (from: number, to: number, as: Mark['as'], why: string) => void;

function markQuery(
  raw: string,
  from: number,
  to: number,
  query: Query & { readonly isLink: boolean },
  mark: MarkPart,
): void {
  let at = from;
  for (const part of raw.slice(from, to).split(/&amp;|&#38;|&/)) {
    const name = nameOf(part).replace(/^(?:amp;){1,9}/, '');
    const kept = query.renamed.get(name) ?? name;
    if (Object.hasOwn(query.parameters, kept) || Object.hasOwn(query.kept, kept))
      mark(at, at + part.length, 'fact', 'Kept as a setting.');
    else if (query.tracking.includes(name))
      mark(at, at + part.length, 'dropped', 'It only tells who shared the address.');
    else if (part !== '' && query.isLink) mark(at, at + part.length, 'fact', 'Part of the link.');
    else if (part !== '')
      mark(
        at,
        at + part.length,
        'dropped',
        'It is not known what this does. It comes along when it is ticked.',
      );
    at += part.length;
    const parting = /^(&amp;|&#38;|&)/.exec(raw.slice(at, at + 5));
    at += parting?.[0].length ?? 0;
  }
}

function nameOf(part: string): string {
  const name = part.split('=')[0] ?? '';
  try {
    return decodeURIComponent(name.replaceAll('+', ' '));
  } catch {
    return name;
  }
}

/** What a frame asked for, name by name. */
export function markPermissions(
  { tag }: Candidate,
  asked: readonly AskedPermission[],
  given: ReadonlySet<string>,
): readonly Mark[] {
  const allow = tag ? attributeOf(tag, 'allow') : undefined;
  if (!allow) return [];
  const { from } = allow.valueAt;
  return asked
    .filter((one) => one.from >= 0)
    .map((one) => ({
      from: from + one.from,
      to: from + one.to,
      as: given.has(one.name) ? ('fact' as const) : ('dropped' as const),
      why: given.has(one.name) ? 'It needs this.' : 'It asks for this and does not need it.',
    }));
}
