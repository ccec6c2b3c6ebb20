import { Store } from '../ui/store.ts';

export type Theme = 'light' | 'dark';
const KEY = 'placard-theme';

const chosen = (): Theme | null => {
  const kept = localStorage.getItem(KEY);
  return kept === 'light' || kept === 'dark' ? kept : null;
};

const ofSystem = (): Theme => (matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light');

export const theme = new Store<Theme>(chosen() ?? ofSystem());

/** Puts the chosen theme, or the system's, on the document and keeps it so. */
export function applyTheme(): void {
  const apply = () => {
    document.documentElement.dataset.theme = theme.state;
  };
  apply();
  theme.subscribe(apply);
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', () =>
    theme.set(chosen() ?? ofSystem()),
  );
}

export function chooseTheme(next: Theme): void {
  localStorage.setItem(KEY, next);
  theme.set(next);
}
