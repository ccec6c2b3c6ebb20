import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { isLinkAddress } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { LabelRow } from '../label/row.tsx';
import { onSheet } from '../sheet/on-sheet.ts';
import { Button } from '../ui/button.tsx';
import { Chips } from '../ui/chips.tsx';
import type { PageView } from './use-page-session.ts';

interface TextCardProps {
  readonly editor: Editor;
  readonly view: PageView;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
  readonly onWants: () => void;
}

const KINDS = [
  {
    words: 'text',
    isOn: (editor: Editor) =>
      editor.isActive('paragraph') && !editor.isActive('bulletList') && !editor.isActive('orderedList'),
    apply: (editor: Editor) => onSheet(editor).clearNodes().run(),
  },
  {
    words: 'heading 2',
    isOn: (editor: Editor) => editor.isActive('heading', { level: 2 }),
    apply: (editor: Editor) => onSheet(editor).clearNodes().setHeading({ level: 2 }).run(),
  },
  {
    words: 'heading 3',
    isOn: (editor: Editor) => editor.isActive('heading', { level: 3 }),
    apply: (editor: Editor) => onSheet(editor).clearNodes().setHeading({ level: 3 }).run(),
  },
  {
    words: 'heading 4',
    isOn: (editor: Editor) => editor.isActive('heading', { level: 4 }),
    apply: (editor: Editor) => onSheet(editor).clearNodes().setHeading({ level: 4 }).run(),
  },
  {
    words: 'list',
    isOn: (editor: Editor) => editor.isActive('bulletList'),
    apply: (editor: Editor) => onSheet(editor).toggleBulletList().run(),
  },
  {
    words: 'numbered list',
    isOn: (editor: Editor) => editor.isActive('orderedList'),
    apply: (editor: Editor) => onSheet(editor).toggleOrderedList().run(),
  },
] as const;

const LETTERS = [
  { words: 'bold', mark: 'bold', apply: (editor: Editor) => onSheet(editor).toggleBold().run() },
  { words: 'italic', mark: 'italic', apply: (editor: Editor) => onSheet(editor).toggleItalic().run() },
] as const;

/** The label of the text at the cursor: what it is, its letters, its link. */
export function TextCard({ editor, view, rules, isEditable, onWants }: TextCardProps) {
  const block = view.doc.blocks[view.block];
  const kind = KINDS.find((one) => one.isOn(editor))?.words ?? 'text';
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
          {block?.type === 'heading' ? 'A heading' : kind.includes('list') ? 'A list' : 'Text'}
        </h2>
        <p className="mt-0.75 flex items-baseline justify-between gap-2.5 text-soft">
          {words === 1 ? '1 word' : `${words} words`} on the page
        </p>
      </header>
      {isEditable ? (
        <>
          <LabelRow name="Is">
            <Chips
              keepsFocus
              about="What the text is"
              pressed={[kind]}
              choices={KINDS.map(({ words }) => [words, words] as const)}
              onPress={(words) => KINDS.find((one) => one.words === words)?.apply(editor)}
            />
          </LabelRow>
          <LabelRow name="Style">
            <Chips
              keepsFocus
              about="Style"
              pressed={LETTERS.filter(({ mark }) => editor.isActive(mark)).map(({ words }) => words)}
              choices={LETTERS.map(({ words }) => [words, words] as const)}
              onPress={(words) => LETTERS.find((one) => one.words === words)?.apply(editor)}
            />
          </LabelRow>
          <LinkRow key={`${editor.state.selection.from} ${editor.state.selection.to}`} editor={editor} />
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
      </LabelRow>
    </article>
  );
}

function LinkRow({ editor }: { readonly editor: Editor }) {
  const now = String(editor.getAttributes('link').href ?? '');
  const unlink = () => onSheet(editor).extendMarkRange('link').unsetLink().run();
  const hasText = !editor.state.selection.empty || now !== '';
  const form = useSaveForm({
    schema: TextLinkSchema,
    defaults: { href: now },
    save: ({ href }) => {
      if (href === '') unlink();
      else onSheet(editor).extendMarkRange('link').setLink({ href }).run();
    },
  });
  return (
    <LabelRow name="Link">
      {hasText ? (
        <Form of={form} className="flex flex-wrap items-end gap-x-2 gap-y-1">
          <Line
            of={form}
            className="min-w-0 flex-1"
            name="href"
            data-row="link"
            label="These words go to"
            placeholder="https://"
            isMono
            maxLength={2000}
          />
          <Button type="submit">{now === '' ? 'Link' : 'Change'}</Button>
          {now === '' ? null : (
            <Button kind="link" className="basis-full" onClick={unlink}>
              Remove the link
            </Button>
          )}
        </Form>
      ) : (
        <p className="text-soft">Select words to link them.</p>
      )}
    </LabelRow>
  );
}

const TextLinkSchema = v.object({
  href: v.pipe(
    v.string(),
    v.trim(),
    v.check(
      (href) => href === '' || isLinkAddress(href),
      'A link begins with https://, http://, mailto:, / or #.',
    ),
  ),
});
