import { HEADING_LEVELS } from '#core/page/blocks/heading/schema.ts';
import { LabelRow } from '../../../label/row.tsx';
import { OneOf } from '../../../ui/chips.tsx';
import { changeBlock } from '../../commands.ts';
import type { BlockRowProps } from '../kind.ts';

/** Down to which headings a list of contents goes. */
export function ContentsRow({ editor, block }: BlockRowProps) {
  if (block.type !== 'contents') return null;
  return (
    <LabelRow name="Contents">
      <OneOf
        about="Down to which headings"
        value={String(block.attrs.deepest)}
        choices={HEADING_LEVELS.map(
          (level) => [String(level), level === 2 ? 'heading 2' : `to heading ${level}`] as const,
        )}
        onChoose={(chosen) =>
          changeBlock(editor, block.attrs.id, { deepest: Number(chosen) }, 'how deep the contents go')
        }
      />
      <p>Each is a link to its heading, and follows what the heading says.</p>
    </LabelRow>
  );
}
