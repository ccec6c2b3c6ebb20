import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { FilmWork } from '#api/films.ts';
import { sayFilmLength } from '#core/film/facts.ts';
import {
  AIMED_LUFS,
  type FilmRecipe,
  keptSpans,
  madeSeconds,
  madeSize,
  WHOLE_FILM,
} from '#core/film/recipe.ts';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { OneOf } from '../ui/chips.tsx';
import { Slider } from '../ui/slider.tsx';
import { type Clock, useMoment } from './clock.ts';
import { MakingRow } from './making-row.tsx';
import { shortTime } from './say-time.ts';

interface TrimPanelProps {
  readonly asset: Extract<Asset, { readonly kind: 'film' }>;
  readonly recipe: FilmRecipe;
  readonly work: FilmWork | undefined;
  readonly clock: Clock;
  readonly isEditable: boolean;
  readonly onRecipe: (recipe: FilmRecipe, name: string) => void;
}

const TURN_CHOICES = [
  ['0', 'as it is'],
  ['90', 'right'],
  ['180', 'over'],
  ['270', 'left'],
] as const;

const SHAPES = [
  ['whole', 'whole'],
  ['16:9', '16:9'],
  ['4:3', '4:3'],
  ['1:1', '1:1'],
  ['4:5', '4:5'],
  ['9:16', '9:16'],
] as const;
type Shape = (typeof SHAPES)[number][0];

/** What is made of the film: which parts stay, how it stands, how loud it is, and the picture that shows it. */
export function TrimPanel({ asset, recipe, work, clock, isEditable, onRecipe }: TrimPanelProps) {
  const { film } = asset;
  const now = useMoment(clock, shortTime);
  const moment = () => clock.store.state.at;
  const [outFrom, setOutFrom] = useState<number | null>(null);
  const set = (change: Partial<FilmRecipe>, name: string) => onRecipe({ ...recipe, ...change }, name);
  const end = Math.round(film.seconds * 1000);
  const spans = keptSpans(recipe, film.seconds);
  const isPast = useMoment(clock, (at) => outFrom !== null && at > outFrom);
  return (
    <div className="grid min-h-0 content-start gap-4 overflow-y-auto px-4 py-3.5">
      <Section title="Length">
        <p>
          {sayFilmLength({ seconds: madeSeconds(recipe, film.seconds) })} of {sayFilmLength(film)} stay.
        </p>
        {isEditable ? (
          <div className="mt-1.5 flex flex-wrap gap-2">
            <Button onClick={() => set({ from: moment() }, 'the beginning')}>Begin here, {now}</Button>
            <Button onClick={() => set({ to: moment() >= end ? null : moment() }, 'the end')}>
              End here, {now}
            </Button>
            {outFrom === null ? (
              <Button onClick={() => setOutFrom(moment())}>Leave out from here</Button>
            ) : (
              <Button
                kind="action"
                disabled={!isPast}
                onClick={() => {
                  set(
                    { leftOut: [...recipe.leftOut, { from: outFrom, to: moment() }] },
                    'leaving out a part',
                  );
                  setOutFrom(null);
                }}
              >
                Leave out {shortTime(outFrom)} to {now}
              </Button>
            )}
          </div>
        ) : null}
        <ul className="mt-1.5" aria-label="What is left out">
          {recipe.from > 0 ? (
            <Out
              says={`until ${shortTime(recipe.from)}`}
              isEditable={isEditable}
              onBack={() => set({ from: 0 }, 'the beginning')}
            />
          ) : null}
          {recipe.leftOut.map((out) => (
            <Out
              key={`${out.from} ${out.to}`}
              says={`${shortTime(out.from)} to ${shortTime(out.to)}`}
              isEditable={isEditable}
              onBack={() =>
                set({ leftOut: recipe.leftOut.filter((one) => one !== out) }, 'bringing back a part')
              }
            />
          ))}
          {recipe.to !== null ? (
            <Out
              says={`from ${shortTime(recipe.to)}`}
              isEditable={isEditable}
              onBack={() => set({ to: null }, 'the end')}
            />
          ) : null}
        </ul>
        {spans.length === 1 && spans[0]?.from === 0 && recipe.leftOut.length > 0 ? (
          <p className="text-due">Everything would be left out, so nothing is.</p>
        ) : null}
      </Section>
      {film.picture ? (
        <>
          <Section title="Turned">
            <OneOf
              about="Turned"
              value={String(recipe.turn)}
              choices={TURN_CHOICES}
              onChoose={(turn) => {
                if (isEditable) set({ turn: Number(turn) as FilmRecipe['turn'], crop: null }, 'turning it');
              }}
            />
          </Section>
          <Section title="Cropped">
            <OneOf
              about="Shape"
              value={shapeOf(recipe, film.picture)}
              choices={SHAPES}
              onChoose={(shape) => {
                if (isEditable && film.picture)
                  set(
                    { crop: cropTo(shape, madeSize({ turn: recipe.turn, crop: null }, film.picture)) },
                    'cropping it',
                  );
              }}
            />
            {recipe.crop && isEditable ? (
              <Place crop={recipe.crop} onCrop={(crop) => set({ crop }, 'cropping it')} />
            ) : null}
          </Section>
          <Section title="Still">
            <p>
              {recipe.still === null
                ? 'One near its beginning shows it before it plays.'
                : `The picture at ${shortTime(recipe.still)} shows it before it plays.`}
            </p>
            {isEditable ? (
              <div className="mt-1.5 flex flex-wrap gap-2">
                <Button onClick={() => set({ still: moment() }, 'the still')}>
                  Show it by this picture, {now}
                </Button>
                {recipe.still === null ? null : (
                  <Button kind="link" onClick={() => set({ still: null }, 'the still')}>
                    Take the usual one
                  </Button>
                )}
              </div>
            ) : null}
          </Section>
        </>
      ) : null}
      {film.sound ? (
        <Section title="Loudness">
          <p>{sayLoudness(work)}</p>
          <Checkbox
            className="mt-1"
            disabled={
              !isEditable || (work?.heard !== undefined && work.heard !== null && work.heard.lufs === null)
            }
            checked={recipe.isLevelled}
            onChange={(isLevelled) => set({ isLevelled }, 'the loudness')}
          >
            Bring it to −{-AIMED_LUFS} LUFS, as the web is
          </Checkbox>
        </Section>
      ) : null}
      <Section title="For the web">
        <MakingRow asset={asset} work={work} isEditable={isEditable} />
      </Section>
      {isEditable && JSON.stringify(recipe) !== JSON.stringify(WHOLE_FILM) ? (
        <p>
          <Button kind="link" onClick={() => onRecipe(WHOLE_FILM, 'reverting to the film as it came')}>
            Revert to the film as it came
          </Button>
        </p>
      ) : null}
    </div>
  );
}

