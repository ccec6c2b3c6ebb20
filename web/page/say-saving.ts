import { sayTime } from '../ui/dates.ts';
import type { SaveState } from './saver.ts';

/** How the page stands to the server, in a few words. */
export function saySaving(saving: SaveState): string {
  switch (saving.kind) {
    case 'saved':
      return `saved ${sayTime(saving.at)}`;
    case 'unsaved':
    case 'saving':
      return 'saving';
    case 'kept':
      return 'kept on this machine';
    case 'refused':
      return 'not saved';
    case 'clash':
      return 'saved by somebody else meanwhile';
  }
}
