import { useWatch } from 'react-hook-form';
import * as v from 'valibot';
import { messagesFor } from '#core/messages/messages.ts';
import { titleOfHeld } from '#core/page/embed-here.ts';
import type { HeldEmbed } from '#core/page/piece.ts';
import { LabelSchema } from '#core/rights/label.ts';
import { Box, Line, Lines } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece } from '../pieces/pieces.ts';
import { LongDescription } from './long-description.tsx';
import { LabelForm } from './row.tsx';
import type { WordsFormProps } from './words-form.tsx';

const EmbedWordsSchema = v.object({
  title: v.pipe(v.string(), v.trim(), v.maxLength(300)),
  ...v.pick(LabelSchema, ['caption', 'extendedDescription']).entries,
  onlyHere: v.boolean(),
});

interface EmbedWordsFormProps extends WordsFormProps {
  readonly held: HeldEmbed;
}

/** The words of an embed. Its frame has a title in the place of an alt text, the same on every page. */
export function EmbedWordsForm({ asset, rules, held, use, onDone }: EmbedWordsFormProps) {
  const form = useSaveForm({
    schema: EmbedWordsSchema,
    defaults: {
      title: held.embed.title,
      caption: use?.placement.caption ?? asset.label.caption,
      extendedDescription: asset.label.extendedDescription,
      onlyHere: use !== null && use.placement.caption !== null,
    },
    refusedAt: 'title',
    keepAs: `words of ${use?.placement.id ?? asset.id}`,
    save: async ({ title, caption, extendedDescription, onlyHere }) => {
      const label = onlyHere ? {} : { caption, extendedDescription };
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
        placeholder={titleOfHeld(
          { ...held, embed: { ...held.embed, title: '' } },
          messagesFor(rules.language),
        )}
      />
      <Lines of={form} name="caption" label="Caption" maxLength={5000} />
      {onlyHere ? null : <LongDescription of={form} name="extendedDescription" />}
      {use ? (
        <Box of={form} name="onlyHere">
          For this page only
        </Box>
      ) : null}
    </LabelForm>
  );
}
