import { useQuery } from '@tanstack/react-query';
import { lazy, type ReactNode, Suspense, useEffect, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Asset, AssetChange } from '#api/assets.ts';
import type { WrittenSample } from '#api/likeness.ts';
import { mayChangePiece } from '#api/people.ts';
import type { Target } from '#api/targets.ts';
import type { Point } from '#core/media/crop.ts';
import { isOriginalFormat, ORIGINAL_FORMATS } from '#core/media/formats.ts';
import { turnToLevel } from '#core/media/level.ts';
import {
  AS_IT_CAME,
  awakened,
  type Cuttable,
  mirroredPrep,
  type Prep,
  STRAIGHTEN_LIMIT,
  turnedPrep,
  wholeRecipe,
} from '#core/media/recipe.ts';
import { stepsOf } from '#core/media/recipe-says.ts';
import { sayTone } from '#core/media/tone.ts';
import { sayBytes } from '#core/media/weight.ts';
import { strictest } from '#core/page/target.ts';
import { placementsOf } from '#core/page/walk.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { sayFailure } from '../api/client.ts';
import { assetQuery, lightsQuery, meQuery, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useOffer } from '../frame/commands.ts';
import { Split } from '../frame/split.tsx';
import { useIsNarrow } from '../frame/use-is-narrow.ts';
import { askFocal, changePiece, putPieces, usePiece } from '../pieces/pieces.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { toast } from '../ui/toast.ts';
import { CutList } from './cut-list.tsx';
import { type Here, herePageQuery, prepareHere } from './here.ts';
import { LikenessDetail } from './likeness-detail.tsx';
import { PrepCard } from './prep-card.tsx';
import { ToneFilter } from './prepared.tsx';
import { Stage } from './stage.tsx';
import { useKeeper } from './use-keeper.ts';

/** Instead of a cut's ID in the address: the piece itself is open, as it is cropped for every use. */
const WHOLE_PIECE = 'piece';

// Charts are heavy to load, and only asked for now and then.
const LikenessPanel = lazy(() => import('./likeness-panel.tsx'));

export function BenchScreen() {
  const { id = '' } = useParams();
  const asked = useQuery(assetQuery(id));
  const targets = useQuery(targetsQuery);
  const person = useQuery(meQuery);
  const me = person.data;
  useEffect(() => {
    if (asked.data) putPieces([asked.data]);
  }, [asked.data]);
  const asset = usePiece(id);
  const here = useHere();
  const target =
    targets.data?.find((one) => here !== 'asked' && one.id === here?.targetId) ??
    strictest(targets.data ?? []);
  if (!asset || !target || !me)
    return <Unanswered isScreen of={asset ? [targets, person] : [asked, targets, person]} />;
  if (here === 'asked') return null;
  const isEditable = mayChangePiece(me, asset.createdBy.id);
  // In one use alone it starts from what is done to it everywhere.
  const shown = here?.placement.prep ? { ...asset, prep: here.placement.prep } : asset;
  return <Bench key={asset.id} asset={shown} target={target} isEditable={isEditable} here={here} />;
}

/** The use that is prepared by itself, named in the address; null for the piece everywhere, `asked` until it is known. */
function useHere(): (Here & { readonly targetId: string }) | null | 'asked' {
  const [params] = useSearchParams();
  const [pageId, placementId] = [params.get('page'), params.get('use')];
  const page = useQuery({ ...herePageQuery(pageId ?? ''), enabled: pageId !== null });
  if (pageId === null) return null;
  if (!page.data) return page.error ? null : 'asked';
  const placement = placementsOf(page.data.doc).find((one) => one.id === placementId);
  if (!placement) return null;
  return { pageId, pageTitle: page.data.doc.title, placement, targetId: page.data.target.id };
}

interface BenchProps {
  readonly asset: Asset;
  readonly target: Target;
  readonly isEditable: boolean;
  readonly here: Here | null;
}

