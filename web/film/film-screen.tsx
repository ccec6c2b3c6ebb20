import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Asset } from '#api/assets.ts';
import type { CaptionTrack } from '#api/captions.ts';
import { mayChangePiece } from '#api/people.ts';
import type { TrackKind } from '#core/film/cue.ts';
import { begunAt, withEdge } from '#core/film/edit-cues.ts';
import { sayFilmLength } from '#core/film/facts.ts';
import { judgeCue, mendCues } from '#core/film/judge-cues.ts';
import { type FilmRecipe, keptSpans, sayFilmRecipe } from '#core/film/recipe.ts';
import { captionRulesOf } from '#core/film/rules.ts';
import { readWave } from '#core/film/wave.ts';
import { sayBytes } from '#core/media/weight.ts';
import { type HouseRules, strictest } from '#core/page/target.ts';
import { callLanguage } from '#core/words/language.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { sayFailure } from '../api/client.ts';
import { assetQuery, meQuery, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useOffer } from '../frame/commands.ts';
import { changePiece, putPieces, usePiece } from '../pieces/pieces.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { useStore } from '../ui/store.ts';
import { toast } from '../ui/toast.ts';
import { AllPanel } from './all-panel.tsx';
import { type Clock, useClock, useMoment } from './clock.ts';
import { CueList } from './cue-list.tsx';
import { LanguageMenu } from './language-menu.tsx';
import { shortTime } from './say-time.ts';
import { Stage } from './stage.tsx';
import { type LaneOf, TimeLine } from './time-line.tsx';
import { TrackKeeper } from './track-keeper.ts';
import { tracksQuery } from './tracks.ts';
import { TranscriptPanel } from './transcript-panel.tsx';
import { TrimPanel } from './trim-panel.tsx';
import { useFilmWork } from './use-film-work.ts';

type FilmAsset = Extract<Asset, { readonly kind: 'film' }>;

/** The film at work: what is said in it, its parts, and what is made of it. */
export function FilmScreen() {
  const { id = '' } = useParams();
  const asked = useQuery(assetQuery(id));
  const targets = useQuery(targetsQuery);
  const tracks = useQuery(tracksQuery(id));
  const person = useQuery(meQuery);
  useEffect(() => {
    if (asked.data) putPieces([asked.data]);
  }, [asked.data]);
  const asset = usePiece(id);
  const target = strictest(targets.data ?? []);
  if (!asset || !target || !tracks.data || !person.data)
    return <Unanswered isScreen of={[asked, targets, tracks, person]} />;
  if (asset.kind !== 'film')
    return (
      <div className="p-5">
        <p>This piece is no film.</p>
      </div>
    );
  return (
    <Film
      key={id}
      asset={asset}
      rules={target.rules}
      tracks={tracks.data}
      isEditable={mayChangePiece(person.data, asset.createdBy.id)}
    />
  );
}

const MODES = ['captions', 'chapters', 'trim', 'transcript'] as const;
type Mode = (typeof MODES)[number];
const MODE_WORDS: Readonly<Record<Mode, string>> = {
  captions: 'Captions',
  chapters: 'Chapters',
  trim: 'Trim and still',
  transcript: 'Transcript',
};

interface FilmProps {
  readonly asset: FilmAsset;
  readonly rules: HouseRules;
  readonly tracks: readonly CaptionTrack[];
  readonly isEditable: boolean;
}

/** What one sees of a second, in px: from all of a short film to single words. */
const SCALES = [2, 5, 10, 20, 40, 80, 160];
const USUAL_SCALE = 4;
/** So much of the time is in sight on a usual screen, in px. */
const SEEN_PX = 1150;

/** A film that is in sight as a whole is drawn as large as it goes. */
const firstScale = (seconds: number): number =>
  Math.max(
    USUAL_SCALE,
    SCALES.findLastIndex((scale) => scale * seconds <= SEEN_PX),
  );

