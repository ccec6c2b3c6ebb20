import { isUnnamed } from '../naming/gibberish.ts';
import { nameFactsOf, nameFor, type SubjectSource, subjectOf } from '../naming/pattern.ts';
import { nameFault, sayNameFault } from '../naming/rule.ts';
import { replacedInStem, replacedInText } from '../naming/search-replace.ts';
import type { RunOrder } from './order.ts';
import type { RunPiece } from './piece.ts';
import type { RunWarning } from './warning.ts';

export interface RunFacts {
  readonly piece: RunPiece;
  readonly language: string;
  /** The place in the run, with leading noughts. */
  readonly number: string;
}

/** The stem and title that are wished for a piece, before clashes. */
export interface StemWish {
  readonly stem: string;
  readonly title: string;
  readonly warnings: readonly RunWarning[];
}

const KIND = 'picture';

/** What a run calls a piece: as a person wrote it in its row, else by the run's naming, else as it is called. */
export function stemFor(order: RunOrder, piece: RunPiece, facts: RunFacts): StemWish {
  const written = order.rows[piece.id]?.stem;
  if (written === undefined) return byNaming(order, piece, facts);
  const fault = nameFault(written);
  if (!fault) return { stem: written, title: byNaming(order, piece, facts).title, warnings: [] };
  return {
    stem: piece.stem,
    title: piece.label.title,
    warnings: [{ code: 'name-fault', says: sayNameFault(fault), stem: piece.stem }],
  };
}

function byNaming({ naming }: RunOrder, piece: RunPiece, facts: RunFacts): StemWish {
  const asItIs = { stem: piece.stem, title: piece.label.title, warnings: [] };
  switch (naming?.by) {
    case undefined:
      return asItIs;
    case 'replace': {
      const title = naming.titles ? replacedInText(piece.label.title, naming) : piece.label.title;
      return { stem: replacedInStem(piece.stem, naming, KIND), title, warnings: [] };
    }
    case 'pattern': {
      if (naming.which === 'unnamed' && !isUnnamed(piece.stem)) return asItIs;
      return {
        ...asItIs,
        stem: nameFor({ namePattern: naming.pattern, language: facts.language }, factsIn(facts)),
      };
    }
  }
}

function factsIn({ piece, number }: Pick<RunFacts, 'piece' | 'number'>) {
  return { ...nameFactsOf(piece), number };
}

/** Where the subject of each piece's name would come from, counted. */
export function subjectSources(
  pieces: readonly RunPiece[],
  language: string,
): ReadonlyMap<SubjectSource, number> {
  const counts = new Map<SubjectSource, number>();
  for (const piece of pieces) {
    const { from } = subjectOf({ ...nameFactsOf(piece), language });
    counts.set(from, (counts.get(from) ?? 0) + 1);
  }
  return counts;
}
