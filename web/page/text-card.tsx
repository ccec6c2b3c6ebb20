import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { PageAddressSchema } from '#core/page/page-address.ts';
import type { HouseRules } from '#core/page/target.ts';
import { wayTo } from '#core/page/walk.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { LabelRow } from '../label/row.tsx';
import type { TextWay } from '../sheet/blocks/kind.ts';
import { sheetKindOf, TEXT_WAYS } from '../sheet/blocks/kinds.ts';
import { setAddress } from '../sheet/commands.ts';
import { onSheet } from '../sheet/on-sheet.ts';
import { TranslationsRow } from '../translation/translations-row.tsx';
import { Button } from '../ui/button.tsx';
import { Chips } from '../ui/chips.tsx';
import { BlockRows } from './block-rows.tsx';
import { CharactersRow } from './characters-row.tsx';
import { LinkRow } from './link-row.tsx';
import { MeaningRow } from './meaning-row.tsx';
import { PageWordsRow } from './page-words-row.tsx';
import { PartsRow } from './parts-row.tsx';
import type { PageSession, PageView } from './use-page-session.ts';

interface TextCardProps {
  readonly session: PageSession;
  readonly view: PageView;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
  readonly onWants: () => void;
  readonly onTranslation: () => void;
}

const LETTERS = [
  ['bold', 'bold'],
  ['italic', 'italic'],
  ['superscript', 'superscript'],
  ['subscript', 'subscript'],
  ['small', 'small print'],
  ['code', 'code'],
] as const;

const waysOf = (sort: TextWay['sort']) => TEXT_WAYS.filter((one) => one.sort === sort);

/** The label of the text at the cursor: what it is, its letters, its link. */
export function TextCard({ session, view, rules, isEditable, onWants, onTranslation }: TextCardProps) {
  const { editor } = session;
  const around = view.block === null ? [] : wayTo(view.doc, view.block);
  // Text is what everything else is made of: any other way that it stands goes before.
  const [text, ...others] = waysOf('is');
  const way = others.find((one) => one.isOn(editor)) ?? text;
  const isAround = waysOf('around').filter((one) => one.isOn(editor));
  const isWordsAlone = around.some(({ type }) => sheetKindOf(type)?.holdsWordsAlone);
  const words = editor.state.doc
    .textBetween(0, editor.state.doc.content.size, ' ', ' ')
    .split(/\s+/)
    .filter(Boolean).length;
  const wanted = view.doc.wants.length;
  return (
    <article
      className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
      aria-label="Label of the text"
    >
      <header className="pt-3 pb-2.75">
        <h2 className="font-serif text-3xl leading-tight font-normal wrap-anywhere italic">
          {(around[0] && sheetKindOf(around[0].type)?.title) ?? 'Text'}
        </h2>
        <p className="mt-0.75 flex items-baseline justify-between gap-2.5 text-soft">
          {words === 1 ? '1 word' : `${words} words`} on the page
        </p>
      </header>
      {isEditable ? (
        <>
          {view.block === null ? null : (
            <BlockRows editor={editor} doc={view.doc} blockId={view.block} rules={rules} />
          )}
          {isWordsAlone ? null : (
            <>
              <WaysRow name="Is" about="What the text is" sort="is" on={way ? [way] : []} editor={editor} />
              <WaysRow
                name="Set apart"
                about="What it is set apart in"
                sort="around"
                on={isAround}
                editor={editor}
              />
            </>
          )}
          <LabelRow name="Style">
            <Chips
              keepsFocus
              about="Style"
              pressed={LETTERS.filter(([mark]) => editor.isActive(mark)).map(([mark]) => mark)}
              choices={LETTERS}
              onPress={(mark) => onSheet(editor).toggleMark(mark).run()}
            />
          </LabelRow>
          {isWordsAlone ? null : (
            <WaysRow name="Add below" about="What is added below" sort="adds" on={[]} editor={editor} />
          )}
          {isWordsAlone ? null : <PartsRow editor={editor} />}
          <LinkRow
            key={`${editor.state.selection.from} ${editor.state.selection.to}`}
            editor={editor}
            language={rules.language}
          />
          <CharactersRow editor={editor} />
          <MeaningRow
            key={`means ${editor.state.selection.from} ${editor.state.selection.to}`}
            editor={editor}
          />
        </>
      ) : null}
      <LabelRow name="Wants">
        <p>
          {wanted === 0
            ? 'Nothing is planned yet.'
            : `${view.doc.wants.filter((want) => want.filledBy).length} of ${wanted} filled.`}{' '}
          <Button kind="link" onClick={onWants}>
            {wanted === 0 ? 'Say what the page needs' : 'See the wants'}
          </Button>
        </p>
      </LabelRow>
      <LabelRow name="For">
        <p>
          The {rules.name}, {rules.commercial ? 'commercial' : 'not commercial'}, column {rules.column} px.
        </p>
        {isEditable ? (
          <AddressForm key={view.doc.address ?? ''} editor={editor} address={view.doc.address ?? ''} />
        ) : null}
      </LabelRow>
      <PageWordsRow editor={editor} doc={view.doc} rules={rules} isEditable={isEditable} />
      <TranslationsRow session={session} isEditable={isEditable} onCompare={onTranslation} />
    </article>
  );
}

interface WaysRowProps {
  readonly name: string;
  readonly about: string;
  readonly sort: TextWay['sort'];
  /** Those that hold at the cursor. */
  readonly on: readonly TextWay[];
  readonly editor: Editor;
}

/** The ways of one sort to make the text into something. */
function WaysRow({ name, about, sort, on, editor }: WaysRowProps) {
  const ways = waysOf(sort);
  return (
    <LabelRow name={name}>
      <Chips
        keepsFocus
        about={about}
        pressed={on.map(({ words }) => words)}
        choices={ways.map(({ words }) => [words, words] as const)}
        onPress={(words) => ways.find((one) => one.words === words)?.apply(editor)}
      />
    </LabelRow>
  );
}

const AddressSchema = v.object({ address: v.union([v.literal(''), PageAddressSchema]) });

/** Where the page stands on its site: what links from other pages lead to. */
function AddressForm({ editor, address: now }: { readonly editor: Editor; readonly address: string }) {
  const form = useSaveForm({
    schema: AddressSchema,
    defaults: { address: now },
    save: ({ address }) => setAddress(editor, address),
  });
  return (
    <Form of={form} className="flex flex-wrap items-end gap-x-2 gap-y-1">
      <Line
        of={form}
        className="min-w-0 flex-1"
        name="address"
        label="Address on the site"
        placeholder="/visit/tides"
        isMono
        maxLength={2000}
      />
      <Button type="submit">Keep</Button>
    </Form>
  );
}
