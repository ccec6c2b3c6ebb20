import { type Statement, saySaidBy } from '#core/gather/statement.ts';

/** Everything that was said, as it was given, and who said it. */
export function SaidList({ said, words }: { readonly said: readonly Statement[]; readonly words: string }) {
  if (said.length === 0) return null;
  return (
    <details className="said">
      <summary>{words}</summary>
      <dl>
        {said.map((one) => (
          <div key={`${one.by} ${one.about} ${one.value}`}>
            <dt>
              {saySaidBy(one.by)}, {one.about.replaceAll('-', ' ')}
            </dt>
            <dd>{one.value}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
