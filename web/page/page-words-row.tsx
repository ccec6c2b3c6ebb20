import type { Editor } from '@tiptap/core';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import * as v from 'valibot';
import { type PageDoc, PageDocSchema } from '#core/page/model.ts';
import { headTitleOf } from '#core/page/page-head.ts';

import type { HouseRules } from '#core/page/target.ts';
import { runsOf } from '#core/page/walk.ts';
import { cutShort } from '#core/words/cut-short.ts';
import { sayPageWords } from '#core/words/page-words.ts';
import { Line, Lines } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { LabelForm, LabelRow, OpenRow } from '../label/row.tsx';
import { setPageWords } from '../sheet/commands.ts';
import { measureText } from '../ui/measure-text.ts';

/** Widths and sizes, in px, at which most listings and shared links show a page; a summary has two lines. */
const LISTING = {
  title: 580,
  titleFont: '20px Arial, sans-serif',
  summary: 1180,
  summaryFont: '14px Arial, sans-serif',
};
const SHARED = {
  title: 920,
  titleFont: '600 16px Arial, sans-serif',
  summary: 480,
  summaryFont: '14px Arial, sans-serif',
};

const text = (most: number) => v.pipe(v.string(), v.trim(), v.maxLength(most));
const WordsSchema = v.object({ headTitle: text(300), summary: text(1000), keyPhrase: text(100) });

interface PageWordsRowProps {
  readonly editor: Editor;
  readonly doc: PageDoc;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
}

/** What listings, searches and shared links say of the page, cut as they cut it. */
export function PageWordsRow({ editor, doc, rules, isEditable }: PageWordsRowProps) {
  const [isOpen, setOpen] = useState(false);
  const state = { isOpen, isEditable, onToggle: () => setOpen(!isOpen) };
  const isUnsaid = doc.summary === undefined && doc.headTitle === undefined;
  return (
    <LabelRow
      name="Page words"
      isUnsaid={isUnsaid}
      way={
        <OpenRow
          words={isUnsaid ? 'Write its summary' : 'Change the words of the page'}
          isWhole={isUnsaid}
          state={state}
        />
      }
      form={
        isOpen ? (
          <PageWordsForm editor={editor} doc={doc} rules={rules} onDone={() => setOpen(false)} />
        ) : null
      }
    >
      {isOpen ? null : <AsFound doc={doc} rules={rules} />}
    </LabelRow>
  );
}

/** The page as a listing shows it, and what is to be said of that. */
function AsFound({ doc, rules }: { readonly doc: PageDoc; readonly rules: HouseRules }) {
  const title = headTitleOf(doc);
  const summary = doc.summary ?? '';
  const shown = {
    title: cutShort(title, LISTING.title, (part) => measureText(part, LISTING.titleFont)),
    summary: cutShort(summary, LISTING.summary, (part) => measureText(part, LISTING.summaryFont)),
    sharedTitle: cutShort(title, SHARED.title, (part) => measureText(part, SHARED.titleFont)),
    sharedSummary: cutShort(summary, SHARED.summary, (part) => measureText(part, SHARED.summaryFont)),
  };
  const says = sayPageWords(
    { title, summary, keyPhrase: doc.keyPhrase ?? '', opening: openingOf(doc) },
    shown,
  );
  return (
    <>
      <div className="border border-line bg-panel px-2.5 py-2">
        <p className="text-sm wrap-anywhere text-soft">
          {rules.siteAddress.replace(/^https?:\/\//, '')}
          {doc.address?.startsWith('/') ? doc.address : ''}
        </p>
        <p className="text-md leading-tight wrap-anywhere text-action">
          {shown.title.shown || 'Untitled page'}
        </p>
        <p className="text-sm wrap-anywhere">{shown.summary.shown}</p>
      </div>
      {says.map((line) => (
        <p key={line} className="text-soft">
          {line}
        </p>
      ))}
    </>
  );
}

/** So much of a page is its beginning. */
const OPENING_LETTERS = 600;

const openingOf = (doc: PageDoc): string =>
  runsOf(doc)
    .map((run) => run.map((inline) => (inline.type === 'text' ? inline.text : ' ')).join(''))
    .join(' ')
    .slice(0, OPENING_LETTERS);

interface PageWordsFormProps extends Omit<PageWordsRowProps, 'isEditable'> {
  readonly onDone: () => void;
}

function PageWordsForm({ editor, doc, rules, onDone }: PageWordsFormProps) {
  const form = useSaveForm({
    schema: WordsSchema,
    defaults: {
      headTitle: doc.headTitle ?? '',
      summary: doc.summary ?? '',
      keyPhrase: doc.keyPhrase ?? '',
    },
    save: (said) => {
      setPageWords(editor, said);
      onDone();
    },
  });
  const [headTitle, summary, keyPhrase] = useWatch({
    control: form.form.control,
    name: ['headTitle', 'summary', 'keyPhrase'],
  });
  const { headTitle: _h, summary: _s, keyPhrase: _k, ...rest } = doc;
  const said = v.safeParse(PageDocSchema, { ...rest, headTitle, summary, keyPhrase });
  return (
    <LabelForm of={form} deed="Save the words of the page">
      <Line of={form} name="headTitle" label="Title in listings" placeholder={doc.title} maxLength={300} />
      <Lines of={form} name="summary" label="Summary" rows={3} maxLength={1000} />
      <Line
        of={form}
        name="keyPhrase"
        label="Key phrase"
        hint="What people would ask for who look for this page."
        maxLength={100}
      />
      <div className="grid gap-1" role="status">
        {said.success ? <AsFound doc={said.output} rules={rules} /> : null}
      </div>
    </LabelForm>
  );
}
