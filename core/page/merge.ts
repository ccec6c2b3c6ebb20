import isEqual from 'fast-deep-equal';
import * as v from 'valibot';
import { AnyBlockSchema, type Block } from './blocks/block.ts';
import { COMPARED_FACTS, type ComparedFact, saidFacts } from './compare.ts';
import { type BlockClash, mergeTrees, type Way } from './merge-blocks.ts';
import type { PageDoc, Want } from './model.ts';

/** What of a page itself both sides changed differently, as its title. */
interface FactClash {
  readonly kind: 'fact';
  readonly id: ComparedFact;
  readonly mine: string;
  readonly theirs: string;
}

/** A want that both sides changed in the same respect, as what fills it. */
interface WantClash {
  readonly kind: 'want';
  readonly id: string;
  readonly mine: Want;
  readonly theirs: Want;
}

/** A place that both sides changed differently: it is for a person to say which goes on. */
export type Clash = BlockClash | FactClash | WantClash;

export interface Merge {
  readonly page: PageDoc;
  readonly clashes: readonly Clash[];
}

/**
 * Puts two changed states of a page together, against the state both began from. A place that only one side changed takes
 * that side. Of a place that both changed, `wayOf` says which goes on: by itself a block is kept twice, theirs first, so that
 * nothing is lost, and a fact of the page, of which there is one, is mine.
 */
export function mergePages(
  base: PageDoc,
  mine: PageDoc,
  theirs: PageDoc,
  wayOf: (id: string) => Way = () => 'both',
): Merge {
  const merged = mergeTrees(base.blocks, mine.blocks, theirs.blocks, wayOf);
  const { blocks, teasers } = withOneTeaser(merged.blocks, theirs, wayOf);
  const { lead: _l, address: _a, headTitle: _h, summary: _s, keyPhrase: _k, ...rest } = mine;
  const facts = COMPARED_FACTS.flatMap((fact) => clashIn(fact, base, mine, theirs));
  const factOf = (fact: ComparedFact) => {
    const isTheirs = mine[fact] === base[fact] || wayOf(fact) === 'theirs';
    return (isTheirs && theirs[fact] !== base[fact] ? theirs : mine)[fact];
  };
  const wants = mergeById(base.wants, mine.wants, theirs.wants, (want) => want.id).map((want) =>
    mergedWant(want.id, base, mine, theirs, wayOf),
  );
  return {
    page: {
      ...rest,
      title: factOf('title') ?? '',
      wants: wants.map(({ want }) => want),
      ...saidFacts(factOf),
      tray: mergeById(base.tray, mine.tray, theirs.tray, (assetId) => assetId),
      blocks,
    },
    clashes: [...facts, ...wants.flatMap(({ clash }) => clash ?? []), ...merged.clashes, ...teasers],
  };
}

/** A want that is left: what only one side changed of it takes that side, respect by respect. */
function mergedWant(
  id: string,
  base: PageDoc,
  mine: PageDoc,
  theirs: PageDoc,
  wayOf: (id: string) => Way,
): { readonly want: Want; readonly clash: WantClash | null } {
  const [was, own, other] = [base, mine, theirs].map(({ wants }) => wants.find((want) => want.id === id));
  const either = own ?? other;
  if (!either) throw new RangeError('No side has this want.');
  if (!was || !own || !other) return { want: either, clash: null };
  const isTheirs = wayOf(id) === 'theirs';
  let isClash = false;
  const pick = <K extends keyof Want>(name: K): Want[K] => {
    if (own[name] === was[name] || own[name] === other[name]) return other[name];
    if (other[name] === was[name]) return own[name];
    isClash = true;
    return (isTheirs ? other : own)[name];
  };
  const want: Want = {
    id,
    purpose: pick('purpose'),
    shape: pick('shape'),
    leastWidth: pick('leastWidth'),
    filledBy: pick('filledBy'),
  };
  return { want, clash: isClash ? { kind: 'want', id, mine: own, theirs: other } : null };
}

/** Whether of a clash one side alone can go on: of a fact of the page, a want, and its teaser, there is one. */
export const isOneOf = (clash: Clash): boolean => clash.kind !== 'block' || clash.theirs.type === 'teaser';

/** A page has one teaser: where each side made one, it is for a person to say which goes on; by itself mine does. */
function withOneTeaser(
  blocks: Block[],
  theirs: PageDoc,
  wayOf: (id: string) => Way,
): { readonly blocks: Block[]; readonly teasers: readonly BlockClash[] } {
  const all = blocks.filter(({ type }) => type === 'teaser');
  const other = all.find(({ attrs }) => theirs.blocks.some((block) => block.attrs.id === attrs.id));
  const own = all.find((block) => block !== other);
  if (!own || !other) return { blocks, teasers: [] };
  const { id } = other.attrs;
  const gone = wayOf(id) === 'theirs' ? own : other;
  const mine = v.parse(AnyBlockSchema, { ...own, attrs: { ...own.attrs, id } });
  return {
    blocks: blocks.filter((block) => block !== gone),
    teasers: [{ kind: 'block', id, mine, theirs: other }],
  };
}

function clashIn(
  fact: ComparedFact,
  base: PageDoc,
  { [fact]: mine = '' }: PageDoc,
  { [fact]: theirs = '' }: PageDoc,
): readonly FactClash[] {
  const was = base[fact] ?? '';
  return mine === was || theirs === was || mine === theirs ? [] : [{ kind: 'fact', id: fact, mine, theirs }];
}

function mergeById<T extends Want | string>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  idOf: (item: T) => string,
): T[] {
  const byId = (items: readonly T[]) => new Map(items.map((item) => [idOf(item), item]));
  const [was, own, other] = [byId(base), byId(mine), byId(theirs)];
  const ids = [...new Set([...other.keys(), ...own.keys()])];
  return ids.flatMap((id) => {
    const [b, m, t] = [was.get(id), own.get(id), other.get(id)];
    if (b !== undefined && (m === undefined || t === undefined)) {
      const left = m ?? t;
      return left === undefined || isEqual(left, b) ? [] : [left];
    }
    if (m === undefined || t === undefined) return m ?? t ?? [];
    return isEqual(m, b) ? [t] : [m];
  });
}
