import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import type { Page } from '#api/pages.ts';
import { may, type Person } from '#api/people.ts';
import { sayBytes } from '#core/media/weight.ts';
import { shortHash } from '#core/naming/short-hash.ts';
import type { PageDoc } from '#core/page/model.ts';
import { placementById, placementsOf } from '#core/page/walk.ts';
import type { Remedy } from '#core/proof/finding.ts';
import { proofInput } from '#core/proof/input.ts';
import { applyRemedy, proofPage } from '#core/proof/proof.ts';
import { sayRemedy } from '#core/proof/say.ts';
import { viewportAs } from '#core/proof/seen-as.ts';
import { deliveriesQuery, meQuery, previewQuery, proofPageQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useOffer } from '../frame/commands.ts';
import { Split } from '../frame/split.tsx';
import { useIsNarrow } from '../frame/use-is-narrow.ts';
import { useRoom } from '../measure/use-room.ts';
import { useLinkedPages } from '../page/linked-pages.ts';
import { SaveNotice } from '../page/notices.tsx';
import { PageSaver } from '../page/saver.ts';
import { TakeAway } from '../page/take-away.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { changePiece, pieces, putPieces, usePieces } from '../pieces/pieces.ts';
import { LinkButton } from '../ui/button.tsx';
import { Store, useStore } from '../ui/store.ts';
import { ledger } from '../undo/ledger.ts';
import { ClashPanel } from '../versions/clash-panel.tsx';
import { Findings } from './findings.tsx';
import { ProofFrame } from './frame.tsx';
import { Heard } from './heard.tsx';
import { LEAST_WIDTH_PX, LOOKED_AT, readLook, type Screen, timesAsSharp, writeLook } from './look.ts';
import { NarrowProof } from './narrow-proof.tsx';
import { SinceOut } from './since-out.tsx';
import { SlowLook } from './slow-look.tsx';
import { useLit } from './use-lit.ts';
import { ProofWays } from './ways.tsx';

export function ProofScreen() {
  const { id = '' } = useParams();
  const page = useQuery(proofPageQuery(id));
  const me = useQuery(meQuery);
  if (!page.data || !me.data) return <Unanswered isScreen of={[page, me]} />;
  return <OpenProof key={id} page={page.data} me={me.data} />;
}

interface ProofSession {
  readonly doc: Store<PageDoc>;
  readonly saver: PageSaver;
}

function OpenProof({ page, me }: { readonly page: Page; readonly me: Person }) {
  const [session, setSession] = useState<ProofSession | null>(null);
  useEffect(() => {
    putPieces(page.pieces);
    const shown = new Store(page.doc);
    const opened = { doc: shown, saver: new PageSaver(page, page.doc, { merged: (doc) => shown.set(doc) }) };
    setSession(opened);
    return () => {
      opened.saver.close();
      ledger.forget(scopeOf(page.id));
    };
  }, [page]);
  return session ? <Proof page={page} session={session} isEditable={may(me.role, 'edit-pages')} /> : null;
}

const scopeOf = (pageId: string) => `proof ${pageId}`;

