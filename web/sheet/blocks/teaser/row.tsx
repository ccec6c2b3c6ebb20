import { useNavigate } from 'react-router';
import { teaserRoom } from '#core/page/blocks/teaser/laid-out.ts';
import { TeaserTitleSchema, TeaserWordsSchema } from '#core/page/blocks/teaser/schema.ts';
import { widthAt } from '#core/page/room.ts';
import { LabelRow } from '../../../label/row.tsx';
import { Button } from '../../../ui/button.tsx';
import type { BlockRowProps } from '../kind.ts';
import { LineForm } from '../line-form.tsx';
import { removeTeaser } from './commands.ts';

const WIDE_PX = 2000;

/** What a page says of itself in a listing. Its picture has its own shape, words and recipe on the rows of the label. */
export function TeaserRow({ editor, block, rules }: BlockRowProps) {
  const navigate = useNavigate();
  if (block.type !== 'teaser') return null;
  const { id, title, words } = block.attrs;
  return (
    <LabelRow name="Teaser">
      <p>
        In a listing the picture is {Math.round(widthAt(teaserRoom(rules), WIDE_PX))} px wide. Its shape,
        focal point, alt text and caption here are its own.
      </p>
      <LineForm
        editor={editor}
        id={id}
        attribute="title"
        value={title}
        schema={TeaserTitleSchema}
        label="Title, if not that of the page"
        placeholder=""
        maxLength={300}
        change="the title of the teaser"
      />
      <LineForm
        editor={editor}
        id={id}
        attribute="words"
        value={words}
        schema={TeaserWordsSchema}
        label="What it says of the page"
        placeholder=""
        maxLength={1000}
        change="the words of the teaser"
      />
      <div className="flex flex-wrap items-baseline gap-x-3">
        <Button kind="link" onClick={() => navigate('proof?with=listing')}>
          See it beside the article
        </Button>
        <Button kind="link" onClick={() => removeTeaser(editor)}>
          Remove the teaser
        </Button>
      </div>
    </LabelRow>
  );
}
