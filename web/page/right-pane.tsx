import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { leadOf, teaserOf, teaserRatio } from '#core/page/lead.ts';
import type { Want } from '#core/page/model.ts';
import type { Piece } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { placementsOf, standingOn, wayTo } from '#core/page/walk.ts';
import { wantMisfit } from '#core/page/wants.ts';
import { SidePane } from '../frame/panes.tsx';
import { useKeepRow } from '../label/kept-row.ts';
import { Label } from '../label/label.tsx';
import { PageOfProvider } from '../label/page-of.ts';
import type { LabelRowName, Use } from '../label/row.tsx';
import { newWant } from '../pages/new-page-screen.tsx';
import { WantLines } from '../pages/want-lines.tsx';
import { pieceOf, usePiece, usePieces } from '../pieces/pieces.ts';
import { ReplaceDeed } from '../replace/replace-deed.tsx';
import { bannerOfPieces, bannerOfPlaced } from '../sheet/blocks/banner/commands.ts';
import { makeTeaser, setLead } from '../sheet/blocks/teaser/commands.ts';
import {
  changePlacement,
  fillWant,
  linkFile,
  movePlacement,
  paragraphCount,
  paragraphNumber,
  removePlacements,
  setWants,
  takeOffTray,
} from '../sheet/commands.ts';
import { Button } from '../ui/button.tsx';
import { FieldSet } from '../ui/field-set.tsx';
import { BlockRows } from './block-rows.tsx';
import type { Opened } from './opened.ts';
import { SeveralCard } from './several-card.tsx';
import { SeveralPlacedCard } from './several-placed-card.tsx';
import { TextCard } from './text-card.tsx';
import type { PageSession, PageView } from './use-page-session.ts';

interface RightPaneProps {
  readonly session: PageSession;
  readonly view: PageView;
  readonly rules: HouseRules;
  readonly isEditable: boolean;
  readonly opened: Opened;
  readonly row: LabelRowName | null;
  readonly onRow: (row: LabelRowName | null) => void;
  readonly onOpened: (opened: Opened) => void;
  readonly onTranslation: () => void;
}

/** The label of what is selected: a placed piece, a piece on the tray, the wants, or the text at the cursor. */
export function RightPane({
  session,
  view,
  rules,
  isEditable,
  opened,
  row,
  onRow,
  onOpened,
  onTranslation,
}: RightPaneProps) {
  const { editor } = session;
  const known = usePieces();
  const openedAsset = opened?.kind === 'asset' && isHere(view, opened.id) ? opened.id : null;
  const asset = usePiece(view.selected?.asset ?? openedAsset);
  useKeepRow(session.pageId, { use: view.selected?.id ?? null, piece: openedAsset }, row);
  if (view.chosen > 1)
    return (
      <SidePane data-pane="label" aria-label="Label">
        <SeveralPlacedCard session={session} />
      </SidePane>
    );
  if (opened?.kind === 'want' && !view.selected) {
    return (
      <SidePane aria-label="Wants">
        <WantsCard
          pageId={session.pageId}
          wants={view.doc.wants}
          isEditable={isEditable}
          onChange={(wants, name) => setWants(editor, wants, name)}
          onDone={() => onOpened(null)}
        />
      </SidePane>
    );
  }
  const several = opened?.kind === 'several' ? opened.ids.filter((id) => isHere(view, id)) : [];
  if (several.length > 1 && !view.selected) {
    return (
      <SidePane data-pane="label" aria-label="Label">
        <SeveralCard
          session={session}
          page={view.doc}
          ids={several}
          isEditable={isEditable}
          onDone={() => onOpened(null)}
        />
      </SidePane>
    );
  }
  return (
    <PageOfProvider value={{ pageId: session.pageId, targetId: session.targetId, tray: view.doc.tray }}>
      <SidePane data-pane="label" aria-label="Label">
        {asset ? (
          <>
            <Label
              key={view.selected?.id ?? asset.id}
              asset={asset}
              rules={rules}
              use={view.selected ? placementUse(session, view, rules, known) : null}
              around={
                isEditable && view.selected ? (
                  <BlockRows editor={editor} doc={view.doc} blockId={view.selected.id} rules={rules} />
                ) : null
              }
              isEditable={isEditable}
              openRow={row}
              onOpenRow={onRow}
            />
            {isEditable && view.doc.tray.includes(asset.id) ? (
              <TrayDeeds session={session} view={view} asset={asset} />
            ) : null}
            {isEditable ? <RoleDeeds session={session} view={view} asset={asset} rules={rules} /> : null}
            {isEditable ? (
              <div className="px-1 pt-1">
                <ReplaceDeed
                  asset={asset}
                  rules={rules}
                  before={() => {
                    session.flush();
                    return session.saver.save();
                  }}
                />
              </div>
            ) : null}
          </>
        ) : (
          <TextCard
            session={session}
            onTranslation={onTranslation}
            view={view}
            rules={rules}
            isEditable={isEditable}
            onWants={() => onOpened({ kind: 'want', id: view.doc.wants[0]?.id ?? '' })}
          />
        )}
      </SidePane>
    </PageOfProvider>
  );
}

