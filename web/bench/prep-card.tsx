import { FlipHorizontal2, RotateCcw, RotateCw } from 'lucide-react';
import { type FormEvent, useEffect, useState } from 'react';
import type { Asset } from '#api/assets.ts';
import type { CropRect, Ratio } from '#core/media/crop.ts';
import { resizedFrame } from '#core/media/frame.ts';
import {
  AS_IT_CAME,
  type Cuttable,
  changesOf,
  mirroredPrep,
  type Prep,
  type PrepStep,
  recipeForRatio,
  STRAIGHTEN_LIMIT,
  stepsOf,
  turnedPrep,
  wholeSize,
} from '#core/media/recipe.ts';
import { sayTone, type Tone } from '#core/media/tone.ts';
import { cutFileName } from '#core/naming/clash.ts';
import { saySharpness, standingOf } from '#core/page/cut-standing.ts';
import type { CutPreset, HouseRules } from '#core/page/target.ts';
import { judge, sayJudgement } from '#core/rights/judgement.ts';
import { LabelRow } from '../label/row.tsx';
import { Button } from '../ui/button.tsx';
import { MadeRow } from './made-row.tsx';

interface PrepCardProps {
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly rules: HouseRules;
  readonly preset: CutPreset | null;
  readonly isEditable: boolean;
  /** A change that is only looked at while a slider is moved, and one that is kept. */
  readonly onDraft: (prep: Prep) => void;
  readonly onKeep: (prep: Prep, name: string) => void;
  /** Whether a line is being drawn along what should be level. */
  readonly isLevelling: boolean;
  readonly onLevelling: (isLevelling: boolean) => void;
}

/** The label of what is done to a piece: the frame of the cut, turning, straightening, tone, and the steps as sentences. */
export function PrepCard({ asset, piece, rules, preset, isEditable, ...rest }: PrepCardProps) {
  const { onDraft, onKeep, isLevelling, onLevelling } = rest;
  const { prep } = piece;
  const change = (part: Partial<Prep>, name: string) => onKeep({ ...prep, ...part }, name);
  return (
    <article className="label" aria-label={preset ? `Label of the cut ${preset.name}` : 'Label of the piece'}>
      {preset ? <CutHead preset={preset} piece={piece} /> : null}
      <fieldset disabled={!isEditable}>
        {preset?.ratio ? <FrameRow piece={piece} ratio={preset.ratio} onKeep={onKeep} /> : null}
        <TurnRow prep={prep} onKeep={onKeep} />
        <StraightenRow
          prep={prep}
          onDraft={onDraft}
          change={change}
          isLevelling={isLevelling}
          onLevelling={onLevelling}
        />
        <ToneRow prep={prep} onDraft={onDraft} change={change} />
      </fieldset>
      <StepsRow prep={prep} isEditable={isEditable} change={change} onKeep={onKeep} />
      <RightsOfCut asset={asset} piece={piece} rules={rules} preset={preset} />
      {preset ? <Becomes asset={asset} piece={piece} preset={preset} /> : null}
      <MadeRow asset={asset} isEditable={isEditable} />
    </article>
  );
}

function CutHead({ preset, piece }: { readonly preset: CutPreset; readonly piece: Cuttable }) {
  const { times, sentence, isDue } = standingOf(piece, preset);
  return (
    <header className="label-head">
      <h2>
        {preset.name}, {preset.ratio ? `${preset.ratio.across}:${preset.ratio.down}` : 'whole'}
      </h2>
      <p className={isDue ? 'due' : ''}>
        <strong>{times.toFixed(1)} times</strong> the pixels that it needs. {saySharpness(times)}
        {isDue && times >= 1 ? ` ${sentence}` : ''}
      </p>
    </header>
  );
}

interface FrameRowProps {
  readonly piece: Cuttable;
  readonly ratio: Ratio;
  readonly onKeep: PrepCardProps['onKeep'];
}

function FrameRow({ piece, ratio, onKeep }: FrameRowProps) {
  const whole = wholeSize(piece);
  const crop = recipeForRatio(piece, ratio).crop ?? { left: 0, top: 0, width: 1, height: 1 };
  const isFramed = piece.prep.frames.some((frame) => sameRatio(frame.ratio, ratio));
  const keep = (next: CropRect) => onKeep(withFrame(piece.prep, ratio, next), 'framing it by hand');
  return (
    <LabelRow name="Frame">
      <div className="frame-numbers">
        <NumberOf
          name="Left"
          value={Math.round(crop.left * whole.width)}
          onNumber={(px) => keep({ ...crop, left: clamped(px / whole.width, 1 - crop.width) })}
        />
        <NumberOf
          name="Top"
          value={Math.round(crop.top * whole.height)}
          onNumber={(px) => keep({ ...crop, top: clamped(px / whole.height, 1 - crop.height) })}
        />
        <NumberOf
          name="Wide"
          value={Math.round(crop.width * whole.width)}
          onNumber={(px) => keep(resizedFrame(crop, whole, ratio, px / whole.width, { x: 0.5, y: 0.5 }))}
        />
      </div>
      {isFramed ? (
        <Button
          kind="link"
          onClick={() =>
            onKeep(
              { ...piece.prep, frames: piece.prep.frames.filter((frame) => !sameRatio(frame.ratio, ratio)) },
              'following the focal point',
            )
          }
        >
          Follow the focal point again
        </Button>
      ) : (
        <p className="soft">It follows the focal point.</p>
      )}
    </LabelRow>
  );
}

