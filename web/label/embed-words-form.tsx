import { type FormEvent, useState } from 'react';
import { titleOfHeld } from '#core/page/embed-here.ts';
import { captionHere } from '#core/page/words.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { useLabelChange } from './row.tsx';
import { CaptionField, DescriptionField, OnlyHere } from './words-fields.tsx';
import type { WordsFormProps } from './words-form.tsx';

/** The words of an embed. Its frame has a title in the place of an alt text, the same on every page. */
export function EmbedWordsForm({ asset, use, onDone }: WordsFormProps) {
  const held = asset.embed;
  const [title, setTitle] = useState(held?.embed.title ?? '');
  const [caption, setCaption] = useState(
    use ? captionHere(use.placement, pieceOf(asset)) : asset.label.caption,
  );
  const [description, setDescription] = useState(asset.label.description);
  const [onlyHere, setOnlyHere] = useState(use !== null && use.placement.caption !== null);
  const { fault, save } = useLabelChange(asset);
  if (!held) return null;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const label = onlyHere ? {} : { caption: caption.trim(), description: description.trim() };
    const embed = { ...held.embed, title: title.trim() };
    if (!(await save({ label, embed }, 'its words'))) return;
    const here = onlyHere ? caption.trim() : null;
    if (use && use.placement.caption !== here)
      use.change({ caption: here }, onlyHere ? 'its words here' : 'the piece’s own words');
    onDone();
  };
  return (
    <form className="col-span-full grid gap-2.25 pt-1.5" onSubmit={(event) => void submit(event)}>
      <Field
        name="Title for screen readers"
        fault={fault}
        hint="What it is, in a few words. The same on every page."
      >
        {(control) => (
          <Input
            {...control}
            maxLength={300}
            placeholder={titleOfHeld({ ...held, embed: { ...held.embed, title: '' } })}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
        )}
      </Field>
      <CaptionField value={caption} onChange={setCaption} />
      {onlyHere ? null : <DescriptionField value={description} onChange={setDescription} />}
      {use ? <OnlyHere checked={onlyHere} onChange={setOnlyHere} /> : null}
      <div className="flex flex-wrap gap-2">
        <Button kind="action" type="submit">
          Save words
        </Button>
      </div>
    </form>
  );
}
