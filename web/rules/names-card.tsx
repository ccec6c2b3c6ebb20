import { NAME_PARTS, nameByPattern } from '#core/naming/pattern.ts';
import { PatternParts } from '../names/pattern-parts.tsx';
import type { RulesPart } from './rules-part.ts';

const EXAMPLE = {
  title: 'Heron below Hide No. 3',
  place: 'Saltmere',
  maker: 'Ines Okonjo',
  taken: '2026-03-12',
  fileName: 'IMG_0612.JPG',
  kind: 'picture',
};
/** A house pattern names one piece at a time, so there is nothing to count. */
const HOUSE_PARTS = NAME_PARTS.filter((part) => part !== 'number');

/** The house pattern as an ordered row of parts, with a live example. */
export function NamesCard({ rules, change }: RulesPart) {
  const pattern = rules.namePattern;
  return (
    <section className="card" aria-labelledby="rules-names">
      <h2 id="rules-names">Names</h2>
      <p className="soft">
        What a new file is called, from what its label says. Parts that are not known are left out.
      </p>
      <PatternParts
        pattern={pattern}
        parts={HOUSE_PARTS}
        onChange={(namePattern) => change({ namePattern })}
      />
      <p>
        <span className="mono">{EXAMPLE.fileName}</span> becomes{' '}
        <strong className="mono">{nameByPattern(pattern, EXAMPLE)}.jpg</strong>
      </p>
    </section>
  );
}
