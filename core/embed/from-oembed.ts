import { type readOembed, readOembedData } from '../formats/oembed.ts';
import { fromMarkup } from './from-markup.ts';
import { type Candidate, type Gathered, MOST_THINGS, PLAIN } from './gathered.ts';
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
  return fromOembed(pasted, list.map(readOembedData), hosts);
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
    const [inner] = answer.html ? fromMarkup(unwrap(answer.html), hosts).candidates : [];
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
