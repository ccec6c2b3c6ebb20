import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import * as v from 'valibot';
import { NewTranslationSchema, type Sister } from '#api/pages.ts';
import { MadeSchema } from '#api/problem.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { requestJson } from '../api/client.ts';
import { queryClient, sistersQuery } from '../api/queries.ts';
import { Form, OneOfList } from '../form/form.tsx';
import { useSaveForm } from '../form/use-save-form.ts';
import { OFFERED_LANGUAGES } from '../label/offered-languages.ts';
import { LabelRow } from '../label/row.tsx';
import type { PageSession } from '../page/use-page-session.ts';
import { Button } from '../ui/button.tsx';

interface TranslationsRowProps {
  readonly session: PageSession;
  readonly isEditable: boolean;
  readonly onCompare: () => void;
}

/** The same page in other languages, and the way to one more. */
export function TranslationsRow({ session, isEditable, onCompare }: TranslationsRowProps) {
  const { data } = useQuery(sistersQuery(session.pageId));
  const [isAdding, setAdding] = useState(false);
  if (!data) return null;
  const { sisters, translation, language } = data;
  return (
    <LabelRow name="Translations">
      {sisters.length === 0 ? (
        <p>This page is in {callLanguage(primaryOf(language))} alone.</p>
      ) : (
        <ul>
          {sisters.map((sister) => (
            <SisterLine key={sister.id} sister={sister} />
          ))}
        </ul>
      )}
      {translation ? (
        <Button kind="link" onClick={onCompare}>
          Compare with the {callLanguage(primaryOf(translation.originalLanguage))}
        </Button>
      ) : null}
      {isEditable && !isAdding ? (
        <Button kind="link" onClick={() => setAdding(true)}>
          Begin a translation
        </Button>
      ) : null}
      {isAdding ? (
        <BeginForm session={session} taken={[language, ...sisters.map((one) => one.language)]} />
      ) : null}
    </LabelRow>
  );
}

function SisterLine({ sister }: { readonly sister: Sister }) {
  const { id, title, language, targetName, isOriginal } = sister;
  return (
    <li className="py-0.5">
      {callLanguage(primaryOf(language))}
      {isOriginal ? ', the original' : ''}:{' '}
      <Link className="underline" to={`/pages/${id}`} lang={language}>
        {title || 'Untitled page'}
      </Link>
      , for the {targetName}
    </li>
  );
}

const LanguageSchema = v.pick(NewTranslationSchema, ['language']);

function BeginForm({ session, taken }: { readonly session: PageSession; readonly taken: readonly string[] }) {
  const navigate = useNavigate();
  const known = new Set(taken.map((tag) => tag.split('-')[0]));
  const free = OFFERED_LANGUAGES.filter((tag) => !known.has(tag)).sort((one, other) =>
    callLanguage(one).localeCompare(callLanguage(other)),
  );
  const form = useSaveForm({
    schema: LanguageSchema,
    defaults: { language: free[0] ?? '' },
    save: async ({ language }) => {
      session.flush();
      await session.saver.save();
      const { id } = await requestJson('post /pages/{id}/translations', MadeSchema, {
        path: { id: session.pageId },
        body: { language },
      });
      await queryClient.invalidateQueries({ queryKey: ['sisters'] });
      navigate(`/pages/${id}?translation=yes`);
    },
    refusedAt: 'language',
  });
  return (
    <Form of={form} className="flex flex-wrap items-end gap-x-2 gap-y-1">
      <OneOfList
        of={form}
        name="language"
        label="Language of the translation"
        choices={free.map((tag) => [tag, callLanguage(tag)] as const)}
      />
      <Button type="submit">Begin</Button>
    </Form>
  );
}
