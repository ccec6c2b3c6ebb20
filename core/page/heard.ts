import { kindOf } from './blocks/kinds.ts';
import { type Inline, plainText } from './inline.ts';
import type { PageDoc } from './model.ts';
import { walkPage } from './walk.ts';

/** What is heard before and after a placement, as far as it stands next to it. */
export interface Heard {
  readonly before: string;
  readonly after: string;
}

/** So many letters of what stands round it are heard: a sentence or two. */
const MOST_LETTERS = 160;

/** The words of a page that are heard right before and right after a placement; empty where there are none. */
export function heardAround(page: PageDoc, placementId: string): Heard {
  const all = [...walkPage(page)];
  const at = all.findIndex((block) => block.type === 'placement' && block.attrs.id === placementId);
  const texts = all.map((block) => (block.type === 'placement' ? '' : textOf(kindOf(block).words(block))));
  return {
    before: lastWords(at < 0 ? '' : (texts.slice(0, at).findLast(Boolean) ?? '')),
    after: firstWords(at < 0 ? '' : (texts.slice(at + 1).find(Boolean) ?? '')),
  };
}

const textOf = (runs: readonly (readonly Inline[] | undefined)[]): string =>
  runs
    .map((run) => plainText(run).replace(/\s+/g, ' ').trim())
    .filter(Boolean)
    .map((text) => (/[.!?:;,…]$/.test(text) ? text : `${text}.`))
    .join(' ');

function lastWords(text: string): string {
  if (text.length <= MOST_LETTERS) return text;
  const tail = text.slice(-MOST_LETTERS);
  return `... ${tail.slice(tail.indexOf(' ') + 1)}`;
}

function firstWords(text: string): string {
  if (text.length <= MOST_LETTERS) return text;
  const head = text.slice(0, MOST_LETTERS);
  return `${head.slice(0, head.lastIndexOf(' '))} ...`;
}
