import { RadioGroup } from 'radix-ui';
import { OVER_PLACES, type OverPlace } from '#core/media/over-words.ts';

interface PlacesProps {
  readonly place: OverPlace;
  readonly onChoose: (place: OverPlace) => void;
}

/** Up and down go by rows of three; to the sides as in any group of radio buttons. */
const STEPS: Readonly<Record<string, number>> = { ArrowUp: -3, ArrowDown: 3 };

/** The nine places, each a mark where it lies in a picture. */
export function Places({ place: now, onChoose }: PlacesProps) {
  return (
    <RadioGroup.Root
      aria-label="Where they stand"
      className="mt-2 mb-1 grid w-max grid-cols-[repeat(3,30px)] rounded-sm border border-control"
      value={now}
      onKeyDownCapture={(event) => {
        const step = STEPS[event.key];
        if (step === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        const next = OVER_PLACES[OVER_PLACES.indexOf(now) + step];
        if (!next) return;
        onChoose(next);
        event.currentTarget.querySelector<HTMLElement>(`[value="${next}"]`)?.focus();
      }}
      onValueChange={(chosen) => {
        const place = OVER_PLACES.find((one) => one === chosen);
        if (place) onChoose(place);
      }}
    >
      {OVER_PLACES.map((place) => (
        <RadioGroup.Item
          key={place}
          value={place}
          className="group grid h-6 place-items-center -outline-offset-2"
          title={`At the ${place}`}
          aria-label={`At the ${place}`}
        >
          <span className="h-0.75 w-3.5 bg-control group-aria-checked:h-2.25 group-aria-checked:w-5 group-aria-checked:bg-ink forced-colors:group-aria-checked:bg-[Highlight]" />
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