function Film({ asset, rules, tracks, isEditable }: FilmProps) {
  const [params, setParams] = useSearchParams();
  const mode = MODES.find((one) => one === params.get('show')) ?? 'captions';
  const house = primaryOf(rules.language);
  const usual = asset.captions.includes(house) ? house : (asset.captions[0] ?? house);
  const language = params.get('language') ?? usual;
  const go = (change: Readonly<Record<string, string>>) => {
    const next = new URLSearchParams(params);
    for (const [name, value] of Object.entries(change)) next.set(name, value);
    setParams(next, { replace: true });
  };
  const keepers = useKeepers(asset.id, tracks, language);
  const captions = useStore(keepers.captions.store);
  const chapters = useStore(keepers.chapters.store);
  const work = useFilmWork(asset);
  const { recipe, isKeeping, change } = useRecipe(asset);
  const kept = useMemo(() => keptSpans(recipe, asset.film.seconds), [recipe, asset.film.seconds]);
  const clock = useClock(kept);
  const [scale, setScale] = useState(firstScale(asset.film.seconds));
  const [isMovingAll, setMovingAll] = useState(false);
  const wave = useMemo(() => readWave(work?.wave ?? ''), [work?.wave]);
  const end = asset.film.seconds * 1000;
  const captionRules = captionRulesOf(rules.films);
  const asking = useMemo(
    () =>
      new Set(
        captions.cues.flatMap((_, at) =>
          judgeCue(captions.cues, at, captionRulesOf(rules.films), end).length > 0 ? [at] : [],
        ),
      ),
    [captions.cues, rules.films, end],
  );
  const isOnChapters = mode === 'chapters';
  const keeper = isOnChapters ? keepers.chapters : keepers.captions;
  const worked = isOnChapters ? chapters : captions;
  const area = useWorkKeys({ clock, keeper, isEditable, end, one: isOnChapters ? 'chapter' : 'caption' });
  const mended = useMemo(() => {
    const made = mendCues(captions.cues, captionRulesOf(rules.films));
    return JSON.stringify(made) === JSON.stringify(captions.cues) ? null : made;
  }, [captions.cues, rules.films]);
  const canMend = mode === 'captions' && mended !== null;
  const mendAll = () => {
    if (mended) keepers.captions.edit({ cues: mended, at: captions.at }, 'mending captions');
  };
  useOffer(
    isEditable
      ? [
          {
            words: 'Mend all captions that are safe to mend',
            act: mendAll,
          },
          { words: 'Move or stretch all captions', act: () => setMovingAll(true) },
        ]
      : [],
  );
  const laneOf = (kind: 'captions' | 'chapters'): LaneOf => ({
    name: MODE_WORDS[kind],
    one: kind === 'captions' ? 'Caption' : 'Chapter',
    cues: (kind === 'captions' ? captions : chapters).cues,
    at: (kind === 'captions') === isOnChapters ? null : worked.at,
    asking: kind === 'captions' ? asking : new Set<number>(),
    isEditable,
    onSelect: (at) => {
      keepers[kind].select(at);
      if (mode !== kind) go({ show: kind });
    },
    onShow: (edited) => keepers[kind].show(edited),
    onEdit: (edited, name, before) => keepers[kind].edit(edited, name, before),
  });
  return (
    <div
      className="grid h-full grid-rows-[auto_minmax(0,1fr)_auto_auto] max-narrow:block max-narrow:overflow-y-auto"
      ref={area}
    >
      <Header asset={asset} recipe={recipe} mode={mode} onMode={(show) => go({ show })} />
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_470px] max-middle:grid-cols-[minmax(0,1fr)_380px] max-narrow:block">
        <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto] max-narrow:h-72">
          <Stage asset={asset} clock={clock} cues={captions.cues} crop={recipe.crop} turn={recipe.turn} />
          <PlayBar clock={clock} end={end} scale={scale} onScale={setScale} />
        </div>
        <aside
          className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-l border-line bg-panel max-narrow:h-[65vh] max-narrow:border-t max-narrow:border-l-0"
          aria-label={MODE_WORDS[mode]}
        >
          <PaneHead
            mode={mode}
            asset={asset}
            language={language}
            count={worked.cues.length}
            asking={asking.size}
            tracks={tracks}
            onLanguage={(tag) => go({ language: tag })}
          >
            {isEditable && mode === 'captions' && captions.cues.length > 0 ? (
              <>
                {canMend ? (
                  <Button kind="link" onClick={mendAll}>
                    Mend all that is safe
                  </Button>
                ) : null}
                <Button kind="link" onClick={() => setMovingAll(true)}>
                  Move all...
                </Button>
              </>
            ) : null}
          </PaneHead>
          <KeptSays
            keeper={mode === 'transcript' ? keepers.transcript : keeper}
            tracks={tracks}
            language={language}
            kind={kindOf(mode)}
          />
          {mode === 'trim' ? (
            <TrimPanel
              asset={asset}
              recipe={recipe}
              work={work}
              clock={clock}
              isEditable={isEditable && !isKeeping}
              onRecipe={change}
            />
          ) : null}
          {mode === 'transcript' ? (
            <TranscriptPanel keeper={keepers.transcript} captions={captions.cues} isEditable={isEditable} />
          ) : null}
          {mode === 'captions' || mode === 'chapters' ? (
            worked.cues.length === 0 ? (
              <Nothing
                one={isOnChapters ? 'chapter' : 'caption'}
                isEditable={isEditable}
                onBegin={() =>
                  keeper.edit(begunAt(worked.cues, clock.store.state.at, end), 'beginning a caption')
                }
              />
            ) : (
              <CueList
                cues={worked.cues}
                at={worked.at}
                clock={clock}
                rules={captionRules}
                name={isOnChapters ? 'Chapter' : 'Caption'}
                isJudged={!isOnChapters}
                isEditable={isEditable}
                end={end}
                onSelect={(at) => keeper.select(at)}
                onEdit={(edited, name) => keeper.edit(edited, name)}
              />
            )
          ) : null}
        </aside>
      </div>
      <TimeLine
        seconds={asset.film.seconds}
        wave={wave}
        silences={work?.heard?.silences ?? []}
        kept={kept}
        keptSays={sayFilmRecipe(recipe) || 'all of it'}
        lanes={[laneOf('captions'), laneOf('chapters')]}
        clock={clock}
        perSecond={SCALES[scale] ?? 40}
      />
      <KeyStrip one={isOnChapters ? 'chapter' : 'line'} />
      {isMovingAll ? (
        <AllPanel
          cues={captions.cues}
          onChange={(cues) => keepers.captions.edit({ cues, at: captions.at }, 'moving all captions')}
          onClose={() => setMovingAll(false)}
        />
      ) : null}
    </div>
  );
}

