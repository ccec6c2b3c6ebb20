import type { Asset } from '#api/assets.ts';
import { heightAtWidth } from '#core/media/dimensions.ts';
import type { Lights } from '#core/media/over-contrast.ts';
import { type Cuttable, recipeForRatio, wholeRecipe, wholeSize } from '#core/media/recipe.ts';
import { standingOf } from '#core/page/cut-standing.ts';
import { overStanding } from '#core/page/over-standing.ts';
import type { CutPreset, HouseRules } from '#core/page/target.ts';
import { OverHere } from '../over/over-here.tsx';
import { Prepared } from './prepared.tsx';

interface CutListProps {
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly rules: HouseRules;
  /** Known while words stand over it. */
  readonly lights: Lights | undefined;
  readonly open: CutPreset | null;
  /** Null opens the piece itself. */
  readonly onOpen: (preset: CutPreset | null) => void;
}

const THUMB_WIDTH_PX = 84;
const THUMB_HEIGHT_PX = 66;

/** Every cut of the target at once, live, each with how it stands. */
export function CutList({ asset, piece, rules, lights, open, onOpen }: CutListProps) {
  const whole = wholeSize(piece);
  return (
    <nav className="cut-list" aria-label="Cuts">
      <h2>For every use</h2>
      <ul>
        <li>
          <button type="button" aria-pressed={open === null} onClick={() => onOpen(null)}>
            <span className="cut-thumb">
              <Prepared
                piece={piece}
                view={asset.plainView}
                width={Math.min(THUMB_WIDTH_PX, (THUMB_HEIGHT_PX * whole.width) / whole.height)}
                crop={null}
                alt=""
              />
            </span>
            <span>
              <strong>The piece itself</strong>
              <span className="mono soft">
                {whole.width} × {whole.height}
              </span>
              <span>{wholeRecipe(piece).crop ? 'Cropped by you.' : 'In its own shape.'}</span>
            </span>
          </button>
        </li>
      </ul>
      <h2>Cuts for the {rules.name}</h2>
      <ul>
        {rules.cutPresets.map((preset) => {
          const standing = standingOf(piece, preset);
          const height = heightAtWidth(standing.size, preset.width);
          const aspect = standing.size.width / standing.size.height;
          const thumbWidth = Math.min(THUMB_WIDTH_PX, THUMB_HEIGHT_PX * aspect);
          const { crop, words } = recipeForRatio(piece, preset.ratio);
          const isFaint = overStanding(piece, preset, lights)?.isFaint ?? false;
          return (
            <li key={preset.id}>
              <button type="button" aria-pressed={open?.id === preset.id} onClick={() => onOpen(preset)}>
                <span className="cut-thumb">
                  <span className="cut-picture">
                    <Prepared piece={piece} view={asset.plainView} width={thumbWidth} crop={crop} alt="" />
                    {words ? (
                      <OverHere
                        words={words}
                        left={0}
                        top={0}
                        width={thumbWidth}
                        height={thumbWidth / aspect}
                      />
                    ) : null}
                  </span>
                </span>
                <span>
                  <strong>
                    {preset.name}{' '}
                    <span className="soft">
                      {preset.ratio ? `${preset.ratio.across}:${preset.ratio.down}` : 'whole'}
                    </span>
                  </strong>
                  <span className="mono soft">
                    {preset.width} × {height}
                  </span>
                  <span className={standing.isDue ? 'due' : ''}>{standing.sentence}</span>
                  {isFaint ? <span className="due">Its words hardly stand out.</span> : null}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </nav>
  );
}
