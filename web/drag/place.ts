import type { Dragged } from './dragged.ts';

/** One spot at which something can be put down. */
export interface Spot {
  /** How it is said after what is put there: "into harbour / boats", "before paragraph 3". */
  readonly say: string;
  /** A letter typed while carrying goes to the next spot whose name begins with it. */
  readonly name: string;
  /** Shows on the screen that it would go here; `isByKeys` when the spot has to be brought into sight too. */
  readonly mark: (isByKeys: boolean) => void;
  readonly put: () => void;
}

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A part of a screen on which pieces are put down, by the pointer or by keys: both ask the same of it. */
export interface Place {
  readonly takes: (dragged: Dragged) => boolean;
  /** The spot under a point of the window, or null where nothing can be put. */
  readonly spotAt: (dragged: Dragged, point: Point) => Spot | null;
  /** All its spots in the order in which they stand. */
  readonly spots: (dragged: Dragged) => readonly Spot[];
  /** The spot at which keys begin: where it lies now, or where it most likely goes. */
  readonly first?: (dragged: Dragged) => number;
  /** Takes the mark away. */
  readonly unmark: () => void;
}

const places = new Map<HTMLElement, () => Place>();

/** Makes an element a place for keys; what it is is asked anew at each step. */
export function addPlace(element: HTMLElement, place: () => Place): () => void {
  places.set(element, place);
  return () => void places.delete(element);
}

/** The places on the screen that take it, in the order in which they stand. */
export function placesFor(dragged: Dragged): readonly Place[] {
  return [...places]
    .filter(([element]) => element.isConnected && element.checkVisibility())
    .sort(([a], [b]) => (a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1))
    .map(([, place]) => place())
    .filter((place) => place.takes(dragged));
}