const kindOf = (mode: Mode): TrackKind => (mode === 'chapters' || mode === 'transcript' ? mode : 'captions');

/** What is worked on in a language: captions, chapters and transcript, each kept by itself. */
function useKeepers(assetId: string, tracks: readonly CaptionTrack[], language: string) {
  const make = (kind: TrackKind) =>
    new TrackKeeper(
      assetId,
      tracks.find((one) => one.kind === kind && one.language === language) ?? {
        kind,
        language,
        version: 0,
        cues: [],
      },
    );
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is kept meanwhile is what is here; only another film or language is another track.
  const keepers = useMemo(
    () => ({ captions: make('captions'), chapters: make('chapters'), transcript: make('transcript') }),
    [assetId, language],
  );
  useEffect(
    () => () => {
      for (const keeper of Object.values(keepers)) void keeper.flush();
    },
    [keepers],
  );
  return keepers;
}

/** What is made of the film, as it is seen at once and kept. */
function useRecipe(asset: FilmAsset) {
  const [draft, setDraft] = useState<FilmRecipe | null>(null);
  const [isKeeping, setKeeping] = useState(false);
  const change = (recipe: FilmRecipe, name: string) => {
    setDraft(recipe);
    setKeeping(true);
    changePiece(asset.id, { recipe: { ...recipe, leftOut: [...recipe.leftOut] } }, name)
      .catch((error: unknown) => toast.error(sayFailure(error)))
      .finally(() => {
        setDraft(null);
        setKeeping(false);
      });
  };
  return { recipe: draft ?? asset.recipe, isKeeping, change };
}

interface HeaderProps {
  readonly asset: FilmAsset;
  readonly recipe: FilmRecipe;
  readonly mode: Mode;
  readonly onMode: (mode: Mode) => void;
}

function Header({ asset, recipe, mode, onMode }: HeaderProps) {
  const { film, made } = asset;
  const best = made.find(({ format }) => format !== 'webm');
  const facts = [
    sayFilmLength(film),
    film.picture ? `${film.picture.width} × ${film.picture.height}` : '',
    `${sayBytes(film.bytes)} as it came`,
  ].filter(Boolean);
  const says = [
    facts.join(', '),
    best ? `${sayBytes(best.bytes)} for the web` : '',
    sayFilmRecipe(recipe),
  ].filter(Boolean);
  return (
    <header className="flex flex-wrap items-center justify-between gap-3 border-b border-line bg-panel px-4.5 py-2.5">
      <div className="min-w-0">
        <h1 className="truncate font-serif text-2xl leading-7 font-normal italic">
          {asset.label.title || asset.stem}
        </h1>
        <p className="text-sm text-soft">{says.join(' · ')}</p>
      </div>
      <div className="flex flex-wrap gap-2.5">
        {MODES.map((one) => (
          <Button
            key={one}
            aria-pressed={mode === one}
            className="aria-pressed:bg-ink aria-pressed:text-panel"
            onClick={() => onMode(one)}
          >
            {MODE_WORDS[one]}
          </Button>
        ))}
        <LinkButton kind="action" to={`/shelf?piece=${asset.id}`}>
          Done
        </LinkButton>
      </div>
    </header>
  );
}

