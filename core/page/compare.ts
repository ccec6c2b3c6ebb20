import isEqual from 'fast-deep-equal';
import { PAGE, type Tree, treeOf } from './block-tree.ts';
import type { Block } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import { plainText } from './inline.ts';
import { movedOf } from './merge-order.ts';
import type { PageDoc } from './model.ts';

/** What a page says of itself besides its blocks. */
export const COMPARED_FACTS = ['title', 'lead', 'address', 'headTitle', 'summary', 'keyPhrase'] as const;
export type ComparedFact = (typeof COMPARED_FACTS)[number];
/** Those that are there where somebody has said them. */
export type OptionalFact = Exclude<ComparedFact, 'title'>;

/** The facts of a page that somebody has said, as `of` has them. */
export function saidFacts(of: (fact: OptionalFact) => string | undefined): Pick<PageDoc, OptionalFact> {
  const said = COMPARED_FACTS.flatMap((fact) => {
    const value = fact === 'title' ? undefined : of(fact);
    return value === undefined ? [] : [[fact, value] as const];
  });
  return Object.fromEntries(said);
}

/** One thing in which a later state of a page differs from an earlier one. */
export type Difference =
  /** It stands in the later state alone, with all that is in it. */
  | { readonly kind: 'added'; readonly id: string; readonly block: Block }
  /** It stood in the earlier state alone, with all that was in it. */
  | { readonly kind: 'removed'; readonly id: string; readonly block: Block }
  | { readonly kind: 'moved'; readonly id: string; readonly block: Block }
  | ChangedBlock
  | {
      readonly kind: 'fact';
      readonly id: ComparedFact;
      readonly before: string;
      readonly after: string;
    };

/** A block that is another than it was; what stands in it is compared for itself. */
interface ChangedBlock {
  readonly kind: 'changed';
  readonly id: string;
  readonly before: Block;
  readonly after: Block;
  /** What it said and says, where that differs. */
  readonly words: { readonly before: string; readonly after: string } | null;
  /** Whether its words are set otherwise, as bold or as a link, or its cells and entries parted otherwise. */
  readonly isSetOtherwise: boolean;
  /** The attributes that differ, by name. */
  readonly settings: readonly string[];
  readonly isMoved: boolean;
}

/**
 * What differs between two states of a page, in reading order of the later one; what was taken out comes where it stood.
 * Blocks are known by their IDs, at any depth; of those that were moved among their neighbours as few as will do are named.
 * Empty lines do not go out, and are told nowhere. n log n in the number of blocks.
 */
export function comparePages(before: PageDoc, after: PageDoc): readonly Difference[] {
  const [was, now] = [treeOf(before.blocks), treeOf(after.blocks)];
  const moved = movedIn(was, now);
  const gone = goneFrom(was, now);
  const found: Difference[] = COMPARED_FACTS.flatMap((fact) => factOf(fact, before, after));
  const tell = (id: string): void => {
    for (const goneId of gone.get(id) ?? []) {
      const block = was.nodes.get(goneId)?.block;
      if (block) found.push({ kind: 'removed', id: goneId, block });
    }
  };
  const walk = (parent: string, isNew: boolean): void => {
    // What stood at its head is told before what does now.
    tell(headOf(parent));
    for (const id of now.order.get(parent) ?? []) {
      const one = differenceOf(id, was, now, moved.has(id));
      if (one && !(isNew && one.kind === 'added')) found.push(one);
      walk(id, one?.kind === 'added');
      tell(id);
    }
  };
  walk(PAGE, false);
  return found.filter((one) => !isEmptyLine(one));
}

function isEmptyLine(one: Difference): boolean {
  if (one.kind === 'fact' || one.kind === 'changed') return false;
  return one.block.type === 'paragraph' && saidBy(one.block).trim() === '';
}

const headOf = (parent: string) => `head of ${parent}`;

/** What is gone, by what it stood behind: its nearest sibling that stays, or the head of what it stood in. */
function goneFrom(was: Tree, now: Tree): ReadonlyMap<string, readonly string[]> {
  const gone = new Map<string, string[]>();
  for (const [parent, ids] of was.order) {
    // What went with what it stood in is told with that.
    if (parent !== PAGE && !now.nodes.has(parent)) continue;
    let behind = headOf(parent);
    for (const id of ids) {
      if (now.nodes.has(id)) {
        if (now.nodes.get(id)?.parent === parent) behind = id;
        continue;
      }
      const list = gone.get(behind);
      if (list) list.push(id);
      else gone.set(behind, [id]);
    }
  }
  return gone;
}

function movedIn(was: Tree, now: Tree): ReadonlySet<string> {
  const moved = new Set<string>();
  for (const [id, { parent }] of now.nodes) {
    const before = was.nodes.get(id);
    if (before && before.parent !== parent) moved.add(id);
  }
  for (const [parent, ids] of now.order)
    for (const id of movedOf(was.order.get(parent) ?? [], ids)) moved.add(id);
  return moved;
}

function differenceOf(id: string, was: Tree, now: Tree, isMoved: boolean): Difference | null {
  const [before, after] = [was.nodes.get(id), now.nodes.get(id)];
  if (!after) return null;
  if (!before) return { kind: 'added', id, block: after.block };
  if (isEqual(before.own, after.own)) return isMoved ? { kind: 'moved', id, block: after.block } : null;
  const [said, says] = [saidBy(before.block), saidBy(after.block)];
  const [content, contentNow] = [contentOf(before.own), contentOf(after.own)];
  return {
    kind: 'changed',
    id,
    before: before.block,
    after: after.block,
    words: said === says ? null : { before: said, after: says },
    isSetOtherwise: said === says && (before.own.type !== after.own.type || !isEqual(content, contentNow)),
    settings: settingsThatDiffer(before.own, after.own, said !== says),
    isMoved,
  };
}

/** All that a block says itself, each run on a line of its own. */
export function saidBy(block: Block): string {
  if (block.type === 'placement') {
    const { alt, caption } = block.attrs;
    return [alt?.kind === 'text' ? alt.text : '', caption ?? ''].filter(Boolean).join('\n');
  }
  if (block.type === 'teaser') return [block.attrs.title, block.attrs.words].filter(Boolean).join('\n');
  return kindOf(block).words(block).map(plainText).join('\n');
}

const contentOf = (block: Block): unknown => ('content' in block ? block.content : undefined);

/** Attributes that are words: where what is said differs, it is told as words. */
const WORDS = new Set(['alt', 'attribution', 'caption', 'summary', 'title', 'words']);

function settingsThatDiffer(before: Block, after: Block, isSaidOtherwise: boolean): readonly string[] {
  const [was, now] = [new Map(Object.entries(before.attrs)), new Map(Object.entries(after.attrs))];
  return [...new Set([...was.keys(), ...now.keys()])].filter(
    (name) => !isEqual(was.get(name), now.get(name)) && !(isSaidOtherwise && WORDS.has(name)),
  );
}

function factOf(fact: ComparedFact, before: PageDoc, after: PageDoc): readonly Difference[] {
  const [was, now] = [before[fact] ?? '', after[fact] ?? ''];
  return was === now ? [] : [{ kind: 'fact', id: fact, before: was, after: now }];
}
