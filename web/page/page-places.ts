import { useDeferredValue, useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { countWords, placementsOf } from '#core/page/walk.ts';
import { proofInput } from '#core/proof/input.ts';
import { proofPage } from '#core/proof/proof.ts';
import type { Place } from '../frame/places.tsx';
import { usePieces } from '../pieces/pieces.ts';
import { useLinkedPages } from './linked-pages.ts';

const PAGE_PLACES = ['sheet', 'label', 'tray'] as const;
export type PagePlace = (typeof PAGE_PLACES)[number];

export const isPagePlace = (text: string | null): text is PagePlace =>
  PAGE_PLACES.some((place) => place === text);

interface Standing {
  readonly page: Page;
  readonly doc: PageDoc;
  /** Which place is looked at; the proof is a screen of its own. */
  readonly here: PagePlace | 'proof';
  /** What the label is about. */
  readonly labelled: string;
  readonly goTo: (place: PagePlace) => void;
  readonly onProof: () => void;
}

/** The places of a page on a narrow screen, each with what is there. */
export function usePagePlaces({ page, doc, here, labelled, goTo, onProof }: Standing): readonly Place[] {
  const stops = useStops(page, doc);
  const wanted = doc.wants.filter((want) => want.filledBy === null).length;
  const placed = new Set(placementsOf(doc).map(({ asset }) => asset));
  const onSheet = doc.tray.filter((id) => placed.has(id)).length;
  const words = countWords(doc);
  return [
    {
      name: 'Sheet',
      says: words === 1 ? '1 word' : `${words} words`,
      isHere: here === 'sheet',
      go: () => goTo('sheet'),
    },
    { name: 'Label', says: labelled, isHere: here === 'label', go: () => goTo('label') },
    {
      name: 'Tray',
      says: `${onSheet} of ${doc.tray.length}`,
      isDue: wanted > 0 || onSheet < doc.tray.length,
      isHere: here === 'tray',
      go: () => goTo('tray'),
    },
    {
      name: 'Proof',
      says: stops === 0 ? 'none stops' : stops === 1 ? '1 stops it' : `${stops} stop it`,
      isDue: stops > 0,
      isHere: here === 'proof',
      go: onProof,
    },
  ];
}

/** The places of a page, from another screen of it. */
export function useWayToPlaces(pageId: string): (place: PagePlace) => void {
  const navigate = useNavigate();
  return (place) => navigate(`/pages/${pageId}?place=${place}`);
}

/** How many findings stop the page from being sent: counted behind the typing, since it reads the whole page. */
function useStops({ target: { rules } }: Page, now: PageDoc): number {
  const doc = useDeferredValue(now);
  const pieces = usePieces();
  const pages = useLinkedPages();
  return useMemo(() => {
    const found = proofPage(proofInput(doc, rules, pieces, new Date(), pages));
    return found.filter(({ severity }) => severity === 'stops').length;
  }, [doc, rules, pieces, pages]);
}
