import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import type { Page } from '#api/pages.ts';
import { translationState } from '#core/page/translation.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { sistersQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { LABEL_PX, Split } from '../frame/split.tsx';
import type { PageSession, PageView } from '../page/use-page-session.ts';
import { putOwnViews } from '../pieces/own-views.ts';
import { putPieces } from '../pieces/pieces.ts';
import { NamedSheet } from '../versions/named-sheet.tsx';
import { ThenSheet } from '../versions/then-sheet.tsx';
import { useCompared } from '../versions/use-compared.ts';
import { TranslationPane } from './translation-pane.tsx';

interface TranslationBesideProps {
  readonly sheet: ReactNode;
  readonly page: Page;
  readonly session: PageSession;
  readonly view: PageView;
  readonly isEditable: boolean;
}

/** A page that is a translation, its original beside it, and what is to be done. */
export default function TranslationBeside({
  sheet,
  page,
  session,
  view,
  isEditable,
}: TranslationBesideProps) {
  // Somebody may be at the original just now.
  const sisters = useQuery({ ...sistersQuery(page.id), refetchInterval: 10_000 });
  const translation = sisters.data?.translation ?? null;
  const [looked, setLooked] = useState<string | null>(null);
  const state = useMemo(
    () => (translation ? translationState(translation.base, translation.original, view.doc) : null),
    [translation, view.doc],
  );
  const differing = useMemo(
    () =>
      new Map([
        ...(state?.untranslated ?? []).map(({ attrs: { id } }) => [id, 'untranslated'] as const),
        ...[...(state?.rearranged ?? []), ...(state?.reworded ?? [])].map(
          ({ id, kind }) => [id, kind] as const,
        ),
      ]),
    [state],
  );
  useEffect(() => {
    if (!translation) return;
    putPieces(translation.pieces);
    putOwnViews(translation.ownViews);
  }, [translation]);
  useCompared(session.editor, differing, looked);
  if (!sisters.data) return <Unanswered isScreen of={[sisters]} />;
  if (!translation || !state)
    return <p className="row-start-3 p-6">This page is a translation of no other.</p>;
  const from = callLanguage(primaryOf(translation.originalLanguage));
  return (
    <Split
      id="translated"
      className="row-start-3"
      firstPlace="sheet"
      panes={[
        {
          id: 'sheet',
          name: 'the sheet',
          says: callLanguage(primaryOf(sisters.data.language)),
          content: <NamedSheet as={callLanguage(primaryOf(sisters.data.language))}>{sheet}</NamedSheet>,
        },
        {
          id: 'original',
          name: 'the original',
          says: from,
          content: (
            <NamedSheet as={`${from}, the original`}>
              <ThenSheet
                name="The original"
                doc={translation.original}
                target={page.target}
                differing={differing}
                looked={looked}
              />
            </NamedSheet>
          ),
        },
        {
          id: 'translation',
          name: 'the translation',
          says: 'to do',
          width: { usual: LABEL_PX, least: 280 },
          content: (
            <TranslationPane
              session={session}
              translation={translation}
              state={state}
              looked={looked}
              onLook={setLooked}
              isEditable={isEditable}
            />
          ),
        },
      ]}
    />
  );
}