/** Whether a piece is on the tray or the sheet: one that was taken off both has no label here. */
function isHere({ doc }: PageView, assetId: string): boolean {
  return doc.tray.includes(assetId) || placementsOf(doc).some(({ asset }) => asset === assetId);
}

interface DeedProps {
  readonly session: PageSession;
  readonly view: PageView;
  readonly asset: Asset;
}

/** What can be done with a piece of the tray besides placing it: fill a want with it, or take it off. */
function TrayDeeds({ session, view, asset }: DeedProps) {
  const { editor } = session;
  const open = view.doc.wants.filter((want) => want.filledBy === null);
  const isPlaced = placementsOf(view.doc).some((placement) => placement.asset === asset.id);
  return (
    <div className="px-1 pt-2.5">
      {open.map((want) => {
        const misfit = wantMisfit(want, pieceOf(asset));
        return (
          <p key={want.id}>
            <Button kind="link" onClick={() => fillWant(editor, want.id, asset.id)}>
              Use it for “{want.purpose}”
            </Button>{' '}
            {misfit ? <span className="text-due">{misfit}</span> : null}
          </p>
        );
      })}
      {isPlaced ? null : (
        <Button kind="link" onClick={() => takeOffTray(editor, asset.id)}>
          Take it off the tray
        </Button>
      )}
    </div>
  );
}

/** What a piece can be besides where it stands: the lead, the picture of the teaser, a banner. */
function RoleDeeds({ session, view, asset, rules }: DeedProps & { readonly rules: HouseRules }) {
  const { editor } = session;
  const { selected, doc } = view;
  if (!selected && !doc.tray.includes(asset.id)) return null;
  const inside = selected ? wayTo(doc, selected.id).slice(0, -1) : [];
  if (inside.some(({ type }) => type === 'teaser')) return null;
  const isLead = selected !== null && leadOf(doc)?.id === selected.id;
  const isPicture = asset.kind === 'picture';
  return (
    <div className="flex flex-wrap gap-x-3 px-1 pt-1">
      {selected ? (
        <Button kind="link" onClick={() => setLead(editor, isLead ? null : selected.id)}>
          {isLead ? 'It is the lead. Let none be' : 'Make it the lead'}
        </Button>
      ) : null}
      <Button
        kind="link"
        onClick={() => makeTeaser(editor, selected ?? newPlacement('teased', asset.id), teaserRatio(rules))}
      >
        {teaserOf(doc) ? 'Show it in the teaser' : 'Make a teaser of it'}
      </Button>
      {(asset.kind === 'document' || asset.kind === 'picture') && !selected ? (
        <Button kind="link" onClick={() => linkFile(editor, asset.id, asset.label.title || asset.stem)}>
          {asset.kind === 'document' ? 'Link to its file' : 'Words that open it'}
        </Button>
      ) : null}
      {isPicture && inside.length === 0 ? (
        <Button
          kind="link"
          onClick={() => {
            if (selected) bannerOfPlaced(editor, selected.id);
            else bannerOfPieces(editor, [asset.id]);
          }}
        >
          Make a banner of it
        </Button>
      ) : null}
    </div>
  );
}

function placementUse(
  { editor, pageId }: PageSession,
  view: PageView,
  rules: HouseRules,
  pieces: ReadonlyMap<string, Piece>,
): Use | null {
  const placement = view.selected;
  if (!placement) return null;
  return {
    pageId,
    placement,
    room: standingOn(view.doc, { rules, pieces }, placement).room,
    change: (change, name) => changePlacement(editor, placement.id, change, name),
    paragraphs: paragraphCount(editor),
    paragraph: paragraphNumber(editor, placement.id),
    move: (move) => void movePlacement(editor, placement.id, move),
    remove: () => removePlacements(editor, [placement.id]),
  };
}

interface WantsCardProps {
  readonly pageId: string;
  readonly wants: readonly Want[];
  readonly isEditable: boolean;
  readonly onChange: (wants: readonly Want[], name: string) => void;
  readonly onDone: () => void;
}

function WantsCard({ pageId, wants, isEditable, onChange, onDone }: WantsCardProps) {
  return (
    <div className="border border-dashed border-control px-3.5 py-3">
      <h2 className="text-md">What this page wants</h2>
      <p className="text-soft">Drop a file or a piece of the tray on a dashed frame to fill it.</p>
      <FieldSet className="my-3" disabled={!isEditable}>
        <WantLines wants={wants} onChange={(next) => onChange(next, 'changing the wants')} />
      </FieldSet>
      {isEditable ? (
        <ul className="mb-3">
          {wants
            .filter((want) => want.filledBy === null)
            .map((want) => (
              <li key={want.id}>
                <Link to={`/gather?page=${pageId}&want=${want.id}`}>Gather for “{want.purpose}”</Link>
              </li>
            ))}
        </ul>
      ) : null}
      <div className="flex flex-wrap gap-2">
        {isEditable ? (
          <Button onClick={() => onChange([...wants, newWant('Another piece', 'any', 800)], 'another want')}>
            Another want
          </Button>
        ) : null}
        <Button kind="quiet" onClick={onDone}>
          Done
        </Button>
      </div>
    </div>
  );
}
