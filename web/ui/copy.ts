import { toast } from './toast.ts';

const CLOSED = 'The clipboard is closed to this page. Select the text and copy it by hand.';

/** Copies a text and says so by the name of what it is; says how to go on where the clipboard is closed. Answers whether it is copied. */
export async function copyText(text: string, what: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text);
    toast(`${what} copied.`);
    return true;
  } catch {
    toast.error(CLOSED);
    return false;
  }
}

/** Copies rich text, and beside it what stays of it where only plain text is taken; says so by this sentence. */
export async function copyRich(html: string, plain: string, sentence: string): Promise<boolean> {
  const of = (text: string, type: string) => new Blob([text], { type });
  try {
    await navigator.clipboard.write([
      new ClipboardItem({ 'text/html': of(html, 'text/html'), 'text/plain': of(plain, 'text/plain') }),
    ]);
    toast(sentence);
    return true;
  } catch {
    toast.error(CLOSED);
    return false;
  }
}
