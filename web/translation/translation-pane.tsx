import { type Sisters, TranslatedVersionSchema } from '#api/pages.ts';
import type { PageDoc } from '#core/page/model.ts';
import { isUpToDate, type TranslationState, translatedUpTo } from '#core/page/translation.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { queryClient, sistersQuery } from '../api/queries.ts';
import { SidePane } from '../frame/panes.tsx';
import type { PageSession } from '../page/use-page-session.ts';
import { usePieces } from '../pieces/pieces.ts';
import { selectWords } from '../sheet/commands.ts';
import { Button } from '../ui/button.tsx';
import { Card } from '../ui/card.tsx';
import { toast } from '../ui/toast.ts';
import { ledger } from '../undo/ledger.ts';
import { DifferenceRow } from '../versions/difference-row.tsx';
import { sayBlock } from '../versions/say-difference.ts';

type Translation = NonNullable<Sisters['translation']>;

interface TranslationPaneProps {
  readonly session: PageSession;
  readonly translation: Translation;
  readonly state: TranslationState;
  readonly looked: string | null;
  readonly onLook: (blockId: string | null) => void;
  readonly isEditable: boolean;
}

/** What of a translation is to be done: what its original says otherwise, is arranged otherwise, and is not translated yet. */
export function TranslationPane({
  session,
  translation,
  state,
  looked,
  onLook,
  isEditable,
}: TranslationPaneProps) {
  const from = callLanguage(primaryOf(translation.originalLanguage));
  const { reworded, rearranged, arranged, untranslated } = state;
  const look = (id: string) => onLook(id === looked ? null : id);
  return (
    <SidePane data-pane="translation" aria-label="Translation">
      <Card className="px-3.75 py-3">
        <h2 className="font-serif text-3xl leading-tight font-normal italic">Translation</h2>
        <p className="mt-0.75 text-soft" role="status">
          {sayState(state, from)}
        </p>
      </Card>
      {reworded.length > 0 ? (
        <Card className="mt-3.5 px-3.75 pt-3 pb-2" aria-label="Reworded">
          <h2 className="text-xl">Reworded in the {from}</h2>
          <p className="text-soft">Translate what is new, and say when it is done.</p>
          <ol className="mt-2">
            {reworded.map((one) => (
              <DifferenceRow
                key={one.id}
                difference={one}
                isLooked={one.id === looked}
                onLook={() => look(one.id)}
                deed={
                  isEditable ? { words: 'Done', act: () => void settle(session, translation, one.id) } : null
                }
              />
            ))}
          </ol>
        </Card>
      ) : null}
      {rearranged.length > 0 ? (
        <Card className="mt-3.5 px-3.75 pt-3 pb-2" aria-label="Arranged otherwise">
          <h2 className="text-xl">Arranged otherwise in the {from}</h2>
          {isEditable ? (
            <p className="mt-1.5">
              <Button onClick={() => session.show(arranged, 'taking over the arrangement')}>
                Take over the arrangement
              </Button>
            </p>
          ) : null}
          <ol className="mt-2">
            {rearranged.map((one) => (
              <DifferenceRow
                key={`${one.kind} ${one.id}`}
                difference={one}
                isLooked={one.id === looked}
                onLook={() => look(one.id)}
                deed={null}
              />
            ))}
          </ol>
        </Card>
      ) : null}
      {untranslated.length > 0 || state.isTitleUntranslated ? (
        <Card className="mt-3.5 px-3.75 pt-3 pb-2" aria-label="Not translated yet">
          <h2 className="text-xl">Not translated yet</h2>
          <Untranslated
            blocks={untranslated}
            onTitle={state.isTitleUntranslated ? focusTitle : null}
            onGo={(id) => {
              onLook(id);
              selectWords(session.editor, id);
            }}
          />
        </Card>
      ) : null}
    </SidePane>
  );
}

/** More are found on the sheet, where each is marked. */
const MOST_LISTED = 50;

interface UntranslatedProps {
  readonly blocks: TranslationState['untranslated'];
  /** Leads to the title; null where it is translated. */
  readonly onTitle: (() => void) | null;
  readonly onGo: (blockId: string) => void;
}

const GO_LOOK = 'block w-full cursor-pointer py-1.5 text-left wrap-anywhere hover:underline';

/** Gives the focus to the title over the sheet, all of it chosen to be written over. */
function focusTitle(): void {
  document.querySelector<HTMLTextAreaElement>('textarea[aria-label="Title of the page"]')?.select();
}

function Untranslated({ blocks, onTitle, onGo }: UntranslatedProps) {
  const pieces = usePieces();
  return (
    <>
      <ol className="mt-2">
        {onTitle ? (
          <li className="border-t border-hairline">
            <button type="button" className={GO_LOOK} onClick={onTitle}>
              The title
            </button>
          </li>
        ) : null}
        {blocks.slice(0, MOST_LISTED).map((block) => (
          <li key={block.attrs.id} className="border-t border-hairline">
            <button type="button" className={GO_LOOK} onClick={() => onGo(block.attrs.id)}>
              {sayBlock(block, pieces)}
            </button>
          </li>
        ))}
      </ol>
      {blocks.length > MOST_LISTED ? (
        <p className="border-t border-hairline py-1.5 text-soft">And {blocks.length - MOST_LISTED} more.</p>
      ) : null}
    </>
  );
}

function sayState(state: TranslationState, from: string): string {
  const count = state.untranslated.length + (state.isTitleUntranslated ? 1 : 0);
  const open =
    count === 0
      ? ''
      : count === 1
        ? 'One part is not translated yet. '
        : `${count} parts are not translated yet. `;
  return isUpToDate(state)
    ? `${open}The ${from} has not changed since.`
    : `${open}The ${from} has changed since.`;
}

/** Says that a difference is translated; undo takes that back. */
async function settle(session: PageSession, translation: Translation, id: string): Promise<void> {
  const { base, original } = translation;
  const done = translatedUpTo(base, original, id);
  try {
    await keep(session.pageId, done);
  } catch (error) {
    toast.error(sayFailure(error));
    return;
  }
  ledger.add({
    name: 'what was translated',
    scope: `page ${session.pageId}`,
    undo: () => keep(session.pageId, base),
    redo: () => keep(session.pageId, done),
  });
}

/** On the version that is known here: what somebody else said meanwhile is refused, and shown. */
async function keep(pageId: string, base: PageDoc): Promise<void> {
  const query = sistersQuery(pageId);
  const known = queryClient.getQueryData(query.queryKey)?.translation;
  if (!known) return;
  try {
    await requestJson('put /pages/{id}/translated', TranslatedVersionSchema, {
      path: { id: pageId },
      body: { base },
      version: known.version,
    });
  } finally {
    await queryClient.invalidateQueries({ queryKey: query.queryKey });
  }
}