function Proof({
  page,
  session,
  isEditable,
}: {
  readonly page: Page;
  readonly session: ProofSession;
  readonly isEditable: boolean;
}) {
  const doc = useStore(session.doc);
  const saving = useStore(session.saver.store);
  const known = useStore(pieces);
  const held = useLit(usePieces(), doc);
  const linked = useLinkedPages();
  const { rules } = page.target;
  const [chosen, setChosen] = useState<number | null>(null);
  const [mended, setMended] = useState<string | null>(null);
  const navigate = useNavigate();
  const frames = useRef<HTMLElement>(null);
  const isNarrow = useIsNarrow();
  // The labels and recipes of what stands on the page, as they are now: the frames follow each change of them.
  const labels = shortHash([...known.values()].map(({ id, version }) => `${id} ${version}`).join(' '));
  const preview = useQuery({
    ...previewQuery(page.id, session.saver.version),
    queryKey: ['preview', page.id, session.saver.version, labels],
    placeholderData: keepPreviousData,
  });
  const numbered = useMemo(() => {
    return proofPage(proofInput(doc, rules, held, new Date(), linked)).map((finding, at) => ({
      number: at + 1,
      finding,
    }));
  }, [doc, held, rules, linked]);

  const show = (next: PageDoc) => {
    session.doc.set(next);
    session.saver.change(next);
    void session.saver.save();
  };
  const apply = async (remedy: Remedy, words: string) => {
    if (remedy.kind === 'set-licence' || remedy.kind === 'find-piece') {
      navigate(addressOf(page.id, remedy, doc));
      return;
    }
    setMended(words);
    if (remedy.kind === 'rename') {
      await changePiece(remedy.assetId, { stem: remedy.stem }, 'renaming a piece');
      return;
    }
    if (remedy.kind === 'credit-by-licence') {
      const words = held.get(remedy.assetId)?.label.creditWords ?? [];
      const creditWords = words.filter(({ language }) => language !== remedy.language);
      await changePiece(remedy.assetId, { label: { creditWords } }, 'its credit');
      return;
    }
    const before = session.doc.state;
    const after = applyRemedy(before, remedy);
    if (after === before) return;
    show(after);
    ledger.add({
      name: sayRemedy(remedy).toLowerCase(),
      scope: scopeOf(page.id),
      undo: () => show(before),
      redo: () => show(after),
    });
  };
  const write = async (assetId: string, text: string, words: string) => {
    await changePiece(assetId, { label: { alt: { kind: 'text', text } } }, 'its words');
    const placement = placementsOf(doc).find(({ asset, alt }) => asset === assetId && alt !== null);
    if (placement) {
      const change = {
        kind: 'placement',
        does: 'words-of-piece',
        placementId: placement.id,
        change: { alt: null },
      } as const;
      await apply(change, words);
    }
    setMended(words);
  };
  useOffer([{ words: 'Back to the sheet', act: () => navigate(`/pages/${page.id}`) }]);
  const [params, setParams] = useSearchParams();
  const look = readLook(params);
  const [lit, setLit] = useState<string | null>(null);
  const shown = useShownWidths(frames, look.width === null ? rules.proofWidths : [look.width], isNarrow);
  const [looked, setLooked] = useState(0);
  const viewport = look.width ?? rules.proofWidths[looked] ?? rules.proofWidths[0] ?? LEAST_WIDTH_PX;
  const sent = useQuery({ ...deliveriesQuery(page.id, null), enabled: isEditable });
  const out = sent.data?.deliveries.find(({ state }) => state === 'out') ?? null;
  const outAddress = out ? (out.frames.found ?? out.frames.sent) : null;
  const notices = (
    <div>
      <SaveNotice saving={saving} recovered={false} onAgain={() => void session.saver.save()} />
      <ClashPanel
        saving={saving}
        onSettle={(wayOf) => {
          session.saver.settle(wayOf);
          void session.saver.save();
        }}
      />
    </div>
  );
  const { listing = null } = preview.data ?? {};
  const offered = LOOKED_AT.filter(
    (one) => (one !== 'listing' || listing !== null) && (one !== 'out' || outAddress !== null),
  );
  const at = offered.includes(look.at) ? look.at : 'page';
  const address = preview.data
    ? `${preview.data.address}&seen=${labels}&as=${look.as}${screenAsked(look.screen)}`
    : null;
  const frame = (width: number, shownAt: number, what?: string) =>
    address === null ? null : (
      <ProofFrame
        {...(what === undefined ? {} : { what })}
        key={`${width} ${look.as} ${look.screen}`}
        address={address}
        viewport={viewportAs(look.as, width)}
        shown={shownAt}
        page={doc}
        screen={look.screen}
        findings={at === 'out' ? [] : numbered}
        chosen={chosen}
        lit={at === 'out' ? lit : null}
        onChoose={setChosen}
      />
    );
  const beside = (shownAt: number) => {
    const other =
      at === 'listing' && listing !== null
        ? { what: 'The listing', address: `${listing}&seen=${labels}`, page: 'The article' }
        : at === 'out' && outAddress !== null
          ? { what: 'What is out', address: outAddress, page: 'As it is now' }
          : null;
    return other === null ? null : (
      <>
        <ProofFrame
          key={`${other.what} ${viewport}`}
          what={other.what}
          address={other.address}
          viewport={viewport}
          shown={shownAt}
          page={doc}
          findings={[]}
          chosen={null}
          onChoose={setChosen}
        />
        {frame(viewport, shownAt, other.page)}
      </>
    );
  };
  const free = shown.reduce((sum, width) => sum + width, 0);
  const ways = (
    <ProofWays
      look={{ ...look, at, width: at === 'page' ? look.width : viewport }}
      rules={rules}
      offered={offered}
      isNarrow={isNarrow}
      onLook={(next) => {
        setLooked(Math.max(0, rules.proofWidths.indexOf(next.width ?? viewport)));
        setLit(null);
        const isOne = next.at !== 'page' && next.width !== null && rules.proofWidths.includes(next.width);
        setParams(writeLook({ ...next, width: isOne ? null : next.width }), { replace: true });
      }}
    />
  );
  const heard = (
    <Heard page={doc} rules={rules} pieces={held} findings={numbered} chosen={chosen} onChoose={setChosen} />
  );
  const slow = address === null ? null : <SlowLook address={address} viewport={viewport} />;
  // A sheet of paper has one width.
  const atOnce = look.as === 'printed' ? rules.proofWidths.slice(-1) : rules.proofWidths;
  const framed = (
    <section
      className="flex items-start gap-5.5 overflow-auto px-4.5 pt-3.5 pb-7.5"
      ref={frames}
      aria-label="The page at its widths"
    >
      {at !== 'page'
        ? beside(Math.min(viewport, Math.round(free / 2)))
        : look.width !== null
          ? frame(look.width, shown[0] ?? look.width)
          : atOnce.map((width) => frame(width, shown[rules.proofWidths.indexOf(width)] ?? width))}
      <Unanswered of={preview} />
    </section>
  );
  const widths = (
    <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)]">
      <div>
        {notices}
        {ways}
      </div>
      {at === 'words' ? heard : at === 'slow' ? slow : framed}
    </div>
  );
  const findings = (
    <Findings
      numbered={numbered}
      chosen={chosen}
      mended={mended}
      isEditable={isEditable}
      onChoose={setChosen}
      onApply={apply}
      onWrite={write}
    />
  );
  const takeAway = isEditable ? (
    <TakeAway pageId={page.id} beforeTaking={() => session.saver.save()} />
  ) : null;
  const narrowFrame = (shownAt: number) => {
    if (at === 'words') return heard;
    if (at === 'slow') return slow;
    return at === 'page' ? frame(viewport, shownAt) : beside(shownAt);
  };
  const pane = at === 'out' ? <SinceOut pageId={page.id} doc={doc} looked={lit} onLook={setLit} /> : findings;
  if (isNarrow)
    return (
      <NarrowProof
        page={page}
        doc={doc}
        looked={looked}
        onLook={(place) => {
          setLooked(place);
          setParams(writeLook({ ...look, width: null }), { replace: true });
        }}
        frames={frames}
        frame={narrowFrame(Math.min(viewport, shown[looked] ?? shown[0] ?? viewport))}
        notices={
          <>
            {notices}
            {ways}
            <Unanswered of={preview} />
          </>
        }
        findings={pane}
        takeAway={takeAway}
      />
    );
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex min-h-12.5 items-center gap-3.5 border-b border-line bg-panel px-4.5 py-1.5 max-middle:flex-wrap">
        <h1 className="truncate text-2xl">{sayPageTitle(doc.title)}</h1>
        <p className="min-w-0 flex-1 text-soft">
          proof for the {rules.name}
          {preview.data?.isMeasured
            ? ` · ${sayBytes(preview.data.firstLoadBytes)} of pictures at most, of ${sayBytes(rules.weightBudget)} allowed`
            : ''}
        </p>
        <LinkButton to={`/pages/${page.id}`}>Back to the sheet</LinkButton>
        {takeAway}
      </header>
      <Split
        id="proof"
        stacks="middle"
        panes={[
          { id: 'frames', name: 'the frames', content: widths },
          { id: 'findings', name: 'the findings', width: { usual: 340, least: 260 }, content: pane },
        ]}
      />
    </div>
  );
}

