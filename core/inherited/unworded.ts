import type { Alt } from '../rights/label.ts';
import { isFileName } from '../words/file-name.ts';
import type { Inherited, PictureUse } from './reading.ts';

/**
 * The uses of pictures, by their places, whose words somebody has to say: they have none, or the name of a file, or are silent on a
 * link (W3C WAI, alt decision tree). What a piece that is held already says of itself is said: `saidBy` has it for a file.
 */
export function unwordedUses(
  { uses }: Pick<Inherited, 'uses'>,
  saidBy: (file: number) => Alt | null,
): readonly number[] {
  return uses.flatMap((use, at) => {
    const held = saidBy(use.file);
    return isSilent(use) && (held === null || held.kind === 'unsaid') ? [at] : [];
  });
}

function isSilent({ alt, link }: PictureUse): boolean {
  const text = (alt ?? '').trim();
  return alt === null || (text === '' ? link !== '' : isFileName(text));
}
