import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { isLinkAddress } from '#core/page/inline.ts';
import { fileIdIn, pageIdIn } from '#core/page/page-address.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { LinkPlaces } from '../label/link-places.tsx';
import { LabelRow } from '../label/row.tsx';
import { findBlock } from '../sheet/blocks/arrange.ts';
import { headingsOf } from '../sheet/headings.ts';
import { onSheet } from '../sheet/on-sheet.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Select } from '../ui/select.tsx';

interface LinkRowProps {
  readonly editor: Editor;
  readonly language: string;
}

/** Where the chosen words lead: an address, a heading of the page, or another page of the site. */
export function LinkRow({ editor, language }: LinkRowProps) {
  const { href: leads, newWindow: isNew = false } = editor.getAttributes('link');
  const now = String(leads ?? '');
  const unlink = () => onSheet(editor).extendMarkRange('link').unsetLink().run();
  const hasText = !editor.state.selection.empty || now !== '';
  const form = useSaveForm({
    schema: TextLinkSchema,
    defaults: { href: now },
    save: ({ href }) => {
      if (href === '') unlink();
      else
        onSheet(editor)
          .extendMarkRange('link')
          .setLink({ href })
          .updateAttributes('link', { newWindow: isNew })
          .run();
    },
  });
  return (
    <LabelRow name="Link">
      {hasText ? (
        <Form of={form} className="flex flex-wrap items-end gap-x-2 gap-y-1">
          {pageIdIn(now) === null && fileIdIn(now) === null ? (
            <>
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
            </>
          ) : null}
          {now === '' ? null : (
            <div className="flex basis-full flex-wrap items-baseline gap-x-3">
              <Checkbox
                checked={isNew}
                onChange={(newWindow) =>
                  onSheet(editor).extendMarkRange('link').updateAttributes('link', { newWindow }).run()
                }
              >
                opens in a new window
              </Checkbox>
              <Button kind="link" onClick={unlink}>
                Remove the link
              </Button>
            </div>
          )}
          <HeadingChoice editor={editor} language={language} now={now} />
          <LinkPlaces
            now={now}
            what="the words"
            opensPictures
            onChoose={(href) => onSheet(editor).extendMarkRange('link').setLink({ href }).run()}
          />
        </Form>
      ) : (
        <p className="text-soft">Select words to link them.</p>
      )}
    </LabelRow>
  );
}

interface HeadingChoiceProps {
  readonly editor: Editor;
  readonly language: string;
  /** Where the words lead. */
  readonly now: string;
}

/** The headings of the page as places for a link. One that is chosen keeps its anchor from then on, whatever it says. */
function HeadingChoice({ editor, language, now }: HeadingChoiceProps) {
  const headings = headingsOf(editor.state.doc, language);
  if (headings.length === 0) return null;
  const choose = (id: string) => {
    const heading = headings.find((one) => one.id === id);
    const found = heading && findBlock(editor, id);
    if (!found) return;
    onSheet(editor)
      .command(({ tr }) => {
        tr.setNodeAttribute(found.pos, 'anchor', heading.anchor);
        return true;
      })
      .extendMarkRange('link')
      .setLink({ href: `#${heading.anchor}` })
      .run();
  };
  return (
    <Select
      className="basis-full"
      aria-label="A heading of this page"
      value={headings.find(({ anchor }) => now === `#${anchor}`)?.id ?? ''}
      choices={[
        ['', 'or to a heading of this page'],
        ...headings.map(({ id, words }) => [id, words] as const),
      ]}
      onChoose={choose}
    />
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
