import { rowsFromText } from './blocks/table/from-text.ts';

/** A part of a long description. */
export type DescribedPart =
  | { readonly kind: 'paragraph'; readonly lines: readonly string[] }
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'list'; readonly isOrdered: boolean; readonly items: readonly string[] }
  | {
      readonly kind: 'table';
      readonly rows: readonly (readonly string[])[];
      /** Whether the first row says what stands in the columns. */
      readonly isHeaded: boolean;
    };

const HEADING = /^#{1,6}\s+(.+)$/u;
const POINT = /^[-*•–]\s+(.+)$/u;
const STEP = /^\d{1,3}[.)]\s+(.+)$/u;

/**
 * A long description as it is typed, in its parts: blank lines part paragraphs; lines that begin with # are headings, with - or
 * a number points of a list; lines of figures with tabs, semicolons or commas between them, as a sheet gives them, are a table.
 * Plain text throughout, so that it stands in a file's metadata as it was typed.
 */
export function describedParts(text: string): readonly DescribedPart[] {
  return text
    .split(/\n[ \t]*\n/u)
    .map((part) => part.trimEnd().replace(/^\n+/u, ''))
    .filter((part) => part.trim() !== '')
    .flatMap(partsOf);
}

function partsOf(text: string): readonly DescribedPart[] {
  const table = rowsFromText(text);
  if (table) return [{ kind: 'table', ...table }];
  const groups: DescribedPart[][] = [];
  for (const line of text.split('\n').map((one) => one.trim())) {
    if (line === '') continue;
    const part = partOf(line);
    const group = groups.at(-1);
    const before = group?.at(-1);
    if (group && before && isContinued(before, part)) group.push(part);
    else groups.push([part]);
  }
  return groups.flatMap(asOne);
}

function partOf(line: string): DescribedPart {
  const heading = HEADING.exec(line)?.[1];
  if (heading) return { kind: 'heading', text: heading };
  const point = POINT.exec(line)?.[1];
  if (point) return { kind: 'list', isOrdered: false, items: [point] };
  const step = STEP.exec(line)?.[1];
  if (step) return { kind: 'list', isOrdered: true, items: [step] };
  return { kind: 'paragraph', lines: [line] };
}

/** Whether a line goes on with what the one before it began: a paragraph, or a list of the same sort. */
function isContinued(before: DescribedPart, next: DescribedPart): boolean {
  if (before.kind === 'list' && next.kind === 'list') return before.isOrdered === next.isOrdered;
  return before.kind === 'paragraph' && next.kind === 'paragraph';
}

/** Lines that belong together as one paragraph, and points as one list. */
function asOne(group: readonly DescribedPart[]): DescribedPart | readonly [] {
  const [first] = group;
  if (!first) return [];
  switch (first.kind) {
    case 'paragraph':
      return { ...first, lines: group.flatMap((part) => (part.kind === 'paragraph' ? part.lines : [])) };
    case 'list':
      return { ...first, items: group.flatMap((part) => (part.kind === 'list' ? part.items : [])) };
    default:
      return first;
  }
}

/** What a description is read as: "a heading, 2 paragraphs and a table of 12 rows". */
export function sayDescribed(parts: readonly DescribedPart[]): string {
  const count = (kind: DescribedPart['kind'], one: string, many: string) => {
    const found = parts.filter((part) => part.kind === kind).length;
    return found === 0 ? [] : found === 1 ? [`a ${one}`] : [`${found} ${many}`];
  };
  const tables = parts.flatMap((part) =>
    part.kind === 'table'
      ? [`a table of ${part.rows.length} rows and ${part.rows[0]?.length ?? 0} columns`]
      : [],
  );
  return inWords.format([
    ...count('heading', 'heading', 'headings'),
    ...count('paragraph', 'paragraph', 'paragraphs'),
    ...count('list', 'list', 'lists'),
    ...tables,
  ]);
}

const inWords = new Intl.ListFormat('en-GB', { type: 'conjunction' });
