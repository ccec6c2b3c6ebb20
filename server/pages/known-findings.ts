import { createHash } from 'node:crypto';
import { placementsOf } from '#core/page/model.ts';
import type { Finding } from '#core/proof/finding.ts';
import type { WholePage } from './store.ts';

type Proofed = Pick<WholePage, 'doc' | 'rules' | 'pieces'>;

/** Pages whose findings are known at once; some kilobytes each. */
const MOST = 2000;

/**
 * Findings of pages as they were proofed before, so that the Desk does not proof every page each time it is opened.
 * Known by all that a proof depends on, so that none is ever out of date.
 */
export class KnownFindings {
  readonly #known = new Map<string, readonly Finding[]>();
  readonly #digests = new WeakMap<object, string>();

  of(page: Proofed, proof: (page: Proofed) => readonly Finding[]): readonly Finding[] {
    const state = this.#stateOf(page);
    const findings = this.#known.get(state) ?? proof(page);
    // Put last, so that the one asked for longest ago is the first to go.
    this.#known.delete(state);
    this.#known.set(state, findings);
    const [oldest] = this.#known.keys();
    if (this.#known.size > MOST && oldest !== undefined) this.#known.delete(oldest);
    return findings;
  }

  #stateOf({ doc, rules, pieces }: Proofed): string {
    const used = new Set(placementsOf(doc).map(({ asset }) => asset));
    const parts = [...used].map((id) => {
      const piece = pieces.get(id);
      return piece ? this.#digestOf(piece) : `${id} is gone`;
    });
    return digest([JSON.stringify(doc), this.#digestOf(rules), ...parts].join('\n'));
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
