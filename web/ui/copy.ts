import { toast } from './toast.ts';

/** Copies a text and says so by the name of what it is; says how to go on where the clipboard is closed. */
export async function copyText(text: string, what: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    toast(`${what} copied.`);
  } catch {
    toast.error('The clipboard is closed to this page. Select the text and copy it by hand.');
  }
}
