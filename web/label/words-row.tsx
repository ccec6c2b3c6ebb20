import type { Asset } from '#api/assets.ts';
import { messagesFor } from '#core/messages/messages.ts';
import { titleOfHeld } from '#core/page/embed-here.ts';
import type { HouseRules } from '#core/page/target.ts';
import { altHere, captionHere } from '#core/page/words.ts';
import type { Alt } from '#core/rights/label.ts';
import { altFault, sayAltFault } from '#core/words/alt.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { Checkbox } from '../ui/checkbox.tsx';
import { EmbedWordsForm } from './embed-words-form.tsx';
import { LabelRow, OpenRow, type RowState, type Use } from './row.tsx';
import { WordsForm } from './words-form.tsx';

interface WordsRowProps extends RowState {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
}

/** What is said to those who cannot see it, and under it. Said once on the piece; a page may say otherwise. */
export function WordsRow({ asset, rules, use, ...state }: WordsRowProps) {
  const piece = pieceOf(asset);
  const messages = messagesFor(rules.language);
  const alt = use ? altHere(use.placement, piece) : asset.label.alt;
  const caption = use ? captionHere(use.placement, piece) : asset.label.caption;
  const fault = asset.embed
    ? null
    : altFault(alt, { linked: use !== null && use.placement.click.kind !== 'nothing', caption });
  const isUnsaid = !asset.embed && alt.kind === 'unsaid';
  const form = { asset, use, onDone: state.onToggle };
  const key = `${asset.id} ${use?.placement.id}`;
  return (
    <LabelRow
      name={asset.embed ? 'Title and caption' : 'Alt text and caption'}
      isUnsaid={isUnsaid}
      way={
        <OpenRow
          words={
            asset.embed
              ? 'Change title and caption'
              : isUnsaid
                ? 'Write alt text'
                : 'Change alt text and caption'
          }
          isWhole={isUnsaid}
          state={state}
        />
      }
      form={
        !state.isOpen ? null : asset.embed ? (
          <EmbedWordsForm key={key} held={asset.embed} messages={messages} {...form} />
        ) : (
          <WordsForm key={key} {...form} />
        )
      }
    >
      {asset.embed ? <p>Those who cannot see it hear “{titleOfHeld(asset.embed, messages)}”.</p> : null}
      {alt.kind === 'unsaid' || asset.embed ? null : <p>{sayAlt(alt)}</p>}
      {fault ? <p className="text-due">{sayAltFault(fault)}</p> : null}
      {caption ? <p className="text-soft">Caption: {caption}</p> : null}
      {use && state.isEditable && (caption || asset.label.caption) ? (
        <Checkbox
          checked={caption !== ''}
          onChange={(isOn) =>
            use.change({ caption: isOn ? null : '' }, isOn ? 'its caption here' : 'no caption here')
          }
        >
          Caption under it here
        </Checkbox>
      ) : null}
      {alt.kind === 'unsaid' || asset.embed ? null : <p className="text-soft">{sayWhere(asset, use)}</p>}
    </LabelRow>
  );
}

function sayAlt(alt: Exclude<Alt, { kind: 'unsaid' }>): string {
  return alt.kind === 'text' ? `“${alt.text}”` : 'Decorative: it is passed over by those who cannot see it.';
}

function sayWhere(asset: Asset, use: Use | null): string {
  const here = use && (use.placement.alt !== null || use.placement.caption !== null);
  if (here) return 'Said for this page only.';
  return asset.usedOn.length === 0 ? 'Said on the piece.' : `Said on the piece, used ${sayPageCount(asset)}.`;
}
