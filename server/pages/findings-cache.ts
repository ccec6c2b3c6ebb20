import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import { linkedPageIds, usesOf } from '#core/page/linked.ts';
import type { Finding } from '#core/proof/finding.ts';
import { dayIn } from '#core/rights/terms.ts';
import type { WholePage } from './store.ts';

type Proofed = Pick<WholePage, 'doc' | 'rules' | 'pieces' | 'pages'>;

/** Pages whose findings are known at once; some kilobytes each. */
const MOST = 2000;

/**
 * Findings of pages as they were proofed before, so that the Desk does not proof every page each time it is opened.
 * Known by all that a proof depends on, so that none is ever out of date.
 */
export class FindingsCache {
  readonly #findings = new LRUCache<string, readonly Finding[]>({ max: MOST });
  readonly #digests = new WeakMap<object, string>();

  /** The findings of a page at a moment: what terms say is another thing on another day. */
  of(page: Proofed, now: Date, proof: (page: Proofed) => readonly Finding[]): readonly Finding[] {
    const state = `${dayIn(page.rules.timeZone, now)} ${this.#stateOf(page)}`;
    const before = this.#findings.get(state);
    if (before) return before;
    const findings = proof(page);
    this.#findings.set(state, findings);
    return findings;
  }

  #stateOf({ doc, rules, pieces, pages }: Proofed): string {
    const used = new Set(usesOf(doc).map(({ asset }) => asset));
    const parts = [...used].map((id) => {
      const piece = pieces.get(id);
      return piece ? this.#digestOf(piece) : `${id} is gone`;
    });
    const linked = [...linkedPageIds(doc)].map((id) => JSON.stringify([id, pages.get(id)]));
    return digest([this.#digestOf(doc), this.#digestOf(rules), ...parts, ...linked].join('\n'));
  }

  /** Pages that are read together share their pieces and rules. */
  #digestOf(value: object): string {
    const before = this.#digests.get(value);
    if (before !== undefined) return before;
    const made = digest(JSON.stringify(value));
    this.#digests.set(value, made);
    return made;
  }
}

function digest(text: string): string {
  return createHash('sha256').update(text).digest('base64');
}
