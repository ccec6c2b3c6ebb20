import './arrivals.css';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import { type Arrival, arrivals, clearArrivals, stopArrival } from './arrivals.ts';

/** Files on their way in, each with how far it is and what became of it. Gone when there are none. */
export function ComingIn() {
  const all = useStore(arrivals);
  if (all.length === 0) return null;
  const settled = all.filter((one) => one.state === 'in' || one.state === 'refused').length;
  return (
    <section className="arrivals" aria-label="Coming in">
      <div className="arrivals-head">
        <strong>Coming in</strong>
        <span className="soft" role="status">
          {settled} of {all.length} files
        </span>
        {settled > 0 ? (
          <div>
            <Button kind="link" onClick={clearArrivals}>
              Clear
            </Button>
          </div>
        ) : null}
      </div>
      <ul>
        {all.map((one) => (
          <ArrivalLine key={one.id} arrival={one} />
        ))}
      </ul>
    </section>
  );
}

function ArrivalLine({ arrival }: { readonly arrival: Arrival }) {
  const { id, name, state, sentence, sent, bytes } = arrival;
  const share = state === 'in' ? 1 : bytes > 0 ? sent / bytes : 0;
  const isUnderWay = state === 'waiting' || state === 'sending';
  return (
    <li className="arrival">
      <div className={`arrival-name mono ${state === 'refused' ? 'due' : ''}`}>{name}</div>
      {state === 'refused' ? null : (
        <div
          className="bar-progress"
          role="progressbar"
          aria-label={name}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(share * 100)}
        >
          <span style={{ width: `${share * 100}%` }} />
        </div>
      )}
      <p className={state === 'refused' ? 'due' : 'soft'}>{sentence}</p>
      {isUnderWay ? (
        <Button kind="link" onClick={() => stopArrival(id)} aria-label={`Stop ${name}`}>
          Stop
        </Button>
      ) : null}
    </li>
  );
}
