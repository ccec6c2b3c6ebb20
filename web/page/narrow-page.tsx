import type { ReactNode } from 'react';
import type { Page } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { AtPlace, Places } from '../frame/places.tsx';
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
    <div className="row-start-3 grid min-h-0 grid-rows-[minmax(0,1fr)_auto]">
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] *:col-start-1 *:row-start-1">
        <AtPlace isHere={here === 'sheet'}>{sheet}</AtPlace>
        <AtPlace isHere={here === 'label'}>{label}</AtPlace>
        <AtPlace isHere={here === 'tray'}>{tray}</AtPlace>
      </div>
      <Places about="Places of the page" places={places} />
    </div>
  );
}
