import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import type { Asset } from '#api/assets.ts';
import type { CaptionTrack } from '#api/captions.ts';
import { mayChangePiece } from '#api/people.ts';
import type { TrackKind } from '#core/film/cue.ts';
import { begunAt } from '#core/film/edit-cues.ts';
import { judgeCue, mendCues } from '#core/film/judge-cues.ts';
import { type FilmRecipe, keptSpans, sayFilmRecipe } from '#core/film/recipe.ts';
import { captionRulesOf } from '#core/film/rules.ts';
import { readWave } from '#core/film/wave.ts';
import { type HouseRules, strictest } from '#core/page/target.ts';
import { primaryOf } from '#core/words/language-tag.ts';
import { sayFailure } from '../api/client.ts';
import { assetQuery, meQuery, targetsQuery } from '../api/queries.ts';
import { Unanswered } from '../api/unanswered.tsx';
import { useOffer } from '../frame/commands.ts';
import { changePiece, putPieces, usePiece } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import { toast } from '../ui/toast.ts';
import { AllPanel } from './all-panel.tsx';
import { useClock } from './clock.ts';
import { CueList } from './cue-list.tsx';
import { FilmHeader } from './film-header.tsx';
import { KeptSays } from './kept-says.tsx';
import { kindOf, MODE_WORDS, MODES } from './modes.ts';
import { PaneHead } from './pane-head.tsx';
import { PlayBar } from './play-bar.tsx';
import { firstScale, SCALES } from './scales.ts';
import { Stage } from './stage.tsx';
import { type LaneOf, TimeLine } from './time-line.tsx';
import { TrackKeeper } from './track-keeper.ts';
import { tracksQuery } from './tracks.ts';
import { TranscriptPanel } from './transcript-panel.tsx';
import { TrimPanel } from './trim-panel.tsx';
import { useFilmWork } from './use-film-work.ts';
import { KeyStrip, useWorkKeys } from './work-keys.tsx';

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

interface FilmProps {
  readonly asset: FilmAsset;
  readonly rules: HouseRules;
  readonly tracks: readonly CaptionTrack[];
  readonly isEditable: boolean;
}

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
      <FilmHeader asset={asset} recipe={recipe} mode={mode} onMode={(show) => go({ show })} />
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
                  keeper.edit(
                    begunAt(worked.cues, clock.store.state.at, end),
                    `beginning a ${isOnChapters ? 'chapter' : 'caption'}`,
                  )
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