function Section({ title, children }: { readonly title: string; readonly children: React.ReactNode }) {
  return (
    <section
      aria-label={title}
      className="grid grid-cols-[84px_minmax(0,1fr)] gap-x-3 max-narrow:grid-cols-1"
    >
      <h3 className="text-2xs leading-5 font-semibold text-soft">{title}</h3>
      <div>{children}</div>
    </section>
  );
}

function Out({
  says,
  isEditable,
  onBack,
}: {
  readonly says: string;
  readonly isEditable: boolean;
  readonly onBack: () => void;
}) {
  return (
    <li className="flex items-baseline gap-3">
      <span className="font-mono text-mono">{says}</span>
      {isEditable ? (
        <Button kind="link" aria-label={`Bring back ${says}`} onClick={onBack}>
          Bring it back
        </Button>
      ) : null}
    </li>
  );
}

type Crop = NonNullable<FilmRecipe['crop']>;

/** Where the part that stays lies in what is left over, across or down. */
function Place({ crop, onCrop }: { readonly crop: Crop; readonly onCrop: (crop: Crop) => void }) {
  const isAcross = crop.width < 1;
  const free = isAcross ? 1 - crop.width : 1 - crop.height;
  const name = isAcross ? 'From left to right' : 'From top to bottom';
  const [drawn, setDrawn] = useState<number | null>(null);
  const value = drawn ?? Math.round(((isAcross ? crop.left : crop.top) / Math.max(0.0001, free)) * 100);
  return (
    <div className="mt-2">
      <p className="text-2xs font-semibold text-soft">{name}</p>
      <Slider
        aria-label={name}
        aria-valuetext={`${value} %`}
        min={0}
        max={100}
        step={1}
        value={value}
        onChange={setDrawn}
        onSettle={(settled) => {
          const part = (settled / 100) * free;
          setDrawn(null);
          onCrop(isAcross ? { ...crop, left: part } : { ...crop, top: part });
        }}
      />
    </div>
  );
}

function cropTo(
  shape: Shape,
  { width, height }: { readonly width: number; readonly height: number },
): Crop | null {
  if (shape === 'whole') return null;
  const [across = 1, down = 1] = shape.split(':').map(Number);
  const wanted = (across / down) * height;
  if (wanted < width) return { left: (1 - wanted / width) / 2, top: 0, width: wanted / width, height: 1 };
  const high = ((down / across) * width) / height;
  return high >= 1 ? null : { left: 0, top: (1 - high) / 2, width: 1, height: high };
}

function shapeOf(
  recipe: FilmRecipe,
  picture: { readonly width: number; readonly height: number },
): Shape | null {
  if (!recipe.crop) return 'whole';
  const size = madeSize({ turn: recipe.turn, crop: null }, picture);
  const near = (one: number, other: number) => Math.abs(one - other) < 0.005;
  const found = SHAPES.find(([shape]) => {
    const crop = cropTo(shape, size);
    return crop && near(crop.width, recipe.crop?.width ?? 0) && near(crop.height, recipe.crop?.height ?? 0);
  });
  return found?.[0] ?? null;
}

function sayLoudness(work: FilmWork | undefined): string {
  const heard = work?.heard;
  if (!heard) return 'It is being listened to.';
  if (heard.lufs === null) return 'It is silent.';
  const by = heard.lufs - AIMED_LUFS;
  const against =
    Math.abs(by) < 1
      ? 'as loud as the web is'
      : `${Math.abs(by).toFixed(1)} LU ${by > 0 ? 'louder' : 'quieter'} than the web is`;
  return `${heard.lufs.toFixed(1).replace('-', '−')} LUFS, ${against}.`;
}
