import { useWatch } from 'react-hook-form';
import * as v from 'valibot';
import type { Messages } from '#core/messages/table.ts';
import { type HeldEmbed, titleOfHeld } from '#core/page/embed-here.ts';
import { captionHere } from '#core/page/words.ts';
import { LabelSchema } from '#core/rights/label.ts';
import { Box, Line, Lines } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece, pieceOf } from '../pieces/pieces.ts';
import { LabelForm } from './row.tsx';
import { DESCRIPTION_HINT, type WordsFormProps } from './words-form.tsx';

const EmbedWordsSchema = v.object({
  title: v.pipe(v.string(), v.trim(), v.maxLength(300)),
  ...v.pick(LabelSchema, ['caption', 'description']).entries,
  onlyHere: v.boolean(),
});

interface EmbedWordsFormProps extends WordsFormProps {
  readonly held: HeldEmbed;
  /** In the language of the pages that it goes out on. */
  readonly messages: Messages;
}

/** The words of an embed. Its frame has a title in the place of an alt text, the same on every page. */
export function EmbedWordsForm({ asset, held, messages, use, onDone }: EmbedWordsFormProps) {
  const form = useSaveForm({
    schema: EmbedWordsSchema,
    defaults: {
      title: held.embed.title,
      caption: use ? captionHere(use.placement, pieceOf(asset)) : asset.label.caption,
      description: asset.label.description,
      onlyHere: use !== null && use.placement.caption !== null,
    },
    refusedAt: 'title',
    keepAs: `words of ${use?.placement.id ?? asset.id}`,
    save: async ({ title, caption, description, onlyHere }) => {
      const label = onlyHere ? {} : { caption, description };
      await changePiece(asset.id, { label, embed: { ...held.embed, title } }, 'its words');
      const here = onlyHere ? caption : null;
      if (use && use.placement.caption !== here)
        use.change({ caption: here }, onlyHere ? 'its words here' : 'the piece’s own words');
      onDone();
    },
  });
  const onlyHere = useWatch({ control: form.form.control, name: 'onlyHere' });
  return (
    <LabelForm of={form} deed="Save words">
      <Line
        of={form}
        name="title"
        label="Title for screen readers"
        hint="What it is, in a few words. The same on every page."
        maxLength={300}
        placeholder={titleOfHeld({ ...held, embed: { ...held.embed, title: '' } }, messages)}
      />
      <Lines of={form} name="caption" label="Caption" maxLength={5000} />
      {onlyHere ? null : (
        <Lines
          of={form}
          name="description"
          label="Long description"
          hint={DESCRIPTION_HINT}
          maxLength={5000}
        />
      )}
      {use ? (
        <Box of={form} name="onlyHere">
          For this page only
        </Box>
      ) : null}
    </LabelForm>
  );
}
