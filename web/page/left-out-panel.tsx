import { type LeftOut, sayLeftOut, sayWhatWasLost } from '#core/page/left-out.ts';
import type { LostStyle } from '#core/page/lost-style.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Panel } from '../ui/panel.tsx';
import { useStore } from '../ui/store.ts';
import { leftOutStore } from './left-out-store.ts';

/** So many are listed: who wants to see each of more looks at where they come from. */
const MOST_ROWS = 300;

const close = () => leftOutStore.set([]);

/** What pasted text lost on its way: the words of each place, and what of them did not come along. */
export function LeftOutPanel() {
  const all = useStore(leftOutStore);
  const more = all.length - MOST_ROWS;
  return (
    <Panel
      title="What the text lost on its way"
      about={sayLeftOut(all).join(' ')}
      isOpen={all.length > 0}
      onClose={close}
    >
      <ul className="mt-3 border-t border-line">
        {all.slice(0, MOST_ROWS).map((one, at) => (
          // What was read once does not change its order.
          // biome-ignore lint/suspicious/noArrayIndexKey: the same words may be lost twice
          <Row key={at} lost={one} />
        ))}
      </ul>
      {more > 0 ? <p className="mt-2 text-soft">And {more} more places.</p> : null}
      <p className="mt-3 text-soft">
        How words look is the site's own on every page: its fonts, sizes and colours come with it.
      </p>
      <Deeds>
        <Button kind="action" onClick={close}>
          Done
        </Button>
      </Deeds>
    </Panel>
  );
}

function Row({ lost }: { readonly lost: LeftOut }) {
  const colours = (lost.styles ?? []).flatMap((style) =>
    style.kind === 'colour' || style.kind === 'background' ? [style] : [],
  );
  return (
    <li className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-line py-1.5">
      <span className="min-w-0 wrap-anywhere">{sayWhere(lost)}</span>
      <span className="flex items-baseline gap-1.5 text-soft">
        {colours.map((style) => (
          <Swatch key={style.kind} style={style} />
        ))}
        {sayWhatWasLost(lost)}
      </span>
    </li>
  );
}

function sayWhere({ words, after }: LeftOut): string {
  if (words !== '') return words;
  return after === '' ? 'At the beginning' : `After “${after.trim().slice(-60)}”`;
}

function Swatch({ style }: { readonly style: Extract<LostStyle, { value: string }> }) {
  return (
    <span
      aria-hidden
      className="inline-block size-2.5 border border-line"
      style={{ backgroundColor: style.value }}
    />
  );
}