/** Preparing one piece: all cuts of the target at once, from one focal point; the original is never touched. */
function Bench({ asset, target, isEditable, here }: BenchProps) {
  const { rules } = target;
  const [draft, setDraft] = useState<Prep | null>(null);
  const [draftFocal, setDraftFocal] = useState<Point | null>(null);
  const [isCompared, setCompared] = useState(false);
  const [isLevelling, setLevelling] = useState(false);
  const [isWeighed, setWeighed] = useState(false);
  const [looked, setLooked] = useState<WrittenSample | null>(null);
  const [params, setParams] = useSearchParams();
  const isWholeOpen = params.get('cut') === WHOLE_PIECE;
  const open = isWholeOpen
    ? null
    : (rules.cutPresets.find(({ id }) => id === params.get('cut')) ?? rules.cutPresets[0] ?? null);
  const prep = draft ?? asset.prep;
  const piece: Cuttable = {
    size: asset.original,
    trim: asset.trim,
    prep,
    focal: draftFocal ?? asset.label.focal,
  };
  const { data: lights } = useQuery({ ...lightsQuery(asset.id), enabled: prep.words !== null });
  const write = (change: AssetChange, name: string) => writeChange(asset.id, here, change, name);
  const keep = useKeeper(write, (kept) => {
    // What was moved on meanwhile is not yet kept, and stays.
    setDraft((current) => (kept && current !== kept.prep ? current : null));
    setDraftFocal((current) => (kept && current !== kept.label?.focal ? current : null));
  });
  const onDraft = (next: Prep) => setDraft(awakened(asset.prep, next));
  const onKeep = (made: Prep, name: string) => {
    const next = awakened(asset.prep, made);
    if (!draft && JSON.stringify(next) === JSON.stringify(asset.prep)) return;
    setDraft(next);
    void keep({ prep: next }, name);
  };
  const onFocal = (focal: Point, isDone: boolean) => {
    setDraftFocal(focal);
    if (isDone) void keep({ label: { focal } }, 'the focal point');
  };
  const onLine = (from: Point, to: Point) => {
    const turn = turnToLevel(from, to);
    if (turn === null) return;
    setLevelling(false);
    const straighten = wholeRecipe(piece).straighten + turn;
    if (Math.abs(straighten) > STRAIGHTEN_LIMIT)
      toast.error(
        `That line leans by ${Math.abs(straighten / 10).toFixed(1)}°. At most ${STRAIGHTEN_LIMIT / 10}° are straightened; nothing was changed.`,
      );
    else onKeep({ ...prep, straighten }, 'straightening it');
  };
  const propose = async () => {
    try {
      await keep({ label: { focal: await askFocal(asset.id) } }, 'the focal point as proposed');
    } catch (error) {
      toast.error(sayFailure(error));
    }
  };
  const cuts = (
    <CutList
      asset={asset}
      piece={piece}
      rules={rules}
      lights={lights}
      open={open}
      onOpen={(preset) => {
        const next = new URLSearchParams(params);
        next.set('cut', preset?.id ?? WHOLE_PIECE);
        setParams(next, { replace: true });
        setLooked(null);
      }}
    />
  );
  const stage = (
    <div className="flex min-h-0 min-w-0 flex-col">
      {looked ? <LikenessDetail sample={looked} /> : null}
      <Stage
        isHidden={looked !== null}
        asset={asset}
        piece={piece}
        preset={isCompared ? null : open}
        isEditable={isEditable && !isCompared}
        isCompared={isCompared}
        onPrep={(next, isDone, name) => (isDone ? onKeep(next, name) : onDraft(next))}
        onFocal={onFocal}
        level={isLevelling ? { onLine, onLeave: () => setLevelling(false) } : null}
      />
      {isWeighed && open ? (
        <Suspense fallback={null}>
          <LikenessPanel
            key={open.id}
            asset={asset}
            piece={piece}
            preset={open}
            rules={rules}
            targetId={target.id}
            isEditable={isEditable}
            onKeep={onKeep}
            isLooking={looked !== null}
            onLook={setLooked}
          />
        </Suspense>
      ) : null}
    </div>
  );
  const label = (
    <aside className="overflow-auto p-3.5" aria-label="Label">
      <PrepCard
        asset={asset}
        piece={piece}
        rules={rules}
        preset={open}
        isEditable={isEditable}
        lights={lights}
        onDraft={onDraft}
        onKeep={onKeep}
        isLevelling={isLevelling}
        onLevelling={setLevelling}
      />
    </aside>
  );
  const weigh = () => {
    setWeighed(!isWeighed);
    setLooked(null);
  };
  useOffer([
    {
      words: isCompared ? 'Stop comparing' : 'Compare with the original',
      act: () => setCompared(!isCompared),
    },
    ...(asset.animated ? [] : [{ words: isWeighed ? 'Stop weighing it' : 'Weigh it', act: weigh }]),
    ...(isEditable
      ? [
          { words: 'Propose a focal point', act: () => void propose() },
          { words: 'Turn it left', act: () => onKeep(turnedPrep(prep, 'left'), 'turning it left') },
          { words: 'Turn it right', act: () => onKeep(turnedPrep(prep, 'right'), 'turning it right') },
          { words: 'Mirror it', act: () => onKeep(mirroredPrep(prep), 'mirroring it') },
          { words: 'Revert to the original', act: () => onKeep(AS_IT_CAME, 'reverting to the original') },
        ]
      : []),
  ]);
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <BenchHeader
        asset={asset}
        here={here}
        isCompared={isCompared}
        isEditable={isEditable}
        onCompare={() => setCompared(!isCompared)}
        isWeighed={isWeighed}
        onWeigh={weigh}
        onPropose={() => void propose()}
      />
      <BenchPanes
        cuts={cuts}
        stage={stage}
        label={label}
        says={{
          cuts: open ? open.name : 'the piece itself',
          piece: `${asset.original.width} × ${asset.original.height}`,
          recipe: sayCount(stepsOf(prep, sayTone).length),
        }}
      />
      <ToneFilter piece={piece} />
    </div>
  );
}

