import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { FullWordsSchema } from '#core/page/inline.ts';
import { callLanguage } from '#core/words/language.ts';
import { Form, Line, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { OFFERED_LANGUAGES } from '../label/offered-languages.ts';
import { LabelRow } from '../label/row.tsx';
import { onSheet } from '../sheet/on-sheet.ts';
import { Button } from '../ui/button.tsx';

/** No language of their own: that of the page. */
const AS_THE_PAGE = '';

const MeaningSchema = v.object({
  title: v.union([v.literal(''), FullWordsSchema]),
  lang: v.string(),
});

/** What the chosen words stand for, and in which language they are: what is heard where letters alone do not say it. */
export function MeaningRow({ editor }: { readonly editor: Editor }) {
  const [title, lang] = [
    String(editor.getAttributes('abbreviation').title ?? ''),
    String(editor.getAttributes('language').lang ?? AS_THE_PAGE),
  ];
  const isChosen = !editor.state.selection.empty || title !== '' || lang !== AS_THE_PAGE;
  return isChosen ? (
    <LabelRow name="Heard as">
      <MeaningForm editor={editor} title={title} lang={lang} />
    </LabelRow>
  ) : null;
}

interface MeaningFormProps {
  readonly editor: Editor;
  readonly title: string;
  readonly lang: string;
}

function MeaningForm({ editor, title, lang }: MeaningFormProps) {
  const form = useSaveForm({
    schema: MeaningSchema,
    defaults: { title, lang },
    save: (said) => {
      if (said.title !== title)
        setSaid(editor, 'abbreviation', said.title === '' ? null : { title: said.title });
      if (said.lang !== lang)
        setSaid(editor, 'language', said.lang === AS_THE_PAGE ? null : { lang: said.lang });
    },
  });
  const others = lang === AS_THE_PAGE || OFFERED_LANGUAGES.includes(lang) ? [] : [lang];
  return (
    <Form of={form}>
      <Line
        of={form}
        name="title"
        label="These letters stand for"
        placeholder="Mean high water springs"
        maxLength={200}
      />
      <OneOfList
        of={form}
        name="lang"
        label="Language of these words"
        choices={[
          [AS_THE_PAGE, 'as the page'],
          ...[...others, ...OFFERED_LANGUAGES].map((tag) => [tag, callLanguage(tag)] as const),
        ]}
      />
      <div>
        <Button type="submit">Keep</Button>
      </div>
    </Form>
  );
}

function setSaid(
  editor: Editor,
  mark: 'abbreviation' | 'language',
  attrs: Readonly<Record<string, string>> | null,
): void {
  const words = onSheet(editor).extendMarkRange(mark);
  if (attrs) words.setMark(mark, attrs).run();
  else words.unsetMark(mark).run();
}
