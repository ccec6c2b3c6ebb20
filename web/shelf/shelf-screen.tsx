import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { type Asset, type AssetQuery, UNFILED } from '#api/assets.ts';
import { may, mayChangePiece } from '#api/people.ts';
import { strictest } from '#core/page/target.ts';
import { askShelf, meQuery, shelfCountQuery, targetsQuery } from '../api/queries.ts';
import { failureOf, Unanswered } from '../api/unanswered.tsx';
import { ACCEPTED_FILES } from '../arrivals/accepted.ts';
import { bringIn } from '../arrivals/arrivals.ts';
import { carriedText, mayCarry } from '../arrivals/carried-text.ts';
import { ComingIn } from '../arrivals/coming-in.tsx';
import { type FoundFile, filesOfDrop } from '../arrivals/dropped.ts';
import { ONTO_THE_SHELF } from '../arrivals/kept-files.ts';
import { useDrop } from '../arrivals/use-drop.ts';
import { usePaste } from '../arrivals/use-paste.ts';
import { useWhereItBelongs } from '../arrivals/where-it-belongs.ts';
import { useOffer } from '../frame/commands.ts';
import { FootPane, HeadPane, PANES_LOOK, SidePane } from '../frame/panes.tsx';
import { LABEL_PX, Split } from '../frame/split.tsx';
import { useIsNarrow } from '../frame/use-is-narrow.ts';
import { keptRow, useKeepRow } from '../label/kept-row.ts';
import { Label } from '../label/label.tsx';
import type { LabelRowName } from '../label/row.tsx';
import { putPieces } from '../pieces/pieces.ts';
import { useOpened } from '../pieces/use-opened.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { Empty } from '../ui/empty.tsx';
import { toast } from '../ui/toast.ts';
import { ChosenBar } from './chosen-bar.tsx';
import { ChosenCard } from './chosen-card.tsx';
import { Folders } from './folders.tsx';
import { PieceDeeds } from './piece-deeds.tsx';
import { readQuestion, writeQuestion } from './question.ts';
import { ShelfQuestion } from './shelf-question.tsx';
import { ShelfRows } from './shelf-rows.tsx';

const NONE: ReadonlySet<string> = new Set();

export function ShelfScreen() {
  const [params, setParams] = useSearchParams();
  const question = readQuestion(params);
  const openId = params.get('piece');
  const [chosen, setChosen] = useState(NONE);
  const [row, setRow] = useState<LabelRowName | null>(() => {
    const kept = keptRow('shelf');
    return kept?.of.piece === openId ? (kept?.row ?? null) : null;
  });
  useKeepRow('shelf', { use: null, piece: openId }, row);
  const shelf = useShelf(question);
  // What answered the last question is no answer to this one, where this one fails.
  const answer = failureOf(shelf) ? undefined : shelf.data;
  const assets = answer?.pages.flatMap((page) => page.assets) ?? [];
  const targets = useQuery(targetsQuery);
  const { data: me } = useQuery(meQuery);
  const opened = useOpened(openId);
  const rules = strictest(targets.data ?? [])?.rules;
  const ask = (next: AssetQuery) => {
    setChosen(NONE);
    setParams(writeQuestion(next));
  };
  const open = (id: string | null) => {
    const next = writeQuestion(question);
    if (id) next.set('piece', id);
    setParams(next, { replace: true });
    setRow(null);
  };
  const isMiddle = useIsNarrow('middle');
  const isNarrow = useIsNarrow();
  const take = useTakeIn(question.folder === UNFILED ? '' : (question.folder ?? ''), open);
  useOffer([
    { words: 'Hand pieces in', act: take.choose },
    { words: 'Choose all that are shown', act: () => setChosen(new Set(assets.map(({ id }) => id))) },
  ]);
  const counted = useQuery(shelfCountQuery(question));
  const count = failureOf(counted) ? undefined : counted.data;
  const [first] = answer?.pages ?? [];
  const chosenAssets = assets.filter((asset) => chosen.has(asset.id));
  const mayChange = (asset: Asset) =>
    me !== undefined && me !== null && mayChangePiece(me, asset.createdBy.id);
  return (
    <div className={PANES_LOOK} {...take.handlers}>
      <HeadPane aria-label="Question">
        <h1 className="sr-only">Shelf</h1>
        <ShelfQuestion question={question} onAsk={ask} />
        <div className="mt-0.5 flex flex-wrap items-baseline gap-x-4.5 gap-y-1 text-soft">
          <span role="status">
            {count ? (
              <>
                <strong>{count.found}</strong> of {count.held} pieces
                {count.readAs ? `. None says “${question.words}”; this is “${count.readAs}”.` : ''}
              </>
            ) : null}
          </span>
          <Button className="min-h-5" kind="link" onClick={take.choose}>
            Hand pieces in
          </Button>
          {me && may(me.role, 'gather') ? (
            <LinkButton className="min-h-5" kind="link" to="/gather">
              Gather from elsewhere
            </LinkButton>
          ) : null}
          <LinkButton className="min-h-5" kind="link" to={wordsOf(question)}>
            Write words, one after the other
          </LinkButton>
          {take.picker}
        </div>
      </HeadPane>
      <Split
        id="shelf"
        firstPlace={openId ? 'label' : 'pieces'}
        panes={[
          ...(isMiddle && !isNarrow
            ? []
            : [
                {
                  id: 'folders',
                  name: 'the folders',
                  width: { usual: 202, least: 140 },
                  says: sayFolder(question.folder),
                  content: (
                    <Folders
                      held={count?.held}
                      part={question.part}
                      folder={question.folder ?? ''}
                      onChoose={(folder) => ask({ ...withoutPart(question), folder })}
                      onAsk={ask}
                    />
                  ),
                },
              ]),
          {
            id: 'pieces',
            name: 'the pieces',
            says: count ? `${count.found} of ${count.held}` : '',
            content: (
              <div className="relative grid min-h-0 min-w-0">
                <Unanswered of={shelf} />
                {first && assets.length === 0 ? (
                  <Empty>
                    <h2 className="mb-1 text-xl text-ink">
                      {asksFolderAlone(question) ? 'This folder is empty' : 'Nothing answers this question'}
                    </h2>
                    <p>
                      {asksFolderAlone(question)
                        ? 'Drop files here, or drag pieces onto its name.'
                        : 'Ask for less, or hand pieces in: drop files anywhere here.'}
                    </p>
                  </Empty>
                ) : null}
                <ShelfRows
                  assets={assets}
                  openId={openId}
                  chosen={chosen}
                  isOver={take.isOver}
                  onOpen={open}
                  onChosen={setChosen}
                  hasMore={shelf.hasNextPage}
                  onMore={() => {
                    if (!shelf.isFetchingNextPage) void shelf.fetchNextPage();
                  }}
                />
                {chosenAssets.length > 0 ? (
                  <ChosenBar assets={chosenAssets} onClear={() => setChosen(NONE)} />
                ) : null}
              </div>
            ),
          },
          {
            id: 'label',
            name: 'the label',
            width: { usual: LABEL_PX, least: 260 },
            says: chosenAssets.length > 1 ? `${chosenAssets.length} chosen` : sayOpened(opened),
            content: (
              <SidePane aria-label="Label">
                {chosenAssets.length > 1 ? (
                  <ChosenCard assets={chosenAssets} />
                ) : opened && rules ? (
                  <>
                    <Label
                      key={opened.id}
                      asset={opened}
                      rules={rules}
                      use={null}
                      isEditable={mayChange(opened) && opened.deletedAt === null}
                      openRow={row}
                      onOpenRow={setRow}
                    />
                    <PieceDeeds
                      asset={opened}
                      isEditable={mayChange(opened)}
                      replacedUnder={me && may(me.role, 'edit-pages') ? rules : null}
                      onGone={() => {
                        // Whoever asked or opened something else meanwhile stays there.
                        const now = new URLSearchParams(window.location.search);
                        if (now.toString() === params.toString()) open(null);
                      }}
                    />
                  </>
                ) : (
                  <p className="text-soft">Choose a piece to see its label.</p>
                )}
              </SidePane>
            ),
          },
        ]}
      />
      <FootPane>
        <ComingIn />
      </FootPane>
    </div>
  );
}

