import { type AltFault, altFault, sayAltFault, withoutImageOf, withoutMarkup } from '#core/words/alt.ts';
import { Button } from '../ui/button.tsx';

interface AltCheckProps {
  readonly text: string;
  readonly caption: string;
  readonly linked: boolean;
  /** Takes the text that mends it. */
  readonly onText: (text: string) => void;
  readonly onDecorative: () => void;
}

/** What is wrong with an alt text while it is written, and what mends it; nothing while there is none, or nothing is wrong. */
export function AltCheck({ text, caption, linked, onText, onDecorative }: AltCheckProps) {
  const fault = text.trim() === '' ? undefined : altFault({ kind: 'text', text }, { linked, caption });
  const mended = fault ? mendedAlt(fault, text) : null;
  return (
    <p className="text-due empty:hidden" role="status">
      {fault ? `${sayAltFault(fault)} ` : null}
      {mended !== null && mended !== '' ? (
        <Button kind="link" className="min-h-6" onClick={() => onText(mended)}>
          Leave it out
        </Button>
      ) : null}
      {fault === 'decorative-said' && !linked ? (
        <Button kind="link" className="min-h-6" onClick={onDecorative}>
          It is decorative
        </Button>
      ) : null}
    </p>
  );
}

/** The text without what is wrong in it; null where it has to be written anew. */
export function mendedAlt(fault: AltFault, text: string): string | null {
  if (fault === 'image-of') return withoutImageOf(text);
  return fault === 'markup' ? withoutMarkup(text) : null;
}