interface PanesProps {
  readonly cuts: ReactNode;
  readonly stage: ReactNode;
  readonly label: ReactNode;
  /** What is at each, in a word or two. */
  readonly says: Readonly<Record<'cuts' | 'piece' | 'recipe', string>>;
}

function sayCount(steps: number): string {
  if (steps === 0) return 'no steps';
  return steps === 1 ? '1 step' : `${steps} steps`;
}

/** The cuts, the piece, and what is done to it: side by side, or the cuts under both; places on a narrow screen. */
function BenchPanes({ cuts, stage, label, says }: PanesProps) {
  const isMiddle = useIsNarrow('middle');
  const isNarrow = useIsNarrow();
  const work = [
    { id: 'piece', name: 'the piece', says: says.piece, content: stage },
    {
      id: 'label',
      name: 'the recipe',
      says: says.recipe,
      width: { usual: 316, least: 260 },
      content: label,
    },
  ];
  if (!isMiddle || isNarrow)
    return (
      <Split
        id="bench"
        firstPlace="piece"
        panes={[
          {
            id: 'cuts',
            name: 'the cuts',
            says: says.cuts,
            width: { usual: 236, least: 160 },
            content: cuts,
          },
          ...work,
        ]}
      />
    );
  return (
    <div className="grid grid-rows-[minmax(0,1fr)_auto]">
      <Split id="bench" panes={work} />
      {cuts}
    </div>
  );
}

/** A recipe belongs to one use alone where that is open; all else is said of the piece. */
async function writeChange(id: string, here: Here | null, change: AssetChange, name: string): Promise<void> {
  const { prep, ...ofPiece } = change;
  if (!here || !prep) return changePiece(id, change, name);
  await prepareHere(here, prep, name);
  if (Object.keys(ofPiece).length > 0) await changePiece(id, ofPiece, name);
}

interface HeaderProps {
  readonly here: Here | null;
  readonly asset: Asset;
  readonly isCompared: boolean;
  readonly isEditable: boolean;
  readonly onCompare: () => void;
  readonly isWeighed: boolean;
  readonly onWeigh: () => void;
  readonly onPropose: () => void;
}

function BenchHeader({ asset, isCompared, isWeighed, isEditable, ...rest }: HeaderProps) {
  const { here, onCompare, onWeigh, onPropose } = rest;
  const format = isOriginalFormat(asset.format) ? ORIGINAL_FORMATS[asset.format].says : asset.format;
  const { width, height } = asset.original;
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b border-line bg-panel px-4.5 py-2.25">
      <h1 className="font-serif text-3xl leading-tight font-normal italic">
        {asset.label.title || asset.stem}
      </h1>
      <p className="min-w-50 flex-1 text-soft">
        {here ? <strong>In “{here.pageTitle}” alone. </strong> : null}
        {width} × {height} {format}, {sayBytes(asset.bytes)}, {termsOf(asset.label).short} · the original
        stays as it is
      </p>
      {here?.placement.prep && isEditable ? (
        <Button onClick={() => void prepareHere(here, null, 'its own recipe here').catch(sayNotKept)}>
          As everywhere else
        </Button>
      ) : null}
      {isEditable ? <Button onClick={onPropose}>Propose a focal point</Button> : null}
      {asset.animated ? null : (
        <Button aria-pressed={isWeighed} onClick={onWeigh}>
          Weigh it
        </Button>
      )}
      <Button aria-pressed={isCompared} onClick={onCompare}>
        {isCompared ? 'Stop comparing' : 'Compare with the original'}
      </Button>
      <LinkButton
        kind="action"
        to={here ? `/pages/${here.pageId}?use=${here.placement.id}` : `/shelf?piece=${asset.id}`}
      >
        Done
      </LinkButton>
    </header>
  );
}

const sayNotKept = (error: unknown) => toast.error(sayFailure(error));
