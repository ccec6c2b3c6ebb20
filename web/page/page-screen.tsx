import './page.css';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { Page } from '#api/pages.ts';
import { may, type Person } from '#api/people.ts';
import type { Hosts } from '#core/embed/host.ts';
import type { Embed } from '#core/embed/model.ts';
import { placementsOf } from '#core/page/model.ts';
import { sayFailure } from '../api/client.ts';
import { meQuery, pageQuery } from '../api/queries.ts';
import { bringIn, onTray } from '../arrivals/arrivals.ts';
import { ComingIn } from '../arrivals/coming-in.tsx';
import type { FoundFile } from '../arrivals/dropped.ts';
import { hostsQuery } from '../embeds/embed-queries.ts';
import { keepEmbed } from '../embeds/held-embeds.ts';
import { embedsInText } from '../embeds/in-text.ts';
import { pastedAddress } from '../gather/pasted.ts';
import type { LabelRowName } from '../label/row.tsx';
import {
  addToTray,
  afterSelection,
  fillWant,
  placePiece,
  selectPlacement,
  takeOffTray,
} from '../sheet/commands.ts';
import { becomeEmbeds, insertAsText } from '../sheet/embed-paste.ts';
import { Sheet } from '../sheet/sheet.tsx';
import { Tray, type TrayHands } from '../tray/tray.tsx';
import { useStore } from '../ui/store.ts';
import { ClashNotice, SaveNotice } from './notices.tsx';
import type { Opened } from './opened.ts';
import { PageHeader } from './page-header.tsx';
import { RightPane } from './right-pane.tsx';
import { type PageSession, usePageSession } from './use-page-session.ts';

export function PageScreen() {
  const { id = '' } = useParams();
  const page = useQuery(pageQuery(id));
  const me = useQuery(meQuery);
  if (page.error && !page.data) return <p className="empty">{sayFailure(page.error)}</p>;
  if (!page.data || !me.data) return null;
  return <OpenPage key={id} page={page.data} me={me.data} />;
}

