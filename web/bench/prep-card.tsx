import type { Asset } from '#api/assets.ts';
import type { Lights } from '#core/media/over-contrast.ts';
import { type Cuttable, type Prep, wholeSize } from '#core/media/recipe.ts';
import { cutFileName } from '#core/naming/clash.ts';
import { saySharpness, standingOf } from '#core/page/cut-standing.ts';
import { overStanding } from '#core/page/over-standing.ts';
import type { CutPreset, HouseRules } from '#core/page/target.ts';
import { LabelRow } from '../label/row.tsx';
import { FieldSet } from '../ui/field-set.tsx';
import { CropRow } from './crop-row.tsx';
import { FrameRow } from './frame-row.tsx';
import { GroundRow } from './ground-row.tsx';
import { MadeRow } from './made-row.tsx';
import { OverRow } from './over-row.tsx';
import type { Keep } from './prep-change.ts';
import { judgeCut, RightsOfCut } from './rights-of-cut.tsx';
import { StepsRow } from './steps-row.tsx';
import { type LevelProps, StraightenRow } from './straighten-row.tsx';
import { ToneRow } from './tone-row.tsx';
import { TurnRow } from './turn-row.tsx';

interface PrepCardProps extends LevelProps {
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly rules: HouseRules;
  readonly preset: CutPreset | null;
  readonly isEditable: boolean;
  /** Known while words stand over it. */
  readonly lights: Lights | undefined;
  /** A change that is only looked at while a slider is moved, and one that is kept. */
  readonly onDraft: (prep: Prep) => void;
  readonly onKeep: Keep;
}

/** The label of what is done to a piece: the frame of the cut, turning, straightening, tone, and the steps as sentences. */
export function PrepCard({ asset, piece, rules, preset, isEditable, lights, ...rest }: PrepCardProps) {
  const { onDraft, onKeep, isLevelling, onLevelling } = rest;
  const { prep } = piece;
  const change = (part: Partial<Prep>, name: string) => onKeep({ ...prep, ...part }, name);
  const judgement = judgeCut(asset, piece, rules, preset);
  // What its licence forbids is said where it is done, and before what it could still be.
  const forbids = judgement.reasons.some(({ code }) => code === 'no-changes');
  const rights = (
    <RightsOfCut
      asset={asset}
      prep={prep}
      rules={rules}
      judgement={judgement}
      isEditable={isEditable}
      onKeep={onKeep}
    />
  );
  return (
    <article
      className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
      aria-label={preset ? `Label of the cut ${preset.name}` : 'Label of the piece'}
    >
      {preset ? <CutHead preset={preset} piece={piece} /> : <PieceHead piece={piece} />}
      {forbids ? rights : null}
      <FieldSet disabled={!isEditable}>
        {preset?.ratio ? <FrameRow piece={piece} ratio={preset.ratio} onKeep={onKeep} /> : null}
        {preset ? null : <CropRow piece={piece} rules={rules} onKeep={onKeep} />}
        <TurnRow prep={prep} onKeep={onKeep} />
        <StraightenRow
          prep={prep}
          onDraft={onDraft}
          change={change}
          isLevelling={isLevelling}
          onLevelling={onLevelling}
        />
        <ToneRow prep={prep} onDraft={onDraft} change={change} />
        <OverRow
          asset={asset}
          rules={rules}
          prep={prep}
          standing={preset ? overStanding(piece, preset, lights) : undefined}
          onDraft={onDraft}
          change={change}
        />
        {asset.alpha ? <GroundRow prep={prep} onDraft={onDraft} change={change} /> : null}
      </FieldSet>
      <StepsRow prep={prep} isEditable={isEditable} change={change} onKeep={onKeep} />
      {forbids ? null : rights}
      {preset ? <Becomes asset={asset} piece={piece} preset={preset} /> : null}
      <MadeRow asset={asset} isEditable={isEditable} />
    </article>
  );
}

function CutHead({ preset, piece }: { readonly preset: CutPreset; readonly piece: Cuttable }) {
  const { times, sentence, isDue } = standingOf(piece, preset);
  return (
    <header className="pt-3 pb-2.75">
      <h2 className="mb-1.5 text-lg">
        {preset.name}, {preset.ratio ? `${preset.ratio.across}:${preset.ratio.down}` : 'whole'}
      </h2>
      <p className={isDue ? 'text-due' : ''}>
        <strong>{times.toFixed(1)} times</strong> the pixels that it needs. {saySharpness(times)}
        {isDue && times >= 1 ? ` ${sentence}` : ''}
      </p>
    </header>
  );
}

function PieceHead({ piece }: { readonly piece: Cuttable }) {
  const { width, height } = wholeSize(piece);
  return (
    <header className="pt-3 pb-2.75">
      <h2 className="mb-1.5 text-lg">The piece itself</h2>
      <p>
        {width} × {height}. What is done here holds for every use of it.
      </p>
    </header>
  );
}

interface OfCutProps {
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly preset: CutPreset | null;
}

/** The widths at which a cut is made for ordinary and for sharp screens, and never over its own pixels. */
function Becomes({ asset, piece, preset }: Omit<OfCutProps, 'preset'> & { readonly preset: CutPreset }) {
  const { size } = standingOf(piece, preset);
  const shape = preset.ratio ? `${preset.ratio.across}x${preset.ratio.down}` : '';
  const widths = [...new Set([preset.width * 2, preset.width].map((width) => Math.min(width, size.width)))];
  return (
    <LabelRow name="Becomes">
      {widths.map((width) => (
        <p key={width} className="font-mono text-mono wrap-anywhere">
          {cutFileName(asset.stem, shape, width, 'avif')}
        </p>
      ))}
    </LabelRow>
  );
}