interface PaneHeadProps {
  readonly mode: Mode;
  readonly asset: FilmAsset;
  readonly language: string;
  readonly count: number;
  readonly asking: number;
  readonly tracks: readonly CaptionTrack[];
  readonly onLanguage: (language: string) => void;
  readonly children: ReactNode;
}

function PaneHead({ mode, language, count, asking, tracks, onLanguage, children }: PaneHeadProps) {
  if (mode === 'trim')
    return (
      <div className="border-b-2 border-ink px-4 py-2.5">
        <h2 className="text-base font-strong">What is made of it</h2>
      </div>
    );
  const kind = kindOf(mode);
  return (
    <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b-2 border-ink px-4 py-2.5">
      <h2 className="text-base font-strong">
        {MODE_WORDS[mode]}, {callLanguage(language)}
      </h2>
      {mode === 'transcript' ? null : (
        <p className="text-soft">{sayLines(count, mode === 'captions' ? asking : 0)}</p>
      )}
      <LanguageMenu kind={kind} language={language} tracks={tracks} count={count} onLanguage={onLanguage} />
      {children ? <div className="flex w-full flex-wrap gap-x-3">{children}</div> : null}
    </div>
  );
}

function sayLines(count: number, asking: number): string {
  const lines = count === 1 ? 'one line' : `${count} lines`;
  if (asking === 0) return lines;
  return `${lines}, ${asking === 1 ? 'one asks' : `${asking} ask`} for a look`;
}

interface KeptSaysProps {
  readonly keeper: TrackKeeper;
  readonly tracks: readonly CaptionTrack[];
  readonly language: string;
  readonly kind: TrackKind;
}

/** Only where something keeps it from being kept. */
function KeptSays({ keeper, tracks, language, kind }: KeptSaysProps) {
  const { keeping } = useStore(keeper.store);
  const theirs = tracks.find((one) => one.kind === kind && one.language === language);
  if (keeping === 'kept' || keeping === 'keeping') return null;
  if (keeping === 'clash')
    return (
      <div className="border-b border-hairline px-4 py-2" role="alert">
        <p className="text-due">Somebody has changed them meanwhile. Nothing of theirs was written over.</p>
        <Button kind="link" onClick={() => keeper.takeTheirs(theirs)}>
          Take theirs
        </Button>{' '}
        <Button kind="link" onClick={() => keeper.keepMine(theirs)}>
          Keep what is here
        </Button>
      </div>
    );
  return (
    <p className="border-b border-hairline px-4 py-2 text-due" role="alert">
      {keeping.failed}{' '}
      <Button kind="link" onClick={() => keeper.keepMine(theirs)}>
        Try again
      </Button>
    </p>
  );
}

function Nothing({
  one,
  isEditable,
  onBegin,
}: {
  readonly one: string;
  readonly isEditable: boolean;
  readonly onBegin: () => void;
}) {
  return (
    <div className="px-4 py-3.5">
      <p>
        None yet.{' '}
        {isEditable
          ? `Let it play: Enter begins a ${one} where it is, and ends it. Or take in a file of them on its label.`
          : ''}
      </p>
      {isEditable ? (
        <Button className="mt-2" onClick={onBegin}>
          Begin a {one} here
        </Button>
      ) : null}
    </div>
  );
}

interface PlayBarProps {
  readonly clock: Clock;
  readonly end: number;
  readonly scale: number;
  readonly onScale: (scale: number) => void;
}