const clamped = (value: number, most: number) => Math.min(most, Math.max(0, value));

function sameRatio(one: Ratio, other: Ratio): boolean {
  return one.across * other.down === other.across * one.down;
}

/** The prep with a crop set by hand for a shape. */
export function withFrame(prep: Prep, ratio: Ratio, crop: CropRect): Prep {
  return {
    ...prep,
    frames: [...prep.frames.filter((frame) => !sameRatio(frame.ratio, ratio)), { ratio, crop }],
  };
}

interface NumberOfProps {
  readonly name: string;
  readonly value: number;
  readonly onNumber: (value: number) => void;
}

/** A number in px that is kept when it is left or Enter is pressed; what is no number is put back. */
function NumberOf({ name, value, onNumber }: NumberOfProps) {
  const [draft, setDraft] = useState(String(value));
  useEffect(() => setDraft(String(value)), [value]);
  const keep = () => {
    const number = Number(draft.trim());
    if (draft.trim() !== '' && Number.isFinite(number) && number !== value) onNumber(number);
    else setDraft(String(value));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    keep();
  };
  return (
    <form onSubmit={submit} className="field">
      <label htmlFor={`frame-${name}`}>{name}</label>
      <input
        id={`frame-${name}`}
        className="input mono"
        inputMode="numeric"
        value={draft}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={keep}
      />
    </form>
  );
}

type Change = (part: Partial<Prep>, name: string) => void;

function TurnRow({ prep, onKeep }: Pick<PrepCardProps, 'onKeep'> & { readonly prep: Prep }) {
  return (
    <LabelRow name="Turn">
      <div className="label-actions">
        <Button onClick={() => onKeep(turnedPrep(prep, 'left'), 'turning it left')}>
          <RotateCcw size={15} aria-hidden="true" /> Left
        </Button>
        <Button onClick={() => onKeep(turnedPrep(prep, 'right'), 'turning it right')}>
          <RotateCw size={15} aria-hidden="true" /> Right
        </Button>
        <Button aria-pressed={prep.mirror} onClick={() => onKeep(mirroredPrep(prep), 'mirroring it')}>
          <FlipHorizontal2 size={15} aria-hidden="true" /> Mirror
        </Button>
      </div>
    </LabelRow>
  );
}

interface SlideProps {
  readonly name: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly says: string;
  readonly isShort?: boolean;
  readonly onMove: (value: number) => void;
  readonly onLet: (value: number) => void;
}

/** A slider that shows at once and keeps when it is let go. A double press puts it back to nothing. */
function Slide({ name, value, least, most, says, onMove, onLet }: SlideProps) {
  return (
    <label className="slide">
      <span>{name}</span>
      <input
        type="range"
        min={least}
        max={most}
        value={value}
        aria-valuetext={says}
        onChange={(event) => onMove(Number(event.target.value))}
        onPointerUp={(event) => onLet(Number(event.currentTarget.value))}
        onKeyUp={(event) => onLet(Number(event.currentTarget.value))}
        onDoubleClick={() => onLet(0)}
      />
      <output className="mono">{says}</output>
    </label>
  );
}

const signed = (value: number, digits = 0) => `${value > 0 ? '+' : ''}${value.toFixed(digits)}`;

interface DraftProps {
  readonly prep: Prep;
  readonly onDraft: (prep: Prep) => void;
  readonly change: Change;
}

type LevelProps = Pick<PrepCardProps, 'isLevelling' | 'onLevelling'>;

function StraightenRow({ prep, onDraft, change, isLevelling, onLevelling }: DraftProps & LevelProps) {
  return (
    <LabelRow name="Straight">
      <Slide
        name="Horizon"
        value={prep.straighten}
        least={-STRAIGHTEN_LIMIT}
        most={STRAIGHTEN_LIMIT}
        says={`${signed(prep.straighten / 10, 1)}°`}
        onMove={(straighten) => onDraft({ ...prep, straighten })}
        onLet={(straighten) => change({ straighten }, 'straightening it')}
      />
      <Button kind="link" aria-pressed={isLevelling} onClick={() => onLevelling(!isLevelling)}>
        {isLevelling ? 'Leave it as it is' : 'Draw a line that should be level'}
      </Button>
    </LabelRow>
  );
}