/** A remedy that is to be done elsewhere. */
type Going = Extract<Remedy, { readonly kind: 'set-licence' | 'find-piece' }>;

function addressOf(pageId: string, remedy: Going, doc: PageDoc): string {
  if (remedy.kind === 'find-piece') return `/pages/${pageId}?want=${remedy.wantId}`;
  const placement = placementById(doc, remedy.placementId);
  return placement ? `/pages/${pageId}?piece=${placement.asset}&row=rights` : `/pages/${pageId}`;
}

const GAP_PX = 22;
/** Narrow windows are shown relatively larger, or their text could not be read. */
const SHARE_POWER = 0.82;

/** The width at which each frame is shown, so that all stand side by side; or one alone, as wide as there is room. */
function useShownWidths(
  frames: RefObject<HTMLElement | null>,
  widths: readonly number[],
  isAlone: boolean,
): readonly number[] {
  const room = useRoom(frames, 880, isAlone);
  if (isAlone) return widths.map((width) => Math.min(width, Math.max(240, room)));
  const free = Math.max(560, room) - GAP_PX * (widths.length - 1);
  const shares = widths.map((width) => width ** SHARE_POWER);
  const sum = shares.reduce((total, share) => total + share, 0);
  return widths.map((width, at) => Math.round(Math.min(width, (free * (shares[at] ?? 0)) / sum)));
}

/** Files are chosen as on a screen that is so much sharper than this. */
const screenAsked = (screen: Screen) =>
  screen === 'here' ? '' : `&screen=${Number(timesAsSharp(screen).toFixed(4))}`;