function PlayBar({ clock, end, scale, onScale }: PlayBarProps) {
  const isPlaying = useMoment(clock, (_, playing) => playing);
  const now = useMoment(clock, (at) => shortTime(at));
  return (
    <div className="flex items-center gap-3 border-t border-line bg-panel px-4 py-1.5">
      <Button data-plays onClick={() => clock.toggle()}>
        {isPlaying ? 'Pause' : 'Play'}
      </Button>
      <p className="font-mono text-mono">
        {now} <span className="text-soft">of {shortTime(end)}</span>
      </p>
      <span className="grow" />
      <Button kind="quiet" disabled={scale === 0} onClick={() => onScale(scale - 1)}>
        Wider
      </Button>
      <Button kind="quiet" disabled={scale === SCALES.length - 1} onClick={() => onScale(scale + 1)}>
        Closer
      </Button>
    </div>
  );
}

const KEYS: readonly (readonly [string, string])[] = [
  ['Enter', 'begins a line where it plays, and ends it'],
  ['Space', 'plays'],
  ['← →', 'a second'],
  ['Alt ← →', 'moves its beginning by a tenth, with Shift its end'],
];

function KeyStrip({ one }: { readonly one: string }) {
  return (
    <p
      className={cx(
        'flex flex-wrap gap-x-4 gap-y-1 border-t border-hairline bg-panel px-4.5 py-2 text-sm text-soft max-narrow:hidden',
      )}
    >
      {KEYS.map(([key, does]) => (
        <span key={key}>
          <kbd className="rounded-sm border border-line px-1.25 font-mono text-2xs">{key}</kbd>{' '}
          {does.replace('line', one)}
        </span>
      ))}
    </p>
  );
}

interface WorkKeys {
  readonly clock: Clock;
  readonly keeper: TrackKeeper;
  readonly isEditable: boolean;
  readonly end: number;
  readonly one: string;
}

const SECOND = 1000;
const TENTH = 100;

/** The keys of the work: none of them where somebody types, and none that a button or a menu has for itself. */
function useWorkKeys({ clock, keeper, isEditable, end, one }: WorkKeys) {
  /** The line that Enter began and has not ended yet. */
  const begun = useRef<number | null>(null);
  const area = useRef<HTMLDivElement>(null);
  const onKey = (event: KeyboardEvent) => {
    const { target, key } = event;
    if (!(target instanceof HTMLElement) || event.ctrlKey || event.metaKey || event.defaultPrevented) return;
    // Where nothing of the screen has the focus, its keys are heard all the same.
    if (!area.current?.contains(target) && !target.matches('body,main')) return;
    const isArrow = key === 'ArrowLeft' || key === 'ArrowRight';
    const way = key === 'ArrowLeft' ? -1 : 1;
    const { cues, at } = keeper.store.state;
    const cue = at === null ? undefined : cues[at];
    if (event.altKey && isArrow) {
      event.preventDefault();
      if (!isEditable || at === null || !cue) return;
      const edge = event.shiftKey ? 'to' : 'from';
      keeper.edit(withEdge(cues, at, edge, cue[edge] + way * TENTH), `moving a ${one}`);
      return;
    }
    if (target.closest('textarea,input,select,[role=radio],[role=menu],[role=dialog]')) return;
    if (isArrow && !event.shiftKey) {
      event.preventDefault();
      clock.seek(clock.store.state.at + way * SECOND);
      return;
    }
    const isButton = target.closest('button,a') !== null;
    if (key === ' ' && !isButton) {
      event.preventDefault();
      clock.toggle();
    }
    if (key !== 'Enter' || !isEditable || (isButton && !target.hasAttribute('data-plays'))) return;
    event.preventDefault();
    const moment = clock.store.state.at;
    const open = begun.current;
    if (open !== null && cues[open]) {
      begun.current = null;
      keeper.edit(withEdge(cues, open, 'to', moment), `ending a ${one}`);
      clock.pause();
      focusText(open);
      return;
    }
    const edited = begunAt(cues, moment, end);
    begun.current = edited.at;
    keeper.edit(edited, `beginning a ${one}`);
  };
  const latest = useRef(onKey);
  useEffect(() => {
    latest.current = onKey;
  });
  // Before it is painted: whoever sees the screen may press its keys.
  useLayoutEffect(() => {
    const hear = (event: KeyboardEvent) => latest.current(event);
    document.addEventListener('keydown', hear);
    return () => document.removeEventListener('keydown', hear);
  }, []);
  return area;
}

/** The text of a line: at once, so that no letter that is typed next is lost; once it is drawn where it is not in sight. */
function focusText(at: number): void {
  const find = () => document.querySelector<HTMLTextAreaElement>(`aside [data-index="${at}"] textarea`);
  const text = find();
  if (text) text.focus();
  else requestAnimationFrame(() => find()?.focus());
}
