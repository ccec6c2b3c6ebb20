import { useRef } from 'react';
import type { SaidDifference } from '#api/deliveries.ts';
import type { HouseRules } from '#core/page/target.ts';
import { type FrameMark, MarkedFrame } from '../measure/marked-frame.tsx';
import { LEAST_PX, useHalf } from '../measure/use-half.ts';
import { OneOf } from '../ui/chips.tsx';

/** One of the two states, to be looked at. */
interface ShownState {
  readonly title: string;
  readonly about: string;
  /** Null where there is nothing to look at. */
  readonly address: string | null;
}

interface StatesProps {
  readonly sent: ShownState;
  readonly found: ShownState;
  readonly differences: readonly SaidDifference[];
  readonly rules: HouseRules;
  /** Which of the widths of the proof, by its place. */
  readonly width: number;
  readonly chosen: number | null;
  readonly onWidth: (width: number) => void;
  readonly onChoose: (number: number | null) => void;
}

/** What was sent beside what stands there. */
export function States({ sent, found, differences, rules, width, chosen, onWidth, onChoose }: StatesProps) {
  const pane = useRef<HTMLElement>(null);
  const viewport = rules.proofWidths[width] ?? rules.proofWidths[0] ?? LEAST_PX;
  const shown = Math.min(viewport, useHalf(pane));
  const frame = { viewport, shown, chosen, onChoose, markName: 'Difference' };
  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <div className="px-4.5 pt-2">
        <OneOf
          about="Width that is looked at"
          value={String(width)}
          choices={rules.proofWidths.map((one, at) => [String(at), `${one} px`] as const)}
          onChoose={(at) => onWidth(Number(at))}
        />
      </div>
      <section
        className="flex items-start gap-5.5 overflow-auto px-4.5 pt-3.5 pb-7.5 max-narrow:flex-wrap"
        ref={pane}
        aria-label={`${sent.title}, and ${found.title.slice(0, 1).toLowerCase()}${found.title.slice(1)}`}
      >
        {([sent, found] as const).map(({ title, about, address }, at) =>
          address === null ? null : (
            <MarkedFrame
              key={`${address} ${viewport}`}
              {...frame}
              title={title}
              about={about}
              address={address}
              marks={marksOf(differences, at === 0 ? 'sent' : 'found')}
            />
          ),
        )}
      </section>
    </div>
  );
}

/** The marks of the differences that show in one of the two states. */
function marksOf(differences: readonly SaidDifference[], which: 'sent' | 'found'): readonly FrameMark[] {
  return differences.flatMap(({ isLost, spot }, at) => {
    const place = spot?.[which] ?? null;
    return spot && place !== null
      ? [{ number: at + 1, isPressing: isLost, block: `${spot.kind} ${place}` }]
      : [];
  });
}
