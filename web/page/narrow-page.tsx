import type { ReactNode } from 'react';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { AtPlace, AtPlaces } from '../frame/places.tsx';
import { type PagePlace, usePagePlaces } from './page-places.ts';

interface NarrowPageProps {
  readonly page: Page;
  readonly doc: PageDoc;
  readonly here: PagePlace;
  readonly labelled: string;
  readonly goTo: (place: PagePlace) => void;
  readonly onProof: () => void;
  readonly sheet: ReactNode;
  readonly label: ReactNode;
  readonly tray: ReactNode;
}

/** A page on a narrow screen: its sheet, its label and its tray are places that one goes to. */
export function NarrowPage({ sheet, label, tray, here, ...standing }: NarrowPageProps) {
  const places = usePagePlaces({ ...standing, here });
  return (
    <AtPlaces className="row-start-3" about="Places of the page" places={places}>
      <AtPlace isHere={here === 'sheet'}>{sheet}</AtPlace>
      <AtPlace isHere={here === 'label'}>{label}</AtPlace>
      <AtPlace isHere={here === 'tray'}>{tray}</AtPlace>
    </AtPlaces>
  );
}
