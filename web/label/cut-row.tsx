import { useId } from 'react';
import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { isOriginalFormat, ORIGINAL_FORMATS } from '#core/media/formats.ts';
import { guessBytes, sayBytes } from '#core/media/weight.ts';
import { shownWidth } from '#core/page/layout.ts';
import { planPicture, recipeHere } from '#core/page/picture.ts';
import type { HouseRules } from '#core/page/target.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button } from '../ui/button.tsx';
import { Conditions } from './conditions.tsx';
import { LabelRow, type Use } from './row.tsx';

interface CutRowProps {
  readonly asset: Asset;
  readonly rules: HouseRules;
  readonly use: Use | null;
  readonly isEditable: boolean;
}

/** What is cut from the original, at which sizes; without a use, what the original is. */
export function CutRow({ asset, rules, use, isEditable }: CutRowProps) {
  const format = isOriginalFormat(asset.format) ? ORIGINAL_FORMATS[asset.format].says : asset.format;
  return (
    <LabelRow
      name="Cut"
      way={
        isEditable ? (
          <Link
            className="button open-row"
            data-kind="link"
            to={`/shelf/${asset.id}/bench`}
            aria-label="Prepare it"
          >
            Prepare
          </Link>
        ) : null
      }
    >
      {use && isEditable ? <RatioChips rules={rules} use={use} /> : null}
      {use && isEditable && isReshaped(asset, use) ? <FillOrFit use={use} /> : null}
      {use && isEditable ? <OnlyHere asset={asset} use={use} /> : null}
      <p>
        {use
          ? sayCut(asset, rules, use)
          : `The original is ${asset.original.width} × ${asset.original.height} ${format}, ${sayBytes(asset.bytes)}.`}
      </p>
      <Conditions asset={asset} isEditable={isEditable} />
    </LabelRow>
  );
}

function sayCut(asset: Asset, rules: HouseRules, use: Use): string {
  const { placement } = use;
  const plan = planPicture(rules, placement, pieceOf(asset));
  const shown = Math.round(shownWidth(rules, placement, Math.max(...rules.proofWidths)));
  const widest = plan.ladder.at(-1) ?? shown;
  const shape =
    placement.ratio && (plan.recipe.crop || plan.recipe.pad)
      ? `${plan.recipe.pad ? 'Fitted whole into ' : ''}${placement.ratio.across}:${placement.ratio.down}`
      : 'The whole picture';
  const weight = sayBytes(
    guessBytes(widest, (widest * plan.cutSize.height) / plan.cutSize.width, plan.formats[0]),
  );
  if (plan.cutSize.width < shown) {
    return `${shape} from ${asset.width} × ${asset.height}. Shown ${shown} px wide, so it is enlarged ${(shown / plan.cutSize.width).toFixed(1)} times.`;
  }
  return `${shape} from ${asset.width} × ${asset.height}. ${shown} px, up to ${widest} for sharp screens, about ${weight} as ${plan.formats[0].toUpperCase()}.`;
}

/** Whether it stands in a shape that is not its own, so that there are two ways for it to do so. */
function isReshaped(asset: Asset, { placement }: Use): boolean {
  if (placement.ratio === null) return false;
  return placement.ground !== null || recipeHere(placement, pieceOf(asset)).crop !== null;
}

function RatioChips({ rules, use }: { readonly rules: HouseRules; readonly use: Use }) {
  const name = useId();
  const { ratio } = use.placement;
  const shapes = [
    ...new Map(
      rules.cutPresets.flatMap((preset) =>
        preset.ratio ? [[`${preset.ratio.across}:${preset.ratio.down}`, preset.ratio] as const] : [],
      ),
    ).entries(),
  ];
  const current = ratio ? `${ratio.across}:${ratio.down}` : 'whole';
  const all = [['whole', null] as const, ...shapes];
  return (
    <div className="chips" role="radiogroup" aria-label="Shape">
      {all.map(([words, value]) => (
        <label key={words} className="chip">
          <input
            type="radio"
            name={name}
            checked={current === words}
            onChange={() =>
              use.change({ ratio: value }, value ? `cutting it to ${words}` : 'showing it whole')
            }
          />
          {words}
        </label>
      ))}
    </div>
  );
}

/** The colour of paper, on which a picture is fitted until another is chosen. */
const PAPER = '#ffffff';

/** Where a shape is not the picture's own: filled, cut round the focal point, or the picture whole in it. Never stretched. */
function FillOrFit({ use }: { readonly use: Use }) {
  const name = useId();
  const { ground } = use.placement;
  const ways = [
    ['Fill it', null, 'filling its shape'],
    ['Fit it in whole', ground ?? PAPER, 'fitting it in whole'],
  ] as const;
  return (
    <div className="chips" role="radiogroup" aria-label="How it stands in its shape">
      {ways.map(([words, value, deed]) => (
        <label key={words} className="chip">
          <input
            type="radio"
            name={name}
            checked={(ground === null) === (value === null)}
            onChange={() => use.change({ ground: value }, deed)}
          />
          {words}
        </label>
      ))}
      {ground ? (
        <label className="check">
          <input
            type="color"
            className="ink"
            value={ground}
            onChange={(event) => use.change({ ground: event.target.value }, 'its ground')}
          />
          Ground
        </label>
      ) : null}
    </div>
  );
}

/** A use that is prepared by itself says so; any other can be. */
function OnlyHere({ asset, use }: { readonly asset: Asset; readonly use: Use }) {
  const { id, prep } = use.placement;
  const { pageId } = use;
  return (
    <p>
      {prep ? 'Prepared by itself in this place. ' : null}
      <Link to={`/shelf/${asset.id}/bench?${new URLSearchParams({ page: pageId, use: id })}`}>
        {prep ? 'Change it here alone' : 'Prepare it here alone'}
      </Link>
      {prep ? (
        <>
          {' or '}
          <Button kind="link" onClick={() => use.change({ prep: null }, 'its own recipe here')}>
            as everywhere else
          </Button>
        </>
      ) : null}
    </p>
  );
}
