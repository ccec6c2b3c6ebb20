import { type FormEvent, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { altHere, captionHere } from '#core/page/words.ts';
import type { Alt } from '#core/rights/label.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Field } from '../ui/field.tsx';
import { TextArea } from '../ui/input.tsx';
import { type Use, useLabelChange } from './row.tsx';
import { CaptionField, DescriptionField, OnlyHere } from './words-fields.tsx';

export interface WordsFormProps {
  readonly asset: Asset;
  readonly use: Use | null;
  readonly onDone: () => void;
}

/** Alt text or that it is decorative, caption, long description: of the piece, or for one page only. */
export function WordsForm({ asset, use, onDone }: WordsFormProps) {
  const piece = pieceOf(asset);
  const now = use ? altHere(use.placement, piece) : asset.label.alt;
  const [isDecorative, setDecorative] = useState(now.kind === 'decorative');
  const [text, setText] = useState(now.kind === 'text' ? now.text : '');
  const [caption, setCaption] = useState(use ? captionHere(use.placement, piece) : asset.label.caption);
  const [description, setDescription] = useState(asset.label.description);
  const [onlyHere, setOnlyHere] = useState(
    use !== null && (use.placement.alt !== null || use.placement.caption !== null),
  );
  const { fault, save } = useLabelChange(asset);
  const alt: Alt = isDecorative
    ? { kind: 'decorative' }
    : text.trim() === ''
      ? { kind: 'unsaid' }
      : { kind: 'text', text: text.trim() };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (use && onlyHere) {
      use.change({ alt, caption: caption.trim() }, 'its words here');
      onDone();
      return;
    }
    if (
      !(await save({ label: { alt, caption: caption.trim(), description: description.trim() } }, 'its words'))
    )
      return;
    if (use && (use.placement.alt !== null || use.placement.caption !== null))
      use.change({ alt: null, caption: null }, 'the piece’s own words');
    onDone();
  };
  return (
    <form className="col-span-full grid gap-2.25 pt-1.5" onSubmit={(event) => void submit(event)}>
      <Field name="Alt text" fault={fault} hint="What it shows, in a plain sentence.">
        {(control) => (
          <TextArea
            {...control}
            maxLength={1000}
            disabled={isDecorative}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <Checkbox checked={isDecorative} onChange={(isOn) => setDecorative(isOn)}>
        {' '}
        It is decorative
      </Checkbox>
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
