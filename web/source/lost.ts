import { diffArrays } from 'diff';
import type { Token } from './tokens.ts';

/** Something that was typed and cannot be kept. */
export interface Lost {
  readonly from: number;
  readonly to: number;
  /** What it is, as it was typed. */
  readonly what: string;
  readonly why: string;
}

/** Texts that differ in more places than this are not compared to the end. */
const MOST_EDITS = 4000;

/**
 * What of typed source is not in what Placard writes of it, in order: so nothing is dropped without being shown, whatever it is
 * and whoever dropped it. What stood there before anybody typed (`own`) and has another value now, as the width of a piece that
 * changes sides or the name of a table whose caption was changed, follows from what was typed, and is no loss. Null where the
 * two differ too much to be compared.
 */
export function lostIn(
  typed: readonly Token[],
  written: readonly Token[],
  own: ReadonlySet<string>,
): { readonly lost: readonly Lost[]; readonly struck: readonly Pick<Token, 'from' | 'to'>[] } | null {
  const parts = diffArrays([...typed], [...written], {
    comparator: (one, other) => one.key === other.key,
    maxEditLength: MOST_EDITS,
  });
  if (!parts) return null;
  const lost: Lost[] = [];
  const struck: Token[] = [];
  for (const [at, part] of parts.entries()) {
    if (!part.removed) continue;
    const next = parts[at + 1];
    const before = parts[at - 1];
    const instead = [next, before].flatMap((one) => (one?.added ? one.value : []));
    const gone = part.value.filter((token) => !follows(token, instead, own));
    struck.push(...gone);
    lost.push(...saidOf(gone, instead));
  }
  return { lost: lost.sort((one, other) => one.from - other.from), struck };
}

const follows = (token: Token, instead: readonly Token[], own: ReadonlySet<string>): boolean =>
  token.kind === 'attribute' &&
  own.has(token.key) &&
  instead.some((one) => one.kind === 'attribute' && one.name === token.name);

/** Tokens that are left out together, each thing once: words that follow one another are one. */
function saidOf(tokens: readonly Token[], instead: readonly Token[]): readonly Lost[] {
  const lost: Lost[] = [];
  for (const [at, token] of tokens.entries()) {
    const last = lost.at(-1);
    if (token.kind === 'end') continue;
    if (token.kind === 'words' && last && tokens[at - 1]?.kind === 'words')
      lost[lost.length - 1] = { ...last, to: token.to, what: `${last.what} ${token.name}`.slice(0, 200) };
    else lost.push({ from: token.from, to: token.to, what: shown(token), why: whyLost(token, instead) });
  }
  return lost;
}

function shown({ kind, name }: Token): string {
  switch (kind) {
    case 'element':
    case 'end':
      return `<${name}>`;
    case 'remark':
      return 'a remark';
    default:
      return name;
  }
}

const BY_ELEMENT: Readonly<Record<string, string>> = {
  script: 'a program is never kept',
  noscript: 'a program is never kept, nor what stands for one',
  style: 'style belongs to the site’s style sheet',
  link: 'style sheets and icons are the site’s',
  img: 'a picture comes onto the page from the tray',
  picture: 'a picture comes onto the page from the tray',
  source: 'Placard writes the files of a picture',
  iframe: 'an embed comes onto the page from Embeds, or as code that is pasted on the sheet',
  video: 'an embed comes onto the page from Embeds, or as code that is pasted on the sheet',
  audio: 'an embed comes onto the page from Embeds, or as code that is pasted on the sheet',
  object: 'an embed comes onto the page from Embeds, or as code that is pasted on the sheet',
  embed: 'an embed comes onto the page from Embeds, or as code that is pasted on the sheet',
  svg: 'a drawing comes onto the page as a piece',
  canvas: 'a drawing is made by a program, and programs are never kept',
  marquee: 'text that moves cannot be read by all; its words stay',
  blink: 'text that blinks cannot be read by all; its words stay',
  font: 'fonts, sizes and colours belong to the site’s style sheet; its words stay',
  center: 'where text stands belongs to the site’s style sheet; its words stay',
  u: 'underlined words are taken for a link; they stay without it',
};

function whyLost({ kind, name }: Token, instead: readonly Token[]): string {
  switch (kind) {
    case 'attribute':
      return whyAttribute(name, instead);
    case 'remark':
      return 'remarks are for whoever writes, and do not go out';
    case 'words':
      return 'nothing on a page can hold these words';
    default: {
      const other = instead.find((one) => one.kind === 'element');
      return (
        BY_ELEMENT[name] ??
        (/^(?:form|input|select|textarea|button|label|option)$/.test(name)
          ? 'a form comes onto the page as an embed'
          : other
            ? `it is written as <${other.name}>`
            : 'no part of a page is written so; its words stay')
      );
    }
  }
}

function whyAttribute(name: string, instead: readonly Token[]): string {
  if (name.startsWith('on')) return 'a program is never kept';
  if (instead.some((one) => one.kind === 'attribute' && one.name === name))
    return 'Placard has another value there';
  if (name === 'style') return 'colour and size belong to the site’s style sheet';
  if (name === 'class' || name === 'id') return 'it is none of those that the page has';
  return 'the page has no such setting there';
}
