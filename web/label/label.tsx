import { type ReactNode, useLayoutEffect, useRef } from 'react';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import type { HouseRules } from '#core/page/target.ts';
import { LabelSchema } from '#core/rights/label.ts';
import { LABEL_FIELD_WORDS } from '#core/rights/say-label.ts';
import { readKeyWords, sayKeyWords } from '#core/words/key-words.ts';
import { DateLine, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { changePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { sayDate } from '../ui/dates.ts';
import { toast } from '../ui/toast.ts';
import { AccessRow } from './access-row.tsx';
import { CaptionsRow } from './captions-row.tsx';
import { CutRow } from './cut-row.tsx';
import { EmbedRow } from './embed-row.tsx';
import { FileRow } from './file-row.tsx';
import { FilmRow } from './film-row.tsx';
import { FitRow } from './fit-row.tsx';
import { InUseLine } from './in-use-line.tsx';
import { MovesRow } from './moves-row.tsx';
import { NameRow } from './name-row.tsx';
import { RightsRow } from './rights-row.tsx';
import {
  LabelForm,
  type LabelRowName,
  OpenRow,
  type RowState,
  type Use,
  useFocusBack,
  WORDS_IN,
} from './row.tsx';
import { SourceRow } from './source-row.tsx';
import { StyleRow } from './style-row.tsx';
import { TermsRow } from './terms-row.tsx';
import { useLabelChange } from './use-label-change.ts';
import { WordsRow } from './words-row.tsx';

export interface LabelProps {
  readonly asset: Asset;
  /** House rules of the target it is looked at for. */
  readonly rules: HouseRules;
  readonly use: Use | null;
  /** What is said of the arrangement that it stands in. */
  readonly around?: ReactNode;
  /** Rows of where it is used and what happens to it there. */
  readonly uses?: ReactNode;
  /** Rows at the end: who said all this. */
  readonly history?: ReactNode;
  readonly isEditable: boolean;
  readonly openRow: LabelRowName | null;
  readonly onOpenRow: (row: LabelRowName | null) => void;
}

/** One card that says all there is to say of a piece, always in the same order. Rows open in place. */
export function Label(props: LabelProps) {
  const { asset, rules, use, around, uses, history, isEditable, openRow, onOpenRow } = props;
  const openNow = useRef(openRow);
  useLayoutEffect(() => {
    openNow.current = openRow;
  }, [openRow]);
  const row = (name: LabelRowName) => ({
    isOpen: openRow === name,
    isEditable,
    onToggle: () => {
      if (openRow !== name) onOpenRow(name);
      // A form that is saved closes itself, and not what was opened while it was being saved.
      else if (openNow.current === name) onOpenRow(null);
    },
  });
  return (
    <article
      className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
      aria-label={`Label of ${asset.label.title || asset.stem}`}
    >
      <LabelHead asset={asset} {...row('title')} />
      {use ? <FitRow use={use} rules={rules} {...row('fit')} /> : null}
      {around}
      <KindRow {...props} />
      {use && asset.kind === 'picture' ? <StyleRow use={use} rules={rules} isEditable={isEditable} /> : null}
      <WordsRow
        asset={asset}
        rules={rules}
        use={use}
        {...row('words')}
        translating={openRow?.startsWith(WORDS_IN) ? openRow.slice(WORDS_IN.length) : null}
        onTranslate={(language) => onOpenRow(language === null ? null : `words in ${language}`)}
      />
      <RightsRow
        asset={asset}
        rules={rules}
        use={use}
        {...row('rights')}
        terms={row('terms')}
        decision={row('decision')}
        credit={row('credit')}
      />
      <TermsRow asset={asset} {...row('terms')} />
      <AccessRow asset={asset} {...row('access')} />
      {uses}
      <NameRow asset={asset} rules={rules} {...row('name')} />
      <SourceRow asset={asset} isEditable={isEditable} access={row('access')} />
      {history}
    </article>
  );
}

/** What it is: cut from a picture, framed from elsewhere, or a file to read. */
function KindRow({ asset, rules, use, isEditable }: LabelProps) {
  switch (asset.kind) {
    case 'picture':
      return (
        <>
          <CutRow asset={asset} rules={rules} use={use} isEditable={isEditable} />
          {asset.animated && asset.format === 'gif' ? (
            <MovesRow asset={asset} rules={rules} isEditable={isEditable} />
          ) : null}
        </>
      );
    case 'embed':
      return <EmbedRow asset={asset} held={asset.embed} rules={rules} use={use} isEditable={isEditable} />;
    case 'document':
      return <FileRow document={asset.document} address={asset.file} />;
    case 'film':
      return (
        <>
          <FilmRow asset={asset} isEditable={isEditable} />
          <CaptionsRow asset={asset} rules={rules} isEditable={isEditable} />
        </>
      );
  }
}

function LabelHead({ asset, ...state }: { readonly asset: Asset } & RowState) {
  const { label, drafted } = asset;
  const { save } = useLabelChange(asset);
  const by = [label.creator, sayDate(label.dateCreated)].filter(Boolean).join(' · ');
  const keep = async () => {
    if (!(await save({ confirmed: drafted }, 'keeping what the file says')))
      toast.error('It could not be kept. Try again.');
  };
  const head = useRef<HTMLElement>(null);
  useFocusBack(head, state.isOpen);
  return (
    <header className="pt-3 pb-2.75" ref={head}>
      <h2 className="font-serif text-3xl leading-tight font-normal wrap-anywhere italic">
        {label.title || <span className="text-soft italic">No title yet</span>}
      </h2>
      <div className="mt-0.75 flex items-baseline justify-between gap-2.5 text-soft">
        <p>{by || 'Nobody has said who made it.'}</p>
        <OpenRow
          words={label.title ? 'Change title and date' : 'Add title'}
          isWhole={label.title === ''}
          state={state}
        />
      </div>
      {label.keywords.length > 0 ? (
        <p className="mt-0.75 text-sm text-soft">Key words: {sayKeyWords(label.keywords)}</p>
      ) : null}
      {drafted.length > 0 ? (
        <div className="mt-2 bg-due-soft px-2.25 py-1.75">
          {asset.label.source === '' ? 'The file says of itself' : 'Said where it came from'}:{' '}
          {drafted.map((field) => LABEL_FIELD_WORDS[field] ?? field).join(', ')}. A draft until somebody keeps
          it.{' '}
          {state.isEditable ? (
            <Button className="min-h-6" kind="link" onClick={() => void keep()}>
              Keep it
            </Button>
          ) : null}
        </div>
      ) : null}
      {state.isOpen ? <TitleForm key={asset.id} asset={asset} onDone={state.onToggle} /> : null}
    </header>
  );
}

const TitleSchema = v.object({
  ...v.pick(LabelSchema, ['title', 'dateCreated', 'place']).entries,
  keywords: v.pipe(
    v.string(),
    v.transform((typed) => [...readKeyWords(typed)]),
    LabelSchema.entries.keywords,
  ),
});

function TitleForm({ asset, onDone }: { readonly asset: Asset; readonly onDone: () => void }) {
  const { title, dateCreated, place, keywords } = asset.label;
  const form = useSaveForm({
    schema: TitleSchema,
    defaults: { title, dateCreated, place, keywords: keywords.join(', ') },
    keepAs: `title of ${asset.id}`,
    save: async (label) => {
      await changePiece(asset.id, { label }, 'the title');
      onDone();
    },
  });
  return (
    <LabelForm of={form} deed="Save">
      <Line of={form} name="title" label="Title" maxLength={300} />
      <div className="grid grid-cols-2 gap-2">
        <DateLine of={form} name="dateCreated" label="Taken on" />
        <InUseLine of={form} name="place" label="Place" field="place" maxLength={300} />
      </div>
      <InUseLine
        of={form}
        name="keywords"
        label="Key words"
        field="keywords"
        hint="People, places, subjects, separated by commas."
        maxLength={5000}
      />
    </LabelForm>
  );
}