function OpenPage({ page, me }: { readonly page: Page; readonly me: Person }) {
  const isEditable = may(me.role, 'edit-pages');
  const [opened, setOpened] = useState<Opened>(null);
  const [row, setRow] = useState<LabelRowName | null>(null);
  const hosts = useQuery(hostsQuery);
  const navigate = useNavigate();
  const hooks = {
    onFiles: (files: readonly FoundFile[], at: number | null) =>
      session && takeFiles(session, page.id, files, null, at),
    onPictures: (addresses: readonly string[]) =>
      toast(sayPictures(addresses.length), {
        action: {
          label: 'Gather them',
          onClick: () =>
            navigate(`/gather?${new URLSearchParams({ page: page.id, pictures: addresses.join(' ') })}`),
        },
        duration: 15_000,
      }),
    onPastedText: (text: string, isAlone: boolean) => {
      // An address among other words is a link; code is never wanted as text.
      if (!isAlone && !text.includes('<') && !text.includes('&lt;')) return false;
      const embeds = embedsInText(text, hosts.data ?? NO_HOSTS);
      if (!session || embeds.length === 0) return false;
      void takeEmbeds(session, embeds, text);
      return true;
    },
    onOpenLabel: () => document.querySelector<HTMLElement>('.label-pane input, .label-pane button')?.focus(),
    onBesideParagraph: () => {
      setRow('fit');
      requestAnimationFrame(() => document.querySelector<HTMLElement>('[data-row="beside"]')?.focus());
    },
  };
  const session = usePageSession(page, isEditable, hooks);
  useAsked(session, setOpened, setRow);
  usePastedFiles(session, page.id, isEditable, hosts.data ?? NO_HOSTS);
  useGathered(session, page.id);
  const hands = useMemo(
    () => (session ? trayHands(session, page.id, setOpened, setRow) : null),
    [session, page.id],
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

const NO_HOSTS: Hosts = { entries: [], decisions: [] };

/** Pasted embed code stands as text for the moment that its host is asked, then becomes the embed. */
async function takeEmbeds(session: PageSession, embeds: readonly Embed[], pasted: string): Promise<void> {
  const text = insertAsText(session.editor, pasted);
  try {
    const kept = await Promise.all(embeds.map((embed) => keepEmbed(embed)));
    const ids = kept.map(({ asset }) => asset.id);
    if (!becomeEmbeds(session.editor, text, ids)) for (const id of ids) addToTray(session.editor, id);
  } catch (error) {
    toast.error(`${sayFailure(error)} The text stays as you pasted it.`);
  }
}

/** Embeds pasted anywhere but into text go onto the tray. */
async function trayEmbeds(session: PageSession, embeds: readonly Embed[]): Promise<void> {
  try {
    for (const embed of embeds) addToTray(session.editor, (await keepEmbed(embed)).asset.id);
  } catch (error) {
    toast.error(sayFailure(error));
  }
}

function sayPictures(count: number): string {
  return count === 1
    ? 'A picture came with the text, and stayed where it was.'
    : `${count} pictures came with the text, and stayed where they were.`;
}

interface PageWorkProps {
  readonly page: Page;
  readonly session: PageSession;
  readonly isEditable: boolean;
  readonly hands: TrayHands;
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
  return (
    <div className="page-screen">
      <PageHeader
        page={page}
        doc={view.doc}
        saving={saving}
        isEditable={isEditable}
        onOpen={(next, missing) => {
          open(session, next, onOpened);
          onRow(missing);
        }}
        onProof={onProof}
        onSave={() => {
          session.flush();
          return session.saver.save();
        }}
      />
      <div className="page-notices" style={{ gridColumn: '1 / -1' }}>
        <SaveNotice saving={saving} recovered={view.recovered} onAgain={() => void session.saver.save()} />
        <ClashNotice saving={saving} onSettle={(way) => session.show(session.saver.settle(way))} />
      </div>
      <Sheet
        editor={session.editor}
        page={view.doc}
        rules={rules}
        selected={view.selected}
        isEditable={isEditable}
      />
      <RightPane
        session={session}
        view={view}
        rules={rules}
        isEditable={isEditable}
        opened={opened}
        row={row}
        onRow={onRow}
        onOpened={onOpened}
      />
      <div className="page-foot">
        <ComingIn />
        <Tray
          pageId={page.id}
          page={view.doc}
          openAsset={selectedAsset}
          openWant={opened?.kind === 'want' ? opened.id : null}
          isEditable={isEditable}
          {...hands}
        />
      </div>
    </div>
  );
}

/** Opens a piece where it stands on the sheet, else on its own; or a want. */
function open(session: PageSession, next: Opened, onOpened: (opened: Opened) => void): void {
  onOpened(next);
  if (next?.kind !== 'asset') return;
  const placed = placementsOf(session.view.state.doc).find((placement) => placement.asset === next.id);
  if (placed) selectPlacement(session.editor, placed.id);
  else session.editor.commands.setTextSelection(0);
}

function trayHands(
  session: PageSession,
  pageId: string,
  setOpened: (opened: Opened) => void,
  setRow: (row: LabelRowName | null) => void,
): TrayHands {
  const { editor } = session;
  return {
    onOpen: (id) => {
      setRow(null);
      open(session, { kind: 'asset', id }, setOpened);
    },
    onPlace: (id) => placePiece(editor, id, afterSelection(editor)),
    onTakeOff: (id) => takeOffTray(editor, id),
    onFiles: (files, wantId) => takeFiles(session, pageId, files, wantId, null),
    onFill: (wantId, id) => {
      fillWant(editor, wantId, id);
      setOpened({ kind: 'asset', id });
    },
    onWant: (id) => {
      editor.commands.setTextSelection(0);
      setOpened({ kind: 'want', id });
    },
  };
}

/** Takes files in for the page: onto the tray, into a want, or onto the sheet where they were dropped. */
function takeFiles(
  session: PageSession,
  pageId: string,
  files: readonly FoundFile[],
  wantId: string | null,
  at: number | null,
): void {
  const { editor } = session;
  // The place moves along while text is written before it.
  let place = at;
  const follow = ({ transaction }: { transaction: { mapping: { map: (pos: number) => number } } }) => {
    if (place !== null) place = transaction.mapping.map(place);
  };
  editor.on('transaction', follow);
  let left = files.length;
  bringIn(files, '', { pageId, wantId }, (arrived) => {
    left -= 1;
    if (left === 0) editor.off('transaction', follow);
    // The page was left meanwhile: then the server puts it on the tray.
    if (editor.isDestroyed) return false;
    if (wantId) fillWant(editor, wantId, arrived.asset.id);
    else if (place !== null)
      placePiece(editor, arrived.asset.id, Math.min(place, editor.state.doc.content.size));
    else addToTray(editor, arrived.asset.id);
    if (!arrived.isNew) toast(arrived.sentence);
    return true;
  });
}

/** Opens what the address asks for: ?piece=, ?want=, ?row=. */
function useAsked(
  session: PageSession | null,
  setOpened: (opened: Opened) => void,
  setRow: (row: LabelRowName | null) => void,
): void {
  const [params] = useSearchParams();
  useEffect(() => {
    if (!session) return;
    const [piece, want, row] = [params.get('piece'), params.get('want'), params.get('row')];
    if (piece) open(session, { kind: 'asset', id: piece }, setOpened);
    else if (want) setOpened({ kind: 'want', id: want });
    if (row === 'rights' || row === 'words' || row === 'name' || row === 'fit') setRow(row);
  }, [session, params, setOpened, setRow]);
}

/** A picture pasted anywhere but into text goes onto the tray; an address is read for its pictures. */
function usePastedFiles(
  session: PageSession | null,
  pageId: string,
  isEditable: boolean,
  hosts: Hosts,
): void {
  const navigate = useNavigate();
  useEffect(() => {
    if (!session || !isEditable) return;
    const paste = (event: ClipboardEvent) => {
      if (
        event.defaultPrevented ||
        (event.target instanceof Element && event.target.closest('input, textarea, [contenteditable="true"]'))
      )
        return;
      const files = [...(event.clipboardData?.files ?? [])].map((file) => ({ file, folder: '' }));
      const address = pastedAddress(event.clipboardData);
      const embeds = embedsInText(event.clipboardData?.getData('text/plain') ?? '', hosts);
      if (embeds.length > 0) {
        event.preventDefault();
        void trayEmbeds(session, embeds);
        return;
      }
      if (files.length === 0 && !address) return;
      event.preventDefault();
      if (files.length > 0) takeFiles(session, pageId, files, null, null);
      else navigate(`/gather?${new URLSearchParams({ page: pageId, address })}`);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, [session, pageId, isEditable, hosts, navigate]);
}

/** What was gathered for this page by a job or on another screen comes onto its tray by itself. */
function useGathered(session: PageSession | null, pageId: string): void {
  useEffect(() => {
    if (!session) return;
    const catchUp = (event: Event) => {
      if (event instanceof CustomEvent && event.detail === pageId)
        void session.saver.catchUp().catch(() => undefined);
    };
    onTray.addEventListener('change', catchUp);
    return () => onTray.removeEventListener('change', catchUp);
  }, [session, pageId]);
}
