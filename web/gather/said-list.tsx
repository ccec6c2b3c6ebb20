import { type Statement, saySaidBy } from '#core/gather/statement.ts';
import { Folded } from '../ui/folded.tsx';

/** Everything that was said, as it was given, and who said it. */
export function SaidList({ said, words }: { readonly said: readonly Statement[]; readonly words: string }) {
  if (said.length === 0) return null;
  return (
    <Folded isSoft words={words}>
      <dl className="mt-1.5">
        {said.map((one) => (
          <div key={`${one.by} ${one.about} ${one.value}`}>
            <dt className="mt-1.5 text-2xs text-soft">
              {saySaidBy(one.by)}, {one.about.replaceAll('-', ' ')}
            </dt>
            <dd className="wrap-anywhere">{one.value}</dd>
          </div>
        ))}
      </dl>
    </Folded>
  );
}
