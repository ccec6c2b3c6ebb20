import { Link } from 'react-router';
import type { Asset } from '#api/assets.ts';
import { isOriginalFormat, ORIGINAL_FORMATS } from '#core/media/formats.ts';
import { guessBytes, sayBytes } from '#core/media/weight.ts';
import { shownWidth } from '#core/page/layout.ts';
import { planPicture, recipeHere } from '#core/page/picture.ts';
import type { HouseRules } from '#core/page/target.ts';
import { pieceOf } from '../pieces/pieces.ts';
import { Button, LinkButton } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { ColourField } from '../ui/colour.tsx';
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
          <LinkButton
            className="min-h-6 text-sm"
            kind="link"
            to={`/shelf/${asset.id}/bench`}
            aria-label="Prepare it"
          >
            Prepare
          </LinkButton>
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
  const { placement, room } = use;
  const plan = planPicture(rules, use, pieceOf(asset));
  const shown = Math.round(shownWidth(rules, placement, room, Math.max(...rules.proofWidths)));
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
  return placement.backgroundColour !== null || recipeHere(placement, pieceOf(asset)).crop !== null;
}

function RatioChips({ rules, use }: { readonly rules: HouseRules; readonly use: Use }) {
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
    <OneOf
      about="Shape"
      value={current}
      choices={all.map(([words]) => [words, words] as const)}
      onChoose={(words) => {
        const value = all.find(([one]) => one === words)?.[1] ?? null;
        use.change({ ratio: value }, value ? `cutting it to ${words}` : 'showing it whole');
      }}
    />
  );
}

/** The colour of paper, on which a picture is fitted until another is chosen. */
const PAPER = '#ffffff';

const FILLED = 'Fill it';
const FITTED = 'Fit it in whole';

/** Where a shape is not the picture's own: filled, cut round the focal point, or the picture whole in it. Never stretched. */
function FillOrFit({ use }: { readonly use: Use }) {
  const { backgroundColour: ground } = use.placement;
  return (
    <OneOf
      about="How it stands in its shape"
      value={ground === null ? FILLED : FITTED}
      choices={[
        [FILLED, FILLED],
        [FITTED, FITTED],
      ]}
      onChoose={(way) =>
        way === FILLED
          ? use.change({ backgroundColour: null }, 'filling its shape')
          : use.change({ backgroundColour: PAPER }, 'fitting it in whole')
      }
    >
      {ground ? (
        <ColourField
          name="Ground"
          value={ground}
          onMove={(colour) => use.change({ backgroundColour: colour }, 'its ground')}
        />
      ) : null}
    </OneOf>
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
