import { useWatch } from 'react-hook-form';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { isPicture } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { altHere, captionHere } from '#core/page/words.ts';
import { type Alt, LabelSchema } from '#core/rights/label.ts';
import { Box, Lines } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece, pieceOf } from '../pieces/pieces.ts';
import { AltCheck } from './alt-check.tsx';
import { LongDescription } from './long-description.tsx';
import { LabelForm, type Use } from './row.tsx';

export interface WordsFormProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
  readonly onDone: () => void;
}

/** The words of a piece as they are typed: an alt text, or that it needs none. */
const WordsSchema = v.object({
  text: v.pipe(v.string(), v.trim(), v.maxLength(1000)),
  isDecorative: v.boolean(),
  ...v.pick(LabelSchema, ['caption', 'extendedDescription']).entries,
  onlyHere: v.boolean(),
});

function altOf({ text, isDecorative }: v.InferOutput<typeof WordsSchema>): Alt {
  if (isDecorative) return { kind: 'decorative' };
  return text === '' ? { kind: 'unsaid' } : { kind: 'text', text };
}

/** Alt text or that it is decorative, caption, long description: of the piece, or for one page only. */
export function WordsForm({ asset, rules, use, onDone }: WordsFormProps) {
  const piece = pieceOf(asset);
  const isSaidHere = use !== null && (use.placement.alt !== null || use.placement.caption !== null);
  // Without words of the page's own these are the piece's, and not what it says in the page's language.
  const now = isSaidHere ? altHere(rules, use.placement, piece) : asset.label.alt;
  const form = useSaveForm({
    schema: WordsSchema,
    defaults: {
      text: now.kind === 'text' ? now.text : '',
      isDecorative: now.kind === 'decorative',
      caption: isSaidHere ? captionHere(rules, use.placement, piece) : asset.label.caption,
      extendedDescription: asset.label.extendedDescription,
      onlyHere: isSaidHere,
    },
    refusedAt: 'text',
    keepAs: `words of ${use?.placement.id ?? asset.id}`,
    save: async (said) => {
      const alt = altOf(said);
      const { caption, extendedDescription } = said;
      if (use && said.onlyHere) use.change({ alt, caption }, 'its words here');
      else {
        await changePiece(asset.id, { label: { alt, caption, extendedDescription } }, 'its words');
        if (isSaidHere) use.change({ alt: null, caption: null }, 'the piece’s own words');
      }
      onDone();
    },
  });
  const [isDecorative, onlyHere, text, caption] = useWatch({
    control: form.form.control,
    name: ['isDecorative', 'onlyHere', 'text', 'caption'],
  });
  return (
    <LabelForm of={form} deed="Save words">
      {isPicture(asset) ? (
        <>
          <Lines
            of={form}
            name="text"
            label="Alt text"
            hint="What it shows, in a plain sentence."
            maxLength={1000}
            disabled={isDecorative}
          />
          <AltCheck
            text={isDecorative ? '' : text}
            caption={caption}
            linked={use !== null && use.placement.click.kind !== 'nothing'}
            onText={(mended) => form.form.setValue('text', mended, { shouldDirty: true })}
            onDecorative={() => form.form.setValue('isDecorative', true, { shouldDirty: true })}
          />
          <Box of={form} name="isDecorative">
            It is decorative
          </Box>
        </>
      ) : null}
      <Lines of={form} name="caption" label="Caption" maxLength={5000} />
      {onlyHere || !isPicture(asset) ? null : <LongDescription of={form} name="extendedDescription" />}
      {use ? (
        <Box of={form} name="onlyHere">
          For this page only
        </Box>
      ) : null}
    </LabelForm>
  );
}
