import { type readOembed, readOembedData } from '../formats/oembed.ts';
import { oneLine } from '../words/one-line.ts';
import { fromMarkup, OF_A_PAGE, PROGRAMS_STAY } from './from-markup.ts';
import { type Candidate, type Gathered, type Mark, MOST_THINGS, PLAIN } from './gathered.ts';
import type { Hosts } from './host.ts';
import { unwrap } from './unwrap.ts';

/** What oEmbed answers in JSON name, one or several in a list. */
export function fromData(pasted: string, hosts: Hosts): Gathered {
  let data: unknown;
  try {
    data = JSON.parse(pasted);
  } catch {
    return nothing(
      pasted,
      'This looks like data, but it is not whole. Copy the answer from its first brace to its last.',
    );
  }
  const list = Array.isArray(data) ? data.slice(0, MOST_THINGS) : [data];
  const answers = list.map(readOembedData);
  if (list.some(isForOembed) || answers.some(({ kind }) => kind === 'answer'))
    return fromOembed(pasted, answers, hosts);
  const gathered = fromOtherData(pasted, data, hosts);
  return gathered.candidates.length > 0 ? gathered : fromOembed(pasted, answers, hosts);
}

/** An answer of another version is refused as such, and not read as something else. */
const isForOembed = (data: unknown) =>
  typeof data === 'object' && data !== null && 'version' in data && 'type' in data;

/** More fields than these are not looked at. */
const MOST_FIELDS = 2000;
/** Where data of any kind names what is shown, from the surest on (schema.org `VideoObject` and its like). */
const ADDRESS_FIELDS = [
  'embedurl',
  'playerurl',
  'iframeurl',
  'embedsrc',
  'contenturl',
  'url',
  'link',
  'href',
  'src',
];
const TITLE_FIELDS = ['title', 'name', 'headline'];

/** Data that is no oEmbed answer: code in any of its fields, or the address by which it names a thing. */
function fromOtherData(pasted: string, data: unknown, hosts: Hosts): Gathered {
  const source = { text: pasted, places: null };
  const fields = fieldsOf(data);
  const title = oneLine(fields.find(([name]) => TITLE_FIELDS.includes(name))?.[1] ?? '');
  for (const [, text] of fields) {
    if (!/<[a-z][a-z0-9-]{0,40}\s/i.test(text)) continue;
    const { candidates, marks } = fromMarkup(unwrap(text), hosts);
    if (candidates.length > 0)
      return {
        source,
        candidates: candidates.map((one) => ({ ...one, addressText: null, title: one.title || title })),
        marks: [],
        notes: leftBehind(marks),
      };
  }
  for (const field of ADDRESS_FIELDS) {
    const address = fields.find(
      ([name, text]) => name === field && /^(?:https?:)?\/\//i.test(text.trim()),
    )?.[1];
    if (address !== undefined)
      return { source, candidates: [{ ...PLAIN, from: 'data', address, title }], marks: [], notes: [] };
  }
  return { source, candidates: [], marks: [], notes: [] };
}

/** The texts in data with the names of their fields in small letters, the outermost first. */
function fieldsOf(data: unknown): readonly (readonly [name: string, text: string])[] {
  const fields: [string, string][] = [];
  let level: readonly unknown[] = [data];
  while (level.length > 0 && fields.length < MOST_FIELDS) {
    const next: unknown[] = [];
    for (const one of level) {
      if (typeof one !== 'object' || one === null) continue;
      for (const [name, value] of Object.entries(one)) {
        if (typeof value === 'string') fields.push([name.toLowerCase().replace(/[^a-z]/g, ''), value]);
        else if (next.length < MOST_FIELDS) next.push(value);
      }
    }
    level = next;
  }
  return fields;
}

/** What stood in the code of an answer and does not come along, each once. */
function leftBehind(marks: readonly Mark[]): readonly string[] {
  const programs = marks.some(({ why }) => why === PROGRAMS_STAY);
  const whole = marks.some(({ why }) => why === OF_A_PAGE);
  return [
    ...(programs ? ['The code in this answer carries a program. Programs never come along.'] : []),
    ...(whole ? ['The code in this answer says things of a whole page. They do not come along.'] : []),
  ];
}

function nothing(pasted: string, note: string): Gathered {
  return { source: { text: pasted, places: null }, candidates: [], marks: [], notes: [note] };
}

/** What oEmbed answers name: the frame in their code, or their address. */
export function fromOembed(
  pasted: string,
  readings: readonly ReturnType<typeof readOembed>[],
  hosts: Hosts,
): Gathered {
  const candidates: Candidate[] = [];
  const notes: string[] = [];
  for (const reading of readings) {
    if (reading.kind === 'fault') {
      notes.push(reading.sentence);
      continue;
    }
    const { answer } = reading;
    if (answer.type === 'photo') {
      notes.push(
        'This answer is about a picture. Fetch it under Gather, so that its licence and maker come along.',
      );
      continue;
    }
    const code = answer.html ? fromMarkup(unwrap(answer.html), hosts) : null;
    const inner = code?.candidates[0];
    if (code) notes.push(...leftBehind(code.marks));
    const address = inner?.address ?? answer.url;
    if (address === '') notes.push('This answer names nothing that can be shown.');
    else
      candidates.push({
        ...PLAIN,
        ...(inner ?? {}),
        from: 'oembed',
        address,
        addressText: null,
        width: answer.width ?? inner?.width ?? null,
        height: answer.height ?? inner?.height ?? null,
        title: answer.title || inner?.title || '',
        oembed: answer,
      });
  }
  return { source: { text: pasted, places: null }, candidates, marks: [], notes };
}
