import { type FormEvent, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { entryById } from '#core/embed/host.ts';
import { titleOf } from '#core/embed/write.ts';
import type { HeldEmbed } from '#core/page/embed-here.ts';
import type { HouseRules } from '#core/page/target.ts';
import { altHere, captionHere } from '#core/page/words.ts';
import type { Alt } from '#core/rights/label.ts';
import { altFault, sayAltFault } from '#core/words/alt.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { LabelRow, OpenRow, type RowState, type Use, useLabelChange } from './row.tsx';

interface WordsRowProps extends RowState {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
}

/** What is said to those who cannot see it, and under it. Said once on the piece; a page may say otherwise. */
export function WordsRow({ asset, use, ...state }: WordsRowProps) {
  const piece = pieceOf(asset);
  const alt = use ? altHere(use.placement, piece) : asset.label.alt;
  const caption = use ? captionHere(use.placement, piece) : asset.label.caption;
  const fault = asset.embed
    ? null
    : altFault(alt, { linked: use !== null && use.placement.click.kind !== 'nothing', caption });
  return (
    <LabelRow
      name="Words"
      way={<OpenRow words={alt.kind === 'unsaid' ? 'Write its words' : 'Change its words'} state={state} />}
      form={
        state.isOpen ? (
          <WordsForm
            key={`${asset.id} ${use?.placement.id}`}
            asset={asset}
            use={use}
            onDone={state.onToggle}
          />
        ) : null
      }
    >
      {asset.embed ? <p>Those who cannot see it hear “{titleHere(asset.embed)}”.</p> : null}
      {alt.kind === 'unsaid' || asset.embed ? null : <p>{sayAlt(alt)}</p>}
      {fault ? <p className="due">{sayAltFault(fault)}</p> : null}
      {caption ? <p className="soft">Caption: {caption}</p> : null}
      {alt.kind === 'unsaid' || asset.embed ? null : <p className="soft">{sayWhere(asset, use)}</p>}
    </LabelRow>
  );
}

function titleHere({ embed, hosts }: HeldEmbed): string {
  return titleOf(embed, entryById(embed.host, hosts));
}

function sayAlt(alt: Exclude<Alt, { kind: 'unsaid' }>): string {
  return alt.kind === 'text' ? `“${alt.text}”` : 'Decorative: it is passed over by those who cannot see it.';
}

function sayWhere(asset: Asset, use: Use | null): string {
  const here = use && (use.placement.alt !== null || use.placement.caption !== null);
  if (here) return 'Said for this page only.';
  const pages = asset.usedOn.length;
  if (pages === 0) return 'Said on the piece.';
  return `Said on the piece, used on ${pages === 1 ? '1 page' : `${pages} pages`}.`;
}

function WordsForm({
  asset,
  use,
  onDone,
}: {
  readonly asset: Asset;
  readonly use: Use | null;
  readonly onDone: () => void;
}) {
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
    <form className="label-form" onSubmit={(event) => void submit(event)}>
      <Field name="Alt text" fault={fault} hint="What it shows, in a plain sentence.">
        {(control) => (
          <textarea
            {...control}
            className="input"
            maxLength={1000}
            disabled={isDecorative}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        )}
      </Field>
      <label className="check">
        <input
          type="checkbox"
          checked={isDecorative}
          onChange={(event) => setDecorative(event.target.checked)}
        />{' '}
        It is decorative
      </label>
      <Field name="Caption">
        {(control) => (
          <textarea
            {...control}
            className="input"
            maxLength={5000}
            value={caption}
            onChange={(event) => setCaption(event.target.value)}
          />
        )}
      </Field>
      {onlyHere ? null : (
        <Field name="Long description" hint="For charts and maps: everything that is in them.">
          {(control) => (
            <textarea
              {...control}
              className="input"
              maxLength={5000}
              value={description}
              onChange={(event) => setDescription(event.target.value)}
            />
          )}
        </Field>
      )}
      {use ? (
        <label className="check">
          <input type="checkbox" checked={onlyHere} onChange={(event) => setOnlyHere(event.target.checked)} />{' '}
          For this page only
        </label>
      ) : null}
      <div className="label-actions">
        <Button kind="action" type="submit">
          Save words
        </Button>
      </div>
    </form>
  );
}
