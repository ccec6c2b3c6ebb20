import { attribute, type HtmlElement } from './html-tree.ts';

/** A style is read no further: what writing programs put there is some hundred letters. */
export const MOST_STYLE = 4000;

/** What an element's `style` declares (CSS Style Attributes, 3), by property in small letters; of several the last counts. Linear. */
export function declaredIn(node: HtmlElement): ReadonlyMap<string, string> {
  return declarationsOf(attribute(node, 'style'));
}

const NONE: ReadonlyMap<string, string> = new Map();

/** What was read last: a program says the same of thousands of words. Measured: a third of the time of 1 MB of them. */
const read = new Map<string, ReadonlyMap<string, string>>();
const MOST_READ = 500;

function declarationsOf(style: string): ReadonlyMap<string, string> {
  if (style === '') return NONE;
  const known = read.get(style);
  if (known) return known;
  const declared = new Map(
    style
      .slice(0, MOST_STYLE)
      .split(';')
      .flatMap((one): [string, string][] => {
        const colon = one.indexOf(':');
        const value = one.slice(colon + 1).trim();
        return colon < 1 || value === '' ? [] : [[one.slice(0, colon).trim().toLowerCase(), value]];
      }),
  );
  if (style.length > MOST_STYLE) return declared;
  if (read.size >= MOST_READ) read.clear();
  read.set(style, declared);
  return declared;
}
