import { createContext, useContext } from 'react';

/** The page that a label stands beside: what links on it may lead to. */
interface PageOf {
  readonly pageId: string;
  readonly targetId: string;
  /** The pieces of its tray, whose documents may be linked to. */
  readonly tray: readonly string[];
}

const NO_PAGE: PageOf = { pageId: '', targetId: '', tray: [] };

const Context = createContext<PageOf>(NO_PAGE);

export const PageOfProvider = Context.Provider;

export const usePageOf = (): PageOf => useContext(Context);