const TONES = [
  ['light', 'Light'],
  ['contrast', 'Contrast'],
  ['colour', 'Colour'],
  ['warmth', 'Warmth'],
] as const;

const HOUSE_INKS = { dark: '#172126', light: '#f7efe0' } as const;

function ToneRow({ prep, onDraft, change }: DraftProps) {
  const { tone } = prep;
  const to = (part: Partial<Tone>): Tone => ({ ...tone, ...part });
  return (
    <LabelRow name="Tone">
      {TONES.map(([field, name]) => (
        <Slide
          key={field}
          name={name}
          value={tone[field]}
          least={-100}
          most={100}
          says={signed(tone[field])}
          onMove={(value) => onDraft({ ...prep, tone: to({ [field]: value }) })}
          onLet={(value) => change({ tone: to({ [field]: value }) }, `its ${name.toLowerCase()}`)}
        />
      ))}
      <div className="label-actions">
        <label className="check">
          <input
            type="checkbox"
            checked={tone.monochrome}
            onChange={(event) =>
              change({ tone: to({ monochrome: event.target.checked }) }, 'black and white')
            }
          />
          Black and white
        </label>
        <label className="check">
          <input
            type="checkbox"
            checked={tone.inks !== null}
            onChange={(event) =>
              change({ tone: to({ inks: event.target.checked ? HOUSE_INKS : null }) }, 'two inks')
            }
          />
          Two inks
        </label>
      </div>
      {tone.inks ? <Inks prep={prep} onDraft={onDraft} change={change} /> : null}
    </LabelRow>
  );
}

function Inks({ prep, onDraft, change }: DraftProps) {
  const { inks } = prep.tone;
  if (!inks) return null;
  const to = (part: Partial<typeof inks>) => ({ ...prep.tone, inks: { ...inks, ...part } });
  return (
    <div className="label-actions">
      {(['dark', 'light'] as const).map((which) => (
        <label key={which} className="check">
          <input
            type="color"
            className="ink"
            value={inks[which]}
            onChange={(event) => onDraft({ ...prep, tone: to({ [which]: event.target.value }) })}
            onBlur={(event) => change({ tone: to({ [which]: event.target.value }) }, 'its inks')}
          />
          {which === 'dark' ? 'Dark ink' : 'Light ink'}
        </label>
      ))}
    </div>
  );
}

interface StepsProps {
  readonly prep: Prep;
  readonly isEditable: boolean;
  readonly change: Change;
  readonly onKeep: PrepCardProps['onKeep'];
}

/** What is done, as sentences; each can be switched off without being forgotten. */
function StepsRow({ prep, isEditable, change, onKeep }: StepsProps) {
  const steps = stepsOf(prep, sayTone);
  const flip = (step: PrepStep, isOn: boolean) =>
    change(
      { off: isOn ? prep.off.filter((one) => one !== step) : [...prep.off, step] },
      isOn ? 'switching a step on' : 'switching a step off',
    );
  return (
    <LabelRow name="Steps">
      {steps.length === 0 ? (
        <p className="soft">Nothing is done to it. The original stays as it is.</p>
      ) : null}
      {steps.map(({ step, says }) => (
        <label key={step} className="check">
          <input
            type="checkbox"
            disabled={!isEditable}
            checked={!prep.off.includes(step)}
            onChange={(event) => flip(step, event.target.checked)}
          />
          {says}
        </label>
      ))}
      {steps.length > 0 && isEditable ? (
        <Button kind="link" onClick={() => onKeep(AS_IT_CAME, 'putting it back as it came')}>
          Put it back as it came
        </Button>
      ) : null}
    </LabelRow>
  );
}

interface OfCutProps {
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly preset: CutPreset | null;
}

function RightsOfCut({ asset, piece, rules, preset }: OfCutProps & { readonly rules: HouseRules }) {
  const judgement = judge(asset.label, {
    targetName: `the ${rules.name}`,
    commercial: rules.commercial,
    creditOwnWork: rules.creditOwnWork,
    changes: changesOf(recipeForRatio(piece, preset?.ratio ?? null)),
  });
  return (
    <LabelRow name="Rights">
      <p className={judgement.verdict === 'allowed' ? '' : 'due'}>{sayJudgement(judgement)}</p>
    </LabelRow>
  );
}

/** The widths at which a cut is made for ordinary and for sharp screens, and never over its own pixels. */
function Becomes({ asset, piece, preset }: Omit<OfCutProps, 'preset'> & { readonly preset: CutPreset }) {
  const { size } = standingOf(piece, preset);
  const shape = preset.ratio ? `${preset.ratio.across}x${preset.ratio.down}` : '';
  const widths = [...new Set([preset.width * 2, preset.width].map((width) => Math.min(width, size.width)))];
  return (
    <LabelRow name="Becomes">
      {widths.map((width) => (
        <p key={width} className="mono cut-name">
          {cutFileName(asset.stem, shape, width, 'avif')}
        </p>
      ))}
    </LabelRow>
  );
}
