import type { Editor } from '@tiptap/core';
import { Button } from '../../ui/button.tsx';
import { findBlock, takeApart } from './arrange.ts';

interface TakeApartLinkProps {
  readonly editor: Editor;
  /** The ID of the arrangement. */
  readonly id: string;
  /** What undo calls it. */
  readonly change: string;
}

/** Lets the pieces of an arrangement stand by themselves again. */
export function TakeApartLink({ editor, id, change }: TakeApartLinkProps) {
  return (
    <Button
      kind="link"
      onClick={() => {
        const found = findBlock(editor, id);
        if (found) takeApart(editor, found, change);
      }}
    >
      Take it apart
    </Button>
  );
}
