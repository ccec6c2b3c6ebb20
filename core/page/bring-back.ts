import * as v from 'valibot';
import { PAGE, type Tree, treeOf } from './block-tree.ts';
import { type Block, BlockSchema } from './blocks/block.ts';
import { kindOf } from './blocks/kinds.ts';
import type { ComparedFact, Difference } from './compare.ts';
import { movedOf } from './merge-order.ts';
import type { PageDoc } from './model.ts';
import { placementsOf, walkPage } from './walk.ts';

/**
 * A page with one of its differences from an earlier state taken back (`comparePages`), and all others left as they are: what
 * was added goes, and what of the earlier state stood in it returns to its place; what was taken out returns with what stood
 * in it; what was changed or moved is as it was, with what stands in it now. Null where it cannot stand where it stood,
 * because what it stood in is gone.
 */
export function withBroughtBack(now: PageDoc, then: PageDoc, difference: Difference): PageDoc | null {
  if (difference.kind === 'fact') return withFact(now, then, difference.id);
  const change = new Change(treeOf(now.blocks), treeOf(then.blocks));
  const { id } = difference;
  switch (difference.kind) {
    case 'added':
      change.takeOut(id);
      break;
    case 'removed':
    case 'moved':
      change.putBack(id);
      break;
    case 'changed':
      change.makeAsItWas(id);
      if (difference.isMoved) change.putBack(id);
  }
  const blocks = change.build();
  if (!blocks) return null;
  return { ...now, blocks, tray: withTray(now, then, blocks) };
}

/**
 * A page as it was in an earlier state. What was gathered since stays on the tray, and what it wants is as it is now: neither
 * stands on the sheet, and both would be missed.
 */
export function withAllBroughtBack(now: PageDoc, then: PageDoc): PageDoc {
  return { ...then, wants: now.wants, tray: [...new Set([...now.tray, ...then.tray])] };
}

function withFact(now: PageDoc, then: PageDoc, fact: ComparedFact): PageDoc {
  if (fact === 'title') return { ...now, title: then.title };
  const { [fact]: _, ...rest } = now;
  const before = then[fact];
  return before === undefined ? rest : { ...rest, [fact]: before };
}

/** Pieces that came back to the sheet come back to the tray as well, if they lay there. */
function withTray(now: PageDoc, then: PageDoc, blocks: readonly Block[]): PageDoc['tray'] {
  const here = new Set(now.tray);
  const placed = new Set(placementsOf({ blocks }).map(({ asset }) => asset));
  return [...now.tray, ...then.tray.filter((asset) => placed.has(asset) && !here.has(asset))];
}

/** Blocks on their way from the state that they are in towards an earlier one. */
class Change {
  readonly #then: Tree;
  readonly #owns: Map<string, Block>;
  readonly #parents: Map<string, string>;
  readonly #inside: Map<string, string[]>;

  constructor(now: Tree, then: Tree) {
    this.#then = then;
    this.#owns = new Map([...now.nodes].map(([id, { own }]) => [id, own]));
    this.#parents = new Map([...now.nodes].map(([id, { parent }]) => [id, parent]));
    this.#inside = new Map([...now.order].map(([id, ids]) => [id, [...ids]]));
  }

  /** What stood in it before, at whatever depth, goes back where it stood; the rest goes with it. */
  takeOut(id: string): void {
    const returning = this.#under(id).filter((one) => this.#then.nodes.has(one));
    this.#detach(id);
    for (const gone of [id, ...this.#under(id)]) if (!returning.includes(gone)) this.#owns.delete(gone);
    for (const one of returning) if (this.#owns.has(one)) this.putBack(one);
  }

  /** Puts a block where it stood: into what it stood in, or into what that stood in where it is gone. */
  putBack(id: string): void {
    const node = this.#then.nodes.get(id);
    if (!node) return;
    let [at, parent] = [id, node.parent];
    while (parent !== PAGE && !this.#owns.has(parent)) {
      at = parent;
      parent = this.#then.nodes.get(parent)?.parent ?? PAGE;
    }
    this.#detach(id);
    const before = this.#then.order.get(parent) ?? [];
    const here = this.#inside.get(parent) ?? [];
    // What was moved itself tells of no place: behind an empty line that went elsewhere it would go there as well.
    const moved = movedOf(before, here);
    const places = new Map(here.flatMap((one, place) => (moved.has(one) ? [] : [[one, place] as const])));
    const behind = before.slice(0, before.indexOf(at)).findLast((one) => places.has(one));
    here.splice(behind === undefined ? 0 : (places.get(behind) ?? 0) + 1, 0, id);
    this.#inside.set(parent, here);
    this.#parents.set(id, parent);
    if (this.#owns.has(id)) return;
    this.#owns.set(id, node.own);
    this.#inside.set(id, []);
    for (const child of this.#then.order.get(id) ?? []) this.putBack(child);
  }

  makeAsItWas(id: string): void {
    const node = this.#then.nodes.get(id);
    if (node) this.#owns.set(id, node.own);
  }

  /** The blocks as they are now; null where one of them cannot stand in what it was put into. */
  build(): Block[] | null {
    const blocks = this.#blocksOf(PAGE);
    // Kinds leave out what may not stand in them; the page itself takes whatever it is given.
    const isWhole = [...walkPage({ blocks })].length === this.#owns.size;
    return isWhole && blocks.every((block) => v.is(BlockSchema, block)) ? blocks : null;
  }

  #blocksOf(parent: string): Block[] {
    return (this.#inside.get(parent) ?? []).flatMap((id) => {
      const own = this.#owns.get(id);
      if (!own) return [];
      const { inside } = kindOf(own);
      return [inside ? inside.with(own, this.#blocksOf(id)) : own];
    });
  }

  #detach(id: string): void {
    const parent = this.#parents.get(id);
    if (parent === undefined) return;
    this.#inside.set(
      parent,
      (this.#inside.get(parent) ?? []).filter((one) => one !== id),
    );
    this.#parents.delete(id);
  }

  #under(id: string): readonly string[] {
    return (this.#inside.get(id) ?? []).flatMap((child) => [child, ...this.#under(child)]);
  }
}
