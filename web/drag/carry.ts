import { say } from '../ui/spoken.ts';
import { Store } from '../ui/store.ts';
import { TYPING_MILLIS } from '../ui/typing.ts';
import type { Dragged } from './dragged.ts';
import { moving } from './moving.ts';
import { type Place, placesFor, type Spot } from './place.ts';
import type { Source } from './source.ts';

let takenUpAt = 0;

interface Carrying {
  /** What is carried, in words. */
  readonly words: string;
  readonly dragged: Dragged;
  readonly place: number;
  readonly spot: number;
  /** Where it would be put now: "into harbour / boats, 3 of 12". */
  readonly where: string;
}

/** What the keyboard carries; nothing is where nobody carries anything. */
export const carrying = new Store<Carrying | null>(null);

/** Takes pieces up by key: arrows go from spot to spot, Tab from place to place, Enter puts them down. */
export function carry({ dragged, words, isMovable }: Source): void {
  if (!isMovable) return;
  takenUpAt = Date.now();
  const [place] = placesFor(dragged);
  if (!place) {
    say(`Nothing on this screen takes ${words}.`);
    return;
  }
  window.addEventListener('keydown', onKey, { capture: true });
  window.addEventListener('pointerdown', putBack, { capture: true });
  goTo({ words, dragged }, 0, firstOf(place, dragged));
}

function stop(): void {
  window.removeEventListener('keydown', onKey, { capture: true });
  window.removeEventListener('pointerdown', putBack, { capture: true });
  const now = carrying.state;
  carrying.set(null);
  moving.set(false);
  if (now) for (const place of placesFor(now.dragged)) place.unmark();
}

function putBack(): void {
  const now = carrying.state;
  stop();
  if (now) say(`${now.words} put back.`);
}

function onKey(event: KeyboardEvent): void {
  const now = carrying.state;
  // What the browser or the system does by a key is theirs.
  if (!now || event.ctrlKey || event.metaKey || event.altKey || event.key === 'Shift') return;
  event.preventDefault();
  event.stopPropagation();
  // A letter so soon after it was taken up is text that somebody types: nothing was meant to be carried.
  const isTyping = event.key.length === 1 && Date.now() - takenUpAt < TYPING_MILLIS;
  if (event.key === 'Escape' || isTyping) putBack();
  else if (event.key === 'Enter' || event.key === ' ') putDown(now);
  else {
    const to = nextSpot(now, event);
    if (to) goTo(now, to.place, to.spot);
  }
}

/** Where a key leads while something is carried; null for a key that leads nowhere. */
function nextSpot(
  { dragged, place, spot }: Carrying,
  { key, shiftKey }: Pick<KeyboardEvent, 'key' | 'shiftKey'>,
): { readonly place: number; readonly spot: number } | null {
  const places = placesFor(dragged);
  const spots = places[place]?.spots(dragged) ?? [];
  switch (key) {
    case 'ArrowRight':
    case 'ArrowDown':
      return { place, spot: spot + 1 };
    case 'ArrowLeft':
    case 'ArrowUp':
      return { place, spot: spot - 1 };
    case 'Home':
      return { place, spot: 0 };
    case 'End':
      return { place, spot: spots.length - 1 };
    case 'Tab': {
      const to = (place + (shiftKey ? places.length - 1 : 1)) % Math.max(1, places.length);
      return { place: to, spot: firstOf(places[to], dragged) };
    }
    default:
      return key.length === 1 ? { place, spot: named(spots, spot, key) } : null;
  }
}

const firstOf = (place: Place | undefined, dragged: Dragged) => place?.first?.(dragged) ?? 0;

/** Of the spots after this one, and round again, the first whose name begins with a letter. */
function named(spots: readonly Spot[], from: number, letter: string): number {
  const step = spots.findIndex((_, at) =>
    spots[(from + 1 + at) % spots.length]?.name.toLowerCase().startsWith(letter.toLowerCase()),
  );
  return step < 0 ? from : (from + 1 + step) % spots.length;
}

function goTo({ words, dragged }: Pick<Carrying, 'words' | 'dragged'>, place: number, to: number): void {
  const places = placesFor(dragged);
  const spots = places[place]?.spots(dragged) ?? [];
  const at = Math.max(0, Math.min(spots.length - 1, to));
  const spot = spots[at];
  if (!spot) {
    putBack();
    return;
  }
  for (const other of places) other.unmark();
  spot.mark(true);
  const where = `${spot.say}, ${at + 1} of ${spots.length}`;
  const isNew = carrying.state === null;
  moving.set(true);
  carrying.set({ words, dragged, place, spot: at, where });
  say(isNew ? `Carrying ${words}, ${where}. ${HOW}` : where);
}

export const HOW = 'Arrows and Tab go on, Enter puts it down, Escape puts it back.';

function putDown(now: Carrying): void {
  const spot = placesFor(now.dragged)[now.place]?.spots(now.dragged)[now.spot];
  stop();
  if (!spot) return;
  // Said as it was before what is put there moves the rest.
  const where = spot.say;
  spot.put();
  say(`${now.words} put ${where}.`);
}
