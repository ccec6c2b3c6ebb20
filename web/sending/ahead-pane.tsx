import type { Foreseen } from '#api/deliveries.ts';
import { sayForeseen } from '#core/deliver/say.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { DifferenceList, type DifferenceListProps } from './difference-list.tsx';

interface AheadPaneProps extends Omit<DifferenceListProps, 'differences'> {
  readonly foreseen: Foreseen;
  readonly targetName: string;
  /** What stops the page from going out, in sentences. */
  readonly stops: readonly string[];
  /** Back to the last sending; null where there is none. */
  readonly onBack: (() => void) | null;
  /** Where the proof is that mends it; null for another target than the page's own. */
  readonly proof: string | null;
}

/** What a target will not keep of a page that was not sent yet, and what keeps the page here. */
export function AheadPane({
  foreseen: { differences },
  targetName,
  stops,
  onBack,
  proof,
  ...list
}: AheadPaneProps) {
  const lost = differences.filter(({ isLost }) => isLost).length;
  return (
    <aside className="overflow-auto bg-panel px-4 pt-3 pb-7.5" aria-label="What will differ">
      <h2 className="text-lg">{sayForeseen(lost, differences.length)}</h2>
      <p className="text-soft">
        By what the {targetName} keeps, as{' '}
        <LinkButton kind="link" to="/rules#rules-sending">
          House rules
        </LinkButton>{' '}
        say.
      </p>
      <DifferenceList differences={differences} {...list} />
      {onBack ? (
        <div>
          <Button kind="link" onClick={onBack}>
            Back to what stands there
          </Button>
        </div>
      ) : null}
      {stops.length > 0 ? (
        <section className="border-t border-hairline pt-2.75" aria-labelledby="stops-ahead">
          <h3 className="font-semibold" id="stops-ahead">
            {stops.length === 1 ? 'One thing keeps it here' : `${stops.length} things keep it here`}
          </h3>
          <ul className="my-1.5 list-disc pl-4.5 text-due">
            {stops.map((stop) => (
              <li key={stop}>{stop}</li>
            ))}
          </ul>
          {proof === null ? null : <LinkButton to={proof}>See the proof, which mends it</LinkButton>}
        </section>
      ) : null}
    </aside>
  );
}
