import type { Editor } from '@tiptap/core';
import { WholeLinkSchema } from '#core/page/blocks/whole-link.ts';
import { fileIdIn, pageIdIn } from '#core/page/page-address.ts';
import { LinkPlaces } from '../../label/link-places.tsx';
import { Button } from '../../ui/button.tsx';
import { changeBlock } from '../commands.ts';
import { LineForm } from './line-form.tsx';

interface WholeLinkFieldProps {
  readonly editor: Editor;
  readonly id: string;
  /** What leads there as a whole: "card". */
  readonly what: string;
  readonly value: string;
}

/** Where a block leads as a whole: an address, another page of the site, or a document of the tray. */
export function WholeLinkField({ editor, id, what, value }: WholeLinkFieldProps) {
  const keep = (link: string) => changeBlock(editor, id, { link }, `where the ${what} leads`);
  const isNamed = pageIdIn(value) !== null || fileIdIn(value) !== null;
  return (
    <>
      {isNamed ? (
        <p>
          The whole {what} goes to{' '}
          <Button kind="link" onClick={() => keep('')}>
            Remove the link
          </Button>
        </p>
      ) : (
        <LineForm
          editor={editor}
          id={id}
          attribute="link"
          value={value}
          schema={WholeLinkSchema}
          label={`The whole ${what} goes to`}
          placeholder="https://"
          isMono
          maxLength={2000}
          change={`where the ${what} leads`}
        />
      )}
      <LinkPlaces now={value} what={`the ${what}`} onChoose={keep} />
    </>
  );
}
