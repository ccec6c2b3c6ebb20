import { useQuery } from '@tanstack/react-query';
import { Maximize2, Minimize2 } from 'lucide-react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { Page } from '#api/pages.ts';
import { may, type Person } from '#api/people.ts';
import type { Hosts } from '#core/embed/host.ts';
import { MOST_BLOCKS } from '#core/page/model.ts';
import type { OfferedPicture } from '#core/page/rich-pasted.ts';
import { meQuery, pageQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { ComingIn } from '../arrivals/coming-in.tsx';
import type { FoundFile } from '../arrivals/dropped.ts';
import { usePaste } from '../arrivals/use-paste.ts';
import { hostsQuery } from '../embeds/embed-queries.ts';
import { LABEL_PX, Split } from '../frame/split.tsx';
import { useIsNarrow } from '../frame/use-is-narrow.ts';
import { keptRow } from '../label/kept-row.ts';
import type { LabelRowName } from '../label/row.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { usePiece } from '../pieces/pieces.ts';
import { afterSelection } from '../sheet/commands.ts';
import type { SheetText } from '../sheet/rich-text.ts';
import { Sheet } from '../sheet/sheet.tsx';
import { SourceBeside } from '../source/source-beside.tsx';
import { Tray } from '../tray/tray.tsx';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import { toast } from '../ui/toast.ts';
import { ClashPanel } from '../versions/clash-panel.tsx';
import { BesideHeader } from './beside-header.tsx';
import { takeCarried, takeFiles, takeOffered, takePieces, takeRichText, takeText } from './brought.ts';
import { FindBar } from './find-bar.tsx';
import { LeftOutPanel } from './left-out-panel.tsx';
import { NarrowPage } from './narrow-page.tsx';
import { SaveNotice } from './notices.tsx';
import { type Opened, withChosen } from './opened.ts';
import { PageHeader } from './page-header.tsx';
import { isPagePlace, type PagePlace } from './page-places.ts';
import { RightPane } from './right-pane.tsx';
import { open, type PageHands, trayHands } from './tray-hands.ts';
import { useAsked, useCaretFirst, useGathered } from './use-asked.ts';
import { type Beside, useBeside } from './use-beside.ts';
import { useFinding } from './use-finding.ts';
import { useOthers } from './use-others.ts';
import { type PageSession, usePageSession } from './use-page-session.ts';
import { useSheetAlone } from './use-sheet-alone.ts';

export function PageScreen() {
  const { id = '' } = useParams();
  const page = useQuery(pageQuery(id));
  const me = useQuery(meQuery);
  // What is dropped or pasted at once has to be known for what it is, or a film would be read as a page of pictures.
  const hosts = useQuery(hostsQuery);
  if (!page.data || !me.data || !hosts.data) return <Unanswered isScreen of={[page, me, hosts]} />;
  return <OpenPage key={id} page={page.data} me={me.data} hosts={hosts.data} />;
}

interface OpenPageProps {
  readonly page: Page;
  readonly me: Person;
  readonly hosts: Hosts;
}

function OpenPage({ page, me, hosts }: OpenPageProps) {
  const isEditable = may(me.role, 'edit-pages');
  const [opened, setOpened] = useState<Opened>(null);
  const [row, setRow] = useState<LabelRowName | null>(null);
  const [kept] = useState(() => keptRow(page.id));
  const navigate = useNavigate();
  const hooks = {
    onFiles: (files: readonly FoundFile[], at: number | null) =>
      session && takeFiles(session, files, { pageId: page.id, wantId: null, at }),
    onOfferedPicture: (offer: OfferedPicture, at: () => number | null) =>
      session ? takeOffered(session, offer, page.id, at) : Promise.resolve(null),
    onPieces: (ids: readonly string[], at: number) =>
      void (session && takePieces(session, ids, { pageId: page.id, wantId: null, at })),
    onPastedText: (text: string, isAlone: boolean) =>
      session !== null && takeText(session, text, isAlone, hosts),
    onRichText: (read: Pick<SheetText, 'embeds' | 'leftOut'>) => {
      if (session) takeRichText(session, read, hosts);
    },
    onTooLong: (blocks: number) =>
      toast.error(
        `The page would have ${blocks.toLocaleString('en-GB')} blocks, and a page has at most ${MOST_BLOCKS.toLocaleString('en-GB')}. Nothing was changed: part the text among several pages.`,
        { duration: 15_000 },
      ),
    onOpenLabel: () => document.querySelector<HTMLElement>('[data-pane="label"] :is(input, button)')?.focus(),
    onLinkWords: () => focusSoon('[data-row="link"]'),
    onBesideParagraph: () => {
      setRow('fit');
      focusSoon('[data-row="beside"]');
    },
  };
  const session = usePageSession(page, isEditable, hooks, (by) => {
    if (by !== me.name) tellOnce(by);
  });
  useAsked(session, kept, setOpened, setRow);
  usePaste(
    session && isEditable
      ? (data) => takeCarried(session, data, { pageId: page.id, wantId: null }, { hosts, goTo: navigate })
      : null,
  );
  useGathered(session, page.id);
  useCaretFirst(session, setOpened);
  const hands = useMemo(
    () => (session ? trayHands(session, page.id, { setOpened, setRow, hosts, goTo: navigate }) : null),
    [session, page.id, hosts, navigate],
  );
  if (!session || !hands) return null;
  return (
    <PageWork
      page={page}
      session={session}
      isEditable={isEditable}
      hands={hands}
      opened={opened}
      row={row}
      onOpened={setOpened}
      onRow={setRow}
      onProof={async () => {
        session.flush();
        await session.saver.save();
        navigate(`/pages/${page.id}/proof`);
      }}
    />
  );
}

/** Whose changes were told of: who works on a page beside oneself is told once, not at each word. */
const told = new Set<string>();

function tellOnce(by: string): void {
  if (told.has(by)) return;
  told.add(by);
  toast(`${by} works on this page as well. What both of you do is put together by itself.`);
}

/** Gives the focus to a part of the label that is about to be drawn; on a busy machine that takes more than a frame. */
function focusSoon(selector: string, frames = 60): void {
  const part = document.querySelector<HTMLElement>(selector);
  if (part) part.focus();
  else if (frames > 0) requestAnimationFrame(() => focusSoon(selector, frames - 1));
}

interface PageWorkProps {
  readonly page: Page;
  readonly session: PageSession;
  readonly isEditable: boolean;
  readonly hands: PageHands;
  readonly opened: Opened;
  readonly row: LabelRowName | null;
  readonly onOpened: (opened: Opened) => void;
  readonly onRow: (row: LabelRowName | null) => void;
  readonly onProof: () => Promise<void>;
}

function PageWork({
  page,
  session,
  isEditable,
  hands,
  opened,
  row,
  onOpened,
  onRow,
  onProof,
}: PageWorkProps) {
  const view = useStore(session.view);
  const saving = useStore(session.saver.store);
  const { rules } = page.target;
  const selectedAsset = view.selected?.asset ?? (opened?.kind === 'asset' ? opened.id : null);
  const labelled = usePiece(selectedAsset);
  const isNarrow = useIsNarrow();
  const [place, setPlace] = usePlaceAsked();
  const finding = useFinding(() => setPlace('sheet'));
  const { isAlone, turn } = useSheetAlone();
  const { beside, open: openBeside } = useBeside();
  const others = useOthers(session);
  const back = () => openBeside({ kind: 'label' });
  const sheet = (
    <div className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] grid-rows-[auto_minmax(0,1fr)]">
      {finding.isOpen ? (
        <FindBar
          rules={rules}
          editor={session.editor}
          doc={view.doc}
          field={finding.field}
          isEditable={isEditable}
          onClose={() => finding.setOpen(false)}
        />
      ) : null}
      <div className="relative row-start-2 grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] *:min-h-0">
        <Sheet
          editor={session.editor}
          page={view.doc}
          rules={rules}
          selected={view.selected}
          block={view.block}
          isEditable={isEditable}
        />
        {isNarrow || beside.kind !== 'label' ? null : <AloneButton isAlone={isAlone} onTurn={turn} />}
      </div>
    </div>
  );
  const save = () => {
    session.flush();
    return session.saver.save();
  };
  const label = (
    <RightPane
      session={session}
      view={view}
      rules={rules}
      isEditable={isEditable}
      opened={opened}
      row={row}
      onRow={onRow}
      onOpened={onOpened}
      onTranslation={() => openBeside({ kind: 'translation' })}
    />
  );
  const headerOf = (part: 'all' | 'name' | 'stations') => (
    <PageHeader
      page={page}
      doc={view.doc}
      saving={saving}
      isEditable={isEditable}
      part={part}
      onOpen={(next, missing) => {
        open(session, next, onOpened);
        onRow(missing);
        setPlace('label');
      }}
      onProof={onProof}
      onSave={save}
      others={others}
      onSource={() => openBeside({ kind: 'source' })}
      onVersions={() => openBeside({ kind: 'versions', versionId: null })}
    />
  );
  const tray = (
    <Tray
      pageId={page.id}
      page={view.doc}
      chosen={opened?.kind === 'several' ? opened.ids : selectedAsset ? [selectedAsset] : []}
      openWant={opened?.kind === 'want' ? opened.id : null}
      isEditable={isEditable}
      {...hands}
      isWhole={isNarrow}
      onOpen={(id) => {
        hands.onOpen(id);
        setPlace('label');
      }}
      onChoose={(id) => {
        const now = view.selected ? { kind: 'asset' as const, id: view.selected.asset } : opened;
        // A piece that is selected on the sheet has the label first.
        if (view.selected) session.editor.commands.setTextSelection(afterSelection(session.editor));
        onRow(null);
        onOpened(withChosen(now, id));
      }}
      onWant={(id) => {
        hands.onWant(id);
        setPlace('label');
      }}
    />
  );
  return (
    <div className="grid h-full grid-cols-1 grid-rows-[auto_auto_minmax(0,1fr)_auto]">
      {beside.kind !== 'label' ? (
        <BesideHeader
          page={page}
          title={view.doc.title}
          says={SAYS_BESIDE[beside.kind](rules.name)}
          saving={saving}
          isEditable={isEditable}
          onBack={back}
          beforeTaking={save}
        />
      ) : isAlone ? (
        <h1 className="sr-only">{sayPageTitle(view.doc.title)}</h1>
      ) : (
        headerOf(isNarrow ? 'name' : 'all')
      )}
      <div className="col-span-full">
        <SaveNotice saving={saving} recovered={view.recovered} onAgain={() => void session.saver.save()} />
        <ClashPanel saving={saving} onSettle={(wayOf) => session.saver.settle(wayOf)} />
        <LeftOutPanel />
      </div>
      {beside.kind === 'source' ? (
        <SourceBeside sheet={sheet} session={session} view={view} rules={rules} isEditable={isEditable} />
      ) : beside.kind === 'translation' ? (
        <Suspense>
          <TranslationBeside
            sheet={sheet}
            page={page}
            session={session}
            view={view}
            isEditable={isEditable}
          />
        </Suspense>
      ) : beside.kind === 'versions' ? (
        <Suspense>
          <VersionsBeside
            sheet={sheet}
            page={page}
            session={session}
            view={view}
            versionId={beside.versionId}
            onVersion={(versionId) => openBeside({ kind: 'versions', versionId })}
            isEditable={isEditable}
          />
        </Suspense>
      ) : isNarrow ? (
        <NarrowPage
          page={page}
          doc={view.doc}
          here={place}
          labelled={
            opened?.kind === 'want' ? 'wants' : labelled ? labelled.label.title || labelled.stem : 'text'
          }
          goTo={setPlace}
          onProof={() => void onProof()}
          sheet={sheet}
          label={label}
          tray={
            <div className="overflow-auto bg-panel">
              {headerOf('stations')}
              <ComingIn />
              {tray}
            </div>
          }
        />
      ) : (
        <>
          <Split
            id="page"
            className="row-start-3"
            panes={[
              { id: 'sheet', name: 'the sheet', content: sheet },
              ...(isAlone
                ? []
                : [
                    {
                      id: 'label',
                      name: 'the label',
                      width: { usual: LABEL_PX, least: 280 },
                      content: label,
                    },
                  ]),
            ]}
          />
          {isAlone ? null : (
            <div className="row-start-4 min-w-0">
              <ComingIn />
              {tray}
            </div>
          )}
        </>
      )}
    </div>
  );
}

