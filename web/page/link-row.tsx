import { useQuery } from '@tanstack/react-query';
import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import { isLinkAddress } from '#core/page/inline.ts';
import { fileHref, fileIdIn, pageHref, pageIdIn } from '#core/page/page-address.ts';
import { pageAddressesQuery } from '../api/queries.ts';
import { Form, Line } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { LabelRow } from '../label/row.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { pieces } from '../pieces/pieces.ts';
import { findBlock } from '../sheet/blocks/arrange.ts';
import { headingsOf } from '../sheet/headings.ts';
import { onSheet } from '../sheet/on-sheet.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Select } from '../ui/select.tsx';
import { useStore } from '../ui/store.ts';

interface LinkRowProps {
  readonly editor: Editor;
  readonly pageId: string;
  readonly targetId: string;
  readonly language: string;
}

/** Where the chosen words lead: an address, a heading of the page, or another page of the site. */
export function LinkRow({ editor, pageId, targetId, language }: LinkRowProps) {
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
          <PageChoice editor={editor} pageId={pageId} targetId={targetId} now={now} />
          <FileChoice editor={editor} now={now} />
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

interface PageChoiceProps {
  readonly editor: Editor;
  readonly pageId: string;
  readonly targetId: string;
  readonly now: string;
}

/** Other pages of the target as places for a link, which holds wherever they come to stand. */
function PageChoice({ editor, pageId, targetId, now }: PageChoiceProps) {
  const { data = [] } = useQuery(pageAddressesQuery);
  const pages = data.filter((page) => page.targetId === targetId && page.id !== pageId);
  if (pages.length === 0) return null;
  const led = pages.find(({ id }) => now === pageHref(id));
  return (
    <>
      <Select
        className="basis-full"
        aria-label="Another page of this site"
        value={led?.id ?? ''}
        choices={[
          ['', 'or to another page of this site'],
          ...pages.map(({ id, title }) => [id, sayPageTitle(title)] as const),
        ]}
        onChoose={(id) => {
          if (id !== '')
            onSheet(editor)
              .extendMarkRange('link')
              .setLink({ href: pageHref(id) })
              .run();
        }}
      />
      {led && led.address === '' ? (
        <p className="basis-full text-due">
          Its address is not known yet: the words go out, and the link does not.
        </p>
      ) : null}
    </>
  );
}

/** Documents of the tray as places for a link: their files go out with the page, and the link says what they are. */
function FileChoice({ editor, now }: { readonly editor: Editor; readonly now: string }) {
  const known = useStore(pieces);
  const tray = editor.state.doc.attrs.tray as readonly string[];
  const led = fileIdIn(now);
  const ids = led === null || tray.includes(led) ? tray : [...tray, led];
  const documents = ids.flatMap((id) => {
    const asset = known.get(id);
    return asset?.kind === 'document' ? [asset] : [];
  });
  if (documents.length === 0) return null;
  return (
    <Select
      className="basis-full"
      aria-label="A document of the tray"
      value={led ?? ''}
      choices={[
        ['', 'or to a document of the tray'],
        ...documents.map(({ id, label, stem }) => [id, label.title || stem] as const),
      ]}
      onChoose={(id) => {
        if (id !== '')
          onSheet(editor)
            .extendMarkRange('link')
            .setLink({ href: fileHref(id) })
            .run();
      }}
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