/** The wording round over what is looked at: a folder, or the whole shelf. */
const wordsOf = ({ folder }: AssetQuery): string =>
  folder && folder !== UNFILED
    ? `/shelf/words?${new URLSearchParams({ place: 'folder', folder })}`
    : '/shelf/words?place=shelf';

/** What the places of a narrow screen say is there. */
const sayFolder = (folder: string | undefined) =>
  folder === UNFILED ? 'in no folder' : folder?.split('/').at(-1) || 'all';
const sayOpened = (opened: Asset | undefined) => (opened ? opened.label.title || opened.stem : 'no piece');

/** The question of the standing shelf: choosing a folder leads back to it. */
function withoutPart({ part: _part, ...question }: AssetQuery): AssetQuery {
  return question;
}

/** Whether a folder is looked at as it is, with nothing else asked of what lies in it. */
function asksFolderAlone({ folder, order: _order, ...rest }: AssetQuery): boolean {
  return Boolean(folder) && Object.values(rest).every((value) => value === undefined || value === 'any');
}

function useShelf(question: AssetQuery) {
  const shelf = useInfiniteQuery({
    queryKey: ['shelf', question],
    queryFn: ({ pageParam, signal }) =>
      askShelf({ ...question, ...(pageParam ? { cursor: pageParam } : {}) }, signal),
    initialPageParam: '',
    getNextPageParam: (last) => last.cursor,
    placeholderData: keepPreviousData,
  });
  useEffect(() => {
    if (shelf.data) putPieces(shelf.data.pages.flatMap((page) => page.assets));
  }, [shelf.data]);
  return shelf;
}

/** Files dropped anywhere on the shelf, pasted or chosen, go into the folder that is looked at. */
function useTakeIn(folder: string, onOpen: (id: string) => void) {
  const input = useRef<HTMLInputElement>(null);
  const take = (files: readonly FoundFile[]) =>
    bringIn(files, folder, ONTO_THE_SHELF, (arrived) => {
      if (!arrived.isNew) toast(arrived.sentence);
      if (files.length === 1) onOpen(arrived.asset.id);
      return true;
    });
  const takeText = useWhereItBelongs();
  const takeFiles = (data: DataTransfer): boolean => {
    if (data.files.length === 0) return false;
    void filesOfDrop(data).then(take);
    return true;
  };
  usePaste(takeFiles);
  const drop = useDrop(mayCarry, (data) => {
    if (!takeFiles(data)) takeText(carriedText(data));
  });
  return {
    isOver: drop.isOver,
    choose: () => input.current?.click(),
    picker: (
      <input
        ref={input}
        type="file"
        accept={ACCEPTED_FILES}
        multiple
        hidden
        aria-label="Files for the shelf"
        onChange={(event) => {
          take([...(event.target.files ?? [])].map((file) => ({ file, folder: '' })));
          event.target.value = '';
        }}
      />
    ),
    handlers: drop.handlers,
  };
}