/** What compares comes when it is asked for. */
const VersionsBeside = lazy(() => import('../versions/versions-beside.tsx'));
const TranslationBeside = lazy(() => import('../translation/translation-beside.tsx'));

const SAYS_BESIDE: Readonly<Record<Exclude<Beside['kind'], 'label'>, (target: string) => string>> = {
  source: (target) => `source for the ${target} · files and credits are put in when it goes out`,
  versions: (target) => `versions for the ${target}`,
  translation: (target) => `translation for the ${target}`,
};

interface AloneButtonProps {
  readonly isAlone: boolean;
  readonly onTurn: () => void;
}

/** Leaves only the sheet on the screen, and brings back what stood round it. */
function AloneButton({ isAlone, onTurn }: AloneButtonProps) {
  const Sign = isAlone ? Minimize2 : Maximize2;
  return (
    <Button
      kind="quiet"
      className="absolute top-0 right-1 z-4 min-h-6 px-1.5 py-0 text-soft"
      aria-label="The sheet alone"
      aria-pressed={isAlone}
      onClick={onTurn}
    >
      <Sign size={14} aria-hidden />
    </Button>
  );
}

/** The place that is looked at on a narrow screen: at first the one that the address asks for. */
function usePlaceAsked() {
  const [params] = useSearchParams();
  const asked = params.get('place');
  const [place, setPlace] = useState<PagePlace>(
    isPagePlace(asked)
      ? asked
      : ['use', 'piece', 'want'].some((name) => params.has(name))
        ? 'label'
        : 'sheet',
  );
  return [place, setPlace] as const;
}
