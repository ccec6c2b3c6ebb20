import { type RefObject, useEffect, useRef } from 'react';
import type { Place } from './place.ts';
import { makePlace, makeSource, scrollsAlong } from './pointer.ts';
import type { Source } from './source.ts';

/** What lies under a point, not counting what the package lays there while something is dragged. */
export { getElementFromPointWithoutHoneypot as elementAt } from '@atlaskit/pragmatic-drag-and-drop/get-element-from-point-without-honey-pot';

type Part = RefObject<HTMLElement | null>;

/** What has this ref can be dragged; what that is is asked when it is taken up. */
export function useSource(ref: Part, source: () => Source): void {
  const now = useRef(source);
  useEffect(() => {
    now.current = source;
  });
  useEffect(() => (ref.current ? makeSource(ref.current, () => now.current()) : undefined), [ref]);
}

/** On what has this ref pieces are put down. */
export function usePlace(ref: Part, place: Place): void {
  const now = useRef(place);
  useEffect(() => {
    now.current = place;
  });
  useEffect(() => (ref.current ? makePlace(ref.current, () => now.current) : undefined), [ref]);
}

/** What has this ref scrolls while something is dragged along its edge. */
export function useScrollsAlong(ref: Part): void {
  useEffect(() => (ref.current ? scrollsAlong(ref.current) : undefined), [ref]);
}
