/** What a page is called on screen: its title, or that it has none yet. */
export const sayPageTitle = (title: string): string => title || 'Untitled page';
