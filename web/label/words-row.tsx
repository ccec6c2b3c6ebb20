import type { Asset } from '#api/assets.ts';
import { messagesFor } from '#core/messages/messages.ts';
import { titleOfHeld } from '#core/page/embed-here.ts';
import { embedOf, isPicture } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { altHere, captionHere } from '#core/page/words.ts';
import type { Alt } from '#core/rights/label.ts';
import { translationIn } from '#core/rights/label-in.ts';
import { altFault, sayAltFault } from '#core/words/alt.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { sayPageCount } from '../pieces/say-used-on.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { EmbedWordsForm } from './embed-words-form.tsx';
import { LabelRow, OpenRow, type RowState, type Use } from './row.tsx';
import { TranslationForm } from './translation-form.tsx';
import { WordsForm } from './words-form.tsx';

interface WordsRowProps extends RowState {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
  /** The language that it is said in just now besides its own, the empty text for one to be chosen, or null. */
  readonly translating: string | null;
  readonly onTranslate: (language: string | null) => void;
}

const NAMES: Readonly<Record<Asset['kind'], string>> = {
  picture: 'Alt text and caption',
  embed: 'Title and caption',
  document: 'Caption',
  film: 'Caption',
};

/** What is said to those who cannot see it, and under it. Said once on the piece; a page may say otherwise. */
export function WordsRow({ asset, rules, use, translating, onTranslate, ...state }: WordsRowProps) {
  const piece = pieceOf(asset);
  const messages = messagesFor(rules.language);
  const alt = use ? altHere(rules, use.placement, piece) : asset.label.alt;
  const caption = use ? captionHere(rules, use.placement, piece) : asset.label.caption;
  const embed = embedOf(asset);
  const asksAlt = isPicture(asset);
  const fault = !asksAlt
    ? null
    : altFault(alt, { linked: use !== null && use.placement.click.kind !== 'nothing', caption });
  const isUnsaid = asksAlt && alt.kind === 'unsaid';
  const form = { asset, rules, use, onDone: state.onToggle };
  const key = `${asset.id} ${use?.placement.id}`;
  return (
    <LabelRow
      name={NAMES[asset.kind]}
      isUnsaid={isUnsaid}
      way={
        <OpenRow
          words={isUnsaid ? 'Write alt text' : `Change ${NAMES[asset.kind].toLowerCase()}`}
          isWhole={isUnsaid}
          state={state}
        />
      }
      form={
        translating !== null && state.isEditable ? (
          <TranslationForm
            key={`${key} ${translating}`}
            asset={asset}
            language={translating === '' ? null : translating}
            first={primaryOf(rules.language)}
            onDone={() => onTranslate(null)}
          />
        ) : !state.isOpen ? null : embed ? (
          <EmbedWordsForm key={key} held={embed} {...form} />
        ) : (
          <WordsForm key={key} {...form} />
        )
      }
    >
      {embed ? <p>Those who cannot see it hear “{titleOfHeld(embed, messages)}”.</p> : null}
      {alt.kind === 'unsaid' || !asksAlt ? null : <p>{sayAlt(alt)}</p>}
      {fault ? <p className="text-due">{sayAltFault(fault)}</p> : null}
      {caption ? <p className="text-soft">Caption: {caption}</p> : null}
      {(asset.kind === 'document' || asset.kind === 'film') && !caption ? (
        <p className="text-soft">None.</p>
      ) : null}
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
      {alt.kind === 'unsaid' || !asksAlt ? null : <p className="text-soft">{sayWhere(asset, use, rules)}</p>}
      <Languages asset={asset} opened={translating} isEditable={state.isEditable} onOpen={onTranslate} />
    </LabelRow>
  );
}

function sayAlt(alt: Exclude<Alt, { kind: 'unsaid' }>): string {
  return alt.kind === 'text' ? `“${alt.text}”` : 'Decorative: it is passed over by those who cannot see it.';
}

function sayWhere(asset: Asset, use: Use | null, rules: HouseRules): string {
  const here = use && (use.placement.alt !== null || use.placement.caption !== null);
  if (here) return 'Said for this page only.';
  const translation = use ? translationIn(asset.label, rules.language) : null;
  if (translation) return `Said on the piece in ${callLanguage(translation.language)}, as this page is.`;
  return asset.usedOn.length === 0 ? 'Said on the piece.' : `Said on the piece, used ${sayPageCount(asset)}.`;
}

interface LanguagesProps {
  readonly asset: Asset;
  /** The language that is being said, the empty text for one more, or null. */
  readonly opened: string | null;
  readonly isEditable: boolean;
  readonly onOpen: (language: string | null) => void;
}

/** In which other languages it is said, and the way to say it in one more. */
function Languages({ asset, opened, isEditable, onOpen }: LanguagesProps) {
  const { translations } = asset.label;
  const isSaid = asset.label.alt.kind !== 'unsaid' || asset.label.caption !== '' || asset.kind === 'embed';
  if (translations.length === 0 && (!isSaid || !isEditable)) return null;
  const way = (language: string, words: string, name: string) => (
    <Button
      key={language}
      kind="link"
      className="min-h-6 text-sm"
      aria-expanded={opened === language}
      aria-label={opened === language ? `Close: ${name.charAt(0).toLowerCase()}${name.slice(1)}` : name}
      onClick={() => onOpen(opened === language ? null : language)}
    >
      {opened === language ? 'Close' : words}
    </Button>
  );
  return (
    <p className="flex flex-wrap items-baseline gap-x-2 text-soft">
      {translations.length > 0 ? 'Also in' : null}
      {translations.map(({ language }) =>
        isEditable ? (
          way(language, callLanguage(language), `Change the ${callLanguage(language)} words`)
        ) : (
          <span key={language}>{callLanguage(language)}</span>
        ),
      )}
      {isEditable
        ? way('', translations.length > 0 ? 'Add' : 'Add another language', 'Add another language')
        : null}
    </p>
  );
}
