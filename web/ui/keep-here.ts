import { toast } from './toast.ts';

/** Keeps something on this machine until it is saved; says so, once at a time, where the browser takes no more. */
export function keepHere(key: string, text: string): boolean {
  try {
    localStorage.setItem(key, text);
    return true;
  } catch (error) {
    if (!(error instanceof DOMException)) throw error;
    // What lay there is older than what is on the screen: brought back, it would undo it.
    localStorage.removeItem(key);
    toast.error(
      'This browser keeps no more of what is not saved yet. Leave this window open until it says “saved”.',
      { id: 'full-here', duration: 15_000 },
    );
    return false;
  }
}
